import { type ChildProcess, spawn } from 'node:child_process';
import { once } from 'node:events';
import { mkdirSync } from 'node:fs';
import { readdir, rm } from 'node:fs/promises';
import { dirname, join } from 'node:path';
import type { Writable } from 'node:stream';
import {
  type FilmCodec,
  filmFacts,
  type Passage,
  type PictureKind,
  pictureEnding,
  picturesOfCodec,
  type Rate,
  type Rect,
  rateText,
} from '@fresh-reel/core';
import { readFrom, SAFELY, soughtTo } from './ffmpeg';
import { ENCODERS } from './filmCodecs';
import { writeZip } from './zipFile';

/** What ffmpeg reads itself and lays below what is painted. */
export interface Underlay {
  /** In order; black where there is no file. */
  readonly passages: readonly (Omit<Passage, 'media'> & { readonly path: string | undefined })[];
  /** Whole pixels with even sides: where frames that are written lie in the film. */
  readonly area: Rect;
}

/** What a film is written as. */
export interface FilmPlan {
  readonly codec: FilmCodec;
  readonly size: { readonly width: number; readonly height: number };
  readonly rate: Rate;
  /** Whether its transparency is kept, and how: colours as they are, or times their alpha. */
  readonly alpha: 'none' | 'straight' | 'premultiplied';
  /** Its first frame's, where the container has a track for it. */
  readonly timecode: string;
  /** What numbered pictures count from; 1, when absent. */
  readonly number?: number | undefined;
  /** A WAV file, where there is anything to hear. */
  readonly sound?: string;
  /** Path of what is written, with its ending. */
  readonly out: string;
  /** Where the frames that are written are laid over footage: planes of luma, chroma and straight alpha (`yuva420p`). */
  readonly underlay?: Underlay;
}

/** Seconds before the first frame of a passage at which reading begins: the frame that shows then began before it. */
const BEFORE = 2;
/** Colours of frames as they are in films; told, since some encoders write what their frames say. */
const AS_BT709 = 'setparams=color_primaries=bt709:color_trc=bt709:colorspace=bt709:range=tv';

/**
 * The arguments that open the files below, as inputs 1 and on, and the filters that put their frames together, one for
 * each frame of the film, and lay what is painted over them. The frame that shows is the last one whose own time is not
 * after its moment (`media/clipTime.ts`): times are counted in frames of the film from that moment, and rounded up.
 */
function laidOver(
  { passages, area }: Underlay,
  { size, rate }: FilmPlan,
): { inputs: string[]; files: number; graph: string } {
  const inputs: string[] = [];
  let files = 0;
  const parts = passages.map(({ path, at, step, frames }, i) => {
    const end = `trim=end_frame=${frames},format=yuv420p,setsar=1,${AS_BT709}[p${i}]`;
    if (path === undefined) return `color=c=black:s=${size.width}x${size.height}:r=${rateText(rate)},${end}`;
    const from = readFrom(at - BEFORE);
    inputs.push(...SAFELY, ...soughtTo(from), '-i', path);
    // Of a clip that stands, one frame, as long as it stands.
    const pace = step > 0 ? rate.den / (rate.num * step) : 1;
    // In billionths of a second: no moment is as near to a frame's time as these round (`FRAME_SLACK`).
    const times = `settb=1/1000000000,setpts=(PTS-${(at - from).toFixed(9)}/TB)*${pace.toFixed(12)}`;
    // The last frame stays on: it is asked for up to where the file ends.
    const stays = 'tpad=stop=-1:stop_mode=clone';
    const even = `fps=${rateText(rate)}:start_time=0:round=up`;
    const still = step > 0 ? '' : `trim=end_frame=1,${stays},`;
    return `[${++files}:v:0]${times},${stays},${even},${still}${end}`;
  });
  const joined = `${passages.map((_, i) => `[p${i}]`).join('')}concat=n=${passages.length}:v=1:a=0`;
  const clock = `settb=${rate.den}/${rate.num},setpts=N`;
  const graph = [
    ...parts,
    `${joined},${clock}[below]`,
    `[0:v]${clock},${AS_BT709}[painted]`,
    `[below][painted]overlay=${area.x}:${area.y}:format=yuv420`,
  ].join(';');
  return { inputs, files, graph };
}

