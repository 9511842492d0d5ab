import { editionChanges, messageOf, type Template } from '@fresh-reel/core';
import { useRouter } from 'expo-router';
import { useState } from 'react';
import { StyleSheet, View } from 'react-native';
import { useReels } from '../storage/queries';
import { editionOf } from '../storage/templates';
import { useEditions, useRemoveTemplate, useStoreTemplate } from '../storage/useTemplates';
import { Button } from '../ui/Button';
import { Part } from '../ui/Part';
import { Press } from '../ui/Press';
import { Sheet } from '../ui/Sheet';
import { useToast } from '../ui/Toast';
import { Txt } from '../ui/Txt';
import { CORNER, colour } from '../ui/theme';
import { InStep } from './InStep';
import { lookFill } from './Looks';
import { NameAndSet } from './NameAndSet';

/** What the user does with a template of theirs: names it, goes back to an edition, takes it out. */
export function OwnTemplate({ template }: { template: Template }) {
  const [naming, setNaming] = useState(false);
  const [leaving, setLeaving] = useState(false);
  return (
    <Part title="Yours">
      <Txt tone="quiet">Reels made with it keep a copy of their own.</Txt>
      <View style={styles.row}>
        <Button title="Name and set" icon="pencil" onPress={() => setNaming(true)} testID="name-template" />
        <Button
          title="Take it out"
          icon="trash"
          onPress={() => setLeaving(true)}
          testID="take-out-template"
        />
      </View>
      <Editions template={template} />
      {naming && <NamingSheet template={template} onClose={() => setNaming(false)} />}
      {leaving && <LeavingSheet template={template} onClose={() => setLeaving(false)} />}
    </Part>
  );
}

/** The editions there are, each to be looked at beside the present one; nothing where it is the only one. */
function Editions({ template }: { template: Template }) {
  const { data: editions = [] } = useEditions(template.id);
  const [looked, setLooked] = useState<Template>();
  if (editions.length < 2) return null;
  return (
    <View style={styles.list} testID="editions" role="group" aria-label="Editions">
      {editions.map((edition) => {
        const number = editionOf(edition);
        const present = number === editionOf(template);
        return present ? (
          <Txt key={number} kind="strong">{`Edition ${number}, the present one`}</Txt>
        ) : (
          <Press
            key={number}
            role="button"
            aria-label={`Edition ${number}: look at it`}
            onPress={() => setLooked(edition)}
            style={styles.edition}
            testID={`edition-${number}`}
          >
            <Txt>{`Edition ${number}`}</Txt>
            <Txt kind="small" tone="quiet">
              look at it
            </Txt>
          </Press>
        );
      })}
      {looked && <EditionSheet present={template} other={looked} onClose={() => setLooked(undefined)} />}
    </View>
  );
}

/** An edition beside the present one; going back to it makes it the newest, so nothing is lost. */
function EditionSheet({
  present,
  other,
  onClose,
}: {
  present: Template;
  other: Template;
  onClose: () => void;
}) {
  const store = useStoreTemplate();
  const toast = useToast();
  const changes = editionChanges(present, other);
  const sides = [
    {
      name: `Edition ${editionOf(present)}, now`,
      template: present,
      fill: lookFill(present, undefined, undefined),
    },
    { name: `Edition ${editionOf(other)}`, template: other, fill: lookFill(other, undefined, undefined) },
  ] as const;
  const goBack = () =>
    void store(other, 'edition').then(
      (newest) => {
        onClose();
        toast({ text: `Edition ${editionOf(newest)} is edition ${editionOf(other)} again.` });
      },
      (error: unknown) => toast({ text: messageOf(error) }),
    );
  return (
    <Sheet title={`Edition ${editionOf(other)}`} onClose={onClose} testID="edition-sheet">
      <InStep sides={sides} shape={present.shape} />
      <View style={styles.list}>
        {changes.map((line) => (
          <Txt key={line}>{line}</Txt>
        ))}
      </View>
      <View style={styles.row}>
        <Button title="Go back to it" kind="next" onPress={goBack} testID="edition-take" />
      </View>
    </Sheet>
  );
}

function NamingSheet({ template, onClose }: { template: Template; onClose: () => void }) {
  const [name, setName] = useState(template.name);
  const [set, setSet] = useState(template.set ?? '');
  const store = useStoreTemplate();
  const toast = useToast();
  const nameless = name.trim() === '';
  const save = () => {
    const { set: _, ...rest } = template;
    const belongs = set.trim();
    const next: Template = { ...rest, name: name.trim(), ...(belongs ? { set: belongs } : {}) };
    void store(next, 'another').then(onClose, (error: unknown) => toast({ text: messageOf(error) }));
  };
  return (
    <Sheet title="Name and set" onClose={onClose} testID="naming-sheet">
      <NameAndSet name={name} onName={setName} set={set} onSet={setSet} testID="own" />
      <View style={styles.row}>
        <Button title="Keep these" kind="next" disabled={nameless} onPress={save} testID="own-save" />
      </View>
    </Sheet>
  );
}

/** Asks once, and says where it is used. */
function LeavingSheet({ template, onClose }: { template: Template; onClose: () => void }) {
  const { data: reels = [] } = useReels();
  const { remove, restore } = useRemoveTemplate();
  const router = useRouter();
  const toast = useToast();
  const failed = (error: unknown) => toast({ text: messageOf(error) });
  const using = reels.flatMap((r) =>
    r.kind === 'reel' && r.summary.templateIds.includes(template.id) ? [r.summary.name] : [],
  );
  const takeOut = () =>
    void remove(template).then(() => {
      router.replace('/templates');
      toast({
        text: `“${template.name}” is taken out. Reels made with it stay as they are.`,
        action: { title: 'Put it back', run: () => void restore(template).catch(failed) },
      });
    }, failed);
  return (
    <Sheet title={`Take out “${template.name}”?`} onClose={onClose} testID="leaving-sheet">
      <Txt testID="leaving-used">
        {using.length === 0
          ? 'No reel is made with it.'
          : `Made with it: ${using.map((name) => `“${name}”`).join(', ')}. ${using.length === 1 ? 'It keeps its' : 'They keep their'} copy and lose nothing.`}
      </Txt>
      <Txt tone="quiet">It can be put back from the end of Templates.</Txt>
      <View style={styles.row}>
        <Button title="Take it out" kind="danger" onPress={takeOut} testID="leaving-do" />
        <Button title="Leave it" onPress={onClose} />
      </View>
    </Sheet>
  );
}

const styles = StyleSheet.create({
  row: { flexDirection: 'row', flexWrap: 'wrap', gap: 10 },
  list: { gap: 6 },
  edition: {
    flexDirection: 'row',
    justifyContent: 'space-between',
    alignItems: 'center',
    minHeight: 44,
    paddingHorizontal: 12,
    borderWidth: 1,
    borderColor: colour.hairline,
    borderRadius: CORNER,
  },
});
