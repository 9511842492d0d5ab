import { spawnSync } from 'node:child_process';

/** Structural similarity of the first frames of two films, over red, green and blue, as ffmpeg's filter computes it: 1 is the same. */
export function ssim(a: string, b: string, frames: number): number {
  const first = `trim=end_frame=${frames},format=gbrp`;
  const run = spawnSync(
    'ffmpeg',
    [
      '-nostdin',
      '-i',
      a,
      '-i',
      b,
      '-lavfi',
      `[0:v]${first}[a];[1:v]${first}[b];[a][b]ssim`,
      '-f',
      'null',
      '-',
    ],
    { maxBuffer: 1 << 26 },
  );
  const found = /SSIM .*All:([\d.]+)/.exec(run.stderr.toString());
  if (!found) throw new Error(`ffmpeg compared nothing: ${run.stderr.toString().slice(-500)}`);
  return Number(found[1]);
}
