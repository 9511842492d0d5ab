import { z } from 'zod';
import { colourSchema } from '../colour/colour';
import { treatmentsSchema } from '../effects/treatment';
import { clipFillSchema } from '../media/pictureFill';
import { BLEND_MODES } from '../paint/ops';
import { LONGEST_REEL, MOST, SLOWEST_SOUND } from '../values/limits';
import { timedBy } from '../values/timed';
import { fillSchema } from './fill';
import { drivenPointSchema, followSchema } from './way';

/** A value, or values over time: keys count in frames of the reel from where the item begins. */
const timed = <S extends z.ZodType>(constant: S) => timedBy(constant, z.literal('in').default('in'));

const part = z.number().min(0).max(1);

/** How an item lies in the frame; what is absent is as it comes. */
export const framingSchema = z.strictObject({
  /** From where it comes, in frame units to the right and down. */
  move: timed(z.tuple([z.number().min(-20_000).max(20_000), z.number().min(-20_000).max(20_000)])).optional(),
  /** About the middle of the frame. */
  scale: timed(z.number().min(0.01).max(20)).optional(),
  /** Degrees, clockwise. */
  turn: timed(z.number().min(-3600).max(3600)).optional(),
  opacity: timed(part).optional(),
  /** Parts that are cut off on the left, above, on the right and below. */
  crop: timed(z.tuple([part, part, part, part])).optional(),
  blend: z.enum(BLEND_MODES).optional(),
});
export type Framing = z.infer<typeof framingSchema>;

const frames = z.number().int().min(0).max(LONGEST_REEL);
const length = z.number().int().min(1).max(LONGEST_REEL);

const itemBase = {
  id: z.string().min(1).max(200),
  /** Frames of the reel's rate from its beginning. */
  start: frames,
  /** What the user calls it; by its template or its file, when absent. */
  label: z.string().max(80).optional(),
  framing: framingSchema.optional(),
  /** What is done to how it looks, before it is laid in the frame; a sound has none. */
  treatments: treatmentsSchema.optional(),
  /** It goes along with something in a shot. */
  follow: followSchema.optional(),
  /** Frames over which its picture comes and goes. */
  fadeIn: frames.optional(),
  fadeOut: frames.optional(),
};

/** A file of the user's or an asset, and the name it came as. */
const fileBase = { media: z.string().min(1).max(200), name: z.string().max(255).optional() };

/** Frames over which its sound comes and goes. */
const soundBase = { soundIn: frames.optional(), soundOut: frames.optional() };

/** Whether all of a picture shows in the frame, or it fills the frame and is cropped. */
const fit = z.enum(['fill', 'fit']).optional();

/** A template with its fill. It lasts as long as its times say. */
export const graphicItemSchema = z.strictObject({
  ...itemBase,
  kind: z.literal('graphic'),
  /** Which of the reel's templates. */
  template: z.string().min(1).max(200),
  fill: fillSchema,
  /** Point controls that go along with something in a shot, by their ids. */
  points: z.record(z.string().min(1).max(200), drivenPointSchema).optional(),
  /** The cue that falls on a marker, whatever becomes of its times. */
  meets: z.strictObject({ cue: z.string().min(1).max(200), marker: z.string().min(1).max(200) }).optional(),
});

export const clipItemSchema = z.strictObject({
  ...itemBase,
  ...fileBase,
  ...soundBase,
  kind: z.literal('clip'),
  length,
  /** Its sound is heard unless it is silenced. */
  clip: clipFillSchema
    .omit({ length: true })
    .extend({
      /** Seconds of its playing that are over when it comes: it was cut out of what goes round or is stretched. */
      begun: z.number().min(-864_000).max(864_000).optional(),
      /** Seconds over which it is stretched; those it shows, when absent. */
      over: z.number().min(0.001).max(864_000).optional(),
    })
    .default({}),
  fit,
});

export const stillItemSchema = z.strictObject({
  ...itemBase,
  ...fileBase,
  kind: z.literal('still'),
  length,
  fit,
});

export const soundItemSchema = z.strictObject({
  ...itemBase,
  ...fileBase,
  ...soundBase,
  kind: z.literal('sound'),
  length,
  /** Second of the file at which it begins. */
  from: z.number().min(0).max(864_000).optional(),
  /** 2 plays twice as fast, an octave higher. */
  speed: z.number().min(SLOWEST_SOUND).max(20).optional(),
  /** Decibels. */
  level: z.number().min(-60).max(12).optional(),
  silent: z.boolean().optional(),
  /** Begins again when the file is over. */
  loops: z.boolean().optional(),
  /** Seconds of its playing that are over when it comes: it was cut out of what goes round. */
  begun: z.number().min(-864_000).max(864_000).optional(),
});

export const colourItemSchema = z.strictObject({
  ...itemBase,
  kind: z.literal('colour'),
  length,
  colour: colourSchema,
});

/** What stands on a track. */
export const reelItemSchema = z.discriminatedUnion('kind', [
  graphicItemSchema,
  clipItemSchema,
  stillItemSchema,
  soundItemSchema,
  colourItemSchema,
]);
export type ReelItem = z.infer<typeof reelItemSchema>;
export type ReelItemOf<K extends ReelItem['kind']> = Extract<ReelItem, { kind: K }>;

export const trackSchema = z.strictObject({
  id: z.string().min(1).max(200),
  name: z.string().max(80).optional(),
  /** Nothing of it is seen; nothing of it is heard; nothing of it can be changed. */
  hidden: z.boolean().optional(),
  silent: z.boolean().optional(),
  locked: z.boolean().optional(),
  items: z.array(reelItemSchema).max(MOST.items),
});
export type Track = z.infer<typeof trackSchema>;

/** What a marker is for; each has its colour. */
export const MARKER_USES = ['note', 'beat', 'clap', 'cut', 'chapter'] as const;
export type MarkerUse = (typeof MARKER_USES)[number];

export const markerSchema = z.strictObject({
  id: z.string().min(1).max(200),
  frame: frames,
  name: z.string().max(80),
  use: z.enum(MARKER_USES).optional(),
});
export type Marker = z.infer<typeof markerSchema>;
