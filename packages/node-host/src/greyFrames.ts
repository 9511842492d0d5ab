import { spawn } from 'node:child_process';
import type { Grey } from '@fresh-reel/core';
import { framesOf, SAFELY } from './ffmpeg';

/** A picture in 8 bits of grey. */
export interface GreyBytes {
  readonly width: number;
  readonly height: number;
  readonly bytes: Uint8Array;
}

export const greyFrom = ({ width, height, bytes }: GreyBytes): Grey => ({
  width,
  height,
  data: Float32Array.from(bytes),
});

/**
 * Every frame of a clip in grey, in order, each once.
 * @param width pixels to which each is brought, as wide and high as it is seen
 * @throws {Error} saying what ffmpeg complained of, when it gives no frame at all
 */
export async function* greyFrames(path: string, width: number, height: number): AsyncGenerator<GreyBytes> {
  const process = spawn(
    'ffmpeg',
    [
      ...['-nostdin', '-hide_banner', '-loglevel', 'error', ...SAFELY],
      ...['-i', path, '-map', '0:v:0', '-fps_mode', 'passthrough'],
      ...['-vf', `scale=${width}:${height}:flags=area`, '-f', 'rawvideo', '-pix_fmt', 'gray', 'pipe:1'],
    ],
    { stdio: ['ignore', 'pipe', 'pipe'] },
  );
  let complaint = '';
  process.on('error', (error) => {
    complaint = error.message;
  });
  process.stderr.on('data', (data: Buffer) => {
    complaint = data.toString().trim();
  });
  let given = 0;
  try {
    for await (const frame of framesOf(process.stdout, width * height)) {
      given++;
      yield { width, height, bytes: frame };
    }
  } finally {
    process.stdout.destroy();
    process.kill('SIGKILL');
  }
  if (given === 0) throw new Error(`"${path}" gave no frame. ${complaint}`.trim());
}
