import { z } from 'zod';

export const frameSizeSchema = z.strictObject({
  width: z.number().int().min(2).max(8192),
  height: z.number().int().min(2).max(8192),
});
export type FrameSize = z.infer<typeof frameSizeSchema>;

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
