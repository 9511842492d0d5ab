import { createHash } from 'node:crypto';
import { readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import type { Page } from 'puppeteer-core';
import { choose, id, LAPTOP, renderNow, Session } from './support/browser';
import { clipReel, frameTimes, numberedClip, numbersIn } from './support/clips';

let session: Session;
beforeAll(async () => {
  session = await Session.start();
});
afterAll(() => session.close());

const H264 = ['-c:v', 'libx264', '-pix_fmt', 'yuv420p', '-bf', '2', '-g', '24', '-crf', '16'];
const VP9 = ['-c:v', 'libvpx-vp9', '-b:v', '2M', '-g', '30', '-cpu-used', '8', '-deadline', 'realtime'];

async function openReel(
  page: Page,
  path: string,
  rate: { num: number; den: number },
  count: number,
  clip = {},
) {
  const bytes = readFileSync(path);
  const hash = createHash('sha256').update(bytes).digest('hex');
  const file = join(session.downloads, 'clip.reel.json');
  writeFileSync(file, JSON.stringify(clipReel(path, hash, rate, count, clip)));
  await choose(page, 'open-reel-file', file);
  await page.waitForSelector(id('preview'));
}

/** Numbers of the frames that a render of the opened reel shows. */
async function rendered(page: Page, rate: string): Promise<number[]> {
  await renderNow(page, 'mp4', '540', rate);
  const [link] = [await page.waitForSelector(id('render-download'))];
  await link!.click();
  const path = await session.downloaded('.mp4');
  const numbers = numbersIn(path);
  await session.take('.mp4');
  return numbers;
}

const upTo = (count: number) => Array.from({ length: count }, (_, i) => i);

describe('what shows at a frame of a render is the frame of the clip that should show', () => {
  it.each([
    ['23.976 in MP4', '24000/1001', H264, 'a.mp4'],
    ['29.97 in MP4', '30000/1001', H264, 'c.mp4'],
    ['59.94 in WebM, with times in whole milliseconds', '60000/1001', VP9, 'e.webm'],
  ])('at its own rate of %s', async (_, rate, codec, name) => {
    const [num, den = 1] = rate.split('/').map(Number) as [number, number?];
    const clip = numberedClip(name, 60, rate, codec);
    const page = await session.page(LAPTOP, '/reels');
    await openReel(page, clip, { num, den }, 60);
    expect(await rendered(page, rate)).toEqual(upTo(60));
    await page.close();
  });

  it('at half its rate, at twice its rate, and from its in point at another speed', async () => {
    const fifty = numberedClip('b.mp4', 80, '50', H264);
    const page = await session.page(LAPTOP, '/reels');
    await openReel(page, fifty, { num: 50, den: 1 }, 60);
    expect(await rendered(page, '25')).toEqual(upTo(30).map((n) => n * 2));
    await page.goto(`${session.address}/reels`);
    const slow = numberedClip('d.mp4', 40, '25', H264);
    await openReel(page, slow, { num: 25, den: 1 }, 25, { in: 0.2, speed: 0.5 });
    expect(await rendered(page, '50')).toEqual(upTo(50).map((n) => 5 + Math.floor(n / 4)));
    await page.close();
  });

  it('of a clip whose rate changes, by the times in the file; and it begins again when it is over', async () => {
    const clip = numberedClip('v.mkv', 30, '30', [
      '-vf',
      "setpts='if(lt(N,10),N/30,if(lt(N,20),(10+(N-10)*3)/30,(40+(N-20)*2)/30))/TB'",
      '-fps_mode',
      'passthrough',
      ...H264,
    ]);
    const times = frameTimes(clip);
    expect(times).toHaveLength(30);
    const page = await session.page(LAPTOP, '/reels');
    await openReel(page, clip, { num: 25, den: 1 }, 50, { length: 1.2, end: 'loop' });
    const shown = (n: number) => times.findLastIndex((t) => t <= ((n / 25) % 1.2) + 0.001);
    expect(await rendered(page, '25')).toEqual(upTo(50).map(shown));
    await page.close();
  });
});

it('nothing on the pages complained', () => expect(session.faults).toEqual([]));
