import { z } from 'zod';
import { property } from '../documents/property';
import { type EffectKind, onlySchema } from './kind';
import { enoughFor, softened } from './soften';

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

/** Gaussian blur. */
export const blur: EffectKind<z.infer<typeof blurSchema>, Blur> = {
  schema: blurSchema,
  resolve: (effect, { value }) => ({ effect: 'blur', radius: value(effect.radius) }),
  scaled: (values, by) => ({ ...values, radius: values.radius * by }),
  isNothing: ({ radius }) => radius < 0.05,
  growth: ({ radius }) => ({ left: radius * 3, top: radius * 3, right: radius * 3, bottom: radius * 3 }),
  detail: ({ radius }) => enoughFor(radius),
  apply: ({ radius }, surface, tools) => softened(surface, radius * tools.scale, tools),
};
