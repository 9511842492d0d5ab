import { readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import type { Page } from 'puppeteer-core';
import { choose, id, LAPTOP, renderNow, serve, tap, waitForText } from './support/browser';
import { ffmpeg, folder, frameTimes, numberedClip, numbersIn } from './support/clips';
import { clipReel, openReel, slotReel } from './support/slotReel';

const session = serve();

const H264 = ['-c:v', 'libx264', '-pix_fmt', 'yuv420p', '-bf', '2', '-g', '24', '-crf', '16'];
const VP9 = ['-c:v', 'libvpx-vp9', '-b:v', '2M', '-g', '30', '-cpu-used', '8', '-deadline', 'realtime'];

/** Numbers of the frames that a render of the opened reel shows. */
async function rendered(page: Page, rate: string): Promise<number[]> {
  await renderNow(page, 'mp4', '270', rate);
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
    const clip = numberedClip(name, 36, rate, codec);
    const page = await session.page(LAPTOP, '/reels');
    await openReel(session, page, clipReel(clip, { num, den }, 36));
    expect(await rendered(page, rate)).toEqual(upTo(36));
    await page.close();
  });

  it('at half its rate, at twice its rate, and from its in point at another speed', async () => {
    const fifty = numberedClip('b.mp4', 40, '50', H264);
    const page = await session.page(LAPTOP, '/reels');
    await openReel(session, page, clipReel(fifty, { num: 50, den: 1 }, 36));
    expect(await rendered(page, '25')).toEqual(upTo(18).map((n) => n * 2));
    await page.close();
    const slow = numberedClip('d.mp4', 40, '25', H264);
    const other = await session.page(LAPTOP, '/reels');
    await openReel(session, other, clipReel(slow, { num: 25, den: 1 }, 25, { in: 0.2, speed: 0.5 }));
    expect(await rendered(other, '50')).toEqual(upTo(50).map((n) => 5 + Math.floor(n / 4)));
    await other.close();
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
    await openReel(session, page, clipReel(clip, { num: 25, den: 1 }, 50, { length: 1.2, end: 'loop' }));
    const shown = (n: number) => times.findLastIndex((t) => t <= ((n / 25) % 1.2) + 0.001);
    expect(await rendered(page, '25')).toEqual(upTo(50).map(shown));
    await page.close();
  });
});

describe('numbered pictures', () => {
  const sequence = (stem: string, count: number) => {
    numberedClip(`${stem}_%04d.png`, count, '25', ['-start_number', '101']);
    return upTo(count).map((n) => join(folder, `${stem}_${String(101 + n).padStart(4, '0')}.png`));
  };

  it('become one clip at the rate that is chosen, whose frames show each in its time', async () => {
    const page = await session.page(LAPTOP, '/reels');
    await openReel(session, page, slotReel('Numbered', { num: 24000, den: 1001 }, 36, [{ id: 'clip' }]));
    await choose(page, 'choose-clip', ...sequence('climb', 36).reverse());
    await waitForText(page, 'sequence-question', /36 numbered pictures: one clip\?.*play for 1.4 s/);
    await tap(page, 'sequence-rate-24000\\/1001');
    await waitForText(page, 'sequence-question', /play for 1.5 s/);
    await tap(page, 'sequence-clip');
    await page.waitForSelector(id('clip-clip-in'));
    expect(await rendered(page, '24000/1001')).toEqual(upTo(36));
    await page.close();
    // On the shelf it is one file. In a page of its own: a page that has just decoded and encoded may crash in Chromium
    // while it is left for another.
    const shelf = await session.page(LAPTOP, '/shelf');
    await tap(shelf, 'media-climb_0101-0136.png');
    await waitForText(shelf, 'media-sheet', /320 × 180, 23.98 frames a second, numbered pictures/);
    await shelf.close();
  });

  it('of which some are missing say which, and come in as pictures or not at all', async () => {
    const page = await session.page(LAPTOP, '/shelf');
    const files = sequence('gap', 20).filter((f) => !/_01(05|06|19)\.png$/.test(f));
    await choose(page, 'shelf-add', ...files);
    await waitForText(page, 'sequence-question', /3 are missing.*number 105–106 and 119 are not among them/);
    expect(await page.$(id('sequence-clip'))).toBeNull();
    await tap(page, 'sequence-leave');
    await page.waitForSelector(id('sequence-question'), { hidden: true });
    await choose(page, 'shelf-add', ...files);
    await tap(page, 'sequence-pictures');
    await page.waitForSelector(id('media-gap_0120.png'));
    expect(await page.$$('[data-testid^="media-gap_"]')).toHaveLength(17);
    await page.close();
  });

  it('that are not alike, or damaged, are said by name, and nothing of them stays', async () => {
    const page = await session.page(LAPTOP, '/shelf');
    const files = sequence('odd', 10);
    ffmpeg(['-i', files[6]!, '-vf', 'scale=160:90', join(folder, 'smaller.png')]);
    writeFileSync(files[6]!, readFileSync(join(folder, 'smaller.png')));
    await choose(page, 'shelf-add', ...files);
    await tap(page, 'sequence-clip');
    await waitForText(page, 'import-fault', /"odd_0107.png" is 160 × 90 pixels and "odd_0101.png" 320 × 180/);
    const cut = sequence('cut', 10);
    writeFileSync(cut[3]!, readFileSync(cut[3]!).subarray(0, 200));
    await choose(page, 'shelf-add', ...cut);
    await tap(page, 'sequence-clip');
    await waitForText(page, 'import-fault', /"cut_0104.png" of "cut_0101-0110.png" is damaged/);
    expect(await page.$$('[data-testid^="media-odd"], [data-testid^="media-cut"]')).toHaveLength(0);
    await page.close();
  });
});

it('the frame of a clip that shows becomes a picture on the shelf, and takes its place when asked', async () => {
  const page = await session.page(LAPTOP, '/reels');
  await openReel(
    session,
    page,
    clipReel(numberedClip('still.mp4', 50, '25', H264), { num: 25, den: 1 }, 25, { in: 0.4 }),
  );
  await tap(page, 'show-clip');
  await page.focus(id('seek'));
  for (let i = 0; i < 7; i++) await page.keyboard.press('ArrowRight');
  await tap(page, 'clip-clip-still');
  await waitForText(page, 'toast', /“still at 0.68 s.png” is on the shelf/);
  await tap(page, 'toast-action');
  await page.waitForSelector(id('clip-clip'), { hidden: true });
  expect(await rendered(page, '25')).toEqual(upTo(25).map(() => 17));
  await page.close();
});

it('nothing on the pages complained', () => expect(session.faults).toEqual([]));
