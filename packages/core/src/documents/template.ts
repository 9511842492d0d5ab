import { z } from 'zod';
import { colourSchema } from '../colour/colour';
import { numberProperty, positiveProperty, spaceProperty } from '../layers/common';
import { layerSchema } from '../layers/registry';
import { pictureFillSchema } from '../media/pictureFill';
import { soundFillSchema } from '../media/soundFill';
import { isRate } from '../time/rate';
import { MOST } from '../values/limits';
import { markSchema } from '../values/property';
import { FONT_ROLES, LINE_ROLES, LOGO_ROLES, SOUND_ROLES } from './brand';
import { controlKeySchema, controlValueSchema, wordsFillSchema } from './fill';

const id = z.string().regex(/^[a-z0-9][a-z0-9-]*$/, 'must be in kebab case');
const name = z.string().min(1).max(80);

/** What a template is for; the Templates place filters by it. */
export const USES = [
  'lower-third',
  'logo-sting',
  'opener',
  'callout',
  'end-card',
  'title',
  'caption',
  'quote',
  'credits',
  'gallery',
  'card',
  'overlay',
] as const;
export type Use = (typeof USES)[number];

export const rateSchema = z
  .strictObject({ num: z.number().int().positive(), den: z.number().int().positive() })
  .refine(isRate, 'is not from 1 to 240 frames a second');

/** A value that may differ by the shape of the frame. */
function byShape<S extends z.ZodType>(value: S) {
  return z.union([value, z.strictObject({ wide: value, tall: value, square: value })]);
}

const controlBase = {
  id,
  name,
  /** Controls of one group stand together. */
  group: name.default('Settings'),
  /** Controls with a role take the brand's colours and fonts. */
  brand: z.enum(['main', 'second', 'dark', 'light', ...FONT_ROLES]).optional(),
  /** Offered only while another control has a value, since it does nothing otherwise. */
  when: z.strictObject({ control: id, is: controlValueSchema }).optional(),
  /** What to know once it is changed: one sentence, said beside it. */
  says: z.string().min(1).max(200).optional(),
  /** Values over time that it has where neither a look nor the user says otherwise. */
  keys: z.array(controlKeySchema).min(1).max(MOST.keys).optional(),
};
const point = z.tuple([z.number(), z.number()]);

export const controlSchema = z.discriminatedUnion('kind', [
  z.strictObject({
    ...controlBase,
    kind: z.literal('number'),
    min: z.number(),
    max: z.number(),
    step: z.number().positive(),
    unit: z.enum(['', '%', 'px', '°', '×']).default(''),
    default: byShape(z.number()),
  }),
  /** A length of time, in frames of the template; shown in seconds. */
  z.strictObject({
    ...controlBase,
    kind: z.literal('duration'),
    min: z.number().min(0),
    max: z.number(),
    default: byShape(z.number()),
  }),
  z.strictObject({ ...controlBase, kind: z.literal('colour'), default: byShape(colourSchema) }),
  /** Parts of the frame, 0..1 each way. */
  z.strictObject({ ...controlBase, kind: z.literal('point'), default: byShape(point) }),
  z.strictObject({
    ...controlBase,
    kind: z.literal('choice'),
    options: z.array(z.strictObject({ id, name })).min(2).max(12),
    default: byShape(z.string()),
  }),
  z.strictObject({ ...controlBase, kind: z.literal('switch'), default: byShape(z.boolean()) }),
  /** A font family, of those shipped or the user's own. */
  z.strictObject({ ...controlBase, kind: z.literal('font'), default: byShape(name) }),
  /** SVG path data in parts of the frame, drawn on the picture. */
  z.strictObject({ ...controlBase, kind: z.literal('path'), default: byShape(z.string().min(1)) }),
]);
export type Control = z.infer<typeof controlSchema>;

const slotBase = {
  id,
  name,
  /** Scenes in which the slot shows. */
  scenes: z.array(id).min(1),
  /** When it is best seen. */
  moment: markSchema,
  /** Whether the template looks right without it. */
  optional: z.boolean().default(false),
};
export const slotSchema = z.discriminatedUnion('kind', [
  z.strictObject({
    ...slotBase,
    kind: z.literal('text'),
    sample: z.union([z.string(), wordsFillSchema]),
    manyLines: z.boolean().default(false),
    /** Which of the brand's words it takes. */
    brand: z.enum(LINE_ROLES).optional(),
  }),
  /** Many lines, typed or from a file; a `|` sets columns apart. */
  z.strictObject({
    ...slotBase,
    kind: z.literal('list'),
    sample: z.union([z.string(), wordsFillSchema]),
    /** What the columns hold, when there are several. */
    columns: z.array(name).max(8).default([]),
  }),
  z.strictObject({
    ...slotBase,
    kind: z.literal('picture'),
    sample: z.string().nullable(),
    /** The point of the sample that stays in view. */
    sampleFocus: z.tuple([z.number().min(0).max(1), z.number().min(0).max(1)]).default([0.5, 0.5]),
    /** How else the sample sits there, where that is not as it comes. */
    sampleAs: pictureFillSchema.omit({ media: true, focus: true }).optional(),
    /** Whether the picture is cropped to its frame, so that focus, scale and turn matter. */
    crops: z.boolean().default(true),
    /** Whether a clip's own sound is heard unless the editor says otherwise, and until when, if not as long as it shows. */
    heard: z.boolean().default(false),
    heardUntil: markSchema.optional(),
  }),
  z.strictObject({
    ...slotBase,
    kind: z.literal('logo'),
    sample: z.string().nullable(),
    /** Which of the brand's logos it takes, for what it stands on. */
    brand: z.enum(LOGO_ROLES).default('main'),
    /** How the sample sits there, where that is not as it comes. */
    sampleAs: pictureFillSchema.omit({ media: true }).optional(),
  }),
  /** A sound that belongs to a cue and moves with it. */
  z.strictObject({
    ...slotBase,
    kind: z.literal('sound'),
    sample: z.string().nullable(),
    cue: id,
    /** Frames after the cue at which it begins; negative: before it. */
    offset: z.number().min(-36000).max(36000).default(0),
    /** Decibels. */
    level: z.number().min(-60).max(12).default(0),
    /** Seconds. */
    fadeIn: z.number().min(0).max(60).default(0),
    fadeOut: z.number().min(0).max(60).default(0),
    /** Begins again when it is over, to the end of the graphic: a bed. */
    loops: z.boolean().default(false),
    /** Which of the brand's sounds it takes. */
    brand: z.enum(SOUND_ROLES).optional(),
    /** How the sample is heard, where that is not as it comes. */
    sampleAs: soundFillSchema.omit({ sound: true }).optional(),
  }),
]);
export type Slot = z.infer<typeof slotSchema>;

