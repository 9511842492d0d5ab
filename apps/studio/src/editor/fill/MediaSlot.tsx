import { checkText, pourInto, pourMedia, type Slot, setSlot, swapSlots } from '@fresh-reel/core';
import { useState } from 'react';
import { Image, StyleSheet, View } from 'react-native';
import { pickFiles, SEEN_FILES } from '../../disk/pickFile';
import { useFileDrop } from '../../disk/useFileDrop';
import { useGraphicEditor } from '../../editing/session/useReelEditor';
import { TakingIn } from '../../media/import/TakingIn';
import { againText } from '../../media/import/takenWords';
import { useImport } from '../../media/import/useImport';
import { useMediaFacts } from '../../media/useMediaFacts';
import { useThumb } from '../../media/useThumb';
import { ShelfSheet } from '../../shelf/ShelfSheet';
import { type MediaRecord, mediaFile } from '../../storage/media';
import { Banner } from '../../ui/Banner';
import { Button, IconButton } from '../../ui/Button';
import { Icon } from '../../ui/Icon';
import { Txt } from '../../ui/Txt';
import { CHEQUERED, CORNER, colour } from '../../ui/theme';
import { useDrag } from '../../ui/useDrag';
import { webProps, webStyle } from '../../ui/web';
import { TreatmentList } from '../treatments/TreatmentList';
import { ClipPart } from './ClipPart';
import { Framing } from './Framing';
import { pouredText, samplesText } from './pourWords';
import { SlotHead } from './SlotHead';
import type { SlotRowProps } from './slotRow';
import { useSlotRows } from './slotRows';

type Said = { readonly kind: 'info' | 'fault'; readonly text: string } | undefined;

