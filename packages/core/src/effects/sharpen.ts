import { z } from 'zod';
import { property } from '../values/property';
import { type EffectKind, type Over, onlySchema } from './kind';
import { copyOf } from './mixed';
import { growthOfBlur, softened } from './soften';

export const sharpenShape = (over: Over) => ({
  amount: over(z.number().min(0).max(4)),
  /** Standard deviation of the softness it is told from, in frame units: larger ones sharpen broader edges. */
  radius: over(z.number().min(0.2).max(30)),
});

export const sharpenSchema = z.strictObject({
  effect: z.literal('sharpen'),
  only: onlySchema,
  ...sharpenShape(property),
});

export interface Sharpen {
  readonly effect: 'sharpen';
  readonly amount: number;
  readonly radius: number;
}

/** Unsharp mask: what differs from the picture out of focus is added once more, times the amount. */
export const sharpen: EffectKind<z.infer<typeof sharpenSchema>, Sharpen> = {
  schema: sharpenSchema,
  resolve: ({ amount, radius }, { value }) => ({
    effect: 'sharpen',
    amount: value(amount),
    radius: value(radius),
  }),
  scaled: (values, by) => ({ ...values, radius: values.radius * by }),
  isNothing: ({ amount }) => amount < 0.002,
  growth: ({ radius }) => growthOfBlur(radius),
  apply: ({ amount, radius }, surface, tools) => {
    const { width, height } = surface.canvas;
    const soft = softened(copyOf(surface, tools), radius * tools.scale, tools);
    const sharp = surface.context.getImageData(0, 0, width, height);
    addDifference(sharp.data, soft.context.getImageData(0, 0, width, height).data, amount);
    surface.context.putImageData(sharp, 0, 0);
    tools.giveBack(soft);
    return surface;
  },
};

/** Adds what of some pixels is not in others to them; straight alpha stays. Values are kept within their range by the array. */
function addDifference(pixels: Uint8ClampedArray, less: Uint8ClampedArray, amount: number): void {
  for (let i = 0; i < pixels.length; i += 4) {
    if (pixels[i + 3] === 0) continue;
    for (let c = i; c < i + 3; c++) pixels[c] = pixels[c]! + (pixels[c]! - less[c]!) * amount;
  }
}
