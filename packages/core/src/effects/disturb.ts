import { z } from 'zod';
import type { Surface } from '../canvas/surface';
import { randomAt } from '../motion/random';
import { property } from '../values/property';
import { channelsApart } from './channels';
import { type EffectKind, type EffectTools, type Over, onlySchema } from './kind';
import { copyOf } from './mixed';

export const disturbShape = (over: Over) => ({
  /** How much of everything below. */
  amount: over(z.number().min(0).max(1)),
  /** The part of the time that it breaks out, step by step; what is random in it is seeded. */
  bursts: over(z.number().min(0).max(1)).default(1),
  /** How far red stands from green and blue, in frame units. */
  apart: over(z.number().min(0).max(400)).default(14),
  /** How far slices are thrown sideways, in frame units. */
  thrown: over(z.number().min(0).max(2000)).default(80),
  /** The part of the blocks that come from elsewhere. */
  blocks: over(z.number().min(0).max(1)).default(0.3),
  /** How dark the lines of a screen are, burst or not, and frame units from one to the next. */
  lines: over(z.number().min(0).max(1)).default(0),
  pitch: over(z.number().min(3).max(200)).default(8),
  /** Frames that a step stays. */
  every: z.number().int().min(1).max(600).default(3),
  /** Others of the same kind. */
  seed: over(z.number().min(0).max(100000)).default(1),
});

export const disturbSchema = z.strictObject({
  effect: z.literal('disturb'),
  only: onlySchema,
  ...disturbShape(property),
});

export interface Disturb {
  readonly effect: 'disturb';
  readonly amount: number;
  readonly apart: number;
  readonly thrown: number;
  readonly blocks: number;
  readonly lines: number;
  readonly pitch: number;
  readonly seed: number;
  /** Counts on each time what is random is made anew. */
  readonly step: number;
}

/** So many are tried: those that lie outside a frame of this shape are passed over. */
const SLICES = 18;
const BLOCKS = 24;
/**
 * A picture whose link breaks, in bursts: slices thrown sideways, blocks from elsewhere, and red apart from green and
 * blue. It belongs to the frame, so that how much of the content is painted changes nothing.
 */
export const disturb: EffectKind<z.infer<typeof disturbSchema>, Disturb> = {
  schema: disturbSchema,
  isOfFrame: true,
  resolve: ({ amount, bursts, apart, thrown, blocks, lines, pitch, every, seed }, { value, time }) => {
    const step = Math.floor(time / every);
    const seeded = Math.round(value(seed));
    const breaksOut = randomAt(seeded, step, 1) < value(bursts);
    // No two bursts are as strong.
    const strength = breaksOut ? value(amount) * (0.35 + 0.65 * randomAt(seeded, step, 2)) : 0;
    return {
      effect: 'disturb',
      amount: strength,
      apart: value(apart) * strength,
      thrown: value(thrown) * strength,
      blocks: value(blocks) * strength,
      lines: value(lines),
      pitch: Math.max(3, value(pitch)),
      seed: seeded,
      step,
    };
  },
  scaled: (values, by) => ({ ...values, apart: values.apart * by, thrown: values.thrown * by }),
  isNothing: ({ amount, apart, thrown, blocks, lines }) =>
    lines < 0.004 && (amount < 0.002 || (apart < 0.05 && thrown < 0.05 && blocks <= 0)),
  growth: ({ apart, thrown }) => ({ left: apart + thrown, top: 0, right: apart + thrown, bottom: 0 }),
  apply: (values, surface, tools) => {
    if (values.amount >= 0.002) broken(values, surface, tools);
    const apart = values.apart * tools.scale;
    const shown = apart >= 0.5 ? channelsApart(apart, surface, tools) : surface;
    if (values.lines >= 0.004) drawLines(values, shown, tools);
    return shown;
  },
};

/** Dark lines of a screen over what is there, at the same rows of the frame wherever the content lies. */
function drawLines(
  { lines, pitch }: Disturb,
  { canvas, context }: Surface,
  { scale, top }: EffectTools,
): void {
  const tall = Math.max(2, pitch * scale);
  context.setTransform(1, 0, 0, 1, 0, 0);
  context.globalCompositeOperation = 'source-atop';
  context.globalAlpha = lines;
  context.fillStyle = '#000000';
  for (let i = Math.floor(top / tall); i * tall - top < canvas.height; i++) {
    const from = Math.round(i * tall) - top;
    context.fillRect(0, from, canvas.width, Math.max(1, Math.round(tall / 2)));
  }
  context.globalAlpha = 1;
  context.globalCompositeOperation = 'source-over';
}

/** Throws slices sideways and takes blocks from elsewhere, by places of the frame. */
function broken({ thrown, blocks, seed, step, amount }: Disturb, surface: Surface, tools: EffectTools): void {
  const { scale, left, top, giveBack } = tools;
  const { width, height } = surface.canvas;
  if (thrown * scale < 0.5 && blocks <= 0) return;
  const from = copyOf(surface, tools);
  const { context } = surface;
  context.setTransform(1, 0, 0, 1, 0, 0);
  const put = (x: number, y: number, w: number, h: number, dx: number, dy: number) => {
    context.clearRect(x, y, w, h);
    context.drawImage(from.canvas, x - dx, y - dy, w, h, x, y, w, h);
  };
  const slices = thrown * scale < 0.5 ? 0 : Math.round(SLICES * amount);
  for (let i = 0; i < slices; i++) {
    const chance = (channel: number) => randomAt(seed, step, 10 + i, channel);
    const tall = Math.round((6 + 90 * chance(0) ** 3) * scale);
    const y = Math.round(1080 * chance(1) * 1.8 * scale) - top;
    const dx = Math.round((chance(2) * 2 - 1) * thrown * scale);
    if (y + tall <= 0 || y >= height || tall < 1) continue;
    put(0, Math.max(0, y), width, Math.min(height, y + tall) - Math.max(0, y), dx, 0);
  }
  for (let i = 0; i < BLOCKS; i++) {
    const chance = (channel: number) => randomAt(seed, step, 100 + i, channel);
    if (chance(0) >= blocks) continue;
    const [w, h] = [Math.round((40 + 220 * chance(1)) * scale), Math.round((12 + 60 * chance(2)) * scale)];
    const x = Math.round(1920 * chance(3) * scale) - left;
    const y = Math.round(1080 * chance(4) * 1.8 * scale) - top;
    if (x >= width || y >= height || x + w <= 0 || y + h <= 0 || w < 1 || h < 1) continue;
    put(x, y, w, h, Math.round((chance(5) * 2 - 1) * w), 0);
  }
  giveBack(from);
}
