import { z } from 'zod';
import type { Property } from '../values/property';
import { timedBy } from '../values/timed';
import { bleedShape } from './bleed';
import { blurShape } from './blur';
import { bulgeShape } from './bulge';
import { chalkShape } from './chalk';
import { crumpleShape } from './crumple';
import { disturbShape } from './disturb';
import { glowShape } from './glow';
import { grainShape } from './grain';
import { halftoneShape } from './halftone';
import type { Over } from './kind';
import { longShadowShape } from './longShadow';
import { neonShape } from './neon';
import { sharpenShape } from './sharpen';
import { tapeShape } from './tape';
import { tintShape } from './tint';
import { toneShape } from './tone';
import { trembleShape } from './tremble';
import { vignetteShape } from './vignette';

/** A value, or values over time. */
const timed: Over = <S extends z.ZodType>(constant: S) =>
  timedBy(constant, z.enum(['in', 'hold', 'out']).default('in')) as unknown as z.ZodType<
    Property<z.output<S>>
  >;

const base = {
  /** Its own within its list. */
  id: z.string().min(1).max(60),
  off: z.boolean().optional(),
};

/**
 * An effect that the user put on an item or on what is in a slot. Keys count in frames of the reel from where the item
 * begins, and in a slot by the stretches of its graphic.
 */
export const treatmentSchema = z.discriminatedUnion('effect', [
  z.strictObject({ ...base, effect: z.literal('brightness'), ...toneShape(timed) }),
  z.strictObject({ ...base, effect: z.literal('contrast'), ...toneShape(timed) }),
  z.strictObject({ ...base, effect: z.literal('saturation'), ...toneShape(timed) }),
  z.strictObject({ ...base, effect: z.literal('tint'), ...tintShape(timed) }),
  z.strictObject({
    ...base,
    effect: z.literal('blur'),
    ...blurShape(timed),
    inside: z.boolean().optional(),
  }),
  z.strictObject({ ...base, effect: z.literal('sharpen'), ...sharpenShape(timed) }),
  z.strictObject({ ...base, effect: z.literal('grain'), ...grainShape(timed) }),
  z.strictObject({ ...base, effect: z.literal('vignette'), ...vignetteShape(timed) }),
  z.strictObject({ ...base, effect: z.literal('glow'), ...glowShape(timed) }),
  z.strictObject({ ...base, effect: z.literal('disturb'), ...disturbShape(timed) }),
  z.strictObject({ ...base, effect: z.literal('bulge'), ...bulgeShape(timed) }),
  z.strictObject({ ...base, effect: z.literal('tape'), ...tapeShape(timed) }),
  z.strictObject({ ...base, effect: z.literal('halftone'), ...halftoneShape(timed) }),
  z.strictObject({ ...base, effect: z.literal('tremble'), ...trembleShape(timed) }),
  z.strictObject({ ...base, effect: z.literal('crumple'), ...crumpleShape(timed) }),
  z.strictObject({ ...base, effect: z.literal('chalk'), ...chalkShape(timed) }),
  z.strictObject({ ...base, effect: z.literal('bleed'), ...bleedShape(timed) }),
  z.strictObject({ ...base, effect: z.literal('long-shadow'), ...longShadowShape(timed) }),
  z.strictObject({ ...base, effect: z.literal('neon'), ...neonShape(timed) }),
]);
export type Treatment = z.infer<typeof treatmentSchema>;
export type TreatmentKind = Treatment['effect'];

/** Most treatments of one thing. */
export const MOST_TREATMENTS = 12;

/** Treatments in the order in which they are applied. */
export const treatmentsSchema = z.array(treatmentSchema).max(MOST_TREATMENTS);