/** A picture, clip or logo for a slot: chosen, dropped or from the shelf, then set in its frame. */
export function MediaSlot({
  slot,
  selected,
  onSelect,
  notices,
}: SlotRowProps<Extract<Slot, { kind: 'picture' | 'logo' }>>) {
  const { scene, graphic, edit, settle, mayEdit } = useGraphicEditor();
  const [said, setSaid] = useState<Said>();
  const [shelf, setShelf] = useState(false);
  const taking = useImport();
  const rows = useSlotRows();
  const hidden = graphic.fill.hidden?.includes(slot.id) ?? false;
  const held = scene.slots.slotPicture(slot.id);
  const facts = useMediaFacts(held?.media);
  const url = useThumb(held?.media);
  const own = slot.id in graphic.fill.slots;
  const samples = samplesText(graphic.template, graphic.fill);

  const say = (...texts: (string | undefined)[]) => {
    const text = texts.filter(Boolean).join(' ');
    setSaid(text ? { kind: 'info', text } : undefined);
  };
  const put = (records: readonly MediaRecord[], notes: readonly (string | undefined)[] = []) => {
    edit((r) => pourMedia(r, graphic.id, slot.id, records.map(mediaFile)));
    settle();
    say(
      records[0]?.alpha ? 'It has transparent parts, and keeps them.' : undefined,
      pouredText(
        pourInto(graphic.template, slot.id).length,
        records.map((r) => r.name),
      ),
      ...notes,
    );
  };
  const take = async (files: readonly File[]) => {
    onSelect();
    setSaid(undefined);
    const came = await taking.take(files);
    const seen = came.flatMap((c) => (c.kind === 'media' && c.record.kind !== 'sound' ? [c.record] : []));
    const again = came.flatMap((c) => (c.kind === 'media' && c.again ? [c.record.name] : []));
    const notes = came.flatMap((c) => (c.kind === 'media' ? c.notes : []));
    if (seen.length > 0) put(seen, [...notes, againText(again)]);
    const other = came.find((c) => c.kind === 'font' || c.record.kind === 'sound');
    if (other) {
      const what =
        other.kind === 'font'
          ? `“${other.font.family}” is a font: it is among your fonts now.`
          : `“${other.record.name}” has only sound in it: it is on the shelf as a sound.`;
      setSaid({ kind: 'fault', text: `${what} This slot takes a picture or a clip.` });
    }
  };
  const { ref, over } = useFileDrop((files) => void take(files));
  const choose = async () => {
    onSelect();
    const files = await pickFiles(SEEN_FILES);
    if (files.length > 0) await take(files);
  };
  const busy = taking.coming !== undefined || taking.question !== undefined;
  const others = graphic.template.slots.filter((s) => s.kind === 'picture');
  const next = slot.kind === 'picture' ? others[others.findIndex((s) => s.id === slot.id) + 1] : undefined;
  const swapWith = (other: string) => {
    edit((r) => swapSlots(r, graphic.id, [slot.id, held], [other, scene.slots.slotPicture(other)]));
    settle();
  };
  const [carried, setCarried] = useState(false);
  /** Another picture's slot, which the one that is carried can swap with. */
  const takes = (other: string | undefined) =>
    other !== slot.id && others.some((s) => s.id === other) ? other : undefined;
  // Dropped on another slot's row, the two trade what they hold.
  const carry = useDrag({
    along: 'x',
    onMove: (at) => {
      setCarried(true);
      rows.light(takes(rows.at(at.x, at.y)));
    },
    onEnd: (moved, at, cancelled) => {
      setCarried(false);
      rows.light(undefined);
      if (cancelled) return;
      const other = moved ? takes(rows.at(at.x, at.y)) : undefined;
      if (other) swapWith(other);
    },
  });
  return (
    <View ref={ref} style={[styles.row, over && styles.over]} testID={`slot-${slot.id}`}>
      <SlotHead
        slot={slot}
        selected={selected}
        onSelect={onSelect}
        changed={own}
        onReset={() => setSaid(undefined)}
      />
      <View style={styles.line}>
        <View
          {...(slot.kind === 'picture' && held && mayEdit ? webProps(carry) : {})}
          style={[styles.thumb, facts?.alpha && CHEQUERED, carried && styles.carried]}
          testID={`thumb-${slot.id}`}
        >
          {facts?.duration !== undefined && (
            <View style={styles.isClip} pointerEvents="none">
              <Icon name="film" size={12} tint="#FFFFFF" />
            </View>
          )}
          {held && url ? (
            <Image
              source={{ uri: url }}
              style={styles.image}
              resizeMode="contain"
              alt={`Picture in ${slot.name}`}
            />
          ) : (
            <Txt kind="small">{held ? '' : 'Empty'}</Txt>
          )}
        </View>
        <View style={styles.buttons}>
          <Button
            title={held ? 'Change' : 'Choose'}
            label={`${held ? 'Change' : 'Choose'} ${slot.name}`}
            icon="upload"
            small
            disabled={busy || !mayEdit}
            onPress={() => void choose()}
            testID={`choose-${slot.id}`}
          />
          <Button
            title="Shelf"
            label={`From the shelf: ${slot.name}`}
            icon="archive"
            small
            disabled={busy || !mayEdit}
            onPress={() => {
              onSelect();
              setShelf(true);
            }}
            testID={`shelf-${slot.id}`}
          />
          {next && held && (
            <IconButton
              icon="shuffle"
              label={`Swap ${slot.name} with ${next.name}`}
              disabled={!mayEdit}
              onPress={() => swapWith(next.id)}
              testID={`swap-${slot.id}`}
            />
          )}
          {slot.optional && held && (
            <Button
              title="Empty it"
              label={`Empty it: ${slot.name}`}
              kind="plain"
              onPress={() => {
                edit((r) => setSlot(r, graphic.id, slot.id, null));
                settle();
                setSaid(undefined);
              }}
              testID={`empty-${slot.id}`}
            />
          )}
        </View>
      </View>
      <TakingIn taking={taking} />
      {said && (
        <Banner kind={said.kind} testID={`said-${slot.id}`}>
          {said.text}
        </Banner>
      )}
      {slot.kind === 'picture' && selected && samples && (
        <Txt kind="small" tone="quiet" testID={`samples-${slot.id}`}>
          {samples}
        </Txt>
      )}
      {!held && !hidden && (
        <Txt kind="small" tone={slot.optional ? 'quiet' : 'amber'} testID={`nothing-${slot.id}`}>
          {slot.optional
            ? 'Empty: nothing shows in its place.'
            : 'This slot is empty, so its place stays empty in the picture.'}
        </Txt>
      )}
      {notices.map((n) => (
        <Txt key={n.kind} kind="small" tone="amber">
          {checkText(n).text}
        </Txt>
      ))}
      {selected && held && !hidden && (
        <>
          {facts?.duration !== undefined && (
            <ClipPart
              slot={slot.id}
              held={held}
              duration={facts.duration}
              sound={facts.sound}
              name={facts.name}
            />
          )}
          <Framing slot={slot.id} held={held} crops={slot.kind === 'picture' && slot.crops} />
          <TreatmentList
            of={{ kind: 'slot', item: graphic.id, slot: slot.id, shown: held }}
            inside={facts?.alpha !== true}
          />
        </>
      )}
      {shelf && (
        <ShelfSheet
          title={`For ${slot.name}`}
          kinds={['picture', 'clip']}
          onClose={() => setShelf(false)}
          onChoose={(record) => {
            setShelf(false);
            put([record]);
          }}
        />
      )}
    </View>
  );
}

const styles = StyleSheet.create({
  row: { gap: 8, borderRadius: CORNER },
  over: { outlineWidth: 2, outlineColor: colour.accent, outlineStyle: 'dashed', outlineOffset: 6 },
  line: { flexDirection: 'row', gap: 12, alignItems: 'center' },
  thumb: webStyle({
    width: 84,
    height: 60,
    borderRadius: 8,
    overflow: 'hidden',
    borderWidth: 1,
    borderColor: colour.hairline,
    alignItems: 'center',
    justifyContent: 'center',
    backgroundColor: colour.hairline,
    cursor: 'grab',
    touchAction: 'pan-y',
  }),
  carried: { opacity: 0.5, borderColor: colour.accent },
  image: { width: 84, height: 60 },
  isClip: {
    position: 'absolute',
    right: 3,
    bottom: 3,
    zIndex: 1,
    padding: 3,
    borderRadius: 4,
    backgroundColor: colour.shade,
  },
  buttons: { flexDirection: 'row', gap: 8, flexWrap: 'wrap', flex: 1 },
});
