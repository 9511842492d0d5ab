import { z } from 'zod';
import { MOST } from '../values/limits';

const second = z.number().min(0).max(864_000);
const place = z.number().min(-100_000).max(100_000);
const grown = z.number().min(-1000).max(1000);

/** Where a thing is at a second of its clip: seconds, pixels, growth and turn since it was chosen, and how sure that is. */
const sampleSchema = z.tuple([second, place, place, grown, grown, z.number().min(0).max(1)]);
export type WaySample = z.infer<typeof sampleSchema>;

/** The way that something takes through a clip of the reel. */
export const waySchema = z.strictObject({
  id: z.string().min(1).max(200),
  name: z.string().max(80),
  /** The item whose clip it was followed in. */
  of: z.string().min(1).max(200),
  /** The clip's file: its other parts in the reel show the thing too. */
  media: z.string().min(1).max(200),
  /** Half the width of the patch, in pixels of the clip. */
  half: z.number().positive().max(8192),
  /** In the order of time. */
  samples: z.array(sampleSchema).max(MOST.samples),
  /** Where it was shown by hand, in the order of time; it is followed from each of them. */
  marks: z.array(z.strictObject({ at: second, x: place, y: place, a: grown, b: grown })).max(MOST.marks),
});
export type Way = z.infer<typeof waySchema>;

/** How an item goes along with a way. */
export const followSchema = z.strictObject({
  way: z.string().min(1).max(200),
  /** The second of the clip at which it lies as its framing says. */
  at: second,
  /** It grows and turns along; it stays as large and upright as it is, when absent. */
  grows: z.boolean().optional(),
  turns: z.boolean().optional(),
  /** 0..1: how much of the way's trembling is taken out. */
  smooth: z.number().min(0).max(1).optional(),
  /** It is not seen while the thing is gone. */
  hides: z.boolean().optional(),
});
export type Follow = z.infer<typeof followSchema>;

/** How a point control of a graphic goes along with a way. */
export const drivenPointSchema = z.strictObject({
  way: z.string().min(1).max(200),
  smooth: z.number().min(0).max(1).optional(),
  /** From the thing, in parts of the frame. */
  offset: z.tuple([z.number().min(-5).max(5), z.number().min(-5).max(5)]).optional(),
});
export type DrivenPoint = z.infer<typeof drivenPointSchema>;
