import type { Rate } from '../time/rate';
import type { FrameSize } from '../values/frame';
import { FILM_CODECS, type FilmCodec, filmFacts } from './films';

/** What a browser writes. */
export const OUTPUT_FORMATS = [
  'mp4',
  'webm',
  'mp4-hevc',
  'mp4-av1',
  'webm-av1',
  'png-sequence',
  'moving-webp',
  'moving-png',
  'moving-gif',
  'png',
  'wav',
] as const;
export type OutputFormat = (typeof OUTPUT_FORMATS)[number];

/** What a browser writes, or a machine with ffmpeg. */
export const RENDER_FORMATS = [...OUTPUT_FORMATS, ...FILM_CODECS] as const;
export type RenderFormat = OutputFormat | FilmCodec;

/** A film as a browser writes it: its container, and its codec by the name that WebCodecs' registry has for the family. */
export interface BrowserFilm {
  readonly container: 'mp4' | 'webm';
  readonly codec: 'avc' | 'hevc' | 'av1' | 'vp9';
}

const BROWSER_FILMS: Readonly<Partial<Record<RenderFormat, BrowserFilm>>> = {
  mp4: { container: 'mp4', codec: 'avc' },
  webm: { container: 'webm', codec: 'vp9' },
  'mp4-hevc': { container: 'mp4', codec: 'hevc' },
  'mp4-av1': { container: 'mp4', codec: 'av1' },
  'webm-av1': { container: 'webm', codec: 'av1' },
};

/** What film a browser writes for a format; nothing for pictures, sound, and what a server makes. */
export const browserFilm = (format: RenderFormat): BrowserFilm | undefined => BROWSER_FILMS[format];

/** The formats of moving pictures that a browser writes, which play by themselves and have no sound. */
export const MOVING_PICTURES = {
  'moving-webp': 'webp',
  'moving-png': 'png',
  'moving-gif': 'gif',
} as const satisfies Partial<Record<OutputFormat, string>>;
export type MovingPicture = (typeof MOVING_PICTURES)[keyof typeof MOVING_PICTURES];

/** What kind of moving picture a format is; nothing for all others. */
export const movingPicture = (format: RenderFormat): MovingPicture | undefined =>
  (MOVING_PICTURES as Readonly<Partial<Record<RenderFormat, MovingPicture>>>)[format];

/** Whether a format takes a machine with ffmpeg. */
export const isFilmFormat = (format: RenderFormat): format is FilmCodec =>
  (FILM_CODECS as readonly string[]).includes(format);

interface FormatFacts {
  readonly name: string;
  readonly about: string;
  /** Whether it keeps transparency; nothing of what has no pictures. */
  readonly alpha?: boolean;
  readonly extension: string;
}

/** What a format is called, and what it can carry. */
export function formatFacts(format: RenderFormat): FormatFacts {
  if (!isFilmFormat(format)) return BROWSER_FACTS[format];
  const { name, about, alpha, endings } = filmFacts(format);
  return { name, about, alpha, extension: endings[0]! };
}