/** The arguments of ffmpeg that take raw frames from its input and write a film. */
export function filmArguments(plan: FilmPlan): string[] {
  const { codec, size, rate, alpha, timecode, sound, out, underlay } = plan;
  const { name, settings, pixels, sound: soundCodec, keepsRgb } = ENCODERS[codec];
  const { most } = filmFacts(codec);
  const [opaque, clear] = pixels;
  const keeps = alpha !== 'none' && clear !== undefined;
  let { num, den } = rate;
  while (most !== undefined && num / den > most) den *= 2;
  const filters = [
    ...(alpha === 'premultiplied' && keeps ? ['format=gbrap', 'premultiply=inplace=1'] : []),
    ...(num / den < rate.num / rate.den ? [`fps=${num}/${den}`] : []),
    ...(keepsRgb
      ? []
      : ['scale=in_range=pc:out_range=tv:out_color_matrix=bt709:flags=accurate_rnd+full_chroma_int']),
    `format=${keeps ? clear : opaque}`,
    // Some encoders write what their frames say, and some what they were told.
    ...(keepsRgb ? [] : [AS_BT709]),
    ...(codec === 'gif'
      ? [
          `split[a][b];[a]palettegen=stats_mode=diff${keeps ? ':reserve_transparent=1' : ':reserve_transparent=0'}[p];[b][p]paletteuse=dither=sierra2_4a:alpha_threshold=128`,
        ]
      : []),
  ];
  const tags = keepsRgb
    ? []
    : ['-color_primaries', 'bt709', '-color_trc', 'bt709', '-colorspace', 'bt709', '-color_range', 'tv'];
  const heard = sound !== undefined && soundCodec.length > 0;
  const below = underlay && laidOver(underlay, plan);
  const { width, height } = underlay?.area ?? size;
  return [
    ...['-hide_banner', '-nostdin', '-nostats', '-v', 'error', '-y'],
    ...['-f', 'rawvideo', '-pix_fmt', below ? 'yuva420p' : 'rgba', '-s', `${width}x${height}`],
    ...[
      '-r',
      rateText(rate),
      '-i',
      'pipe:0',
      ...(below?.inputs ?? []),
      ...(heard ? [...SAFELY, '-i', sound] : []),
    ],
    ...(below
      ? ['-filter_complex', `${below.graph},${AS_BT709}[film]`, '-map', '[film]']
      : ['-map', '0:v:0', '-vf', filters.join(',')]),
    ...(heard ? ['-map', `${(below?.files ?? 0) + 1}:a:0`, ...soundCodec] : []),
    ...['-c:v', name, ...settings, ...tags],
    ...(/\.(mov|mp4)$/i.test(out) ? ['-timecode', timecode, '-write_tmcd', '1'] : []),
    // Nothing of the machine that wrote it, so that the same film is the same file.
    ...['-map_metadata', '-1', '-fflags', '+bitexact', '-flags:v', '+bitexact', '-flags:a', '+bitexact', out],
  ];
}

/** What numbered pictures are written as. */
export interface PicturesPlan {
  readonly pictures: PictureKind;
  readonly size: { readonly width: number; readonly height: number };
  readonly rate: Rate;
  readonly alpha: FilmPlan['alpha'];
  /** Path with a number in it as C's printf writes it. */
  readonly out: string;
  /** What they count from; 1, when absent. */
  readonly number?: number | undefined;
}

/**
 * The arguments of ffmpeg that take raw frames from its input and write numbered pictures: 16 bits a channel, in the
 * order of bytes that each is read with everywhere.
 */
export function pictureArguments({ pictures, size, rate, alpha, out, number = 1 }: PicturesPlan): string[] {
  const { name, settings, pixels } = ENCODERS[pictures];
  const format = pixels[alpha === 'none' ? 0 : 1];
  const filters = [
    ...(alpha === 'premultiplied' ? ['format=gbrap16le', 'premultiply=inplace=1'] : []),
    `format=${format}`,
  ];
  return [
    ...['-hide_banner', '-nostdin', '-nostats', '-v', 'error', '-y'],
    ...['-f', 'rawvideo', '-pix_fmt', 'rgba64le', '-s', `${size.width}x${size.height}`],
    ...['-r', rateText(rate), '-i', 'pipe:0', '-vf', filters.join(','), '-c:v', name, ...settings],
    ...['-map_metadata', '-1', '-fflags', '+bitexact', '-start_number', `${number}`, '-f', 'image2', out],
  ];
}

