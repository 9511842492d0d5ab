import { z } from 'zod';
import { treatmentsSchema } from '../effects/treatment';
import { BLEND_MODES } from '../paint/ops';

const part = z.number().min(0).max(1);

/** What to do when a clip is over before its slot is. */
export const CLIP_ENDS = ['hold', 'loop', 'stretch'] as const;

/** How a clip plays in its slot. What is absent is as in the file. */
export const clipFillSchema = z.strictObject({
  /** Second of the file at which it begins. */
  in: z.number().min(0).max(864000).optional(),
  /** Seconds of the file that play from there; to its end, when absent. */
  length: z.number().min(0.001).max(864000).optional(),
  /** 2 plays twice as fast. */
  speed: z.number().min(0.05).max(20).optional(),
  /** When it is over before its slot is: the last frame stays (the default), it begins again, or it plays slower. */
  end: z.enum(CLIP_ENDS).optional(),
  /** A second of the file that stands still instead of playing. */
  freeze: z.number().min(0).max(864000).optional(),
  /** Whether its sound is silenced (`false`: heard), as the template has it when absent; and its level in decibels. */
  silent: z.boolean().optional(),
  level: z.number().min(-60).max(12).optional(),
});
export type ClipFill = z.infer<typeof clipFillSchema>;

/** A picture or clip in a slot and how it sits there. */
export const pictureFillSchema = z.strictObject({
  /** `sha256:…`, of the user's media or the template's. */
  media: z.string().min(1).max(200),
  /** Name of the file it came as, by which it is looked for when it is missing. */
  name: z.string().max(255).optional(),
  /** The point of the picture that stays in view, parts of its width and height. */
  focus: z.tuple([part, part]).default([0.5, 0.5]),
  /** 1 just fills the slot, or shows all of the picture where that is asked for. */
  scale: z.number().min(0.05).max(8).default(1),
  /** Degrees, clockwise. */
  turn: z.number().min(-180).max(180).default(0),
  /** Whether it covers its slot or shows whole within it; as the template has it, when absent. */
  fit: z.enum(['fill', 'fit']).optional(),
  /** Mirrored left to right, and top to bottom. */
  flip: z.tuple([z.boolean(), z.boolean()]).optional(),
  opacity: part.optional(),
  blend: z.enum(BLEND_MODES).optional(),
  clip: clipFillSchema.optional(),
  /** What is done to how it looks, before what the template does to it. */
  treatments: treatmentsSchema.optional(),
  /** Effects of the template on it that are switched off: layer and effect, `ghost/blur`. */
  plain: z.array(z.string().max(200)).max(100).optional(),
});
export type PictureFill = z.infer<typeof pictureFillSchema>;

/** A file just put in a slot: whole, upright and in the middle. */
export function freshPicture(media: string, name?: string): PictureFill {
  return { media, ...(name === undefined ? {} : { name }), focus: [0.5, 0.5], scale: 1, turn: 0 };
}
