import {
  checkText,
  isWords,
  lookOf,
  markWords,
  plainText,
  type RunLook,
  retype,
  type Slot,
} from '@fresh-reel/core';
import { useRef, useState } from 'react';
import { StyleSheet, View } from 'react-native';
import { swatchesOf } from '../../editing/controls/ControlRow';
import { useGraphicEditor } from '../../editing/session/useReelEditor';
import { TextTools, usePutWords } from '../../editing/words/TextTools';
import { Button } from '../../ui/Button';
import { Field } from '../../ui/Field';
import { Press } from '../../ui/Press';
import { Swatch } from '../../ui/Swatch';
import { Txt } from '../../ui/Txt';
import { colour } from '../../ui/theme';
import { webProps } from '../../ui/web';
import { SlotHead } from './SlotHead';
import type { SlotRowProps } from './slotRow';

/** Words for a text slot, typed in place, with what the fit rule did below them. */
export function TextSlot({
  slot,
  selected,
  onSelect,
  notices,
}: SlotRowProps<Extract<Slot, { kind: 'text' }>>) {
  const { scene, graphic, settle, mayEdit } = useGraphicEditor();
  const put = usePutWords(slot.id);
  const [range, setRange] = useState({ start: 0, end: 0 });
  const held = scene.slots.slotWords(slot.id);
  const words = held.runs.length > 0 ? { text: held.text, runs: [...held.runs] } : held.text;
  const changed =
    isWords(graphic.fill.slots[slot.id]) && JSON.stringify(words) !== JSON.stringify(slot.sample);
  const text = plainText(words);
  const caret = useRef<number | undefined>(undefined);
  const sign = (s: string) => {
    const at = Math.min(caret.current ?? range.end, text.length);
    put(retype(words, text.slice(0, at) + s + text.slice(at)));
    settle();
    caret.current = at + s.length;
  };
  return (
    <View style={styles.row}>
      <SlotHead slot={slot} selected={selected} onSelect={onSelect} changed={changed} />
      <Field
        label={slot.name}
        hideLabel
        value={text}
        multiline
        numberOfLines={text.length > 44 || text.includes('\n') ? Math.min(4, text.split('\n').length + 1) : 1}
        editable={mayEdit}
        placeholder={slot.optional ? 'Empty: it will not show' : 'Type the words'}
        testID={`slot-${slot.id}`}
        onFocus={onSelect}
        onChangeText={(next) => put(retype(words, next))}
        onSelectionChange={({ nativeEvent: { selection } }) => {
          setRange(selection);
          caret.current = undefined;
        }}
        onBlur={settle}
      />
      {!slot.optional && text.trim() === '' && (
        <Txt kind="small" tone="amber">
          This slot is empty, so its place stays empty in the picture.
        </Txt>
      )}
      {notices.map((n) => {
        const { kind, text: told } = checkText(n);
        return (
          <Txt
            key={n.kind}
            kind="small"
            tone={kind === 'info' ? 'blue' : 'amber'}
            testID={`notice-${slot.id}`}
          >
            {told}
          </Txt>
        );
      })}
      {selected && (
        <>
          <Marks
            slot={slot.id}
            look={lookOf(words, range.start, range.end)}
            some={range.end > range.start}
            onMark={(look, gesture) => {
              put(markWords(words, range.start, range.end, look), gesture);
              if (!gesture) settle();
            }}
            onSettle={settle}
          />
          <TextTools slot={slot} onSign={sign} />
        </>
      )}
    </View>
  );
}

const BOLD = 800;

/** Marks for the words that are selected: the template's own, weight, underline, colour. */
function Marks({
  slot,
  look,
  some,
  onMark,
  onSettle,
}: {
  slot: string;
  look: RunLook;
  some: boolean;
  /** With the name of a gesture, the change is a part of that. */
  onMark: (look: RunLook, gesture?: string) => void;
  onSettle: () => void;
}) {
  const { graphic } = useGraphicEditor();
  if (!some) {
    return (
      <Txt kind="small" tone="quiet">
        Select words in the field to mark them.
      </Txt>
    );
  }
  const toggle = (id: string, name: string, on: boolean, change: RunLook) => (
    <Press
      key={id}
      role="button"
      aria-pressed={on}
      aria-label={name}
      // The field keeps its selection while a mark is touched.
      {...webProps({ onMouseDown: (e: { preventDefault(): void }) => e.preventDefault() })}
      onPress={() => onMark(change)}
      style={[styles.mark, on && styles.markOn]}
      testID={`mark-${id}-${slot}`}
    >
      <Txt kind="strong" tone={on ? 'accent' : 'ink'}>
        {name}
      </Txt>
    </Press>
  );
  const { marked, weight, underline, colour: own } = look;
  return (
    <View style={styles.marks} role="group" aria-label="Marks for the selected words">
      {toggle('marked', 'Mark', marked === true, { marked: marked ? undefined : true })}
      {toggle('bold', 'Bold', weight !== undefined, { weight: weight === undefined ? BOLD : undefined })}
      {toggle('underline', 'Underline', underline === true, { underline: underline ? undefined : true })}
      <Swatch
        name="Colour of the selected words"
        value={own ?? '#C8431C'}
        swatches={swatchesOf(graphic.template.looks)}
        onChange={(c) => onMark({ colour: c }, 'colour')}
        onSettle={onSettle}
        testID={`mark-colour-${slot}`}
      />
      {own && <Button title="No colour" kind="plain" onPress={() => onMark({ colour: undefined })} />}
    </View>
  );
}

const styles = StyleSheet.create({
  row: { gap: 4 },
  marks: { flexDirection: 'row', flexWrap: 'wrap', alignItems: 'center', gap: 8 },
  mark: {
    minHeight: 44,
    paddingHorizontal: 12,
    justifyContent: 'center',
    borderRadius: 10,
    borderWidth: 1,
    borderColor: colour.edge,
    backgroundColor: colour.card,
  },
  markOn: { borderColor: colour.accent, backgroundColor: colour.accentTint },
});