const BROWSER_FACTS: Readonly<Record<OutputFormat, FormatFacts>> = {
  mp4: { name: 'MP4', about: 'H.264, plays everywhere, no transparency', alpha: false, extension: 'mp4' },
  webm: { name: 'WebM', about: 'VP9, keeps transparency', alpha: true, extension: 'webm' },
  'mp4-hevc': {
    name: 'MP4, H.265',
    about: 'H.265, half the size, for newer players, no transparency',
    alpha: false,
    extension: 'mp4',
  },
  'mp4-av1': {
    name: 'MP4, AV1',
    about: 'AV1, the smallest, for newer players, no transparency',
    alpha: false,
    extension: 'mp4',
  },
  'webm-av1': {
    name: 'WebM, AV1',
    about: 'AV1, the smallest, for the web, no transparency',
    alpha: false,
    extension: 'webm',
  },
  'png-sequence': {
    name: 'PNG sequence',
    about: 'numbered pictures in a zip, keeps transparency',
    alpha: true,
    extension: 'zip',
  },
  'moving-webp': {
    name: 'Animated WebP',
    about: 'for previews, plays by itself, no sound, keeps transparency',
    alpha: true,
    extension: 'webp',
  },
  'moving-png': {
    name: 'Animated PNG',
    about: 'for previews, every pixel as it is, no sound, keeps transparency',
    alpha: true,
    extension: 'png',
  },
  'moving-gif': {
    name: 'GIF',
    about:
      'for previews that have to play everywhere, 256 colours a frame, at most 50 frames a second, no sound, hard edges where it is clear',
    alpha: true,
    extension: 'gif',
  },
  png: { name: 'PNG still', about: 'the frame under the playhead', alpha: true, extension: 'png' },
  wav: { name: 'WAV', about: 'the sound alone, 24 bits at 48 kHz', extension: 'wav' },
};

/** What will be rendered. */
export interface RenderPlan<F extends RenderFormat = RenderFormat> {
  readonly format: F;
  readonly width: number;
  readonly height: number;
  readonly rate: Rate;
  /** First frame and how many. */
  readonly from: number;
  readonly count: number;
  readonly fileName: string;
  /** Painted as a preview is that has to keep up: soft parts sharper, materials coarser. */
  readonly draft?: boolean;
}

/** A frame's shape at a short side of so many pixels; sides even as video asks. */
export function sizeOfSide(frame: FrameSize, side: number): FrameSize {
  const short = Math.min(frame.width, frame.height);
  const even = (n: number) => Math.max(2, Math.round((n * side) / short / 2) * 2);
  return { width: even(frame.width), height: even(frame.height) };
}

/** Sizes offered for a frame, by their short sides: those of films, and smaller ones for what is sent around. */
export const offeredSizes = (frame: FrameSize): FrameSize[] =>
  [2160, 1440, 1080, 720, LEAST_FILM, 360, 270].map((side) => sizeOfSide(frame, side));

/** The smallest short side that a film is made in. */
export const LEAST_FILM = 540;

/** The size of a short side that is offered for a frame; that of 1080 where it is not. */
export function offeredSize(frame: FrameSize, side: number): FrameSize {
  const sizes = offeredSizes(frame);
  const of = (wanted: number) => sizes.find((s) => Math.min(s.width, s.height) === wanted);
  return of(side) ?? of(1080)!;
}

/** The size of a draft: about half of what the final has, and one that is offered. */
export function draftSize(frame: FrameSize, side: number): FrameSize {
  const short = ({ width, height }: FrameSize) => Math.min(width, height);
  const sizes = offeredSizes(frame);
  return sizes.find((size) => short(size) <= short(offeredSize(frame, side)) / 2) ?? sizes.at(-1)!;
}

/** A file name from a title: letters and digits of any script, hyphens, no path and no dots. */
export function fileStem(name: string): string {
  const stem = name
    .normalize('NFC')
    .toLowerCase()
    .replace(/[^\p{L}\p{M}\p{N}]+/gu, '-')
    .replace(/^-+|-+$/g, '')
    .slice(0, 80);
  return stem || 'untitled';
}

/** Name of one picture of a sequence; counts from 1, in as many digits as the whole sequence needs, at least five. */
export function sequenceName(stem: string, index: number, count: number): string {
  return `${stem}_${String(index + 1).padStart(Math.max(5, String(count).length), '0')}.png`;
}

/**
 * H.264 bit rate for titles, bits a second. Common practice: about 0.1 bit per pixel and frame, never under 2 Mbit/s,
 * since flat colour and thin letters show every artefact.
 */
export function videoBitrate(size: FrameSize, rate: Rate): number {
  return Math.max(2_000_000, Math.round((size.width * size.height * rate.num * 0.1) / rate.den));
}
