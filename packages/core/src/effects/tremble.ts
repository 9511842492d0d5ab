import { z } from 'zod';
import type { Surface } from '../canvas/surface';
import { noiseAt } from '../motion/random';
import { property } from '../values/property';
import { type EffectKind, type EffectTools, type Over, onlySchema } from './kind';

export const trembleShape = (over: Over) => ({
  /** Farthest that an edge goes from its place, in frame units. */
  amount: over(z.number().min(0).max(200)),
  /** Frame units from one bend to the next. */
  size: over(z.number().min(4).max(1000)).default(40),
  /** Frames that a drawing stays before it is drawn anew. */
  every: z.number().int().min(1).max(600).default(7),
  seed: z.number().int().min(0).max(100000).default(1),
});

export const trembleSchema = z.strictObject({
  effect: z.literal('tremble'),
  only: onlySchema,
  ...trembleShape(property),
});

export interface Tremble {
  readonly effect: 'tremble';
  readonly amount: number;
  readonly size: number;
  readonly seed: number;
  readonly step: number;
}

/** Edges as a hand draws them, again and again: rows and columns of the picture go a little astray. */
export const tremble: EffectKind<z.infer<typeof trembleSchema>, Tremble> = {
  dear: true,
  schema: trembleSchema,
  isOfFrame: true,
  resolve: ({ amount, size, every, seed }, { value, time }) => ({
    effect: 'tremble',
    amount: value(amount),
    size: value(size),
    seed,
    step: Math.floor(time / every),
  }),
  scaled: (values, by) => ({ ...values, amount: values.amount * by, size: Math.max(4, values.size * by) }),
  isNothing: ({ amount }) => amount < 0.05,
  growth: ({ amount }) => ({ left: amount, top: amount, right: amount, bottom: amount }),
  apply: (values, surface, tools) => astray(values, 1, astray(values, 0, surface, tools), tools),
};

/** Strips from one bend to the next: so many follow its curve, and fewer will do in a draft. */
const STRIPS = 8;
const STRIPS_OF_DRAFT = 4;
/** Pixels of a strip at least. */
const THINNEST = 1;
const THINNEST_OF_DRAFT = 3;

/** Rows (axis 0) or columns (axis 1) shifted by smooth noise of where they are in the frame. */
function astray(
  { amount, size, seed, step }: Tremble,
  axis: 0 | 1,
  surface: Surface,
  { scale, draft, left, top, borrow, giveBack }: EffectTools,
): Surface {
  const { width, height } = surface.canvas;
  const to = borrow(width, height);
  const [length, start] = axis === 0 ? [height, top] : [width, left];
  const [strips, thinnest] = draft ? [STRIPS_OF_DRAFT, THINNEST_OF_DRAFT] : [STRIPS, THINNEST];
  const thick = Math.max(thinnest, Math.round((size * scale) / strips));
  // Strips begin at the same places of the frame, however much of it is painted.
  for (let at = -(((start % thick) + thick) % thick); at < length; at += thick) {
    const from = Math.max(0, at);
    const deep = Math.min(length, at + thick) - from;
    if (deep <= 0) continue;
    const place = (start + at) / (size * scale);
    const by = noiseAt(seed * 2 + axis, step, place) * amount * scale;
    if (axis === 0) to.context.drawImage(surface.canvas, 0, from, width, deep, by, from, width, deep);
    else to.context.drawImage(surface.canvas, from, 0, deep, height, from, by, deep, height);
  }
  giveBack(surface);
  return to;
}
