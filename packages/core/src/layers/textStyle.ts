import { z } from 'zod';
import { colourSchema } from '../colour/colour';
import { onlySchema } from '../effects/kind';
import { effectSchema } from '../effects/registry';
import { pictureFillSchema } from '../media/pictureFill';
import { easingSchema } from '../motion/easing';
import { markSchema, property } from '../values/property';
import {
  colourProperty,
  marginSchema,
  numberProperty,
  paintSchema,
  placingSchema,
  positiveProperty,
  switchProperty,
  wordProperty,
} from './common';
import { duringSchema, motionSchema } from './motionSchema';

/** What letters are filled with: a paint, a picture (of a slot, or one of their own) seen through them, or nothing. */
export const textFillSchema = z.union([
  paintSchema,
  z.strictObject({ picture: z.string() }),
  z.strictObject({ media: pictureFillSchema }),
  z.literal('none'),
]);
export type TextFill = z.infer<typeof textFillSchema>;

/** A line along the letters' edge. */
export const textOutlineSchema = z.strictObject({
  paint: paintSchema,
  /** Frame units. */
  width: positiveProperty,
  side: z.enum(['outside', 'centre', 'inside']).default('outside'),
});
export type TextOutline = z.infer<typeof textOutlineSchema>;

export const textShadowSchema = z.strictObject({
  /** Where it falls, in degrees: 0 to the right, 90 downwards. */
  angle: numberProperty.default(90),
  distance: numberProperty.default(8),
  /** Standard deviation of its softness. */
  blur: positiveProperty.default(10),
  strength: property(z.number().min(0).max(1)).default(0.35),
  colour: colourProperty.default('#000000'),
  only: onlySchema,
});

/** A plate or a border behind parts of the words. */
export const plateSchema = z.strictObject({
  behind: z.enum(['whole', 'line', 'word', 'letter', 'marked']),
  margin: marginSchema.default(0),
  corner: positiveProperty.default(0),
  fill: paintSchema.optional(),
  stroke: z.strictObject({ paint: paintSchema, width: positiveProperty }).optional(),
  /** Grows from where reading starts, one after the other; without this it comes and goes with its letters. */
  grow: z
    .strictObject({
      start: markSchema,
      length: positiveProperty,
      stagger: positiveProperty.default(0),
      ease: easingSchema.default('ease-out'),
      /** Where it shrinks away again; with its letters, when absent. */
      leave: z.strictObject({ start: markSchema, length: positiveProperty }).optional(),
    })
    .optional(),
});
export type TextPlate = z.infer<typeof plateSchema>;

/** What the words run along instead of a straight line. */
export const alongSchema = z.union([
  z.strictObject({
    circle: z.strictObject({
      /** Frame units. */
      radius: positiveProperty,
      /** Degrees clockwise from the top: where the words are aligned to. */
      start: numberProperty.default(0),
      side: z.enum(['outside', 'inside']).default('outside'),
    }),
    position: numberProperty.default(0),
  }),
  z.strictObject({
    /** SVG path data in parts of the parent's box: 0..1 each way. */
    path: property(z.string().max(20000)),
    /** Where on it the words are aligned to, 0..1 of its length; beyond, they go on straight. */
    position: numberProperty.default(0.5),
  }),
]);
export type Along = z.infer<typeof alongSchema>;

export const textMotionsSchema = z.strictObject({
  in: z.array(motionSchema).max(6).default([]),
  during: z.array(duringSchema).max(6).default([]),
  out: z.array(motionSchema).max(6).default([]),
});
export type TextMotions = z.infer<typeof textMotionsSchema>;

/** How words are set, painted, placed and moved: what a template says, and what a user may change of it. */
export const textStyle = {
  family: wordProperty,
  weight: property(z.number().min(1).max(1000)),
  /** Axes of a variable font besides its weight, by tag. */
  axes: z.record(z.string().length(4), numberProperty),
  /** Frame units. */
  size: positiveProperty,
  /** Thousandths of an em. */
  tracking: numberProperty,
  /** Multiple of the size. */
  leading: property(z.number().min(0.3).max(5)),
  align: property(z.enum(['start', 'middle', 'end'])),
  case: property(z.enum(['as-typed', 'upper', 'lower'])),
  underline: switchProperty,
  /** Thousandths of an em, upwards. */
  shift: numberProperty,
  fill: textFillSchema,
  outlines: z.array(textOutlineSchema).max(6),
  shadow: textShadowSchema,
  plates: z.array(plateSchema).max(6),
  /** How much depth counts: 0 none, 1 as the camera sees it, 2 twice that. */
  perspective: numberProperty,
} as const;

/** The look of marked words, where it differs. */
export const markedSchema = z.strictObject({
  weight: textStyle.weight.optional(),
  fill: textFillSchema.optional(),
  underline: switchProperty.optional(),
  shift: numberProperty.optional(),
});

export const fitSchema = z.strictObject({
  width: positiveProperty,
  height: positiveProperty.optional(),
  lines: property(z.number().int().min(1).max(10000)).default(1),
  least: property(z.number().min(0.02).max(1)).default(0.5),
  /** The size is only the most it may be, and filling the width is meant: shrinking is no news then. */
  fills: z.boolean().default(false),
  /** Makes the lines of a short text as even as their number allows. */
  balance: z.boolean().default(true),
});

/** What a user changed of a text layer; what is absent is as the template has it. */
export const textChangeSchema = z
  .strictObject({
    ...textStyle,
    shadow: textShadowSchema.nullable(),
    effects: z.array(effectSchema).max(8),
    along: alongSchema.nullable(),
    fit: fitSchema.partial(),
    placing: placingSchema,
    motion: z.strictObject({
      in: z.array(motionSchema).max(6).optional(),
      during: z.array(duringSchema).max(6).optional(),
      out: z.array(motionSchema).max(6).optional(),
    }),
  })
  .partial();
export type TextChange = z.infer<typeof textChangeSchema>;

/** A part of the words with a look of its own. */
export const runSchema = z.strictObject({
  from: z.number().int().min(0),
  to: z.number().int().min(1),
  /** Takes the template's look for marked words, and is what motion can be limited to. */
  marked: z.boolean().optional(),
  weight: z.number().min(1).max(1000).optional(),
  colour: colourSchema.optional(),
  underline: z.boolean().optional(),
});
export type Run = z.infer<typeof runSchema>;
