import { z } from 'zod';
import { easingSchema } from '../motion/easing';
import { markSchema, property } from '../values/property';
import { numberProperty, pointProperty, positiveProperty, spaceProperty } from './common';

export const UNITS = ['letter', 'word', 'line', 'whole'] as const;
export const ORDERS = ['forwards', 'backwards', 'from-middle', 'to-middle', 'random'] as const;
export const SIDES = ['left', 'right', 'top', 'bottom', 'middle-across', 'middle-down'] as const;
/** The side a wipe starts from; the two middles open both ways. */
export type Side = (typeof SIDES)[number];

const far = z.number().min(-1000).max(1000);

/** What any motion of units says: on what it works, in which order, and on which part of the words. */
export const unitsShape = {
  unit: property(z.enum(UNITS)),
  order: property(z.enum(ORDERS)).default('forwards'),
  seed: z.number().int().default(1),
  /** Works on the marked words alone, or on all others. */
  only: z.enum(['marked', 'unmarked']).optional(),
  /** Parts of the unit's box, and a depth in ems: what it turns and scales about. */
  pivot: z.tuple([far, far, far]).default([0.5, 0.5, 0]),
} as const;

/** How units of a text come or go. `away` is the state before they have come, or after they have gone. */
export const motionSchema = z.strictObject({
  ...unitsShape,
  /** Frames from one unit to the next. Less is used when the last would be late. */
  stagger: positiveProperty.default(0),
  start: markSchema,
  /** Frames one unit moves for. */
  length: positiveProperty,
  ease: easingSchema.default('ease-out'),
  away: z.strictObject({
    opacity: property(z.number().min(0).max(1)).default(1),
    /** Parts of an em. */
    move: spaceProperty.default([0, 0, 0]),
    /** Degrees. */
    turn: spaceProperty.default([0, 0, 0]),
    scale: pointProperty.default([1, 1]),
    /** Frame units. */
    blur: numberProperty.default(0),
    /** How much farther apart the letters stand: 0.5 is half as wide again. */
    spread: numberProperty.default(0),
    /** Uncovered from a side. */
    wipe: z.enum(SIDES).optional(),
    /** The outline is drawn first, with a pen of this many ems; the fill follows. */
    draw: positiveProperty.optional(),
    /** Shows other letters, changed every so many frames, until it is at rest. */
    scramble: z.number().int().min(1).max(600).optional(),
    /** Letters come one by one as if typed; stagger is the mean time of a stroke. */
    typing: z
      .strictObject({
        cursor: z.boolean().default(true),
        /** Chance of a slip at each letter. */
        slips: property(z.number().min(0).max(0.5)).default(0),
      })
      .optional(),
  }),
  /** Hidden where it lies outside its line, as if it came from behind an edge. */
  behind: z.boolean().default(false),
});
export type TextMotion = z.infer<typeof motionSchema>;

export const COURSES = ['back-and-forth', 'round', 'at-random', 'once', 'held'] as const;

/** How units of a text move while they stand: how far, and by which course. */
export const duringSchema = z.strictObject({
  ...unitsShape,
  course: z.enum(COURSES),
  /** Frames of one cycle: there and back, once round, or from one random value to the next. */
  every: property(z.number().min(1).max(100000)).default(90),
  /** Frames each unit lags behind the one before it. */
  stagger: numberProperty.default(0),
  /** Parts of an em. */
  move: spaceProperty.default([0, 0, 0]),
  /** Degrees. */
  turn: spaceProperty.default([0, 0, 0]),
  /** Added to the size: 0.1 is a tenth larger. */
  scale: pointProperty.default([0, 0]),
  /** Taken from the opacity. */
  fade: property(z.number().min(0).max(1)).default(0),
  /** Runs between two marks; always, when absent. */
  from: markSchema.optional(),
  to: markSchema.optional(),
  /** Frames in which it rises to its full amount, and dies down again. */
  rise: positiveProperty.default(0),
});
export type TextDuring = z.infer<typeof duringSchema>;
