import { z } from 'zod';

/** A sound in a slot, and how it is heard. What is absent is as the template has it. */
export const soundFillSchema = z.strictObject({
  /** `sha256:…`, of the user's media or the template's. */
  sound: z.string().min(1).max(200),
  /** Name of the file it came as. */
  name: z.string().max(255).optional(),
  /** Decibels. */
  level: z.number().min(-60).max(12).optional(),
  /** Seconds over which it comes and goes. */
  fadeIn: z.number().min(0).max(60).optional(),
  fadeOut: z.number().min(0).max(60).optional(),
  /** Second of the file at which it begins. */
  from: z.number().min(0).max(864000).optional(),
  silent: z.boolean().optional(),
});
export type SoundFill = z.infer<typeof soundFillSchema>;
