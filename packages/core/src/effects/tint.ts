import { z } from 'zod';
import { colourSchema } from '../colour/colour';
import { property } from '../values/property';
import { type EffectKind, NO_GROWTH, type Over, onlySchema } from './kind';
import { mixedOver } from './mixed';

export const tintShape = (over: Over) => ({
  colour: over(colourSchema),
  /** 0 leaves the picture as it is; at 1 it has this colour alone. */
  amount: over(z.number().min(0).max(1)),
});

export const tintSchema = z.strictObject({
  effect: z.literal('tint'),
  only: onlySchema,
  ...tintShape(property),
});

export interface Tint {
  readonly effect: 'tint';
  readonly colour: string;
  readonly amount: number;
}

/**
 * All of the picture in shades of one colour: its hue and saturation, with the luminosity of the picture (the blend
 * mode `color` of W3C Compositing and Blending 1, §10.2).
 */
export const tint: EffectKind<z.infer<typeof tintSchema>, Tint> = {
  dear: true,
  keepsAlpha: true,
  schema: tintSchema,
  resolve: ({ colour, amount }, { value }) => ({
    effect: 'tint',
    colour: value(colour),
    amount: value(amount),
  }),
  scaled: (values) => values,
  isNothing: ({ amount }) => amount < 0.002,
  growth: () => NO_GROWTH,
  apply: ({ colour, amount }, surface, tools) =>
    mixedOver(surface, amount, tools, ({ context, canvas }) => {
      context.globalCompositeOperation = 'color';
      context.fillStyle = colour;
      context.fillRect(0, 0, canvas.width, canvas.height);
    }),
};
