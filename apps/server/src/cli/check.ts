import {
  checkText,
  hearReel,
  lookAtWords,
  lookForFlashes,
  loudnessCheck,
  ReelScene,
  timecodeAt,
} from '@fresh-reel/core';
import { nodeLooker } from '@fresh-reel/node-host';
import { type Wanted, withReel } from '../rendering/openedReel';

export interface CheckCommand extends Omit<Wanted, 'size'> {
  readonly json: boolean;
  /** Loudness that is wanted, in LUFS. */
  readonly loudness: number | undefined;
}

/** Something found, in words, and where. */
export interface Found {
  readonly kind: string;
  /** Whether it is wrong, or only told. */
  readonly wrong: boolean;
  /** The item and the slot it is of; empty, where it is of the whole. */
  readonly item: string;
  readonly slot: string;
  readonly timecode: string;
  readonly text: string;
}

/** Looks at all of a template or reel before it is rendered: its words, places, files, flashes and sound. */
export function check(command: CheckCommand): Promise<Found[]> {
  return withReel({ ...command, size: undefined }, async (studio, { reel }) => {
    const scene = new ReelScene(reel, studio);
    await studio.prepare(scene);
    const looker = nodeLooker(studio);
    const wanted = command.loudness ?? reel.output?.loudness;
    const heard = await hearReel(scene, (id) => studio.sound(id));
    const found = [
      ...scene.checks(),
      ...(await lookAtWords(scene, looker)),
      ...(await lookForFlashes(scene, looker)),
      ...(heard ? [...loudnessCheck(heard.facts, wanted), ...heard.checks] : []),
    ];
    return found.map((finding) => {
      const { kind, text } = checkText(finding);
      const { item, slot, frame } = finding;
      const timecode = timecodeAt(frame, reel.rate);
      return { kind: finding.kind, wrong: kind === 'watch', item, slot, timecode, text };
    });
  });
}
