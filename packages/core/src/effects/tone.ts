import { z } from 'zod';
import { type Property, property } from '../values/property';
import { type EffectKind, NO_GROWTH, type Over, onlySchema } from './kind';

/** How much, as the function of the same name takes it: 1 leaves the picture as it is. */
export const toneShape = (over: Over) => ({ amount: over(z.number().min(0).max(4)) });

export const brightnessSchema = z.strictObject({
  effect: z.literal('brightness'),
  only: onlySchema,
  ...toneShape(property),
});
export const contrastSchema = z.strictObject({
  effect: z.literal('contrast'),
  only: onlySchema,
  ...toneShape(property),
});
export const saturationSchema = z.strictObject({
  effect: z.literal('saturation'),
  only: onlySchema,
  ...toneShape(property),
});

interface Tone<E extends string> {
  readonly effect: E;
  readonly amount: number;
}
export type Brightness = Tone<'brightness'>;
export type Contrast = Tone<'contrast'>;
export type Saturation = Tone<'saturation'>;

/** An effect that is a function of W3C Filter Effects 1, §6: it works on colours apart from their alpha. */
function toneKind<E extends string>(effect: E, filter: string, schema: z.ZodType) {
  const kind: EffectKind<{ amount: Property<number> }, Tone<E>> = {
    dear: true,
    keepsAlpha: true,
    schema: schema as z.ZodType<{ amount: Property<number> }>,
    resolve: ({ amount }, { value }) => ({ effect, amount: value(amount) }),
    scaled: (values) => values,
    isNothing: ({ amount }) => Math.abs(amount - 1) < 0.002,
    growth: () => NO_GROWTH,
    apply: ({ amount }, surface, { borrow, giveBack }) => {
      const { canvas } = surface;
      const result = borrow(canvas.width, canvas.height);
      result.context.filter = `${filter}(${amount})`;
      result.context.drawImage(canvas, 0, 0);
      result.context.filter = 'none';
      giveBack(surface);
      return result;
    },
  };
  return kind;
}

/** All of the picture lighter or darker: every colour times the amount. */
export const brightness = toneKind('brightness', 'brightness', brightnessSchema);
/** Light and dark farther apart or nearer, about the middle grey. */
export const contrast = toneKind('contrast', 'contrast', contrastSchema);
/** Colours fuller or greyer. */
export const saturation = toneKind('saturation', 'saturate', saturationSchema);
