import { z } from 'zod';
import { easingSchema } from '../motion/easing';
import { LONGEST_REEL, MOST } from './limits';

/**
 * The schema of a value, or of values over time: keys count in frames of the reel.
 * @param of the stretches that a key's frame may count from
 */
export const timedBy = <S extends z.ZodType, O extends z.ZodType>(constant: S, of: O) =>
  z.union([
    constant,
    z.strictObject({
      keys: z
        .array(
          z.strictObject({
            at: z.number().int().min(-LONGEST_REEL).max(LONGEST_REEL),
            of,
            value: constant,
            /** The curve from this key to the next. */
            ease: easingSchema.optional(),
          }),
        )
        .min(1)
        .max(MOST.keys),
    }),
  ]);
