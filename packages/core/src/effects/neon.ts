import { z } from 'zod';
import { colourSchema } from '../colour/colour';
import { noiseAt, randomAt } from '../motion/random';
import { property } from '../values/property';
import { type EffectKind, type Over, onlySchema } from './kind';
import { copyOf } from './mixed';
import { growthOfBlur, softened } from './soften';

export const neonShape = (over: Over) => ({
  /** How far it is switched on. */
  amount: over(z.number().min(0).max(1)),
  colour: over(colourSchema),
  /** Standard deviation of how far it shines, in frame units. */
  radius: over(z.number().min(0).max(300)).default(26),
  /** How much its light goes up and down, and how often it fails for a moment. */
  hum: over(z.number().min(0).max(1)).default(0.04),
  flicker: over(z.number().min(0).max(1)).default(0),
  seed: z.number().int().min(0).max(100000).default(1),
});

export const neonSchema = z.strictObject({
  effect: z.literal('neon'),
  only: onlySchema,
  ...neonShape(property),
});

export interface Neon {
  readonly effect: 'neon';
  readonly amount: number;
  readonly colour: string;
  readonly radius: number;
}

/** Frames that a failing light stays as it is. */
const BLINK = 3;

/** Tubes and filaments: a core that is nearly white, light around it in its colour, dark glass while it is off. */
export const neon: EffectKind<z.infer<typeof neonSchema>, Neon> = {
  schema: neonSchema,
  resolve: ({ amount, colour, radius, hum, flicker, seed }, { value, time }) => {
    const fails = randomAt(seed, Math.floor(time / BLINK), 1) < value(flicker) * 0.5;
    const dip = fails ? 0.25 + 0.4 * randomAt(seed, Math.floor(time / BLINK), 2) : 1;
    const humming = 1 - value(hum) * (0.5 + 0.5 * noiseAt(seed, 3, time / 4));
    return {
      effect: 'neon',
      amount: value(amount) * dip * humming,
      colour: value(colour),
      radius: value(radius),
    };
  },
  scaled: (values, by) => ({ ...values, radius: values.radius * by }),
  isNothing: () => false,
  growth: ({ radius }) => growthOfBlur(radius),
  apply: ({ amount, colour, radius }, surface, tools) => {
    const { canvas, context } = surface;
    const halo = copyOf(surface, tools);
    halo.context.globalCompositeOperation = 'source-in';
    halo.context.fillStyle = colour;
    halo.context.fillRect(0, 0, canvas.width, canvas.height);
    halo.context.globalCompositeOperation = 'source-over';
    const near = softened(copyOf(halo, tools), radius * 0.3 * tools.scale, tools);
    const far = softened(halo, radius * tools.scale, tools);
    context.setTransform(1, 0, 0, 1, 0, 0);
    // Dark glass, and the more of a core that glows the farther it is on.
    context.globalCompositeOperation = 'source-atop';
    context.fillStyle = '#000000';
    context.globalAlpha = 0.62 * (1 - amount);
    context.fillRect(0, 0, canvas.width, canvas.height);
    context.fillStyle = '#ffffff';
    context.globalAlpha = 0.72 * amount;
    context.fillRect(0, 0, canvas.width, canvas.height);
    context.globalCompositeOperation = 'destination-over';
    context.globalAlpha = 0.9 * amount;
    context.drawImage(near.canvas, 0, 0);
    context.globalAlpha = 0.75 * amount;
    context.drawImage(far.canvas, 0, 0);
    context.globalAlpha = 1;
    context.globalCompositeOperation = 'source-over';
    tools.giveBack(near);
    tools.giveBack(far);
    return surface;
  },
};
