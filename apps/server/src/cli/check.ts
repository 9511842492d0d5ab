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
import { CommandError, parsedArgs, TEXT, USAGE } from './command';
import { type Wanted, withReel } from './openedReel';

export interface CheckCommand extends Wanted {
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

/** @throws {CommandError} naming the argument that is wrong. */
export function parseCheckCommand(args: readonly string[]): CheckCommand {
  const { values, positionals } = parsedArgs(args, {
    fill: TEXT,
    originals: TEXT,
    json: { type: 'boolean' },
    loudness: TEXT,
  });
  if (positionals.length !== 1)
    throw new CommandError(`Name one template, template file or reel file.\n${USAGE}`);
  const loudness = values.loudness === undefined ? undefined : Number(values.loudness);
  if (loudness !== undefined && !(loudness >= -40 && loudness <= -5))
    throw new CommandError(
      `--loudness: "${values.loudness}" is not from -40 to -5 LUFS, such as --loudness=-14.`,
    );
  return {
    what: positionals[0]!,
    fill: values.fill,
    originals: values.originals,
    size: undefined,
    json: values.json ?? false,
    loudness,
  };
}

/** Looks at all of a template or reel before it is rendered: its words, places, files, flashes and sound. */
export function check(command: CheckCommand): Promise<Found[]> {
  return withReel(command, async (studio, { reel }) => {
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
