import { z } from 'zod';
import type { Surface } from '../canvas/surface';
import { property } from '../values/property';
import { type EffectKind, type EffectTools, type Over, onlySchema } from './kind';
import { copyOf } from './mixed';
import { enoughFor, growthOfBlur, softened } from './soften';

export const blurShape = (over: Over) => ({
  /** Standard deviation of the Gaussian, in frame units. */
  radius: over(z.number().min(0).max(500)),
});

export const blurSchema = z.strictObject({
  effect: z.literal('blur'),
  only: onlySchema,
  ...blurShape(property),
  /** Whether the content keeps its edge, as a picture does that fills the frame; it spreads, when absent. */
  inside: z.boolean().optional(),
});

export interface Blur {
  readonly effect: 'blur';
  readonly radius: number;
  readonly inside?: boolean;
}

/** Gaussian blur. */
export const blur: EffectKind<z.infer<typeof blurSchema>, Blur> = {
  schema: blurSchema,
  resolve: ({ radius, inside }, { value }) => ({
    effect: 'blur',
    radius: value(radius),
    ...(inside ? { inside } : {}),
  }),
  scaled: (values, by) => ({ ...values, radius: values.radius * by }),
  isNothing: ({ radius }) => radius < 0.05,
  growth: ({ radius }) => growthOfBlur(radius),
  detail: ({ radius, inside }, draft) => (inside ? Number.POSITIVE_INFINITY : enoughFor(radius, draft)),
  apply: ({ radius, inside }, surface, tools) =>
    inside ? softInside(surface, radius, tools) : softened(surface, radius * tools.scale, tools),
};

/** Out of focus within its own edge: no light of what is not there comes in. */
function softInside(surface: Surface, radius: number, tools: EffectTools): Surface {
  const soft = softened(copyOf(surface, tools), radius * tools.scale, tools);
  const { context } = soft;
  context.globalAlpha = 1;
  // Laid over itself it gets opaque where there is anything, and its colours stay: 1 − (1 − a)^64.
  for (let i = 0; i < 6; i++) context.drawImage(soft.canvas, 0, 0);
  context.globalCompositeOperation = 'destination-in';
  context.drawImage(surface.canvas, 0, 0);
  context.globalCompositeOperation = 'source-over';
  tools.giveBack(surface);
  return soft;
}
