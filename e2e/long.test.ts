import type { Page } from 'puppeteer-core';
import { choose, fill, id, LAPTOP, quiet, saved, serve, tap, waitForText } from './support/browser';
import { numberedClip } from './support/clips';
import { itemTimes } from './support/place';

const session = serve();

const H264 = ['-c:v', 'libx264', '-pix_fmt', 'yuv420p', '-g', '12', '-crf', '16'];

/** A new reel of clips, one after the other. */
async function reelOf(page: Page, ...clips: readonly string[]): Promise<void> {
  await page.waitForSelector(id('shelf-add'));
  await choose(page, 'shelf-add', ...clips);
  const names = clips.map((c) => c.replace(/^.*\//, ''));
  for (const name of names) await page.waitForSelector(id(`media-${name}`));
  await tap(page, 'shelf-new-reel');
  for (const name of names) {
    const card = `[data-testid="new-reel-sheet"] ${id(`media-${name}`)}`;
    await page.waitForSelector(card);
    await page.click(card);
  }
  await tap(page, 'new-reel-make');
  await page.waitForSelector(id('item-clip'));
}

const key = async (page: Page, name: string) => {
  await page.focus(id('line-seek'));
  await page.keyboard.press(name as 'End');
  await quiet(page);
};

describe('a reel of eight hours', () => {
  let page: Page;
  beforeAll(async () => {
    page = await session.page(LAPTOP, '/shelf');
    await reelOf(
      page,
      numberedClip('first.mp4', 60, '60000/1001', H264),
      numberedClip('second.mp4', 60, '60000/1001', [...H264, '-bf', '0']),
    );
  });
  afterAll(() => page.close());

  it('takes an item at its end, typed, and goes there and back at once', async () => {
    await fill(page, 'begins-clip-2', '07:59:58;00');
    await page.keyboard.press('Enter');
    await quiet(page);
    expect((await itemTimes(page))['clip-2']).toMatch(/^07:59:58;00/);
    await key(page, 'End');
    await waitForText(page, 'timecode', /^07:59:58;59$/);
    await key(page, 'Home');
    await waitForText(page, 'timecode', /^00:00:00;00$/);
  });

  it('shows single frames of its last second, the item where it belongs', async () => {
    await key(page, 'End');
    for (let i = 0; i < 30; i++) await page.click(id('line-in'));
    await quiet(page);
    const [item, rows] = await Promise.all(
      ['item-clip-2', 'line-rows'].map(async (t) => (await (await page.$(id(t)))!.boundingBox())!),
    );
    // Sixty frames, each some pixels wide, end where the playhead is.
    expect(item!.width / 60).toBeGreaterThan(6);
    expect(item!.x + item!.width).toBeGreaterThan(rows!.x);
    expect(item!.x).toBeLessThan(rows!.x + rows!.width);
  });

  it('says how long its render is, and can render its end alone', async () => {
    await tap(page, 'step-render');
    await waitForText(page, 'render-estimate', /172\d,?\d{3} frames|1,?72\d,?\d{3} frames/);
    await tap(page, 'output-extent-range');
    await fill(page, 'range-from', '07:59:58;10');
    await fill(page, 'range-to', '07:59:58;20');
    await page.keyboard.press('Enter');
    await tap(page, 'output-size-270');
    await waitForText(page, 'render-estimate', /1[01] frames/);
    await tap(page, 'render-start');
    await page.waitForSelector(id('render-download'), { timeout: 60_000 });
  });
});

it('a clip that is replaced by a shorter one of its name keeps its place; its last frame stays, and that is told', async () => {
  const page = await session.page(LAPTOP, '/shelf');
  await reelOf(page, numberedClip('take.mp4', 50, '25', H264));
  await saved(page);
  const before = await itemTimes(page);
  // Taken off the shelf in another tab, while this one edits.
  const other = await session.page(LAPTOP, '/shelf');
  await tap(other, 'media-take.mp4');
  await tap(other, 'media-remove');
  await other.waitForSelector(id('media-take.mp4'), { hidden: true });
  await other.close();
  await tap(page, 'step-fill');
  await tap(page, 'step-place');
  await page.waitForSelector(id('missing-files'), { timeout: 20_000 });
  expect(await itemTimes(page)).toEqual(before);
  // It can be edited all the same, and undone.
  await fill(page, 'begins-clip', '00:00:01:00');
  await page.keyboard.press('Enter');
  await quiet(page);
  expect((await itemTimes(page)).clip).toBe('00:00:01:00 00:00:02:00');
  await tap(page, 'undo');
  await choose(page, 'find-files', numberedClip('take.mp4', 20, '25', [...H264, '-bf', '0']));
  await page.waitForSelector(id('missing-files'), { hidden: true });
  expect(await itemTimes(page)).toEqual(before);
  await tap(page, 'step-render');
  await waitForText(page, 'check-runs-out', /1\.2 s/);
  await page.close();
});
