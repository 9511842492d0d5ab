import { z } from 'zod';
import { property } from '../values/property';
import { type EffectKind, type Over, onlySchema } from './kind';
import { copyOf } from './mixed';
import { softened } from './soften';
import { tremble } from './tremble';

export const bleedShape = (over: Over) => ({
  /** How far the ink runs, in frame units. */
  amount: over(z.number().min(0).max(60)),
  /** How uneven its edge is. */
  uneven: over(z.number().min(0).max(1)).default(0.5),
  seed: z.number().int().min(0).max(100000).default(1),
});

export const bleedSchema = z.strictObject({
  effect: z.literal('bleed'),
  only: onlySchema,
  ...bleedShape(property),
});

export interface Bleed {
  readonly effect: 'bleed';
  readonly amount: number;
  readonly uneven: number;
  readonly seed: number;
}

/** Ink that runs into paper: it spreads, fills narrow corners, and its edge follows the fibres. */
export const bleed: EffectKind<z.infer<typeof bleedSchema>, Bleed> = {
  dear: true,
  schema: bleedSchema,
  isOfFrame: true,
  resolve: ({ amount, uneven, seed }, { value }) => ({
    effect: 'bleed',
    amount: value(amount),
    uneven: value(uneven),
    seed,
  }),
  scaled: (values, by) => ({ ...values, amount: values.amount * by }),
  isNothing: ({ amount }) => amount < 0.1,
  growth: ({ amount }) => ({ left: amount * 3, top: amount * 3, right: amount * 3, bottom: amount * 3 }),
  apply: ({ amount, uneven, seed }, surface, tools) => {
    let run = softened(copyOf(surface, tools), amount * 0.42 * tools.scale, tools);
    // Laid over itself what is half there becomes whole: 1 − (1 − a)^16.
    for (let i = 0; i < 4; i++) run.context.drawImage(run.canvas, 0, 0);
    const astray = {
      effect: 'tremble',
      amount: amount * uneven,
      size: Math.max(6, amount * 2.5),
      seed,
      step: 0,
    } as const;
    if (!tremble.isNothing(astray)) run = tremble.apply(astray, run, tools);
    run.context.drawImage(surface.canvas, 0, 0);
    tools.giveBack(surface);
    return run;
  },
};
