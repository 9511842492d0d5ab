import {
  checkText,
  type Finding,
  FlashMeter,
  framesIn,
  MixRender,
  type ReelCheck,
  ReelScene,
  secondsAt,
  timecodeAt,
} from '@fresh-reel/core';
import type { NodeStudio } from '@fresh-reel/node-host';
import { CommandError, parsedArgs, TEXT, USAGE } from './command';
import { paintedFrames, pixelsOf } from './frameWriter';
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
    const timecode = (frame: number) => timecodeAt(frame, reel.rate);
    const told = (finding: Finding, { item, slot, frame }: Pick<ReelCheck, 'item' | 'slot' | 'frame'>) => {
      const { kind, text } = checkText(finding);
      return { kind: finding.kind, wrong: kind === 'watch', item, slot, timecode: timecode(frame), text };
    };
    const seconds = await flashesOf(scene, studio);
    const frameOf = (second: number) => Math.round(framesIn(second, reel.rate));
    return [
      ...scene.checks().map((c) => told(c, c)),
      ...seconds.map((second) =>
        told({ kind: 'flashes', slot: '' }, { item: '', slot: '', frame: frameOf(second) }),
      ),
      ...(await soundOf(scene, studio, command.loudness)).map((f) =>
        told(f, { item: '', slot: '', frame: 0 }),
      ),
    ];
  });
}

/** Pixels in which flashes are looked for: as few as show a quarter of the picture. */
const FLASH_PIXELS = 2000;

/** Seconds at which harmful flashes begin, in every frame as it is rendered; those of one second are told once. */
async function flashesOf(scene: ReelScene, studio: NodeStudio): Promise<number[]> {
  const { rate, frame } = scene.reel;
  const scale = Math.sqrt(FLASH_PIXELS / (frame.width * frame.height));
  const size = { width: Math.round(frame.width * scale), height: Math.round(frame.height * scale) };
  const meter = new FlashMeter(size.width * size.height, rate.num / rate.den);
  const count = scene.frameCount(rate);
  for await (const { surface } of paintedFrames(studio, scene, { size, rate, from: 0 }, 0, count))
    meter.add(pixelsOf(surface));
  let last = Number.NEGATIVE_INFINITY;
  return meter.harmful().filter((second) => {
    if (second - last < 1) return false;
    last = second;
    return true;
  });
}

/** Highest true peak that EBU R 128 permits, in dBTP. */
const MOST_PEAK = -1;
/** Loudness units that a programme may be off its target by (EBU R 128, live programmes). */
const LOUDNESS_ROOM = 1;

async function soundOf(scene: ReelScene, studio: NodeStudio, wanted: number | undefined): Promise<Finding[]> {
  const plays = scene.plays((id) => studio.sound(id)?.facts);
  if (plays.length === 0) return [];
  const { rate } = scene.reel;
  const mix = new MixRender(
    plays,
    0,
    secondsAt(scene.frameCount(rate), rate),
    (id) => studio.sound(id),
    () => undefined,
  );
  const { loudness, peak } = await mix.end();
  const off =
    wanted !== undefined && Number.isFinite(loudness) && Math.abs(loudness - wanted) > LOUDNESS_ROOM;
  return [
    ...(off ? [{ kind: 'loudness' as const, slot: '' as const, loudness, wanted }] : []),
    ...(peak > MOST_PEAK ? [{ kind: 'peaks' as const, slot: '' as const, peak }] : []),
  ];
}
