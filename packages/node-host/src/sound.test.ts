import { execFileSync } from 'node:child_process';
import { mkdtempSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { stereoWeights } from '@fresh-reel/core';
import { NodeClip } from './clip';
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

it.each([
  ['mp4', 1.5],
  ['mov', 0.4],
  ['mkv', 1.5],
  ['webm', 0.4],
])(
  'the sound of a clip in %s is as long as its picture, by which it goes round: %d s',
  async (ending, long) => {
    const path = join(folder, `unlike-${long}.${ending}`);
    const codecs =
      ending === 'webm' ? ['-c:v', 'libvpx', '-c:a', 'libopus'] : ['-c:v', 'mpeg4', '-c:a', 'aac'];
    const [picture, tone] = ['color=c=gray:s=64x64:r=25:d=1', `sine=frequency=440:duration=${long}`];
    execFileSync('ffmpeg', [
      ...['-v', 'error', '-y', '-f', 'lavfi', '-i', picture, '-f', 'lavfi', '-i', tone, ...codecs, path],
    ]);
    const [clip, sound] = [await NodeClip.open(path), (await NodeSound.open(path))!];
    // Matroska begins a little later than nought, where its sound leads in.
    expect(Math.abs(clip.facts.duration - 1)).toBeLessThan(0.03);
    expect(sound.facts.duration).toBe(clip.facts.duration);
    const loud = async (second: number) =>
      Math.max(...(await sound.read(Math.round(second * 48000), 4800))[0].map(Math.abs));
    expect(await loud(0.2)).toBeGreaterThan(0.05);
    expect((await loud(0.7)) > 0.05).toBe(long > 1);
    clip.close();
    sound.close();
  },
);

it('a sound of any length takes no memory while it is open', async () => {
  const path = join(folder, 'long.flac');
  const minutes = 12;
  const tone = `aevalsrc=0.25*sgn(sin(2*PI*50*t)):s=8000:d=${minutes * 60}`;
  execFileSync('ffmpeg', ['-v', 'error', '-y', '-f', 'lavfi', '-i', tone, path]);
  const before = process.memoryUsage().arrayBuffers;
  const sound = (await NodeSound.open(path))!;
  // Held whole it is 276 MB.
  expect(process.memoryUsage().arrayBuffers - before).toBeLessThan(20e6);
  expect(sound.facts.duration).toBeCloseTo(minutes * 60, 3);
  const [left] = await sound.read(Math.round((minutes * 60 - 1) * 48000), 48000);
  expect(Math.max(...left)).toBeGreaterThan(0.2);
  // Beyond both ends it is silent.
  expect([...(await sound.read(-4, 4))[0], ...(await sound.read(sound.length, 4))[1]]).toEqual(
    Array(8).fill(0),
  );
  sound.close();
});
