import { messageOf } from '@fresh-reel/core';
import { memo, useMemo, useState } from 'react';
import { StyleSheet, View } from 'react-native';
import { pickFile } from '../disk/pickFile';
import { deleteFont } from '../storage/fonts';
import { Banner } from '../ui/Banner';
import { Button, IconButton } from '../ui/Button';
import { Field } from '../ui/Field';
import { Icon } from '../ui/Icon';
import { Press } from '../ui/Press';
import { Radio, RadioGroup } from '../ui/RadioGroup';
import { Sheet } from '../ui/Sheet';
import { Txt } from '../ui/Txt';
import { CORNER, colour, TOUCH } from '../ui/theme';
import { useNearScreen } from '../ui/useNearScreen';
import { importFont } from './importFont';
import { type ListedFamily, useFamilies, useSampleFace } from './useFamilies';

const FONT_FILES = '.ttf,.otf,.woff2,font/ttf,font/otf,font/woff2';

const GROUPS: readonly { id: ListedFamily['group']; name: string }[] = [
  { id: 'yours', name: 'Your own' },
  { id: 'display', name: 'Display' },
  { id: 'text', name: 'Text' },
  { id: 'hand', name: 'Hand' },
  { id: 'mono', name: 'Mono' },
  { id: 'scripts', name: 'Other scripts' },
];

interface Props {
  readonly name: string;
  readonly value: string;
  readonly onChange: (family: string) => void;
  readonly testID?: string;
}

/** A font family: its name in its own letters; a touch opens the list. */
export function FontField({ name, value, onChange, testID }: Props) {
  const [open, setOpen] = useState(false);
  const families = useFamilies();
  const chosen = families.find((f) => f.family === value);
  return (
    <>
      <Press
        role="button"
        aria-label={`${name}: ${value}. Change`}
        onPress={() => setOpen(true)}
        style={styles.field}
        testID={testID}
      >
        {chosen ? <Sample family={chosen} /> : <Txt style={styles.grow}>{value}, not here any more</Txt>}
        <Icon name="chevron-down" tint={colour.ink} />
      </Press>
      {open && (
        <FontSheet
          value={value}
          onChoose={(family) => {
            onChange(family);
            setOpen(false);
          }}
          onClose={() => setOpen(false)}
        />
      )}
    </>
  );
}

function FontSheet({
  value,
  onChoose,
  onClose,
}: {
  value: string;
  onChoose: (family: string) => void;
  onClose: () => void;
}) {
  const families = useFamilies();
  const [search, setSearch] = useState('');
  const [fault, setFault] = useState<string>();
  const shown = useMemo(
    () => families.filter((f) => f.family.toLowerCase().includes(search.trim().toLowerCase())),
    [families, search],
  );
  const add = async () => {
    const file = await pickFile(FONT_FILES);
    if (!file) return;
    try {
      setFault(undefined);
      const { family } = await importFont(file);
      onChoose(family);
    } catch (error) {
      setFault(messageOf(error));
    }
  };
  const forget = async (family: ListedFamily) => {
    for (const record of family.own ?? []) await deleteFont(record);
  };
  return (
    <Sheet title="Font" onClose={onClose} testID="font-sheet">
      <View style={styles.top}>
        <View style={styles.grow}>
          <Field
            label="Find a font"
            hideLabel
            placeholder="Find a font"
            value={search}
            onChangeText={setSearch}
            testID="font-search"
          />
        </View>
        <Button title="Add yours" icon="plus" small onPress={() => void add()} testID="add-font" />
      </View>
      {fault && (
        <Banner kind="fault" testID="font-fault">
          {fault}
        </Banner>
      )}
      {GROUPS.map(({ id, name }) => {
        const own = shown.filter((f) => f.group === id);
        return own.length === 0 ? null : (
          <RadioGroup
            key={id}
            label={name}
            ids={own.map((f) => f.family)}
            value={value}
            onChange={onChoose}
            browse
          >
            <Txt kind="label" tone="quiet">
              {name}
            </Txt>
            {own.map((family) => (
              <View key={family.family} style={styles.line}>
                <Radio
                  id={family.family}
                  label={family.family}
                  style={[styles.option, family.family === value && styles.chosen]}
                  testID={`font-${family.family}`}
                >
                  <Sample family={family} />
                </Radio>
                {family.own && (
                  <IconButton
                    icon="trash"
                    label={`Remove ${family.family}`}
                    onPress={() => void forget(family)}
                  />
                )}
              </View>
            ))}
          </RadioGroup>
        );
      })}
      {shown.length === 0 && (
        <Txt tone="quiet">No font here has that name. Add your own TTF, OTF or WOFF2.</Txt>
      )}
    </Sheet>
  );
}

/** A family's name in its own letters, loaded once it comes into view. */
const Sample = memo(function Sample({ family }: { family: ListedFamily }) {
  const { ref, near } = useNearScreen();
  return (
    <View ref={ref} style={styles.sample}>
      {near ? <Written family={family} /> : <Txt>{family.family}</Txt>}
    </View>
  );
});

function Written({ family }: { family: ListedFamily }) {
  const face = useSampleFace(family);
  return (
    <Txt numberOfLines={1} style={face ? { fontFamily: face, fontSize: 20, lineHeight: 28 } : undefined}>
      {family.family}
    </Txt>
  );
}

const styles = StyleSheet.create({
  field: {
    minHeight: TOUCH,
    flexDirection: 'row',
    alignItems: 'center',
    gap: 8,
    paddingHorizontal: 12,
    borderWidth: 1,
    borderColor: colour.edge,
    borderRadius: CORNER,
    backgroundColor: colour.card,
  },
  top: { flexDirection: 'row', gap: 8, alignItems: 'center' },
  grow: { flex: 1 },
  sample: { flexGrow: 1, flexShrink: 1, minHeight: 28, justifyContent: 'center' },
  line: { flexDirection: 'row', alignItems: 'center' },
  option: { flex: 1, minHeight: TOUCH, justifyContent: 'center', paddingHorizontal: 10, borderRadius: 8 },
  chosen: { backgroundColor: colour.accentTint },
});
