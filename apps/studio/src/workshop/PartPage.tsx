import type { Layer } from '@fresh-reel/core';
import {
  changePart,
  type Field,
  fieldsOfKind,
  MOVES,
  type MoveId,
  NOT_OF_GRAIN,
  nameOfPart,
  partOf,
  setMove,
  textKept,
  wordsToSlot,
} from '@fresh-reel/core/make';
import { memo, useDeferredValue, useMemo, useState } from 'react';
import { StyleSheet, View } from 'react-native';
import { ReelEditorProvider, useReelEditor } from '../editing/session/useReelEditor';
import { TextSheet, type TextTab } from '../editing/words/TextSheet';
import { Button } from '../ui/Button';
import { Choice } from '../ui/Choice';
import { Field as TextField } from '../ui/Field';
import { Icon } from '../ui/Icon';
import { Press } from '../ui/Press';
import { Sheet } from '../ui/Sheet';
import { Txt } from '../ui/Txt';
import { colour } from '../ui/theme';
import { FieldRow } from './fields/FieldRows';
import { StandInPart } from './StandInPart';
import { isPart, useMade, useWorkActions } from './work/useWork';

/** Fields of every part, by what they are about; a part's own come first. */
const SECTIONS = [
  {
    id: 'place',
    name: 'Place and size',
    keys: [
      'at',
      'offset',
      'origin',
      'size',
      'hug',
      'row',
      'scale',
      'turn',
      'move',
      'skew',
      'pivot',
      'placing',
    ],
  },
  {
    id: 'shows',
    name: 'When it shows',
    keys: ['span', 'visible', 'opacity', 'needs', 'reads', 'repeat', 'stutter', 'afterimage'],
  },
  { id: 'over', name: 'Blend, mask and effects', keys: ['blend', 'mask', 'matte', 'effects'] },
] as const;
const SHARED: ReadonlySet<string> = new Set([
  ...SECTIONS.flatMap((s) => s.keys),
  'id',
  'name',
  'kind',
  'standIn',
]);

/**
 * The page of the part that is chosen. That it is shows at once, its many fields right after; until then those of the
 * one before stand there and take no touch.
 */
export function ChosenPart({ id }: { id: string }) {
  const { template } = useMade();
  const late = useDeferredValue<string | undefined>(id, undefined);
  const shown = late !== undefined && isPart(template, late) ? late : undefined;
  return (
    <View aria-busy={shown !== id} style={shown !== id && styles.late}>
      {shown !== undefined && <PartPage key={shown} id={shown} />}
    </View>
  );
}

/** All that one part is made of. */
const PartPage = memo(function PartPage({ id }: { id: string }) {
  const { template, makePart } = useMade();
  const layer = partOf(template, id);
  const all = fieldsOfKind(layer.kind).fields;
  const fields = layer.kind === 'grain' ? all.filter((f) => !NOT_OF_GRAIN.has(String(f.key))) : all;
  // The size of words is that of their letters.
  const isOwn = (f: Field) => !SHARED.has(String(f.key)) || (layer.kind === 'text' && f.key === 'size');
  const own = fields.filter(isOwn);
  const kindName = KIND_NAMES[layer.kind];
  return (
    <View style={styles.all} testID="part-page">
      <PartName key={id} layer={layer} />
      {layer.kind === 'text' && <WordsPart layer={layer} />}
      {layer.kind !== 'text' && layer.kind !== 'grain' && (
        <Choice
          label="How it comes and goes"
          value={undefined}
          options={MOVES}
          onChange={(move) => makePart(id, (t) => setMove(t, id, move as MoveId))}
          testID="part-move"
        />
      )}
      <Section id={id} name={kindName} fields={own} open />
      {SECTIONS.map((section) => (
        <Section
          key={section.id}
          id={id}
          name={section.name}
          fields={section.keys.flatMap((key) => fields.filter((f) => f.key === key && !isOwn(f)))}
        />
      ))}
      <StandInPart layer={layer} />
    </View>
  );
});

const KIND_NAMES: Readonly<Record<Layer['kind'], string>> = {
  text: 'The words',
  shape: 'The shape',
  picture: 'The picture',
  particles: 'The particles',
  points: 'The points',
  beam: 'The light',
  grain: 'The grain',
  newer: 'Made by a newer version',
  group: 'The group',
};

