/** What is known of a kind of film before any is written. */
export interface FilmFacts {
  /** Its container and what is in it. */
  readonly name: string;
  /** Endings of files it goes into, the usual one first. */
  readonly endings: readonly string[];
  /** Whether it keeps transparency. */
  readonly alpha: boolean;
  /** Whether it has sound. */
  readonly sound: boolean;
  /** Whether sides have to be even: half as many pixels of chroma. */
  readonly even: boolean;
  /** Smallest size, where there is one. */
  readonly least?: { readonly width: number; readonly height: number };
  /** Most frames a second, where there is a limit. */
  readonly most?: number;
  /** What it is, and what it is for. */
  readonly about: string;
}

const film = (
  name: string,
  endings: readonly string[],
  about: string,
  more: Partial<FilmFacts> = {},
): FilmFacts => ({
  name,
  endings,
  about,
  alpha: false,
  sound: true,
  even: true,
  ...more,
});

/** What is known of films that are kept as pictures are. */
const AS_PICTURES = { alpha: true, sound: false, even: false } as const;
const IN_A_ZIP = 'numbered pictures in a zip, no sound, keeps transparency';

/** Kinds of film that a machine with ffmpeg writes. */
export const FILMS = {
  h264: film('MP4, H.264', ['mp4', 'mov'], 'H.264 with AAC: plays everywhere'),
  h265: film('MP4, H.265', ['mp4', 'mov'], 'H.265 with AAC: half the size, for newer players'),
  prores422hq: film('MOV, 422 HQ', ['mov'], 'SMPTE RDD 36, 422 HQ: for editing'),
  prores4444: film('MOV, 4444', ['mov'], 'SMPTE RDD 36, 4444: for editing, keeps transparency', {
    alpha: true,
    even: false,
  }),
  dnxhr: film('MOV, VC-3', ['mov'], 'VC-3 (SMPTE ST 2019-1): for editing', {
    least: { width: 256, height: 120 },
  }),
  ffv1: film('MKV, FFV1', ['mkv'], 'FFV1 (RFC 9043): every pixel as it is, to keep', {
    alpha: true,
    even: false,
  }),
  vp9: film('WebM, VP9', ['webm'], 'VP9 with Opus: for the web, keeps transparency', { alpha: true }),
  av1: film('MP4, AV1', ['mp4', 'webm', 'mkv'], 'AV1 with Opus: the smallest, for newer players'),
  // Its frames last whole hundredths of a second; players show those of one hundredth ten times as long.
  gif: film('GIF', ['gif'], 'for previews, no sound', { ...AS_PICTURES, most: 50 }),
  webp: film('Animated WebP', ['webp'], 'for previews, no sound', AS_PICTURES),
  png16: film('PNG sequence, 16 bits', ['zip'], IN_A_ZIP, AS_PICTURES),
  tiff: film('TIFF sequence, 16 bits', ['zip'], IN_A_ZIP, AS_PICTURES),
} as const;

export type FilmCodec = keyof typeof FILMS;
export const FILM_CODECS = Object.keys(FILMS) as FilmCodec[];

/** A codec's facts. */
export const filmFacts = (codec: FilmCodec): FilmFacts => FILMS[codec];

/** What a film is written as where nothing else is said: by its ending, and whether there is transparency to keep. */
export function filmOfEnding(ending: string, transparent: boolean): FilmCodec | undefined {
  if (ending === 'mov') return transparent ? 'prores4444' : 'prores422hq';
  return FILM_CODECS.find((codec) => filmFacts(codec).endings[0] === ending);
}

/** Kinds of numbered pictures that a machine with ffmpeg writes, besides PNGs of 8 bits. */
export const PICTURE_KINDS = ['png16', 'tiff'] as const satisfies readonly FilmCodec[];
export type PictureKind = (typeof PICTURE_KINDS)[number];

/** The ending of numbered pictures; of PNGs of 8 bits, when no kind is named. */
export const pictureEnding = (kind?: PictureKind): string => (kind === 'tiff' ? 'tiff' : 'png');

/** Which kind of numbered pictures a codec makes, if it does: they lie in a zip. */
export const picturesOfCodec = (codec: FilmCodec): PictureKind | undefined =>
  PICTURE_KINDS.find((kind) => kind === codec);
