import { execFileSync } from 'node:child_process';
import { mkdtempSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { stereoWeights } from '@fresh-reel/core';
import { lookAtFootage } from './footage';
import { NodeSound } from './sound';
import { makeWorkingCopy } from './workingCopy';

const folder = mkdtempSync(join(tmpdir(), 'fresh-reel-sound-'));
const LEVELS = [0.11, 0.07, 0.05, 0.13, 0.03, 0.02, 0.09, 0.06];

/** A sound of a second in which each channel stands still at a level of its own. */
function standing(layout: string, count: number): string {
  const path = join(folder, `${layout}.wav`);
  const source = `aevalsrc=${LEVELS.slice(0, count).join('|')}:c=${layout}:s=48000:d=1`;
  execFileSync('ffmpeg', ['-v', 'error', '-y', '-f', 'lavfi', '-i', source, '-c:a', 'pcm_f32le', path]);
  return path;
}

it.each([
  ['mono', 1],
  ['stereo', 2],
  ['3.0', 3],
  ['quad', 4],
  ['5.0', 5],
  ['5.1', 6],
  ['6.1', 7],
  ['7.1', 8],
])('%s is as loud here as in a browser', async (layout, count) => {
  const sound = await NodeSound.open(standing(layout, count));
  const heard = await sound!.read(24000, 1);
  const wanted = stereoWeights(count).map((weights) => weights.reduce((s, w, c) => s + w * LEVELS[c]!, 0));
  expect(heard.map((side) => side[0]!)).toEqual(wanted.map((v) => expect.closeTo(v, 5)));
});

it('a working copy is as loud as the file it is of, also of one channel', async () => {
  const path = join(folder, 'one.mov');
  const [picture, tone] = ['color=c=gray:s=64x64:r=25:d=2', 'sine=frequency=440:duration=2'];
  execFileSync('ffmpeg', [
    ...['-v', 'error', '-y', '-f', 'lavfi', '-i', picture, '-f', 'lavfi', '-i', tone],
    ...['-c:v', 'mpeg4', '-c:a', 'pcm_s16le', '-ac', '1', path],
  ]);
  const footage = await lookAtFootage(path);
  const copy = join(folder, 'copy.mp4');
  await makeWorkingCopy(path, copy, footage);
  const power = async (of: string) => {
    const sound = await NodeSound.open(of);
    const [left] = await sound!.read(24000, 48000);
    return Math.sqrt(left.reduce((s, v) => s + v * v, 0) / left.length);
  };
  // AAC keeps a tone within a tenth of a decibel.
  expect(20 * Math.log10((await power(copy)) / (await power(path)))).toBeCloseTo(0, 1);
});
