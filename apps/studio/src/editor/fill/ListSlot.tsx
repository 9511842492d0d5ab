import { checkText, isWords, type Slot, setSlot, unsplitLines } from '@fresh-reel/core';
import { useState } from 'react';
import { StyleSheet, View } from 'react-native';
import { pickFile } from '../../disk/pickFile';
import { useFileDrop } from '../../disk/useFileDrop';
import { useGraphicEditor } from '../../editing/session/useReelEditor';
import { TextTools } from '../../editing/words/TextTools';
import { Banner } from '../../ui/Banner';
import { Button } from '../../ui/Button';
import { Field } from '../../ui/Field';
import { Txt } from '../../ui/Txt';
import { CORNER, colour } from '../../ui/theme';
import { ListError, readListFile } from './listFile';
import { SlotHead } from './SlotHead';
import type { SlotRowProps } from './slotRow';

/** Longer lists are shown by their beginning: a field of thousands of lines would slow the typing. */
const EDITABLE = 400;

/** Many lines, typed, pasted or read from a file. */
export function ListSlot({
  slot,
  selected,
  onSelect,
  notices,
}: SlotRowProps<Extract<Slot, { kind: 'list' }>>) {
  const { scene, graphic, edit, settle, mayEdit } = useGraphicEditor();
  const [said, setSaid] = useState<{ kind: 'info' | 'fault'; text: string }>();
  const { text } = scene.slots.slotWords(slot.id);
  const lines = text === '' ? [] : text.split('\n');
  const long = lines.length > EDITABLE;
  const put = (words: string) => edit((r) => setSlot(r, graphic.id, slot.id, words), `words-${slot.id}`);
  const take = async (file: File) => {
    onSelect();
    try {
      const read = await readListFile(file);
      put(read.text);
      settle();
      const header = read.header
        ? ` Its first row, “${read.header}”, names the columns and is left out.`
        : '';
      setSaid({ kind: 'info', text: `${read.lines} lines from "${file.name}".${header}` });
    } catch (error) {
      if (!(error instanceof ListError)) throw error;
      setSaid({ kind: 'fault', text: error.message });
    }
  };
  const { ref, over } = useFileDrop(([file]) => void take(file!));
  return (
    <View ref={ref} style={[styles.row, over && styles.over]}>
      <SlotHead
        slot={slot}
        selected={selected}
        onSelect={onSelect}
        changed={isWords(graphic.fill.slots[slot.id])}
        onReset={() => setSaid(undefined)}
      />
      {long ? (
        <View style={styles.long} testID={`list-${slot.id}`}>
          {lines.slice(0, 4).map((line, i) => (
            <Txt key={i} kind="small" numberOfLines={1}>
              {line || ' '}
            </Txt>
          ))}
          <Txt kind="small" tone="quiet">
            and {lines.length - 4} more lines. Change so long a list in its file, and open it again.
          </Txt>
        </View>
      ) : (
        <Field
          label={slot.name}
          hideLabel
          value={text}
          multiline
          numberOfLines={Math.min(8, Math.max(3, lines.length))}
          editable={mayEdit}
          placeholder={slot.columns.length > 1 ? slot.columns.join(' | ') : 'One on each line'}
          testID={`slot-${slot.id}`}
          onFocus={onSelect}
          onChangeText={put}
          onBlur={settle}
        />
      )}
      <View style={styles.buttons}>
        <Button
          title="Open .txt or .csv"
          icon="file-text"
          small
          disabled={!mayEdit}
          onPress={() =>
            void pickFile('.txt,.csv,text/plain,text/csv').then((file) => (file ? take(file) : undefined))
          }
          testID={`open-list-${slot.id}`}
        />
        <Txt kind="small" tone="quiet" testID={`count-${slot.id}`}>
          {lines.length} {lines.length === 1 ? 'line' : 'lines'}
          {slot.columns.length > 1 ? `: ${slot.columns.join(' | ')}` : ''}
        </Txt>
      </View>
      {slot.columns.length > 1 && (
        <Unsplit text={text} columns={slot.columns} testID={`unsplit-${slot.id}`} />
      )}
      {said && (
        <Banner kind={said.kind} testID={`said-${slot.id}`}>
          {said.text}
        </Banner>
      )}
      {notices.map((n) => (
        <Txt
          key={n.kind}
          kind="small"
          tone={checkText(n).kind === 'info' ? 'blue' : 'amber'}
          testID={`notice-${slot.id}`}
        >
          {checkText(n).text}
        </Txt>
      ))}
      {selected && <TextTools slot={slot} />}
    </View>
  );
}

/** Says which lines stand in the first column alone, since nothing in them sets columns apart. */
function Unsplit({ text, columns, testID }: { text: string; columns: readonly string[]; testID: string }) {
  const lines = unsplitLines(text);
  if (lines.length === 0) return null;
  const [first] = lines;
  return (
    <Txt kind="small" tone="blue" testID={testID}>
      {lines.length === 1
        ? `“${first}” stands in one column. Write “${columns.join(' | ')}” to set them apart.`
        : `“${first}” and ${lines.length - 1} more lines stand in one column. Write “${columns.join(' | ')}” to set them apart.`}
    </Txt>
  );
}

const styles = StyleSheet.create({
  row: { gap: 6, borderRadius: CORNER },
  over: { outlineWidth: 2, outlineColor: colour.accent, outlineStyle: 'dashed', outlineOffset: 6 },
  long: { padding: 12, gap: 2, borderWidth: 1, borderColor: colour.hairline, borderRadius: CORNER },
  buttons: { flexDirection: 'row', flexWrap: 'wrap', alignItems: 'center', gap: 10 },
});
