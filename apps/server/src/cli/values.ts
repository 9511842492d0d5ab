import {
  FILM_CODECS,
  type FilmCodec,
  FRAMES,
  type FrameShape,
  PACKAGE_ENDING,
  PICTURE_KINDS,
  type PictureKind,
  parseRate,
  type Rate,
} from '@fresh-reel/core';
import type { FilmPlan } from '@fresh-reel/node-host';
import { CommandError } from '../rendering/command';

/** Readers of what options are given: each throws a {@link CommandError} that says what is wrong and what would do. */

/** One of several words. */
function oneOf<T extends string>(option: string, known: readonly T[], text: string): T {
  const found = known.find((word) => word === text);
  if (!found) throw new CommandError(`${option}: "${text}" is none of ${known.join(', ')}.`);
  return found;
}

export const picturesOf = (text: string): PictureKind => oneOf('--pictures', PICTURE_KINDS, text);

export function numberOf(text: string): number {
  const number = Number(text);
  if (!/^\d+$/.test(text) || number > 9_000_000)
    throw new CommandError(`--number: "${text}" is no number to count from, such as 1001.`);
  return number;
}

export const codecOf = (text: string): FilmCodec => oneOf('--codec', FILM_CODECS, text);

export const alphaOf = (text: string): FilmPlan['alpha'] =>
  oneOf('--alpha', ['straight', 'premultiplied', 'none'], text);

export function rateOf(text: string): Rate {
  try {
    return parseRate(text);
  } catch (error) {
    throw new CommandError(`--rate: ${(error as Error).message}`);
  }
}

export function sizeOf(text: string): { width: number; height: number } {
  const match = /^(\d{1,5})[x×](\d{1,5})$/i.exec(text);
  const [width, height] = [Number(match?.[1]), Number(match?.[2])];
  if (!match || width < 16 || height < 16 || width > 8192 || height > 8192) {
    throw new CommandError(`--size: "${text}" is not a size from 16x16 to 8192x8192, such as 1920x1080.`);
  }
  return { width, height };
}

export function framesOf(text: string): [number, number] {
  const match = /^(\d+)(?:-(\d+))?$/.exec(text);
  const from = Number(match?.[1]);
  const to = Number(match?.[2] ?? match?.[1]);
  if (!match || to < from) throw new CommandError(`--frames: "${text}" is not a range such as 0-59.`);
  return [from, to];
}

export function sideOf(text: string): number {
  const side = Number(text);
  if (!/^\d+$/.test(text) || side < 16 || side > 4320)
    throw new CommandError(`--side: "${text}" is not from 16 to 4320 pixels, such as 1080.`);
  return side;
}

export function shapesOf(text: string): FrameShape[] {
  const known = Object.keys(FRAMES) as FrameShape[];
  const shapes = text.split(',').map((name) => {
    const shape = known.find((s) => s === name.trim());
    if (!shape) throw new CommandError(`--shapes: "${name}" is none of ${known.join(', ')}.`);
    return shape;
  });
  return [...new Set(shapes)];
}

export function loudnessOf(text: string): number {
  const loudness = Number(text);
  if (!(loudness >= -40 && loudness <= -5))
    throw new CommandError(`--loudness: "${text}" is not from -40 to -5 LUFS, such as -14.`);
  return loudness;
}

export function endingOf(text: string): string {
  if (!/^[a-z0-9]{1,8}$/i.test(text)) throw new CommandError(`--ending: "${text}" is none, such as mov.`);
  return text;
}

export function packageOf(text: string): string {
  if (!text.endsWith(PACKAGE_ENDING))
    throw new CommandError(`--out: "${text}" does not end in ${PACKAGE_ENDING}, as packages do.`);
  return text;
}

/** A place on a clip, in pixels. */
export function placeOf(text: string): [x: number, y: number] {
  const at = /^(\d+(?:\.\d+)?),(\d+(?:\.\d+)?)$/.exec(text);
  if (!at) throw new CommandError(`--at: "${text}" is not a place such as 320,180.`);
  return [Number(at[1]), Number(at[2])];
}

/** The width of a patch, in pixels. */
export function patchOf(text: string): number {
  const size = Number(text);
  if (!(size >= 8 && size <= 2000))
    throw new CommandError(`--size: "${text}" is not a width of 8 to 2000 pixels.`);
  return size;
}

export function frameOf(text: string): number {
  if (!/^\d+$/.test(text)) throw new CommandError(`--frame: "${text}" is not a frame counted from 0.`);
  return Number(text);
}

/** An address of some protocols, as an option has it. */
function addressOf(text: string, protocols: RegExp, option: string, what: string): string {
  if (!URL.canParse(text) || !protocols.test(new URL(text).protocol))
    throw new CommandError(`${option}: "${text}" is no address of ${what}.`);
  return text;
}

/** The address of a queue. */
export const redisOf = (text: string): string =>
  addressOf(text, /^rediss?:$/, '--redis', 'a queue, such as redis://machine:6379');

/** The address of a server, without a path. */
export const serverOf = (text: string): string =>
  new URL(addressOf(text, /^https?:$/, '--server', 'a server, such as http://studio:4173')).origin;
