import { type Slot, type SoundFill, setSlot } from '@fresh-reel/core';
import { useState } from 'react';
import { StyleSheet, View } from 'react-native';
import { pickFiles, SOUND_FILES } from '../../disk/pickFile';
import { useFileDrop } from '../../disk/useFileDrop';
import { useGraphicEditor } from '../../editing/session/useReelEditor';
import { TakingIn } from '../../media/import/TakingIn';
import { useImport } from '../../media/import/useImport';
import { useMediaFacts } from '../../media/useMediaFacts';
import { ShelfSheet } from '../../shelf/ShelfSheet';
import { isHeard, type MediaRecord, mediaFile } from '../../storage/media';
import { Banner } from '../../ui/Banner';
import { Button } from '../../ui/Button';
import { NumberRow } from '../../ui/NumberRow';
import { Toggle } from '../../ui/Toggle';
import { Txt } from '../../ui/Txt';
import { CORNER, colour } from '../../ui/theme';
import { secondsText } from '../../ui/units';
import { SlotHead } from './SlotHead';
import type { SlotRowProps } from './slotRow';

/** A sound at its cue: replaced, levelled, faded or silenced. */
export function SoundSlot({ slot, selected, onSelect }: SlotRowProps<Extract<Slot, { kind: 'sound' }>>) {
  const { scene, graphic, time, edit, settle, mayEdit } = useGraphicEditor();
  const [shelf, setShelf] = useState(false);
  const [fault, setFault] = useState<string>();
  const taking = useImport();
  const held = scene.slots.slotSound(slot.id);
  const facts = useMediaFacts(held?.sound);
  const cue = graphic.template.cues.find((c) => c.id === slot.cue)!;
  const at = time.secondOf(scene.timeOf(cue.at) + slot.offset);
  const put = (part: Partial<SoundFill>, gesture = Object.keys(part).join()) => {
    if (!held) return;
    edit((r) => setSlot(r, graphic.id, slot.id, { ...held, ...part }), `sound-${slot.id}-${gesture}`);
  };
  const set = (part: Partial<SoundFill>) => {
    put(part);
    settle();
  };
  const replace = (record: MediaRecord) => {
    const { media: sound, name } = mediaFile(record);
    edit((r) => setSlot(r, graphic.id, slot.id, { ...(held ?? {}), sound, name }));
    settle();
  };
  const take = async (files: readonly File[]) => {
    onSelect();
    setFault(undefined);
    const [came] = await taking.take(files.slice(0, 1));
    if (came?.kind !== 'media') return;
    const { record } = came;
    if (isHeard(record)) replace(record);
    else setFault(`“${record.name}” has no sound in it. It is on the shelf; choose a sound for this slot.`);
  };
  const { ref, over } = useFileDrop((files) => void take(files));
  const number = (
    key: 'level' | 'fadeIn' | 'fadeOut' | 'from',
    name: string,
    rest: number,
    [min, max, step]: readonly [number, number, number],
    unit: string,
  ) => (
    <NumberRow
      name={name}
      value={held?.[key] ?? rest}
      min={min}
      max={max}
      step={step}
      unit={unit}
      rest={rest}
      onChange={(v) => put({ [key]: v }, key)}
      onSettle={settle}
      resets
      testID={`sound-${slot.id}-${key}`}
    />
  );
  return (
    <View ref={ref} style={[styles.row, over && styles.over]} testID={`slot-${slot.id}`}>
      <SlotHead slot={slot} selected={selected} onSelect={onSelect} changed={slot.id in graphic.fill.slots} />
      <Txt kind="small" tone="quiet">
        {held
          ? `${facts?.name ?? 'A sound'}, ${slot.loops ? 'from' : 'at'} ${secondsText(Math.max(0, at))}, with “${cue.name}”.`
          : `Nothing is heard here. It would come with “${cue.name}”, at ${secondsText(Math.max(0, at))}.`}
      </Txt>
      <View style={styles.buttons}>
        <Button
          title={held ? 'Change' : 'Choose'}
          label={`${held ? 'Change' : 'Choose'} ${slot.name}`}
          icon="upload"
          small
          disabled={taking.coming !== undefined || !mayEdit}
          onPress={() => void pickFiles(SOUND_FILES, false).then((f) => (f.length > 0 ? take(f) : undefined))}
          testID={`choose-${slot.id}`}
        />
        <Button
          title="Shelf"
          label={`From the shelf: ${slot.name}`}
          icon="archive"
          small
          disabled={!mayEdit}
          onPress={() => {
            onSelect();
            setShelf(true);
          }}
          testID={`shelf-${slot.id}`}
        />
      </View>
      <TakingIn taking={taking} />
      {fault && (
        <Banner kind="fault" testID={`said-${slot.id}`}>
          {fault}
        </Banner>
      )}
      {selected && held && (
        <View style={styles.more}>
          <Toggle
            label="Silent"
            value={held.silent ?? false}
            onChange={(silent) => set({ silent })}
            testID={`sound-${slot.id}-silent`}
          />
          {!held.silent && (
            <>
              {number('level', 'Level', slot.level, [-40, 12, 1], 'dB')}
              {number('fadeIn', 'Comes in over', slot.fadeIn, [0, 10, 0.1], 's')}
              {number('fadeOut', 'Goes out over', slot.fadeOut, [0, 10, 0.1], 's')}
              {number('from', 'Begins in the file at', 0, [0, Math.max(1, facts?.duration ?? 60), 0.1], 's')}
            </>
          )}
        </View>
      )}
      {shelf && (
        <ShelfSheet
          title={`For ${slot.name}`}
          kinds={['sound']}
          onClose={() => setShelf(false)}
          onChoose={(record) => {
            setShelf(false);
            replace(record);
          }}
        />
      )}
    </View>
  );
}

const styles = StyleSheet.create({
  row: { gap: 6, borderRadius: CORNER },
  over: { outlineWidth: 2, outlineColor: colour.accent, outlineStyle: 'dashed', outlineOffset: 6 },
  buttons: { flexDirection: 'row', gap: 8, flexWrap: 'wrap' },
  more: { gap: 6, paddingTop: 4 },
});
