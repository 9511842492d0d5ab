import { execFile } from 'node:child_process';
import { promisify } from 'node:util';
import { FILM_CODECS, type FilmCodec, filmFacts, type Size } from '@fresh-reel/core';
import { INSTALL_FFMPEG } from './ffmpeg';

const run = promisify(execFile);

interface Encoder {
  /** Its name in ffmpeg, into which it has to be built. */
  readonly name: string;
  readonly settings: readonly string[];
  /** How pixels are kept: without, and, where it keeps transparency, with alpha. */
  readonly pixels: readonly [opaque: string, clear?: string];
  readonly sound: readonly string[];
  /** Whether it keeps red, green and blue themselves rather than luma and chroma of BT.709. */
  readonly keepsRgb?: boolean;
}

const AAC = ['-c:a', 'aac', '-b:a', '256k'] as const;
const PCM = ['-c:a', 'pcm_s24le'] as const;
const OPUS = ['-c:a', 'libopus', '-b:a', '192k'] as const;

/** How each kind is written. Rates of quality are those of masters (common practice): no difference is seen. */
export const ENCODERS: Readonly<Record<FilmCodec, Encoder>> = {
  h264: {
    name: 'libx264',
    settings: ['-preset', 'medium', '-crf', '16', '-movflags', '+faststart'],
    pixels: ['yuv420p'],
    sound: AAC,
  },
  h265: {
    name: 'libx265',
    settings: ['-preset', 'medium', '-crf', '18', '-x265-params', 'log-level=error', '-tag:v', 'hvc1'],
    pixels: ['yuv420p'],
    sound: AAC,
  },
  prores422hq: {
    name: 'prores_ks',
    settings: ['-profile:v', '3', '-vendor', 'apl0'],
    pixels: ['yuv422p10le'],
    sound: PCM,
  },
  prores4444: {
    name: 'prores_ks',
    settings: ['-profile:v', '4', '-vendor', 'apl0', '-alpha_bits', '16'],
    pixels: ['yuv444p10le', 'yuva444p10le'],
    sound: PCM,
  },
  dnxhr: { name: 'dnxhd', settings: ['-profile:v', 'dnxhr_hq'], pixels: ['yuv422p'], sound: PCM },
  ffv1: {
    name: 'ffv1',
    settings: ['-level', '3', '-slices', '16', '-slicecrc', '1'],
    pixels: ['bgr0', 'bgra'],
    sound: ['-c:a', 'flac'],
    keepsRgb: true,
  },
  vp9: {
    name: 'libvpx-vp9',
    settings: [
      ...['-crf', '18', '-b:v', '0', '-row-mt', '1', '-deadline', 'good', '-cpu-used', '4'],
      ...['-auto-alt-ref', '0'],
    ],
    pixels: ['yuv420p', 'yuva420p'],
    sound: OPUS,
  },
  av1: { name: 'libsvtav1', settings: ['-crf', '24', '-preset', '8'], pixels: ['yuv420p'], sound: OPUS },
  gif: { name: 'gif', settings: ['-loop', '0'], pixels: ['bgr0', 'bgra'], sound: [], keepsRgb: true },
  webp: {
    name: 'libwebp_anim',
    settings: ['-quality', '88', '-loop', '0'],
    pixels: ['bgra', 'bgra'],
    sound: [],
    keepsRgb: true,
  },
  png16: { name: 'png', settings: [], pixels: ['rgb48be', 'rgba64be'], sound: [], keepsRgb: true },
  tiff: {
    name: 'tiff',
    settings: ['-compression_algo', 'deflate'],
    pixels: ['rgb48le', 'rgba64le'],
    sound: [],
    keepsRgb: true,
  },
};

/** Whether footage can be laid below what is painted of a film: what has other planes than footage is painted whole. */
export const takesFootage = (codec: FilmCodec): boolean => ENCODERS[codec].pixels[0] === 'yuv420p';

/** What ffmpeg said of the encoders it was built with: asked until there is one. */
let encoders: Promise<string | undefined> | undefined;

/** What ffmpeg says of the encoders it was built with; nothing where there is none. */
async function encodersHere(): Promise<string | undefined> {
  encoders ??= run('ffmpeg', ['-hide_banner', '-encoders'], { maxBuffer: 1 << 24 }).then(
    ({ stdout }) => stdout,
    () => {
      encoders = undefined;
      return undefined;
    },
  );
  return encoders;
}

const isAmong = (encoders: string, codec: FilmCodec) =>
  new RegExp(`^ [A-Z.]+ ${ENCODERS[codec].name} `, 'm').test(encoders);

/** Kinds of film that can be written here. */
export async function writableFilms(): Promise<FilmCodec[]> {
  const here = await encodersHere();
  return here ? FILM_CODECS.filter((codec) => isAmong(here, codec)) : [];
}

/** Why a film cannot be written, in words with what to do, or nothing. */
export async function whyNoFilm({
  codec,
  size,
  out,
}: {
  readonly codec: FilmCodec;
  readonly size: Size;
  readonly out: string;
}): Promise<string | undefined> {
  const { endings, even, least } = filmFacts(codec);
  const { name } = ENCODERS[codec];
  const ending = /\.([^.]+)$/.exec(out)?.[1]?.toLowerCase();
  if (!ending || !endings.includes(ending))
    return `${codec} goes into a file that ends in .${endings.join(' or .')}, and "${out}" does not.`;
  if (even && (size.width % 2 || size.height % 2))
    return `${codec} takes even sides only, and ${size.width}x${size.height} is not: try --size ${size.width + (size.width % 2)}x${size.height + (size.height % 2)}.`;
  if (least && (size.width < least.width || size.height < least.height))
    return `${codec} takes ${least.width}x${least.height} and more, and ${size.width}x${size.height} is smaller.`;
  const here = await encodersHere();
  if (!here) return `Films are written by ffmpeg, which is not here. ${INSTALL_FFMPEG}`;
  if (!isAmong(here, codec))
    return `The ffmpeg that is here was built without ${name}, which writes ${codec}. Install one that has it, or choose another of ${FILM_CODECS.join(', ')}.`;
  return undefined;
}