/** A film that is numbered pictures in a zip: what makes them, in a folder beside it. */
function zippedPictures({ codec, size, rate, alpha, out, number }: FilmPlan): PicturesPlan | undefined {
  const pictures = picturesOfCodec(codec);
  if (!pictures) return undefined;
  const name = `frame_%05d.${pictureEnding(pictures)}`;
  return { pictures, size, rate, alpha, number, out: join(`${out}.pictures`, name) };
}

/** Puts the files of a folder into a zip, in the order of their names. */
async function zipFolder(folder: string, out: string): Promise<void> {
  const names = (await readdir(folder)).sort();
  await writeZip(
    names.map((name) => ({ name, path: join(folder, name) })),
    out,
  );
}

/** Channels of 8 bits as 16: ffmpeg's own way of it is off by a little. */
const widened = (rgba: Uint8ClampedArray | Uint8Array): Uint16Array => Uint16Array.from(rgba, (v) => v * 257);

/** A film, or numbered pictures, being written frame by frame. A film that is not finished leaves no file. */
export class FilmFile {
  private readonly ffmpeg: ChildProcess;
  private readonly ended: Promise<void>;
  private complaint = '';
  /** Whether channels go in with 16 bits: those of numbered pictures. */
  private readonly wide: boolean;
  /** The folder of pictures that go into a zip. */
  private readonly zipped: string | undefined;
  /** Until the frame before is on its way: the next is painted meanwhile. */
  private room: Promise<void> = Promise.resolve();

  constructor(private readonly plan: FilmPlan | PicturesPlan) {
    const inZip = 'pictures' in plan ? undefined : zippedPictures(plan);
    this.wide = 'pictures' in plan || inZip !== undefined;
    this.zipped = inZip && dirname(inZip.out);
    const args =
      'pictures' in plan ? pictureArguments(plan) : inZip ? pictureArguments(inZip) : filmArguments(plan);
    if (this.zipped) mkdirSync(this.zipped);
    this.ffmpeg = spawn('ffmpeg', args, { stdio: ['pipe', 'ignore', 'pipe'] });
    this.ffmpeg.stderr!.on('data', (bytes: Buffer) => {
      this.complaint = (this.complaint + bytes.toString()).slice(-2000);
    });
    this.ended = new Promise<void>((resolve, reject) => {
      this.ffmpeg.on('error', reject);
      this.ffmpeg.on('close', (code) =>
        code === 0 ? resolve() : reject(new Error(this.complaint.trim() || `ffmpeg ended with ${code}.`)),
      );
    });
    // It is told where it is waited for.
    this.ended.catch(() => undefined);
    this.input.on('error', () => undefined);
  }

  private get input(): Writable {
    return this.ffmpeg.stdin!;
  }

  /**
   * Takes the next frame, once the one before is on its way; the memory is its own from then on.
   * @param pixels straight, four bytes each; planes, where they are laid over footage
   * @throws {Error} with what ffmpeg said, when it has given up
   */
  async write(pixels: Uint8ClampedArray | Uint8Array): Promise<void> {
    await this.room;
    const { buffer, byteOffset, byteLength } = this.wide ? widened(pixels) : pixels;
    if (this.input.write(Buffer.from(buffer, byteOffset, byteLength))) return;
    // A pipe that broke says less than ffmpeg, which broke it.
    const drained = once(this.input, 'drain').then(
      () => undefined,
      () => this.ended,
    );
    this.room = Promise.race([drained, this.ended]);
    // It is told to the next frame, or at the end.
    this.room.catch(() => undefined);
  }

  /** @throws {Error} with what ffmpeg said */
  async end(): Promise<void> {
    this.input.end();
    try {
      await this.ended;
      if (this.zipped) await zipFolder(this.zipped, this.plan.out);
    } catch (error) {
      await rm(this.plan.out, { force: true });
      throw error;
    } finally {
      await this.leaveFolder();
    }
  }

  /** Gives up, and leaves nothing. */
  async drop(): Promise<void> {
    this.ffmpeg.kill('SIGKILL');
    await this.ended.catch(() => undefined);
    await rm(this.plan.out, { force: true });
    await this.leaveFolder();
  }

  private async leaveFolder(): Promise<void> {
    if (this.zipped) await rm(this.zipped, { recursive: true, force: true });
  }
}
