import { z } from 'zod';
import { property } from '../values/property';
import { type EffectKind, type Over, onlySchema } from './kind';
import { copyOf } from './mixed';
import { growthOfBlur, softened } from './soften';

export const glowShape = (over: Over) => ({
  amount: over(z.number().min(0).max(1)),
  /** Standard deviation of how far it shines, in frame units. */
  radius: over(z.number().min(0).max(500)),
});

export const glowSchema = z.strictObject({
  effect: z.literal('glow'),
  only: onlySchema,
  ...glowShape(property),
});

export interface Glow {
  readonly effect: 'glow';
  readonly amount: number;
  readonly radius: number;
}

/** What is bright shines into what lies beside it: its square, out of focus, laid over it with screen. */
export const glow: EffectKind<z.infer<typeof glowSchema>, Glow> = {
  dear: true,
  schema: glowSchema,
  resolve: ({ amount, radius }, { value }) => ({
    effect: 'glow',
    amount: value(amount),
    radius: value(radius),
  }),
  scaled: (values, by) => ({ ...values, radius: values.radius * by }),
  isNothing: ({ amount }) => amount < 0.002,
  growth: ({ radius }) => growthOfBlur(radius),
  apply: ({ amount, radius }, surface, tools) => {
    const { canvas, context } = surface;
    const bright = copyOf(surface, tools);
    // A colour times itself: what is dark is darker still, what is white stays.
    bright.context.globalCompositeOperation = 'multiply';
    bright.context.drawImage(canvas, 0, 0);
    bright.context.globalCompositeOperation = 'destination-in';
    bright.context.drawImage(canvas, 0, 0);
    const light = softened(bright, radius * tools.scale, tools);
    context.setTransform(1, 0, 0, 1, 0, 0);
    context.globalCompositeOperation = 'screen';
    context.globalAlpha = amount;
    context.drawImage(light.canvas, 0, 0);
    context.globalAlpha = 1;
    context.globalCompositeOperation = 'source-over';
    tools.giveBack(light);
    return surface;
  },
};
