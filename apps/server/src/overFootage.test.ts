import { execFileSync } from 'node:child_process';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { type FilmCodec, newReel, type Rate, type Reel, ReelScene } from '@fresh-reel/core';
import { NodeStudio } from '@fresh-reel/node-host';
import { templateById } from '@fresh-reel/templates';
import { SHIPPED_PATHS } from '@fresh-reel/templates/assets';
import fc from 'fast-check';
import { rawFrames } from './rendering/frameWriter';
import { partsOf } from './rendering/overFootage';
import { renderReel } from './rendering/render';
import { paintOnThreads } from './rendering/threads';

const SIZE = { width: 128, height: 72 };
const RATE = { num: 25, den: 1 };
/** Frames of the clip; frame n of it is grey, 8 more with each frame: what shows tells its number. */
const FRAMES = 24;
const NUMBERED = `color=black:s=${SIZE.width}x${SIZE.height}:r=25:d=${FRAMES / 25},geq=lum='16+8*N':cb=128:cr=128`;

let folder: string;
let studio: NodeStudio;
const ffmpeg = (...args: string[]) => execFileSync('ffmpeg', ['-v', 'error', '-y', ...args]);

beforeAll(async () => {
  folder = mkdtempSync(join(tmpdir(), 'fresh-reel-over-'));
  studio = await NodeStudio.start(SHIPPED_PATHS);
  const code = ['-c:v', 'libx264', '-g', '10', '-bf', '2', '-qp', '4', '-pix_fmt', 'yuv420p'];
  ffmpeg('-f', 'lavfi', '-i', NUMBERED, ...code, join(folder, 'numbered.mp4'));
  // Matroska keeps times in whole milliseconds.
  ffmpeg('-f', 'lavfi', '-i', NUMBERED, '-vf', 'fps=30000/1001', ...code, join(folder, 'rounded.mkv'));
  const bars = `smptehdbars=s=${SIZE.width}x${SIZE.height}:r=25:d=1`;
  ffmpeg('-f', 'lavfi', '-i', bars, '-vf', 'format=yuv420p', ...code, join(folder, 'bars.mp4'));
  for (const name of ['numbered.mp4', 'rounded.mkv', 'bars.mp4'])
    await studio.addFile(name, join(folder, name));
});
afterAll(() => {
  studio.close();
  rmSync(folder, { recursive: true, force: true });
});

interface Part {
  readonly media: string;
  readonly length: number;
  readonly clip: object;
}

/** Clips one after the other, with a strap over them or without. */
function reelOf(parts: readonly Part[], { titled = true, rate = RATE as Rate, more = {} } = {}): Reel {
  const strap = newReel(templateById('name-strap'), {
    ...{ id: 'r', name: 'R', now: '2026-06-05T10:00:00Z', shape: 'wide', rate },
  });
  let start = 0;
  const items = parts.map(({ media, length, clip }, i) => {
    start += length;
    return { kind: 'clip' as const, id: `c${i}`, start: start - length, length, media, clip, ...more };
  });
  return { ...strap, tracks: [{ id: 'footage', items }, ...(titled ? strap.tracks : [])] } as Reel;
}

const seconds = (parts: readonly Part[]) => parts.reduce((sum, { length }) => sum + length, 0);

/** The frames of a reel in a film of a codec, decoded: straight pixels. */
async function filmed(reel: Reel, codec: FilmCodec, count: number, rate = reel.rate): Promise<Buffer[]> {
  const out = join(folder, `film.${codec === 'ffv1' ? 'mkv' : 'mp4'}`);
  const how = { size: SIZE, alpha: undefined, timecode: undefined, rate, frames: [0, count - 1] as const };
  const opened = { reel, files: new Map<string, string>(), fonts: [], name: 'r' };
  await renderReel({ ...how, out, codec }, studio, opened, () => undefined);
  const args = [
    '-v',
    'error',
    '-i',
    out,
    '-f',
    'rawvideo',
    '-pix_fmt',
    'rgba',
    '-fps_mode',
    'passthrough',
    '-',
  ];
  const all = execFileSync('ffmpeg', args, { maxBuffer: 1 << 28 });
  const bytes = SIZE.width * SIZE.height * 4;
  expect(all.length).toBe(count * bytes);
  return Array.from({ length: count }, (_, i) => all.subarray(i * bytes, (i + 1) * bytes));
}

