import { z } from 'zod';
import type { Surface } from '../canvas/surface';
import { noiseAt, randomAt } from '../motion/random';
import { property } from '../values/property';
import { channelsApart } from './channels';
import { type EffectKind, type EffectTools, type Over, onlySchema } from './kind';

export const tapeShape = (over: Over) => ({
  /** How worn it is: how far lines jitter, colours run and the tracking is off. */
  amount: over(z.number().min(0).max(1)),
  /** Where the band of bad tracking is, in parts of the frame's height; below 0 and above 1 it is not seen. */
  tracking: over(z.number().min(-1).max(2)).default(-1),
  /** White drop-outs. */
  noise: over(z.number().min(0).max(1)).default(0.3),
  /** How far the colours stand from where they belong, in frame units. */
  run: over(z.number().min(0).max(200)).default(8),
  seed: z.number().int().min(0).max(100000).default(1),
});

export const tapeSchema = z.strictObject({
  effect: z.literal('tape'),
  only: onlySchema,
  ...tapeShape(property),
});

export interface Tape {
  readonly effect: 'tape';
  readonly amount: number;
  readonly tracking: number;
  readonly noise: number;
  readonly run: number;
  readonly seed: number;
  readonly step: number;
}

/** Lines of the picture, frame units of each; how far one jitters at most, and how far one goes in bad tracking. */
const LINE = 6;
const JITTER = 5;
const LOST = 130;
/** Height of the band of bad tracking, in parts of the frame's height. */
const BAND = 0.11;

/** An old recording: lines that jitter, colours that run, a band of bad tracking and drop-outs. It belongs to the frame. */
export const tape: EffectKind<z.infer<typeof tapeSchema>, Tape> = {
  schema: tapeSchema,
  isOfFrame: true,
  resolve: ({ amount, tracking, noise, run, seed }, { value, time }) => ({
    effect: 'tape',
    amount: value(amount),
    tracking: value(tracking),
    noise: value(noise),
    run: value(run) * value(amount),
    seed,
    step: Math.floor(time / 2),
  }),
  scaled: (values, by) => ({ ...values, run: values.run * by }),
  isNothing: ({ amount }) => amount < 0.004,
  growth: ({ amount, run }) => {
    const aside = amount * LOST + run;
    return { left: aside, top: 0, right: aside, bottom: 0 };
  },
  apply: (values, surface, tools) => {
    const shown = linesAstray(values, surface, tools);
    const apart = values.run * tools.scale;
    const coloured = apart >= 0.5 ? channelsApart(apart, shown, tools) : shown;
    dropOuts(values, coloured, tools);
    return coloured;
  },
};

/** How deep a row of the frame lies in the band of bad tracking, 0..1. */
const lostAt = (y: number, tracking: number) => Math.max(0, 1 - Math.abs(y - tracking) / BAND);

/** Frame units that the height of a frame counts as: the same picture in frames of any shape. */
const TALL = 1080;

function linesAstray(
  { amount, tracking, seed, step }: Tape,
  surface: Surface,
  { scale, top, borrow, giveBack }: EffectTools,
): Surface {
  const { width, height } = surface.canvas;
  const to = borrow(width, height);
  const tall = Math.max(1, LINE * scale);
  const rowOf = (i: number) => Math.min(height, Math.max(0, Math.round(i * tall) - top));
  for (let i = Math.floor(top / tall); rowOf(i) < height; i++) {
    const [row, rows] = [rowOf(i), rowOf(i + 1) - rowOf(i)];
    if (rows <= 0) continue;
    const lost = lostAt((i * LINE) / TALL, tracking);
    const jitter =
      (randomAt(seed, step, i) * 2 - 1) * JITTER * (0.35 + 0.65 * Math.abs(noiseAt(seed, 2, step / 9)));
    const gone = lost * LOST * (0.55 + 0.45 * noiseAt(seed, 3 + (step % 7), i / 3));
    const by = Math.round((jitter + gone) * amount * scale);
    to.context.drawImage(surface.canvas, 0, row, width, rows, by, row, width, rows);
  }
  giveBack(surface);
  return to;
}

/** Short white dashes: some anywhere, most of them where the tracking is bad. */
function dropOuts(
  { noise, amount, tracking, seed, step }: Tape,
  { context }: Surface,
  tools: EffectTools,
): void {
  const { scale, left, top } = tools;
  if (noise <= 0.01) return;
  context.setTransform(1, 0, 0, 1, 0, 0);
  context.globalCompositeOperation = 'source-atop';
  context.fillStyle = '#ffffff';
  const many = Math.round(150 * noise * amount);
  for (let i = 0; i < many; i++) {
    const chance = (channel: number) => randomAt(seed, step, 50 + i, channel);
    const inBand = chance(0) < 0.7;
    const y = inBand ? tracking + (chance(1) * 2 - 1) * BAND * 0.8 : chance(1) * 1.8;
    const [x, long] = [chance(2) * 1920, 8 + 90 * chance(3) ** 3];
    context.globalAlpha = 0.25 + 0.7 * chance(4);
    const high = Math.max(1, Math.round(2.5 * scale));
    context.fillRect(
      Math.round(x * scale) - left,
      Math.round(y * TALL * scale) - top,
      Math.ceil(long * scale),
      high,
    );
  }
  context.globalAlpha = 1;
  context.globalCompositeOperation = 'source-over';
}
