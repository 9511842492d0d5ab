import { spawnSync } from 'node:child_process';
import { mkdtempSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { PNG } from 'pngjs';

/** Clips whose frames carry their own number, made by ffmpeg, and frames that are read back. */

const BITS = 10;
const [WIDTH, HEIGHT] = [320, 180];
/** Where files are made: apart from what the browser downloads. */
export const folder = mkdtempSync(join(tmpdir(), 'fresh-reel-clips-'));

/** A frame that says its number in ten light or dark blocks, over a field of grey. */
function marked(number: number): Buffer {
  const pixels = Buffer.alloc(WIDTH * HEIGHT * 3, 110);
  const cell = WIDTH / BITS;
  for (let bit = 0; bit < BITS; bit++) {
    const value = (number >> bit) & 1 ? 235 : 20;
    for (let y = 40; y < 140; y++) {
      const row = (y * WIDTH + bit * cell + 4) * 3;
      pixels.fill(value, row, row + (cell - 8) * 3);
    }
  }
  return pixels;
}

export function ffmpeg(args: readonly string[], input?: Buffer): Buffer {
  const run = spawnSync('ffmpeg', ['-v', 'error', '-y', ...args], { input, maxBuffer: 1 << 30 });
  if (run.status !== 0) throw new Error(`ffmpeg: ${run.stderr}`);
  return run.stdout;
}

/**
 * A clip of numbered frames.
 * @param more what ffmpeg is told before the file's name: codec, filters, sound
 */
export function numberedClip(name: string, count: number, rate: string, more: readonly string[]): string {
  const path = join(folder, name);
  const frames = Buffer.concat(Array.from({ length: count }, (_, i) => marked(i)));
  ffmpeg(
    [
      '-f',
      'rawvideo',
      '-pix_fmt',
      'rgb24',
      '-s',
      `${WIDTH}x${HEIGHT}`,
      '-r',
      rate,
      '-i',
      'pipe:0',
      ...more,
      path,
    ],
    frames,
  );
  return path;
}

/** A WAV of noise that does not shrink, in 16 bits stereo. */
export function noise(name: string, bytes: number): string {
  const samples = Buffer.alloc(bytes);
  for (let i = 0; i + 4 <= bytes; i += 4)
    samples.writeUInt32LE((Math.imul(i, 2654435761) >>> 0) & 0x0fff0fff, i);
  const path = join(folder, name);
  ffmpeg(['-f', 's16le', '-ar', '48000', '-ac', '2', '-i', 'pipe:0', '-bitexact', path], samples);
  return path;
}

/** The numbers that the frames of a rendered file show. */
export function numbersIn(path: string): number[] {
  const raw = ffmpeg([
    '-i',
    path,
    '-f',
    'rawvideo',
    '-pix_fmt',
    'gray',
    '-s',
    `${WIDTH}x${HEIGHT}`,
    'pipe:1',
  ]);
  const size = WIDTH * HEIGHT;
  const cell = WIDTH / BITS;
  return Array.from({ length: raw.length / size }, (_, frame) => {
    let number = 0;
    for (let bit = 0; bit < BITS; bit++) {
      const at = frame * size + 90 * WIDTH + Math.floor((bit + 0.5) * cell);
      if (raw[at]! > 128) number |= 1 << bit;
    }
    return number;
  });
}

/** The number that a picture of a frame shows, at whatever size. */
export function numberIn({ width, height, data }: PNG): number {
  const row = Math.floor(height / 2) * width;
  return Array.from({ length: BITS }, (_, bit) => {
    const x = Math.floor(((bit + 0.5) / BITS) * width);
    return data[(row + x) * 4]! > 128 ? 1 << bit : 0;
  }).reduce((sum, value) => sum + value, 0);
}

/** Times of a file's frames in seconds, in order, as ffprobe reads them. */
export function frameTimes(path: string): number[] {
  const run = spawnSync('ffprobe', [
    '-v',
    'error',
    '-select_streams',
    'v:0',
    '-show_entries',
    'frame=pts_time',
    '-of',
    'csv=p=0',
    path,
  ]);
  return run.stdout
    .toString()
    .split('\n')
    .flatMap((l) => (l.trim() ? [Number.parseFloat(l)] : []));
}
