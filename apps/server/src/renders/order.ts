import { createHash } from 'node:crypto';
import {
  FILM_CODECS,
  type FilmCodec,
  filmFacts,
  groupLength,
  groupsOf,
  parseRate,
  type Rate,
} from '@fresh-reel/core';
import { pieceEnding } from '@fresh-reel/node-host';
import { z } from 'zod';

/** What a server takes on. Each can be set where it is started. */
export interface Limits {
  /** Bytes of a reel file. */
  readonly bytes: number;
  /** Bytes of a file of footage that a working copy is made of. */
  readonly footage: number;
  /** Bytes of films, and of what they are made of, that are kept. */
  readonly disk: number;
  readonly frames: number;
  /** Of one frame. */
  readonly pixels: number;
  /** Renders that are not finished. */
  readonly jobs: number;
  /** Seconds that a render may run. */
  readonly seconds: number;
}

/** Common practice: an hour of 60 frames a second, frames of 8K, and a day's work at once. */
export const LIMITS: Limits = {
  bytes: 8 * 1024 ** 3,
  footage: 64 * 1024 ** 3,
  disk: 50 * 1024 ** 3,
  frames: 216_000,
  pixels: 7680 * 4320,
  jobs: 200,
  seconds: 12 * 3600,
};

const rate = z.string().transform((text, context): Rate => {
  try {
    return parseRate(text);
  } catch (error) {
    context.addIssue((error as Error).message);
    return z.NEVER;
  }
});

/** What is asked for beside the reel file. */
export const wishSchema = z.object({
  codec: z.enum(FILM_CODECS).default('h264').describe('What the film is written as.'),
  size: z
    .string()
    .regex(/^\d{2,5}x\d{2,5}$/, 'A size is such as 1920x1080.')
    .optional()
    .describe("Pixels, such as 1920x1080; the reel's own when absent."),
  rate: rate.optional().describe("Frames a second, such as 60000/1001; the reel's own when absent."),
  frames: z
    .string()
    .regex(/^\d+-\d+$/, 'Frames are a range such as 0-59.')
    .optional()
    .describe('First and last frame, counted from 0, such as 0-59; all when absent.'),
  alpha: z
    .enum(['none', 'straight', 'premultiplied'])
    .optional()
    .describe('How transparency is kept; by what the reel and the codec have when absent.'),
  timecode: z
    .string()
    .regex(/^\d{2}:\d{2}:\d{2}[:;]\d{2}$/, 'A timecode is such as 01:00:00:00.')
    .optional()
    .describe("The first frame's, in MOV and MP4."),
  number: z.coerce
    .number()
    .int()
    .min(0)
    .max(9_999_999)
    .optional()
    .describe('What numbered pictures count from; 1 when absent.'),
  name: z
    .string()
    .min(1)
    .max(120)
    .regex(/^[^\\/:*?"<>|\p{Cc}]+$/u, 'A name holds none of \\ / : * ? " < > |.')
    .optional()
    .describe("Name of the film without its ending; the reel's when absent."),
  key: z
    .uuid()
    .optional()
    .describe('Of whoever asks: a render that was asked for with it before is given up.'),
});
export type Wish = z.infer<typeof wishSchema>;

const size = z.strictObject({ width: z.number().int(), height: z.number().int() });

/** How frames are painted and compressed; what makes the same pieces has the same. */
export const paintSchema = z.strictObject({
  /** SHA-256 of the document in the store. */
  document: z.string(),
  codec: z.enum(FILM_CODECS),
  size,
  rate: z.strictObject({ num: z.number().int(), den: z.number().int() }),
  alpha: z.enum(['none', 'straight', 'premultiplied']),
  /** What numbered pictures count from; 1 when absent. */
  number: z.number().int().optional(),
  /** First frame of the reel, and how many. */
  from: z.number().int(),
  count: z.number().int(),
  /** Of the app that paints: another version may paint differently. */
  version: z.string(),
});
export type Paint = z.infer<typeof paintSchema>;

/** Frames of a render, counted from its first, that are compressed by themselves. */
export interface Range {
  readonly first: number;
  readonly count: number;
}

/** Groups of pictures in a range: enough that its start is a small part of it. */
const GROUPS = 4;

/** A render in ranges of whole groups of pictures; in one, where the codec chooses its colours for the whole. */
export const rangesOf = ({ codec, rate, count }: Paint): Range[] =>
  groupsOf(count, pieceEnding(codec) ? groupLength(rate) * GROUPS : count);

/** A range with all it takes to make it. */
export const orderSchema = z.strictObject({
  paint: paintSchema,
  first: z.number().int(),
  count: z.number().int(),
});
export type RangeOrder = z.infer<typeof orderSchema>;

/** Name of a range's piece: the same for whatever makes the same pixels, however long the render around it is. */
export function pieceKey({ paint, first, count }: RangeOrder): string {
  const { version, document, codec, alpha, number, from, size, rate } = paint;
  const frame = [size.width, size.height, rate.num, rate.den];
  return sha256(JSON.stringify([version, document, codec, alpha, number, ...frame, from + first, count]));
}

export const sha256 = (data: string | Uint8Array): string => createHash('sha256').update(data).digest('hex');

/** Ending of the film of a codec. */
export const endingOf = (codec: FilmCodec): string => filmFacts(codec).endings[0]!;

/** What a machine in a row is asked for, and of whom it gets what that takes. */
export interface RangeTask {
  readonly order: RangeOrder;
  readonly server: string;
  /** By which a machine knows that its own server asks for it; none where the server has no token. */
  readonly seal?: string;
}
