import { spawn } from 'node:child_process';
import { rm } from 'node:fs/promises';
import { createInterface } from 'node:readline';
import { SAFELY } from './ffmpeg';
import type { Footage } from './footage';
import { foldFilter } from './streams';

/** Longest side of a working copy, in pixels: what H.264 decoders of browsers take (level 5.2). */
const LONGEST = 4096;
/** Frames from one that stands by itself to the next: seeking decodes half as many in the mean. */
const BETWEEN_KEYS = 15;

/** Down to the range and the colours of BT.709, highlights rolled off (Hable); 100 cd/m² is white. */
const TO_SDR = [
  'zscale=t=linear:npl=100',
  'format=gbrpf32le',
  'zscale=p=bt709',
  'tonemap=hable:desat=0',
  'zscale=t=bt709:m=bt709:r=tv',
];

/** Even sides, no longer than may be, with square pixels. */
function sized({ width, height }: Footage): string {
  const k = Math.min(1, LONGEST / Math.max(width, height));
  const even = (n: number) => Math.max(2, Math.round((n * k) / 2) * 2);
  return `scale=${even(width)}:${even(height)}:flags=bicubic,setsar=1`;
}

/** What a working copy is written as. */
export const copyType = ({ alpha }: Pick<Footage, 'alpha'>) => (alpha ? 'video/webm' : 'video/mp4');

/** The arguments of ffmpeg that make a working copy of a file. */
export function copyArguments(path: string, out: string, footage: Footage): string[] {
  const filters = [
    ...(footage.interlaced ? ['bwdif=mode=send_frame'] : []),
    ...(footage.hdr ? TO_SDR : []),
    sized(footage),
  ];
  const picture = footage.alpha
    ? ['-c:v', 'libvpx-vp9', '-pix_fmt', 'yuva420p', '-crf', '18', '-b:v', '0', '-auto-alt-ref', '0']
    : [
        '-c:v',
        'libx264',
        '-preset',
        'veryfast',
        '-crf',
        '17',
        '-pix_fmt',
        'yuv420p',
        '-movflags',
        '+faststart',
      ];
  const quick = footage.alpha ? ['-deadline', 'realtime', '-cpu-used', '6', '-row-mt', '1'] : [];
  const sound = footage.alpha ? ['-c:a', 'libopus', '-b:a', '160k'] : ['-c:a', 'aac', '-b:a', '192k'];
  const folded = footage.channels > 0 ? ['-af', foldFilter(footage.channels)] : [];
  return [
    ...['-hide_banner', '-nostdin', '-nostats', '-v', 'error', '-y', ...SAFELY, '-i', path],
    // The first picture and the first sound; cover pictures, data and subtitles stay behind.
    ...['-map', '0:V:0', '-map', '0:a:0?', '-vf', filters.join(',')],
    // Frames keep their own times, in the clock they came with: variable rates stay what they are.
    ...['-fps_mode', 'passthrough', '-enc_time_base', '-1', '-g', String(BETWEEN_KEYS)],
    ...[...picture, ...quick, ...sound, ...folded],
    ...['-progress', 'pipe:1', '-f', footage.alpha ? 'webm' : 'mp4', out],
  ];
}

/**
 * Makes a copy of a file that browsers play: H.264 in MP4 (VP9 with alpha in WebM where the file has alpha), upright,
 * square pixels, progressive, eight bits, its frames at their own times from 0 on.
 * @param onProgress part that is done, 0..1
 * @throws {Error} with what ffmpeg said; nothing is left at `out` then, nor when it is stopped
 */
export async function makeWorkingCopy(
  path: string,
  out: string,
  footage: Footage,
  { onProgress, signal }: { onProgress?: (part: number) => void; signal?: AbortSignal } = {},
): Promise<void> {
  const ffmpeg = spawn('ffmpeg', copyArguments(path, out, footage), {
    stdio: ['ignore', 'pipe', 'pipe'],
    ...(signal ? { signal } : {}),
  });
  let complaint = '';
  ffmpeg.stderr.on('data', (bytes: Buffer) => (complaint = (complaint + bytes.toString()).slice(-2000)));
  createInterface({ input: ffmpeg.stdout }).on('line', (line) => {
    const [, micros] = /^out_time_us=(\d+)$/.exec(line) ?? [];
    if (micros) onProgress?.(Math.min(1, Number(micros) / 1e6 / footage.duration));
  });
  try {
    await new Promise<void>((resolve, reject) => {
      ffmpeg.on('error', reject);
      ffmpeg.on('close', (code) =>
        code === 0 ? resolve() : reject(new Error(complaint.trim() || `ffmpeg ended with ${code}.`)),
      );
    });
  } catch (error) {
    await rm(out, { force: true });
    throw error;
  }
}
