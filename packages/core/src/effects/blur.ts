import { z } from 'zod';
import { property } from '../documents/property';
import { type EffectKind, onlySchema } from './kind';

export const blurSchema = z.strictObject({
  effect: z.literal('blur'),
  only: onlySchema,
  /** Standard deviation of the Gaussian, in frame units. */
  radius: property(z.number().min(0).max(500)),
});

export interface Blur {
  readonly effect: 'blur';
  readonly radius: number;
}

/**
 * Gaussian blur. A wide blur is made on a smaller copy, where it costs a fraction and looks the same: the copy is
 * shrunk until the radius is about four pixels.
 */
export const blur: EffectKind<z.infer<typeof blurSchema>, Blur> = {
  schema: blurSchema,
  resolve: (effect, value) => ({ effect: 'blur', radius: value(effect.radius) }),
  scaled: (values, by) => ({ ...values, radius: values.radius * by }),
  isNothing: ({ radius }) => radius < 0.05,
  growth: ({ radius }) => ({ left: radius * 3, top: radius * 3, right: radius * 3, bottom: radius * 3 }),
  apply: ({ radius }, surface, { scale, borrow, giveBack }) => {
    const { canvas } = surface;
    const pixels = radius * scale;
    const shrink = Math.min(1, 4 / pixels);
    const small = borrow(
      Math.max(1, Math.ceil(canvas.width * shrink)),
      Math.max(1, Math.ceil(canvas.height * shrink)),
    );
    small.context.drawImage(canvas, 0, 0, small.canvas.width, small.canvas.height);
    const result = borrow(canvas.width, canvas.height);
    if (shrink === 1) {
      result.context.filter = `blur(${pixels}px)`;
      result.context.drawImage(small.canvas, 0, 0);
    } else {
      const soft = borrow(small.canvas.width, small.canvas.height);
      soft.context.filter = `blur(${pixels * shrink}px)`;
      soft.context.drawImage(small.canvas, 0, 0);
      soft.context.filter = 'none';
      // What is soft already needs no better filter than the quick one.
      result.context.imageSmoothingQuality = 'low';
      result.context.drawImage(soft.canvas, 0, 0, canvas.width, canvas.height);
      giveBack(soft);
    }
    result.context.filter = 'none';
    giveBack(small);
    giveBack(surface);
    return result;
  },
};
