import { z } from 'zod';
import { BLEND_MODES } from '../paint/ops';
import { markSchema, property } from '../values/property';
import { colourProperty, layerBase, numberProperty, positiveProperty } from './common';
import {
  alongSchema,
  fitSchema,
  markedSchema,
  textMotionsSchema,
  textShadowSchema,
  textStyle,
} from './textStyle';

const part = property(z.number().min(0).max(1));

/** Letters as solids: how thick, of what, and what falls on them. */
export const depthSchema = z.strictObject({
  /** Ems, away from the viewer: the front stands where a flat letter would. */
  thickness: property(z.number().min(0).max(3)).default(0.25),
  /** Ems by which the edge slopes outwards from the front, so that thin strokes keep their weight. */
  bevel: property(z.number().min(0).max(0.2)).default(0),
  /** Colours; the side's is the front's when absent, the slope's and the back's are the side's. */
  side: colourProperty.optional(),
  slope: colourProperty.optional(),
  back: colourProperty.optional(),
  lights: z
    .array(
      z.strictObject({
        /** Degrees on the picture: 0 comes from the right, 90 from below. */
        angle: numberProperty,
        /** Degrees above the picture: 0 grazes it, 90 comes from the viewer. */
        height: numberProperty.default(45),
        colour: colourProperty.default('#FFFFFF'),
        strength: property(z.number().min(0).max(4)).default(0.8),
      }),
    )
    .max(4)
    .default([]),
  /** Light from all around. */
  ambient: part.default(0.35),
  /** How much of the lights is mirrored. */
  gloss: part.default(0),
  /** What the letters cast on a plane behind them, by the first light. */
  shadow: z
    .strictObject({
      /** Frame units from the back of the letters to the plane. */
      behind: positiveProperty.default(40),
      blur: positiveProperty.default(18),
      strength: part.default(0.5),
      colour: colourProperty.default('#000000'),
    })
    .optional(),
  /** Pictures on the letters' fronts, one after the other and round again; and others from a moment on. */
  fronts: z
    .strictObject({
      slots: z.array(z.string()).min(1).max(40),
      switched: z.strictObject({ slots: z.array(z.string()).min(1).max(40), at: markSchema }).optional(),
    })
    .optional(),
});
export type Depth = z.infer<typeof depthSchema>;

/** What letters leave behind along the way their motions take them. */
export const trailSchema = z.strictObject({
  only: z.enum(['marked', 'unmarked']).optional(),
  /** How much of the way shows, in frames. */
  length: property(z.number().min(0).max(600)),
  /** Ems, where it leaves the letter. */
  width: positiveProperty.default(0.5),
  /** How much narrower it is at its end, and how far it fades towards it. */
  taper: part.default(1),
  fade: part.default(1),
  opacity: part.default(0.7),
  /** Its own colour; the letter's, when absent. */
  colour: colourProperty.optional(),
  blend: z.enum(BLEND_MODES).default('normal'),
  /** Lines that it is made of, side by side. */
  strands: z.number().int().min(1).max(8).default(1),
  /** How far it strays towards its end, in ems, and how often it turns on its way: lines become vapour. */
  stray: z
    .strictObject({ amount: positiveProperty, often: z.number().min(0.1).max(20).default(2) })
    .optional(),
  seed: z.number().int().min(0).max(100_000).default(1),
});
export type Trail = z.infer<typeof trailSchema>;

const count = z.number().int().min(1).max(100000);

export const textSchema = z.strictObject({
  ...layerBase,
  kind: z.literal('text'),
  /** The slot whose words it shows, or words of the template's own. */
  words: z.union([
    z.strictObject({
      slot: z.string(),
      /** Of many lines: the first that shows, counted from 1, and how many; all, when absent. */
      first: property(count).optional(),
      count: property(count).optional(),
      /** So many lines farther on; the first that shows is at most the last there is, before they are counted. */
      skip: z.number().int().min(0).max(1000).optional(),
      /** Of lines with columns (set apart by `|`, a tab, dots, a dash or a colon): the one that shows, counted from 1. */
      column: z.number().int().min(1).max(20).optional(),
      /** Text layers that show the other columns: a line that wraps in one of them makes room in all. */
      beside: z.array(z.string()).max(8).optional(),
    }),
    z.strictObject({ text: z.string().max(2000) }),
    /** A number, which may run up or down over time, with signs around it. */
    z.strictObject({
      number: numberProperty,
      digits: z.number().int().min(0).max(4).default(0),
      before: z.string().max(40).default(''),
      after: z.string().max(40).default(''),
    }),
  ]),
  ...textStyle,
  weight: textStyle.weight.default(400),
  axes: textStyle.axes.default({}),
  tracking: textStyle.tracking.default(0),
  leading: textStyle.leading.default(1.2),
  align: textStyle.align.default('start'),
  case: textStyle.case.default('as-typed'),
  underline: textStyle.underline.default(false),
  shift: textStyle.shift.default(0),
  outlines: textStyle.outlines.default([]),
  shadow: textShadowSchema.optional(),
  plates: textStyle.plates.default([]),
  perspective: textStyle.perspective.default(1),
  marked: markedSchema.default({}),
  along: alongSchema.optional(),
  /** Breaks into lines, then shrinks, then cuts: see the text layout. */
  fit: fitSchema,
  motion: textMotionsSchema.prefault({}),
  trail: trailSchema.optional(),
  depth: depthSchema.optional(),
});
export type TextLayer = z.infer<typeof textSchema>;
