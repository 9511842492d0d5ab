import { z } from 'zod';
import { randomAt } from '../motion/random';
import { property } from '../values/property';
import { type EffectKind, onlySchema } from './kind';

export const tearSchema = z.strictObject({
  effect: z.literal('tear'),
  only: onlySchema,
  /** Height of a band of the frame, in frame units. */
  band: property(z.number().min(2).max(2000)).default(24),
  /** Farthest that a band goes sideways, in frame units. */
  shift: property(z.number().min(0).max(2000)).default(60),
  /** The part of the bands that go. */
  amount: property(z.number().min(0).max(1)),
  /** Frames that they stay where they are. */
  every: z.number().int().min(1).max(600).default(3),
  seed: z.number().int().min(0).max(100000).default(1),
});

export interface Tear {
  readonly effect: 'tear';
  readonly band: number;
  readonly shift: number;
  readonly amount: number;
  readonly seed: number;
  /** Counts on each time the bands go elsewhere. */
  readonly step: number;
}

/**
 * Bands that slip sideways, as when a picture loses its line sync. They belong to the frame: content that moves passes
 * through them, and how much of it is painted changes nothing.
 */
export const tear: EffectKind<z.infer<typeof tearSchema>, Tear> = {
  schema: tearSchema,
  isOfFrame: true,
  resolve: (effect, { value, time }) => ({
    effect: 'tear',
    band: Math.max(2, value(effect.band)),
    shift: value(effect.shift),
    amount: value(effect.amount),
    seed: effect.seed,
    step: Math.floor(time / effect.every),
  }),
  scaled: (values, by) => ({ ...values, shift: values.shift * by }),
  isNothing: ({ shift, amount }) => shift < 0.05 || amount <= 0,
  growth: ({ shift }) => ({ left: shift, top: 0, right: shift, bottom: 0 }),
  apply: ({ band, shift, amount, seed, step }, surface, { scale, top, borrow, giveBack }) => {
    const { width, height } = surface.canvas;
    const torn = borrow(width, height);
    const tall = band * scale;
    /** The row of the surface at which a band of the frame begins. */
    const rowOf = (index: number) => Math.min(height, Math.max(0, Math.round(index * tall) - top));
    for (let i = Math.floor(top / tall); rowOf(i) < height; i++) {
      const [row, rows] = [rowOf(i), rowOf(i + 1) - rowOf(i)];
      if (rows <= 0) continue;
      const goes = randomAt(seed, step, i) < amount;
      const by = goes ? Math.round((randomAt(seed, step, i, 1) * 2 - 1) * shift * scale) : 0;
      torn.context.drawImage(surface.canvas, 0, row, width, rows, by, row, width, rows);
    }
    giveBack(surface);
    return torn;
  },
};
