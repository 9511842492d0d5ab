import { type ParseArgsConfig, parseArgs } from 'node:util';
import {
  FILM_CODECS,
  type FilmCodec,
  filmOfEnding,
  PICTURE_KINDS,
  type PictureKind,
  parseRate,
  type Rate,
} from '@fresh-reel/core';
import type { FilmPlan } from '@fresh-reel/node-host';

export const USAGE = `Usage:
  fresh-reel list
  fresh-reel render <template id | template file | reel file> [--fill fill.json] --out <folder | film>
                    [--size WxH] [--rate 60000/1001] [--frames A-B] [--originals <folder>]
                    [--codec ${FILM_CODECS.join('|')}]
                    [--pictures ${PICTURE_KINDS.join('|')}] [--number 1001]
                    [--alpha straight|premultiplied|none] [--timecode 01:00:00:00]
  fresh-reel batch <template id | template file | reel file> --table people.csv --out <folder> [--pictures <folder>]
                   [--shapes wide,tall,square] [--name "{name}"] [--codec ...] [--rate 60000/1001]
                   [--side 1080]
  fresh-reel check <template id | template file | reel file> [--fill fill.json] [--loudness=-14] [--json]
                   [--originals <folder>]
  fresh-reel exchange <reel file> [--otio out.otio] [--edl out.edl] [--vtt out.vtt] [--srt out.srt]
                      [--start 01:00:00:00] [--ending mov]
  fresh-reel open <reel file | template file> --list [--json]
  fresh-reel schema [template | reel | brand | contents]
  fresh-reel unpack <reel file | template file> --out <new folder>
  fresh-reel pack <folder> --out name.freshreel
  fresh-reel follow <clip> --at X,Y [--size N] [--frame F] [--json]
  fresh-reel work --redis redis://machine:6379 [--token ...] [--data <folder>]`;

/** Something is wrong with what was asked for. */
export class CommandError extends Error {}

export interface RenderCommand {
  /** A template's id, or the path of a reel file. */
  readonly what: string;
  readonly fill: string | undefined;
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

/** @throws {CommandError} naming the argument that is wrong. */
export function parseRenderCommand(args: readonly string[]): RenderCommand {
  const { values, positionals } = parsedArgs(args, {
    fill: TEXT,
    out: TEXT,
    size: TEXT,
    rate: TEXT,
    frames: TEXT,
    originals: TEXT,
    codec: TEXT,
    pictures: TEXT,
    number: TEXT,
    alpha: TEXT,
    timecode: TEXT,
  });
  if (positionals.length !== 1)
    throw new CommandError(`Name one template, template file or reel file.\n${USAGE}`);
  if (!values.out)
    throw new CommandError(`Say where it goes: --out <folder> for pictures, or --out title.mov.\n${USAGE}`);
  return {
    what: positionals[0]!,
    fill: values.fill,
    out: values.out,
    codec: values.codec === undefined ? undefined : codecOf(values.codec),
    pictures: values.pictures === undefined ? undefined : picturesOf(values.pictures, values.codec),
    number: values.number === undefined ? undefined : numberOf(values.number),
    alpha: values.alpha === undefined ? undefined : alphaOf(values.alpha),
    timecode: values.timecode,
    originals: values.originals,
    size: values.size === undefined ? undefined : parseSize(values.size),
    rate: values.rate === undefined ? undefined : rateOf(values.rate),
    frames: values.frames === undefined ? undefined : parseFrames(values.frames),
  };
}

function picturesOf(text: string, codec: string | undefined): PictureKind {
  const known = PICTURE_KINDS.find((kind) => kind === text);
  if (!known) throw new CommandError(`--pictures: "${text}" is none of ${PICTURE_KINDS.join(', ')}.`);
  if (codec !== undefined)
    throw new CommandError('--pictures and --codec: numbered pictures or a film, not both.');
  return known;
}

function numberOf(text: string): number {
  const number = Number(text);
  if (!/^\d+$/.test(text) || number > 9_000_000)
    throw new CommandError(`--number: "${text}" is no number to count from, such as 1001.`);
  return number;
}

/** An option that takes a text. */
export const TEXT = { type: 'string' } as const;

/**
 * What a command is given.
 * @throws {CommandError} naming an option that is not there
 */
export function parsedArgs<const O extends NonNullable<ParseArgsConfig['options']>>(
  args: readonly string[],
  options: O,
) {
  try {
    return parseArgs({ args: [...args], allowPositionals: true, options });
  } catch (error) {
    throw new CommandError(`${(error as Error).message}\n${USAGE}`);
  }
}

/** Endings of files that are no films of these kinds. */
const OTHER_FILES = /\.(m4v|avi|mxf|mpe?g|wmv|png|jpe?g|tiff?|zip|wav|mp3)$/i;

export function codecOf(text: string): FilmCodec {
  const known = FILM_CODECS.find((name) => name === text);
  if (!known) throw new CommandError(`--codec: "${text}" is none of ${FILM_CODECS.join(', ')}.`);
  return known;
}

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

function alphaOf(text: string): FilmPlan['alpha'] {
  if (text === 'straight' || text === 'premultiplied' || text === 'none') return text;
  throw new CommandError(`--alpha: "${text}" is none of straight, premultiplied, none.`);
}

export function rateOf(text: string): Rate {
  try {
    return parseRate(text);
  } catch (error) {
    throw new CommandError(`--rate: ${(error as Error).message}`);
  }
}

function parseSize(text: string): { width: number; height: number } {
  const match = /^(\d{1,5})[x×](\d{1,5})$/i.exec(text);
  const [width, height] = [Number(match?.[1]), Number(match?.[2])];
  if (!match || width < 16 || height < 16 || width > 8192 || height > 8192) {
    throw new CommandError(`--size: "${text}" is not a size from 16x16 to 8192x8192, such as 1920x1080.`);
  }
  return { width, height };
}

function parseFrames(text: string): [number, number] {
  const match = /^(\d+)(?:-(\d+))?$/.exec(text);
  const from = Number(match?.[1]);
  const to = Number(match?.[2] ?? match?.[1]);
  if (!match || to < from) throw new CommandError(`--frames: "${text}" is not a range such as 0-59.`);
  return [from, to];
}
