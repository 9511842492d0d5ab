import { type FilmCodec, filmOfEnding, type PictureKind, type Rate } from '@fresh-reel/core';
import type { FilmPlan } from '@fresh-reel/node-host';

/** Something is wrong with what was asked for. */
export class CommandError extends Error {}

export interface RenderCommand {
  /** A template's id, or the path of a reel file. */
  readonly what: string;
  readonly fill: string | undefined;
  /** A file with a brand that it wears. */
  readonly brand?: string | undefined;
  readonly out: string;
  readonly size: { readonly width: number; readonly height: number } | undefined;
  readonly rate: Rate | undefined;
  /** Where the files lie that working copies stand for; beside the reel file, when absent. */
  readonly originals: string | undefined;
  /** What a film is written as; by the ending of its file, when absent. */
  readonly codec: FilmCodec | undefined;
  /** What numbered pictures are written as; PNGs of 8 bits, when absent. */
  readonly pictures?: PictureKind | undefined;
  /** What numbered pictures count from; 1, when absent. */
  readonly number?: number | undefined;
  /** How transparency is kept; by what the reel and the codec have, when absent. */
  readonly alpha: FilmPlan['alpha'] | undefined;
  /** The first frame's timecode, as it was written. */
  readonly timecode: string | undefined;
  /** First and last frame, counted from 0. */
  readonly frames: readonly [number, number] | undefined;
}

/** Endings of files that are no films of these kinds. */
const OTHER_FILES = /\.(m4v|avi|mxf|mpe?g|wmv|png|jpe?g|tiff?|zip|wav|mp3)$/i;

/**
 * What a render is written as; numbered PNGs where that is undefined.
 * @param transparent whether it has transparency to keep
 * @throws {CommandError} when it looks like a file that is not written
 */
export function filmWanted(
  { out, codec }: Pick<RenderCommand, 'out' | 'codec'>,
  transparent: boolean,
): FilmCodec | undefined {
  if (codec) return codec;
  if (OTHER_FILES.test(out))
    throw new CommandError(
      `--out "${out}" looks like a file of a kind that is not written. Name a folder for numbered PNGs, or a film that ends in .mp4, .mov, .mkv, .webm, .gif or .webp.`,
    );
  return filmOfEnding(/\.([^./]+)$/.exec(out)?.[1]?.toLowerCase() ?? '', transparent);
}
