import { execFileSync } from 'node:child_process';
import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { Op, Picture } from '@fresh-reel/core';
import { NodeClip } from './clip';
import { NodeSound } from './sound';
import { NodeStudio } from './studio';
import { createNodeSurface } from './surface';

const folder = mkdtempSync(join(tmpdir(), 'fresh-reel-clips-'));
const ffmpeg = (...args: string[]) => execFileSync('ffmpeg', ['-v', 'error', '-y', ...args]);
const at = (name: string) => join(folder, name);

/** Frame n of it is grey, 8 more with each frame: what shows tells its number. */
const NUMBERED = "geq=lum='16+8*mod(N,25)':cb=128:cr=128";

function greyOf(picture: Picture): number {
  const { context } = createNodeSurface(1, 1);
  context.drawImage(picture.image, 0, 0, 1, 1);
  return context.getImageData(0, 0, 1, 1).data[0]!;
}
/** Number of a frame from its grey: 16..235 becomes 0..255. */
const numberOf = (picture: Picture) => Math.round((greyOf(picture) * 219) / 255 / 8);

async function shown(clip: NodeClip, seconds: readonly number[]): Promise<number[]> {
  await clip.ready(seconds);
  return seconds.map((s) => numberOf(clip.frame(s)!));
}

beforeAll(() => {
  const source = ['-f', 'lavfi', '-i', `color=black:s=64x36:r=25:d=2,${NUMBERED}`];
  const code = ['-c:v', 'libx264', '-g', '12', '-bf', '2', '-pix_fmt', 'yuv420p', '-qp', '4'];
  ffmpeg(...source, ...code, at('plain.mp4'));
  // Cut by its edit list alone: the packets before 0.4 s are still there.
  ffmpeg('-ss', '0.4', '-i', at('plain.mp4'), '-c', 'copy', at('edited.mp4'));
  ffmpeg(...source, ...code, '-muxdelay', '1.4', at('stream.ts'));
  ffmpeg(...source, '-vf', 'setsar=2/1', ...code, at('wide.mp4'));
  const tone = ['-f', 'lavfi', '-i', 'sine=frequency=440:sample_rate=48000:duration=1'];
  ffmpeg(...source, '-itsoffset', '0.5', ...tone, ...code, '-c:a', 'pcm_s16le', at('late.mkv'));
});

