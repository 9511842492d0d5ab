import type { Notice, SceneDocument, Slot } from '@fresh-reel/core';
import { useEffect, useRef } from 'react';
import { StyleSheet, View } from 'react-native';
import { useGraphicEditor } from '../../editing/session/useReelEditor';
import { Ground } from '../../preview/Ground';
import { useAttached, usePreviewSurface } from '../../preview/usePreview';
import { Press } from '../../ui/Press';
import { Txt } from '../../ui/Txt';
import { colour } from '../../ui/theme';
import { secondsText } from '../../ui/units';
import { ListSlot } from './ListSlot';
import { MediaSlot } from './MediaSlot';
import { SoundSlot } from './SoundSlot';
import type { SlotRowProps } from './slotRow';
import { useSlotRow } from './slotRows';
import { TextSlot } from './TextSlot';

interface Props {
  readonly selected: string | undefined;
  readonly onSelect: (slot: string) => void;
  readonly onSeek: (frame: number) => void;
  readonly notices: readonly Notice[];
}

/** The script: scene by scene in the order of time, each with the slots that show in it. */
export function FillStep({ selected, onSelect, onSeek, notices }: Props) {
  const { graphic, scene, time } = useGraphicEditor();
  const { template } = graphic;
  const frameOf = (mark: SceneDocument['still']) => time.frameOf(scene.timeOf(mark));
  const seen = new Set<string>();
  return (
    <View style={styles.script}>
      {template.scenes.map((s) => {
        const start = time.secondOf(scene.timeOf(s.from));
        const slots = template.slots.filter((slot) => slot.scenes.includes(s.id));
        return (
          <View key={s.id} style={styles.scene}>
            <Press
              role="button"
              onPress={() => onSeek(frameOf(s.still))}
              style={styles.head}
              testID={`scene-${s.id}`}
            >
              <Still frame={frameOf(s.still)} />
              <View style={styles.title}>
                <Txt kind="lead" level={2}>
                  {s.name}
                </Txt>
                <Txt kind="small" tone="quiet">
                  from {secondsText(start)}
                </Txt>
              </View>
            </Press>
            {slots.map((slot) => {
              const again = seen.has(slot.id);
              seen.add(slot.id);
              return again ? (
                <Again key={slot.id} slot={slot} onSelect={onSelect} />
              ) : (
                <SlotRow
                  key={slot.id}
                  slot={slot}
                  selected={slot.id === selected}
                  onSelect={() => onSelect(slot.id)}
                  notices={notices.filter((n) => n.slot === slot.id)}
                />
              );
            })}
          </View>
        );
      })}
    </View>
  );
}

/** A slot that was filled in an earlier scene and shows again. */
function Again({ slot, onSelect }: { slot: Slot; onSelect: (slot: string) => void }) {
  return (
    <Press role="button" onPress={() => onSelect(slot.id)} style={styles.again}>
      <Txt kind="small" tone="quiet">
        {slot.name} shows here again.
      </Txt>
    </Press>
  );
}

function SlotRow(props: SlotRowProps) {
  return (
    <View ref={useSlotRow(props.slot.id)}>
      <SlotOfKind {...props} />
    </View>
  );
}

function SlotOfKind(props: SlotRowProps) {
  const { slot } = props;
  if (slot.kind === 'text') return <TextSlot {...props} slot={slot} />;
  if (slot.kind === 'list') return <ListSlot {...props} slot={slot} />;
  if (slot.kind === 'sound') return <SoundSlot {...props} slot={slot} />;
  return <MediaSlot {...props} slot={slot} />;
}

/** Milliseconds without a change before the small pictures are made again. */
const STILL_DELAY = 300;

/** A small picture of one moment of the reel. */
function Still({ frame }: { frame: number }) {
  const { reel, scene } = useGraphicEditor();
  const surface = usePreviewSurface();
  const holder = useAttached(surface);
  // While words are being typed the large preview goes first; the small pictures follow at rest.
  const first = useRef(true);
  useEffect(() => {
    const timer = setTimeout(() => surface.show(reel), first.current ? 0 : STILL_DELAY);
    first.current = false;
    return () => clearTimeout(timer);
  }, [surface, reel]);
  useEffect(() => surface.seek(frame), [surface, frame]);
  const ratio = reel.frame.width / reel.frame.height;
  return (
    <View style={styles.stillBox}>
      <View style={ratio >= 1 ? { width: 84, height: 84 / ratio } : { height: 64, width: 64 * ratio }}>
        {scene.transparent && <Ground />}
        <View ref={holder} style={StyleSheet.absoluteFill} />
      </View>
    </View>
  );
}

const styles = StyleSheet.create({
  script: { gap: 26 },
  scene: { gap: 12 },
  head: { flexDirection: 'row', alignItems: 'center', gap: 12, minHeight: 52, borderRadius: 8 },
  title: { flex: 1 },
  stillBox: {
    backgroundColor: colour.surround,
    borderRadius: 6,
    overflow: 'hidden',
    alignItems: 'center',
    justifyContent: 'center',
    minWidth: 84,
    minHeight: 48,
  },
  again: { minHeight: 44, justifyContent: 'center', paddingLeft: 40, borderRadius: 8 },
});
