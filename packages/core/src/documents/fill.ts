import { z } from 'zod';
import { runSchema, textChangeSchema } from '../layers/textStyle';
import { type PictureFill, pictureFillSchema } from '../media/pictureFill';
import { type SoundFill, soundFillSchema } from '../media/soundFill';
import { easingSchema } from '../motion/easing';
import { MOST } from '../values/limits';
import { markSchema } from '../values/property';

export {
  CLIP_ENDS,
  type ClipFill,
  freshPicture,
  type PictureFill,
  pictureFillSchema,
} from '../media/pictureFill';

export { type SoundFill, soundFillSchema } from '../media/soundFill';

/** Words with parts that are marked or have a look of their own. */
export const wordsFillSchema = z.strictObject({
  text: z.string().max(MOST.words),
  /** In order and apart from each other. */
  runs: z.array(runSchema).max(MOST.runs),
});
export type WordsFill = z.infer<typeof wordsFillSchema>;

/** What the user put in a slot: words, a picture or clip, a sound, or nothing (`null`: the slot is left empty on purpose). */
export const slotFillSchema = z.union([
  z.string().max(MOST.words),
  wordsFillSchema,
  pictureFillSchema,
  soundFillSchema,
  z.null(),
]);
export type SlotFill = z.infer<typeof slotFillSchema>;

export function isWords(held: SlotFill | undefined): held is string | WordsFill {
  return typeof held === 'string' || (typeof held === 'object' && held !== null && 'text' in held);
}

export function isPicture(held: SlotFill | undefined): held is PictureFill {
  return typeof held === 'object' && held !== null && 'media' in held;
}

export function isSound(held: SlotFill | undefined): held is SoundFill {
  return typeof held === 'object' && held !== null && 'sound' in held;
}

/** A control's value at one moment. */
export const controlValueSchema = z.union([
  z.number(),
  z.string().max(20000),
  z.boolean(),
  z.tuple([z.number(), z.number()]),
]);
export type ControlValue = z.infer<typeof controlValueSchema>;

/** A value at a mark, and the curve from it to the next. */
export const controlKeySchema = z.strictObject({
  ...markSchema.shape,
  value: controlValueSchema,
  ease: easingSchema.optional(),
});
export type ControlKey = z.infer<typeof controlKeySchema>;

/** What the user chose on a control: one value, or values over time. */
export const controlFillSchema = z.union([
  controlValueSchema,
  z.strictObject({ keys: z.array(controlKeySchema).min(1).max(MOST.keys) }),
]);
export type ControlFill = z.infer<typeof controlFillSchema>;

/** Slots, controls, text changes and look that were chosen; what is absent is as the template has it. */
export const fillSchema = z.strictObject({
  look: z.string().optional(),
  slots: z.record(z.string(), slotFillSchema).default({}),
  controls: z.record(z.string(), controlFillSchema).default({}),
  /** Slots that do not show, though they keep what is in them. */
  hidden: z.array(z.string()).max(100).optional(),
  /** Without depth: letters without sides, a lens that sharpens all; painted in less time. */
  flat: z.literal(true).optional(),
  /** Changes of text layers, by the layer's id. */
  texts: z.record(z.string(), textChangeSchema).optional(),
});
export type Fill = z.infer<typeof fillSchema>;

export const EMPTY_FILL: Fill = { slots: {}, controls: {} };