function Section({
  id,
  name,
  fields,
  open: begins = false,
}: {
  id: string;
  name: string;
  fields: readonly Field[];
  open?: boolean;
}) {
  const [open, setOpen] = useState(begins);
  if (fields.length === 0) return null;
  return (
    <View style={styles.section}>
      <Press
        role="button"
        aria-expanded={open}
        onPress={() => setOpen(!open)}
        style={styles.head}
        testID={`section-${name.toLowerCase().replaceAll(/[^a-z]+/g, '-')}`}
      >
        <Icon name={open ? 'chevron-down' : 'chevron-right'} tint={colour.ink} />
        <Txt kind="lead" level={3}>
          {name}
        </Txt>
      </Press>
      {open &&
        fields.map((field) => (
          <FieldRow key={field.key} place={{ of: { layer: id }, path: [field.key] }} field={field} />
        ))}
    </View>
  );
}

/** The name of a part: what its user never sees, and its maker looks for. */
function PartName({ layer }: { layer: Layer }) {
  const { makePart } = useWorkActions();
  const [typed, setTyped] = useState<string>();
  const done = () => {
    const name = typed?.trim();
    setTyped(undefined);
    if (name && name !== nameOfPart(layer))
      makePart(layer.id, (t) => changePart(t, layer.id, (held) => ({ ...held, name })));
  };
  return (
    <TextField
      label="Name of the part"
      value={typed ?? nameOfPart(layer)}
      onChangeText={setTyped}
      onBlur={done}
      onSubmitEditing={done}
      maxLength={80}
      testID="part-name"
    />
  );
}

/** Words are styled, placed and moved by the tools their user has; and become a slot. */
function WordsPart({ layer }: { layer: Extract<Layer, { kind: 'text' }> }) {
  const editor = useReelEditor();
  const [tab, setTab] = useState<TextTab>();
  const [slot, setSlot] = useState(false);
  // What these tools change is the template's own, not what a user changed.
  const kept = useMemo(
    () => ({
      ...editor,
      edit: (change: Parameters<typeof editor.edit>[0], gesture?: string) =>
        editor.edit((reel) => textKept(change(reel), layer.id), gesture),
    }),
    [editor, layer.id],
  );
  return (
    <View style={styles.tools}>
      <Button title="Letters" icon="type" small onPress={() => setTab('letters')} testID="words-letters" />
      <Button
        title="Place"
        icon="move-horizontal"
        small
        onPress={() => setTab('place')}
        testID="words-place"
      />
      <Button title="Motion" icon="activity" small onPress={() => setTab('motion')} testID="words-motion" />
      {'text' in layer.words && (
        <Button
          title="Make it a slot"
          icon="pen-line"
          small
          onPress={() => setSlot(true)}
          testID="words-slot"
        />
      )}
      {tab && (
        <ReelEditorProvider value={kept}>
          <TextSheet layer={layer.id} tab={tab} onTab={setTab} onClose={() => setTab(undefined)} />
        </ReelEditorProvider>
      )}
      {slot && <SlotSheet layer={layer} onClose={() => setSlot(false)} />}
    </View>
  );
}

function SlotSheet({ layer, onClose }: { layer: Layer; onClose: () => void }) {
  const { makePart } = useWorkActions();
  const [name, setName] = useState(nameOfPart(layer));
  const keep = () => {
    if (makePart(layer.id, (t) => wordsToSlot(t, layer.id, name).template)) onClose();
  };
  return (
    <Sheet title="Make it a slot" onClose={onClose} testID="slot-sheet">
      <TextField
        label="What belongs in it"
        value={name}
        onChangeText={setName}
        onSubmitEditing={keep}
        maxLength={80}
        testID="slot-name"
      />
      <Txt kind="small" tone="quiet">
        The words that stand there now are its sample. How they wrap and shrink is under “Room for the words”.
      </Txt>
      <View style={styles.tools}>
        <Button title="Make it a slot" kind="next" onPress={keep} testID="slot-do" />
      </View>
    </Sheet>
  );
}

const styles = StyleSheet.create({
  all: { gap: 14 },
  late: { pointerEvents: 'none' },
  section: { gap: 10 },
  head: { flexDirection: 'row', alignItems: 'center', gap: 6, minHeight: 44, borderRadius: 8 },
  tools: { flexDirection: 'row', flexWrap: 'wrap', gap: 8 },
});