/** What lies below each part of a film; nothing where it is painted whole. */
async function underlays(reel: Reel, count: number, codec: FilmCodec = 'h264') {
  const scene = new ReelScene(reel, studio);
  await studio.prepare(scene);
  const stretch = { scene, studio, rate: reel.rate, from: 0, count };
  return partsOf(stretch, { codec, alpha: 'none', size: SIZE }).map((part) => part.underlay);
}

/** What lies below a film of one part. */
async function underlay(...film: Parameters<typeof underlays>) {
  const [only, ...more] = await underlays(...film);
  expect(more).toEqual([]);
  return only;
}

/** Number of the clip's frame that shows in the upper left corner. */
const numberIn = (frame: Buffer) => Math.round((frame[SIZE.width * 8 + 8]! * 219) / 255 / 8);

/** Mean and greatest difference of two frames' channels. */
function differ(a: Buffer, b: Buffer): { mean: number; most: number } {
  let sum = 0;
  let most = 0;
  for (let i = 0; i < a.length; i++) {
    const d = Math.abs(a[i]! - b[i]!);
    sum += d;
    most = Math.max(most, d);
  }
  return { mean: sum / a.length, most };
}

describe('a film over footage that ffmpeg reads itself', () => {
  it('shows the frames that painting it whole shows, for any clips, speeds, in points and rates', async () => {
    // As it is typed: frames, tenths, milliseconds.
    const second = fc.oneof(
      fc.integer({ min: 0, max: 22 }).map((n) => n / 25),
      fc.integer({ min: 0, max: 9 }).map((n) => n / 10),
      fc.integer({ min: 0, max: 900 }).map((n) => n / 1000),
    );
    const part = fc.record({
      media: fc.constantFrom<string>('numbered.mp4', 'rounded.mkv'),
      length: fc.integer({ min: 1, max: 20 }),
      clip: fc.record(
        {
          in: second,
          speed: fc.constantFrom<number>(0.25, 0.5, 1, 1.37, 3),
          freeze: second,
          end: fc.constantFrom<'hold' | 'loop' | 'stretch'>('hold', 'loop', 'stretch'),
        },
        { requiredKeys: [] },
      ),
    });
    // Found once: the last goes round at a frame's edge.
    const [standing, edge] = [
      { media: 'numbered.mp4', length: 3, clip: { freeze: 0 } },
      { media: 'numbered.mp4', length: 14, clip: { in: 0.8999999999999979, speed: 1, end: 'loop' as const } },
    ];
    const typed = {
      media: 'numbered.mp4',
      length: 20,
      clip: { in: 0.039, speed: 0.5, end: 'loop' as const },
    };
    const rates = fc.constantFrom<Rate>(RATE, { num: 24, den: 1 }, { num: 30000, den: 1001 });
    await fc.assert(
      fc.asyncProperty(fc.array(part, { minLength: 1, maxLength: 3 }), rates, async (parts, rate) => {
        const reel = reelOf(parts, { titled: false, rate });
        const count = seconds(parts);
        fc.pre((await underlays(reel, count)).some((u) => u !== undefined));
        const [over, whole] = [await filmed(reel, 'h264', count), await filmed(reel, 'ffv1', count)];
        expect(over.map(numberIn)).toEqual(whole.map(numberIn));
      }),
      {
        ...{ numRuns: 12, endOnFailure: true },
        examples: [
          [[standing, edge], RATE],
          [[typed], RATE],
        ],
      },
    );
  }, 120_000);

  it.each([
    ['', {}],
    [', blurred while it moves', { motionBlur: { samples: 4, shutter: 0.5 } }],
  ])('has the same colours, beneath a title and in it%s', async (_, more) => {
    const reel = { ...reelOf([{ media: 'bars.mp4', length: 25, clip: {} }]), ...more };
    expect(await underlay(reel, 25)).toMatchObject({
      passages: [{ frames: 25, path: join(folder, 'bars.mp4') }],
    });
    const [over, whole] = [await filmed(reel, 'h264', 25), await filmed(reel, 'ffv1', 25)];
    over.forEach((frame, i) => {
      const { mean } = differ(frame, whole[i]!);
      // 4:2:0 keeps colour for each four pixels: more than this is another colour, or another place.
      expect(mean).toBeLessThan(3);
    });
  });

  it('is painted whole where it opens with something else, and follows on', async () => {
    const clip = { kind: 'clip', id: 'c', start: 6, length: 14, media: 'numbered.mp4', clip: {} } as const;
    const colour = { kind: 'colour', id: 'x', start: 0, length: 6, colour: '#C03020' } as const;
    const opened = {
      ...reelOf([], { titled: false }),
      tracks: [{ id: 'all', items: [colour, clip] }],
    } as Reel;
    expect((await underlay(opened, 20))?.passages.map((p) => p.frames)).toEqual([6, 14]);
    const [over, whole] = [await filmed(opened, 'h264', 20), await filmed(opened, 'ffv1', 20)];
    expect(over.slice(6).map(numberIn)).toEqual(Array.from({ length: 14 }, (_, i) => i));
    for (const [i, frame] of over.entries()) expect(differ(frame, whole[i]!).mean).toBeLessThan(3);
  });

  it('is over black where a title is over nothing', async () => {
    const reel = reelOf([]);
    const found = (await underlay(reel, 60))!;
    expect(found.passages).toEqual([{ at: 0, step: 0, frames: 60, path: undefined }]);
    expect(found.area.width * found.area.height).toBeLessThan((SIZE.width * SIZE.height) / 2);
    const [over, whole] = [await filmed(reel, 'h264', 60), await filmed(reel, 'ffv1', 60)];
    // The other codec keeps what is clear: on black it is what the film shows.
    const onBlack = (frame: Buffer) =>
      Buffer.from(frame.map((v, i) => ((i & 3) === 3 ? 255 : (v * frame[i | 3]!) / 255)));
    for (const [i, frame] of over.entries()) expect(differ(frame, onBlack(whole[i]!)).mean).toBeLessThan(2);
  });

  it('is made in parts where it is cut often, and joined: every frame in its place', async () => {
    const parts = Array.from({ length: 10 }, (_, i) => ({
      ...{ media: 'numbered.mp4', length: 4, clip: { in: ((i * 7) % 20) / 25 } },
    }));
    const reel = reelOf(parts, { titled: false });
    const scene = new ReelScene(reel, studio);
    const stretch = { scene, studio, rate: RATE, from: 0, count: 40 };
    const found = partsOf(stretch, { codec: 'h264', alpha: 'none', size: SIZE });
    expect(found.map((p) => p.frames)).toEqual([32, 8]);
    const over = await filmed(reel, 'h264', 40);
    expect(over.map(numberIn)).toEqual(parts.flatMap((_, i) => [0, 1, 2, 3].map((n) => ((i * 7) % 20) + n)));
  });

  it('is none where the codec keeps more of colours, transparency is kept, or the film is of another size', async () => {
    const reel = reelOf([{ media: 'bars.mp4', length: 25, clip: {} }]);
    for (const codec of ['prores422hq', 'dnxhr', 'ffv1'] as const)
      expect(await underlay(reel, 25, codec)).toBeUndefined();
    const scene = new ReelScene(reel, studio);
    const stretch = { scene, studio, rate: RATE, from: 0, count: 25 };
    const whole = [{ frames: 25, underlay: undefined }];
    expect(partsOf(stretch, { codec: 'vp9', alpha: 'straight', size: SIZE })).toEqual(whole);
    expect(partsOf(stretch, { codec: 'h264', alpha: 'none', size: { width: 64, height: 36 } })).toEqual(
      whole,
    );
  });

  it('is the same, painted on threads', async () => {
    const reel = reelOf([{ media: 'bars.mp4', length: 25, clip: {} }]);
    const found = (await underlay(reel, 25))!;
    const scene = new ReelScene(reel, studio);
    const job = { size: SIZE, rate: RATE, from: 0, count: 25, over: found.area };
    const alone: Buffer[] = [];
    for await (const pixels of rawFrames(studio, scene, job, 0, 25)) alone.push(Buffer.from(pixels));
    const threaded: Buffer[] = [];
    const files = [['bars.mp4', join(folder, 'bars.mp4')]] as const;
    const whole = { ...job, reel, files, fonts: [], folder, stem: 's', raw: true };
    await paintOnThreads(whole, 2, (pixels) => {
      threaded.push(Buffer.from(pixels!));
    });
    expect(threaded.length).toBe(25);
    expect(threaded.every((pixels, i) => pixels.equals(alone[i]!))).toBe(true);
    expect(alone[0]!.length).toBe(found.area.width * found.area.height * 2.5);
  }, 60_000);
});
