import {
  adjustClip,
  type ClipFill,
  clipStretch,
  clipTime,
  FRAME_SLACK,
  type PictureFill,
  pourMedia,
  secondsAt,
} from '@fresh-reel/core';
import { useState } from 'react';
import { StyleSheet, View } from 'react-native';
import { useDesk } from '../../editing/session/desk';
import { useGraphicEditor } from '../../editing/session/useReelEditor';
import { TakingIn } from '../../media/import/TakingIn';
import { useImport } from '../../media/import/useImport';
import { mediaFile } from '../../storage/media';
import { Button } from '../../ui/Button';
import { NumberRow } from '../../ui/NumberRow';
import { useToast } from '../../ui/Toast';
import { Toggle } from '../../ui/Toggle';
import { Txt } from '../../ui/Txt';
import { ClipEndRow } from './ClipEndRow';
import { clipWords } from './clipWords';

interface Props {
  readonly slot: string;
  readonly held: PictureFill;
  /** Seconds of the file. */
  readonly duration: number;
  readonly sound: boolean;
  /** What the file is called, where the slot does not say. */
  readonly name: string;
}

/** What plays of a clip in its slot: from where, how much, how fast, and what follows when it is over. */
export function ClipPart({ slot, held, duration, sound, name }: Props) {
  const { graphic, scene, time, edit, settle } = useGraphicEditor();
  const { surface } = useDesk();
  const taking = useImport();
  const toast = useToast();
  const [keeping, setKeeping] = useState(false);
  const clip = held.clip ?? {};
  const own = graphic.template.slots.find((s) => s.id === slot);
  const ofTemplate = own?.kind === 'picture' && own.heard;
  const heard = clip.silent === undefined ? ofTemplate : !clip.silent;
  const put = (part: Partial<ClipFill>, gesture = Object.keys(part).join()) =>
    edit((r) => adjustClip(r, graphic.id, slot, held, part), `clip-${slot}-${gesture}`);
  const set = (part: Partial<ClipFill>) => {
    put(part);
    settle();
  };
  const [from, to] = scene.seenSpan(slot).map((f) => secondsAt(f, graphic.template.rate)) as [number, number];
  const plays = clipStretch(clip, duration, to - from);
  const lasts = plays.speed > 0 ? plays.length / plays.speed : 0;
  const round = (v: number) => Math.round(v * 1000) / 1000;
  /** The second of the file that the playhead shows; before the slot comes, its first. */
  const here = () => {
    const t = Math.max(0, time.secondsInto(surface.position) - from);
    return round(Math.max(0, clipTime(t, clip, duration, to - from) - FRAME_SLACK));
  };
  const keepStill = async () => {
    setKeeping(true);
    const still = await import('../../media/import/still')
      .then(({ stillOf }) => stillOf(held.media, held.name ?? name, here()))
      .catch((e: Error) => e);
    setKeeping(false);
    if (still instanceof Error) return toast({ text: still.message });
    const [came] = await taking.take([still]);
    if (came?.kind !== 'media') return;
    const file = mediaFile(came.record);
    toast({
      text: `“${file.name}” is on the shelf.`,
      action: {
        title: 'Use it here',
        run: () => {
          edit((r) => pourMedia(r, graphic.id, slot, [file]));
          settle();
        },
      },
    });
  };
  return (
    <View style={styles.all} testID={`clip-${slot}`}>
      <Txt kind="small" tone="quiet">
        {clipWords(to - from, lasts, clip.end)}
      </Txt>
      <NumberRow
        name="Starts at"
        value={round(clip.in ?? 0)}
        min={0}
        max={round(duration)}
        step={0.04}
        unit="s"
        rest={0}
        onChange={(v) => put({ in: v }, 'in')}
        onSettle={settle}
        onReset={clip.in ? () => set({ in: undefined }) : undefined}
        testID={`clip-${slot}-in`}
      />
      <NumberRow
        name="Length"
        value={round(plays.length)}
        min={0.04}
        max={round(duration)}
        step={0.04}
        unit="s"
        rest={round(duration - plays.from)}
        onChange={(v) => put({ length: Math.max(0.001, v) }, 'length')}
        onSettle={settle}
        onReset={clip.length ? () => set({ length: undefined }) : undefined}
        testID={`clip-${slot}-length`}
      />
      <NumberRow
        name="Speed"
        value={Math.round((clip.speed ?? 1) * 100)}
        min={10}
        max={400}
        step={5}
        unit="%"
        rest={100}
        onChange={(v) => put({ speed: v / 100 }, 'speed')}
        onSettle={settle}
        onReset={clip.speed && clip.speed !== 1 ? () => set({ speed: undefined }) : undefined}
        testID={`clip-${slot}-speed`}
      />
      <ClipEndRow value={clip.end} onChange={(end) => set({ end })} testID={`clip-${slot}-end`} />
      {clip.freeze === undefined ? (
        <Button
          title="Freeze the frame that shows"
          icon="circle-pause"
          small
          onPress={() => set({ freeze: here() })}
          testID={`clip-${slot}-freeze`}
        />
      ) : (
        <NumberRow
          name="Frozen at"
          value={round(clip.freeze)}
          min={0}
          max={round(duration)}
          step={0.04}
          unit="s"
          onChange={(freeze) => put({ freeze }, 'freeze')}
          onSettle={settle}
          onReset={() => set({ freeze: undefined })}
          testID={`clip-${slot}-frozen`}
          resetID={`clip-${slot}-unfreeze`}
        />
      )}
      <Button
        title="Keep this frame as a picture"
        label="Keep this frame as a picture on the shelf"
        icon="image"
        small
        disabled={keeping || taking.coming !== undefined}
        onPress={() => void keepStill()}
        testID={`clip-${slot}-still`}
      />
      <TakingIn taking={taking} />
      {sound && clip.freeze === undefined && (
        <>
          <Toggle
            label="Its own sound"
            value={heard}
            onChange={(on) => set({ silent: on === ofTemplate ? undefined : !on })}
            testID={`clip-${slot}-sound`}
          />
          {heard && (
            <NumberRow
              name="Level"
              value={clip.level ?? 0}
              min={-40}
              max={12}
              step={1}
              unit="dB"
              rest={0}
              onChange={(level) => put({ level }, 'level')}
              onSettle={settle}
              onReset={clip.level ? () => set({ level: undefined }) : undefined}
              testID={`clip-${slot}-level`}
            />
          )}
        </>
      )}
    </View>
  );
}

const styles = StyleSheet.create({ all: { gap: 6, paddingTop: 4 } });
