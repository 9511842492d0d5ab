import { execFileSync } from 'node:child_process';
import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { PNG } from 'pngjs';

export interface VideoFacts {
  readonly codec: string;
  readonly width: number;
  readonly height: number;
  /** As ffprobe reads it: a fraction. */
  readonly rate: string;
  readonly frames: number;
  readonly alpha: boolean;
}

export function asFile(bytes: Uint8Array, name: string): string {
  const path = join(mkdtempSync(join(tmpdir(), 'fresh-reel-probe-')), name);
  writeFileSync(path, bytes);
  return path;
}

/** What ffprobe says of a video file, every frame decoded and counted. */
export function probe(path: string): VideoFacts {
  const out = execFileSync('ffprobe', [
    '-v',
    'error',
    '-count_frames',
    '-select_streams',
    'v:0',
    '-show_entries',
    'stream=codec_name,width,height,avg_frame_rate,nb_read_frames:stream_tags=alpha_mode',
    '-of',
    'json',
    path,
  ]);
  const stream = JSON.parse(out.toString()).streams[0];
  return {
    codec: stream.codec_name,
    width: stream.width,
    height: stream.height,
    rate: stream.avg_frame_rate,
    frames: Number(stream.nb_read_frames),
    alpha: (stream.tags?.alpha_mode ?? stream.tags?.ALPHA_MODE) === '1',
  };
}

/** How a video file says its colours are to be read. */
export function coloursOf(path: string): Record<'range' | 'matrix' | 'primaries' | 'transfer', string> {
  const show = 'stream=color_range,color_space,color_primaries,color_transfer';
  const out = execFileSync('ffprobe', [
    ...['-v', 'error', '-select_streams', 'v:0', '-show_entries', show, '-of', 'json', path],
  ]);
  const [stream] = JSON.parse(out.toString()).streams;
  return {
    range: stream.color_range,
    matrix: stream.color_space,
    primaries: stream.color_primaries,
    transfer: stream.color_transfer,
  };
}

/** What ffprobe says of a file's sound. */
export function soundOf(path: string): { codec: string; rate: number; channels: number; seconds: number } {
  const show = 'stream=codec_name,sample_rate,channels:format=duration';
  const out = execFileSync('ffprobe', [
    '-v',
    'error',
    '-select_streams',
    'a:0',
    '-show_entries',
    show,
    '-of',
    'json',
    path,
  ]);
  const { streams, format } = JSON.parse(out.toString());
  return {
    codec: streams[0].codec_name,
    rate: Number(streams[0].sample_rate),
    channels: streams[0].channels,
    seconds: Number(format.duration),
  };
}

/** One frame of a video as RGBA, decoded by ffmpeg (libvpx, so that VP9's alpha is read). */
export function frameOf(path: string, seconds: number, vp9: boolean): PNG {
  const png = execFileSync(
    'ffmpeg',
    [
      '-v',
      'error',
      ...(vp9 ? ['-c:v', 'libvpx-vp9'] : []),
      '-i',
      path,
      '-ss',
      String(seconds),
      '-frames:v',
      '1',
      '-f',
      'image2pipe',
      '-c:v',
      'png',
      '-pix_fmt',
      'rgba',
      '-',
    ],
    { maxBuffer: 1 << 28 },
  );
  return PNG.sync.read(png);
}

/** Mean difference of two pictures of one size, per channel, 0..255, over what is seen (colour times alpha). */
export function difference(a: PNG, b: PNG): number {
  if (a.width !== b.width || a.height !== b.height)
    throw new Error(`Sizes differ: ${a.width}x${a.height} and ${b.width}x${b.height}.`);
  let sum = 0;
  for (let i = 0; i < a.data.length; i += 4) {
    for (let k = 0; k < 3; k++)
      sum += Math.abs((a.data[i + k]! * a.data[i + 3]! - b.data[i + k]! * b.data[i + 3]!) / 255);
    sum += Math.abs(a.data[i + 3]! - b.data[i + 3]!);
  }
  return sum / a.data.length;
}

export function pixel(png: PNG, x: number, y: number): number[] {
  const i = (y * png.width + x) * 4;
  return [...png.data.subarray(i, i + 4)];
}

type Rgba = readonly [number, number, number, number];

/** A picture of which every pixel is told. */
export function painted(width: number, height: number, colour: (x: number, y: number) => Rgba): PNG {
  const png = new PNG({ width, height });
  for (let i = 0, y = 0; y < height; y++) {
    for (let x = 0; x < width; x++) {
      const rgba = colour(x, y);
      for (let k = 0; k < 4; k++) png.data[i++] = rgba[k]!;
    }
  }
  return png;
}

/** A PNG with a disc of one colour on nothing: a logo with transparency. */
export function discPng(size: number, [r, g, b]: readonly [number, number, number]): Buffer {
  const inside = (x: number, y: number) => Math.hypot(x - size / 2, y - size / 2) < size / 2 - 1;
  return PNG.sync.write(painted(size, size, (x, y) => [r, g, b, inside(x, y) ? 255 : 0]));
}

/** A PNG of vertical stripes, to see which part of it shows. */
export function stripesPng(
  width: number,
  height: number,
  colours: readonly (readonly [number, number, number])[],
): Buffer {
  const stripe = (x: number) => colours[Math.floor((x * colours.length) / width)]!;
  return PNG.sync.write(painted(width, height, (x) => [...stripe(x), 255]));
}
