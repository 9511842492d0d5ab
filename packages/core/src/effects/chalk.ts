import { z } from 'zod';
import { randomAt } from '../motion/random';
import { property } from '../values/property';
import { type EffectKind, NO_GROWTH, type Over, onlySchema } from './kind';

export const chalkShape = (over: Over) => ({
  /** How much of it the board has not taken. */
  amount: over(z.number().min(0).max(1)),
  /** Frame units of a grain. */
  size: over(z.number().min(1).max(60)).default(4),
  /** Frames that the grain stays; 0, always. */
  every: z.number().int().min(0).max(600).default(0),
  seed: z.number().int().min(0).max(100000).default(1),
});

export const chalkSchema = z.strictObject({
  effect: z.literal('chalk'),
  only: onlySchema,
  ...chalkShape(property),
});

export interface Chalk {
  readonly effect: 'chalk';
  readonly amount: number;
  readonly size: number;
  readonly seed: number;
  readonly step: number;
}

/** Grains of a tile each way: it is laid again and again. */
const TILE = 96;

/** Chalk or pencil on a rough ground: grains of it are missing, in streaks. It belongs to the frame. */
export const chalk: EffectKind<z.infer<typeof chalkSchema>, Chalk> = {
  dear: true,
  schema: chalkSchema,
  isOfFrame: true,
  resolve: ({ amount, size, every, seed }, { value, time }) => ({
    effect: 'chalk',
    amount: value(amount),
    size: value(size),
    seed,
    step: every === 0 ? 0 : Math.floor(time / every),
  }),
  scaled: (values) => values,
  isNothing: ({ amount }) => amount < 0.004,
  growth: () => NO_GROWTH,
  apply: ({ amount, size, seed, step }, surface, { scale, left, top, borrow, giveBack }) => {
    const { canvas, context } = surface;
    const tile = borrow(TILE, TILE);
    const grains = tile.context.createImageData(TILE, TILE);
    for (let y = 0; y < TILE; y++) {
      let before = randomAt(seed, step, TILE - 1, y);
      for (let x = 0; x < TILE; x++) {
        // A grain takes after the one before it: streaks, as of a stick that is drawn along.
        const own = randomAt(seed, step, x, y);
        const rough = 0.6 * own + 0.4 * before;
        before = own;
        const gone = Math.max(0, Math.min(1, (amount * 1.15 - rough) * 5));
        grains.data[(y * TILE + x) * 4 + 3] = Math.round(255 * gone);
      }
    }
    tile.context.putImageData(grains, 0, 0);
    // Enlarged once, to whole pixels: hosts lay it pixel by pixel in a fraction of the time.
    const wide = Math.max(1, Math.round(TILE * size * scale));
    const large = borrow(wide, wide);
    large.context.imageSmoothingEnabled = true;
    large.context.drawImage(tile.canvas, 0, 0, wide, wide);
    context.setTransform(1, 0, 0, 1, 0, 0);
    context.globalCompositeOperation = 'destination-out';
    for (let y = Math.floor(top / wide) * wide; y < top + canvas.height; y += wide)
      for (let x = Math.floor(left / wide) * wide; x < left + canvas.width; x += wide)
        context.drawImage(large.canvas, x - left, y - top);
    giveBack(large);
    context.globalCompositeOperation = 'source-over';
    giveBack(tile);
    return surface;
  },
};