export const sceneSchema = z.strictObject({
  id,
  name,
  from: markSchema,
  to: markSchema,
  /** The moment its small picture shows. */
  still: markSchema,
});
export type SceneDocument = z.infer<typeof sceneSchema>;

/** `sha256:…`; in templates from before version 3, the name an asset of the app had then. */
const assetIdSchema = z
  .string()
  .regex(/^(sha256:[0-9a-f]{64}|asset:[\w-]{1,80}\/[\w-]{1,80})$/, 'is not the hash of a file');

const partOfFrame = z.number().min(-1).max(2);

/** A line or a box that shows, while one fills, how large and where something should sit. It is never rendered. */
export const guidelineSchema = z.strictObject({
  id,
  name,
  /** Shown while one of these slots is filled; always, when there are none. */
  slots: z.array(id).max(20).default([]),
  /** Parts of the frame: how far down a line across it lies, how far across one that goes down, or a box. */
  lies: z.union([
    z.strictObject({ across: partOfFrame }),
    z.strictObject({ down: partOfFrame }),
    z.strictObject({ box: z.tuple([partOfFrame, partOfFrame, partOfFrame, partOfFrame]) }),
  ]),
});
export type Guideline = z.infer<typeof guidelineSchema>;

/** A step of the guide: words, and the moment of the template that its picture shows. */
const guideStepSchema = z.union([
  z.string().min(1).max(400),
  z.strictObject({ text: z.string().min(1).max(400), shows: markSchema }),
]);
export type GuideStep = z.infer<typeof guideStepSchema>;

/** The parts of a template, each by itself; `templateKind` looks whether they fit together. */
export const templateShape = z.strictObject({
  format: z.literal('freshreel/template'),
  version: z.literal(6),
  id,
  name,
  /** The template it was kept from, beside which it stands; and which of its own editions it is, counted from 1. */
  from: id.optional(),
  edition: z.number().int().min(1).max(1_000_000).optional(),
  /** One sentence for the contact sheet. */
  about: z.string().min(1).max(200),
  use: z.enum(USES),
  /** Templates of one set belong together: they share type, motion or an idea. */
  set: name.optional(),
  moods: z.array(z.string().max(20)).max(6).default([]),
  /** The shape of frame it was made for first. */
  shape: z.enum(['wide', 'tall', 'square']).default('wide'),
  /** Whether it lies over footage: all or most of its frame is transparent. */
  transparent: z.union([z.boolean(), z.strictObject({ control: z.string(), is: controlValueSchema })]),
  rate: rateSchema,
  timing: z.strictObject({
    in: z.number().min(0).max(36000),
    hold: numberProperty,
    out: z.number().min(0).max(36000),
    /** Speed of the in stretch. */
    pace: numberProperty.default(1),
  }),
  /** The moment the still picture of the template shows. */
  still: markSchema,
  scenes: z.array(sceneSchema).min(1).max(40),
  /** Named moments: what sounds belong to, and what footage is lined up with. */
  cues: z
    .array(z.strictObject({ id, name, at: markSchema }))
    .max(60)
    .default([]),
  slots: z.array(slotSchema).max(100),
  controls: z.array(controlSchema).max(100),
  looks: z.array(z.strictObject({ id, name, controls: z.record(z.string(), controlValueSchema) })).max(40),
  camera: z
    .strictObject({
      /** Frame units from the plane z = 0; nearer means more perspective. */
      distance: positiveProperty.default(2000),
      position: spaceProperty.default([0, 0, 0]),
      turn: spaceProperty.default([0, 0, 0]),
    })
    .prefault({}),
  layers: z.array(layerSchema).min(1).max(MOST.layers),
  /** The template's own media, by asset name: each known by the hash of its bytes, wherever it comes from. */
  assets: z.record(id, assetIdSchema).default({}),
  guidelines: z.array(guidelineSchema).max(60).default([]),
  guide: z.array(guideStepSchema).min(1).max(12),
});

export type Template = z.infer<typeof templateShape>;
