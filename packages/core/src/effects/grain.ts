import { z } from 'zod';
import { property } from '../values/property';
import { type EffectKind, NO_GROWTH, type Over, onlySchema } from './kind';
import { mixedOver } from './mixed';

export const grainShape = (over: Over) => ({
  amount: over(z.number().min(0).max(1)),
  /** Size of a grain in frame units. */
  size: over(z.number().min(0.5).max(20)),
});

/** Frames that one pattern of grain stays. */
const STAYS = 2;

export const grainSchema = z.strictObject({
  effect: z.literal('grain'),
  only: onlySchema,
  ...grainShape(property),
});

export interface GrainOver {
  readonly effect: 'grain';
  readonly amount: number;
  readonly size: number;
  readonly seed: number;
}

/** Film grain on the content alone, laid with overlay: it keeps black and white clean. */
export const grain: EffectKind<z.infer<typeof grainSchema>, GrainOver> = {
  schema: grainSchema,
  isOfFrame: true,
  resolve: ({ amount, size }, { value, time }) => ({
    effect: 'grain',
    amount: value(amount),
    size: value(size),
    seed: Math.floor(time / STAYS),
  }),
  scaled: (values, by) => ({ ...values, size: values.size * by }),
  isNothing: ({ amount }) => amount < 0.002,
  growth: () => NO_GROWTH,
  apply: ({ amount, size, seed }, surface, tools) =>
    mixedOver(surface, amount, tools, (copy) => {
      copy.context.globalCompositeOperation = 'overlay';
      tools.layGrain(copy, size, seed);
    }),
};
