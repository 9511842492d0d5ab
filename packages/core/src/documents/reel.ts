import { z } from 'zod';
import { OUTPUT_FORMATS } from '../render/plan';
import { fillSchema } from './fill';
import { type DocumentKind, nested } from './load';
import { rateSchema, templateKind } from './template';

/** One template placed in a reel. It carries its own copy of the template, so a later change of it breaks nothing. */
export const graphicSchema = z.strictObject({
  id: z.string().min(1),
  template: nested(templateKind),
  fill: fillSchema,
  /** Frames of the reel's rate from its beginning. */
  start: z.number().int().min(0),
});
export type Graphic = z.infer<typeof graphicSchema>;

export const frameSizeSchema = z.strictObject({
  width: z.number().int().min(2).max(8192),
  height: z.number().int().min(2).max(8192),
});
export type FrameSize = z.infer<typeof frameSizeSchema>;

export const reelSchema = z.strictObject({
  format: z.literal('freshreel/reel'),
  version: z.literal(2),
  id: z.string().min(1),
  name: z.string().min(1).max(120),
  /** ISO 8601 instants. */
  created: z.string(),
  changed: z.string(),
  frame: frameSizeSchema,
  rate: rateSchema,
  tracks: z
    .array(z.strictObject({ id: z.string(), graphics: z.array(graphicSchema).max(500) }))
    .min(1)
    .max(50),
  /** In files of the first kind, which were one JSON: the user's media, by media id, and fonts, by `font:family/weight`. */
  embedded: z
    .record(z.string(), z.strictObject({ name: z.string(), type: z.string(), base64: z.string() }))
    .optional(),
  /** Sub-frame samples of motion blur, and the part of a frame the shutter is open. */
  motionBlur: z
    .strictObject({ samples: z.number().int().min(1).max(64), shutter: z.number().min(0).max(1) })
    .default({ samples: 1, shutter: 0.5 }),
  /** What it was last rendered as: the kind of file, and its short side in pixels. */
  output: z
    .strictObject({ format: z.enum(OUTPUT_FORMATS), side: z.number().int().min(2).max(8192) })
    .optional(),
  markers: z.array(z.strictObject({ frame: z.number().int().min(0), name: z.string().max(80) })).default([]),
});
export type Reel = z.infer<typeof reelSchema>;

export const reelKind: DocumentKind<Reel> = {
  title: 'reel',
  format: 'freshreel/reel',
  version: 2,
  schema: reelSchema as unknown as z.ZodType<Reel>,
  // What changed were the templates in it, which are brought up by their own versions.
  upgrades: { 1: (reel) => reel },
};

/** The three frames offered: short side 1080, which is also the measure of frame units. */
export const FRAMES: Readonly<Record<'wide' | 'tall' | 'square', FrameSize>> = {
  wide: { width: 1920, height: 1080 },
  tall: { width: 1080, height: 1920 },
  square: { width: 1080, height: 1080 },
};

/** A frame of the same shape whose short side is 1080 units: what templates are laid out in. */
export function layoutFrame(size: FrameSize): { width: number; height: number } {
  const k = 1080 / Math.min(size.width, size.height);
  return { width: size.width * k, height: size.height * k };
}