describe('frames of clips, by the times that ffmpeg gives them', () => {
  const middles = Array.from({ length: 20 }, (_, n) => (n + 0.5) / 25);

  it('of a plain clip', async () => {
    const clip = await NodeClip.open(at('plain.mp4'));
    expect(await shown(clip, middles)).toEqual(middles.map((_, n) => n));
    clip.close();
  });

  it.each([
    // By hand from ITU-R BT.709-6 and BT.601-7, limited range: luma 100, chroma 90 and 200.
    ['that says nothing of its colours, which is BT.709 as browsers take it', [], [227, 68, 18]],
    ['that says BT.601', ['-colorspace', 'smpte170m'], [213, 54, 21]],
  ])('of one %s', async (_, told, colour) => {
    const source = ['-f', 'lavfi', '-i', 'color=black:s=64x36:d=0.2,geq=lum=100:cb=90:cr=200'];
    ffmpeg(...source, '-c:v', 'libx264', '-qp', '0', '-pix_fmt', 'yuv420p', ...told, at('colours.mp4'));
    const clip = await NodeClip.open(at('colours.mp4'));
    await clip.ready([0.1]);
    const { context } = createNodeSurface(1, 1);
    context.drawImage(clip.frame(0.1)!.image, 0, 0, 1, 1);
    const seen = [...context.getImageData(0, 0, 1, 1).data].slice(0, 3);
    for (const [i, value] of seen.entries()) expect(Math.abs(value - colour[i]!)).toBeLessThanOrEqual(3);
    clip.close();
  });

  it('decoded small, and as large as they are again: the same frames, of the same size', async () => {
    const clip = await NodeClip.open(at('plain.mp4'));
    const numbers = middles.map((_, n) => n);
    for (const side of [16, 1000, 7]) {
      clip.keepTo(side);
      expect(await shown(clip, middles)).toEqual(numbers);
      const { width, height, image } = clip.frame(middles[3]!)!;
      expect([width, height, (image as { width: number }).width]).toEqual([64, 36, Math.min(64, side)]);
    }
    clip.close();
  });

  it('of one that is cut by an edit list: the same as ffmpeg plays, from its first to its last', async () => {
    const clip = await NodeClip.open(at('edited.mp4'));
    const played = execFileSync('ffmpeg', [
      ...['-v', 'error', '-i', at('edited.mp4'), '-f', 'rawvideo', '-pix_fmt', 'gray', '-s', '1x1', 'pipe:1'],
    ]);
    const theirs = [...played].map((v) => Math.round((v * 219) / 255 / 8));
    const times = theirs.map((_, n) => (n + 0.5) / 25);
    expect(await shown(clip, times)).toEqual(theirs);
    expect(theirs.length).toBeGreaterThan(30);
    clip.close();
  });

  it('of a transport stream, whose clock does not begin at nothing', async () => {
    const clip = await NodeClip.open(at('stream.ts'));
    expect(await shown(clip, middles)).toEqual(middles.map((_, n) => n));
    clip.close();
  });

  it('with pixels that are not square, at their true width', async () => {
    const clip = await NodeClip.open(at('wide.mp4'));
    expect(clip.facts).toMatchObject({ width: 128, height: 36 });
    await clip.ready([0.1]);
    expect(clip.frame(0.1)).toMatchObject({ width: 128, height: 36 });
    clip.close();
  });

  it('backwards, far ahead and past the end, in any order', async () => {
    const clip = await NodeClip.open(at('plain.mp4'));
    expect(await shown(clip, [1.9])).toEqual([22]);
    expect(await shown(clip, [0.1])).toEqual([2]);
    expect(await shown(clip, [99])).toEqual([24]);
    expect(await shown(clip, [0])).toEqual([0]);
    clip.close();
  });

  it('as many at once as are wanted, and in two places without beginning anew', async () => {
    const clip = await NodeClip.open(at('plain.mp4'));
    const all = Array.from({ length: 25 }, (_, n) => (n + 0.5) / 25);
    expect(await shown(clip, all)).toEqual(all.map((_, n) => n));
    const started = jest.spyOn(clip as unknown as { startAt(second: number): unknown }, 'startAt');
    for (let n = 0; n < 20; n++) await shown(clip, [(n + 0.5) / 25, 1 + (n + 0.5) / 25]);
    expect(started.mock.calls.length).toBeLessThanOrEqual(3);
    clip.close();
  });
});

describe('what cannot be had', () => {
  it('is an error that names the clip and the second, and never a hole', async () => {
    const studio = await NodeStudio.start();
    await studio.addFile('sha256:clip', at('plain.mp4'));
    const op = (second: number): Op => ({
      ...{
        op: 'picture',
        picture: 'sha256:clip',
        at: second,
        plane: [1, 0, 0, 0, 1, 0, 0, 0, 1],
        opacity: 1,
      },
      ...{ source: { x: 0, y: 0, width: 64, height: 36 }, target: { x: 0, y: 0, width: 64, height: 36 } },
    });
    const size = { width: 64, height: 36 };
    const frame = { ops: [op(0.5)], regions: [], notices: [] };
    expect(() => studio.paint(frame, size, size)).toThrow('"sha256:clip" at 0.500 s');
    studio.close();
    // Half of a file: what is decoded is there, what is not is said.
    writeFileSync(at('broken.ts'), Buffer.alloc(3000, 7));
    await expect(NodeClip.open(at('broken.ts'))).rejects.toThrow();
  });

  it('a playlist that names other files is not opened', async () => {
    writeFileSync(at('list.m3u8'), `#EXTM3U\n#EXTINF:2,\n${at('plain.mp4')}\n`);
    await expect(NodeClip.open(at('list.m3u8'))).rejects.toThrow();
    writeFileSync(at('list.mp4'), `ffconcat version 1.0\nfile '${at('plain.mp4')}'\n`);
    await expect(NodeClip.open(at('list.mp4'))).rejects.toThrow();
  });
});

it('a sound that begins later than its file is heard later', async () => {
  const sound = (await NodeSound.open(at('late.mkv')))!;
  const [left] = await sound.read(0, 48000);
  const first = left.findIndex((v) => Math.abs(v) > 0.02) / 48000;
  expect(Math.abs(first - 0.5)).toBeLessThan(0.01);
});
