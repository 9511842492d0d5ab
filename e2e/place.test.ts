import type { Page } from 'puppeteer-core';
import {
  choose,
  fieldValue,
  fill,
  id,
  LAPTOP,
  PHONE,
  quiet,
  renderNow,
  saved,
  serve,
  tap,
  waitForBox,
  waitForText,
} from './support/browser';
import { noise, numberedClip, numbersIn } from './support/clips';
import { itemTimes as times } from './support/place';
import { openReel, slotReel } from './support/slotReel';

const session = serve();

const H264 = ['-c:v', 'libx264', '-pix_fmt', 'yuv420p', '-bf', '2', '-g', '24', '-crf', '16'];

/** A reel of 25 frames a second with a title that shows nothing. */
const bare = (frames: number) => slotReel('Placed', { num: 25, den: 1 }, frames, [{ id: 'none' }]);

/** Opens the bare reel with clips of the given rates on it, one after the other, in the Place step. */
async function placed(view: typeof LAPTOP, rates: readonly string[], count = 20): Promise<Page> {
  const page = await session.page(view, '/reels');
  await openReel(session, page, bare(10));
  await tap(page, 'step-place');
  await page.waitForSelector(id('line-rows'));
  await tap(page, 'line-seek');
  await page.keyboard.press('Home');
  const files = rates.map((rate, i) =>
    numberedClip(`p${i}-${rate.replace('/', '-')}.mp4`, count, rate, H264),
  );
  await choose(page, 'place-files', ...files);
  await page.waitForSelector(id(`item-clip${rates.length > 1 ? `-${rates.length}` : ''}`));
  return page;
}

it('clips of many rates on one track show in the render what shows at each moment', async () => {
  const rates = ['24000/1001', '25', '30000/1001', '50', '60000/1001'];
  const page = await placed(PHONE, rates);
  // By hand: a file of 20 frames takes 20 / rate seconds, to the nearest frame of 25 a second.
  const expected = rates.flatMap((rate) => {
    const [num, den = 1] = rate.split('/').map(Number) as [number, number?];
    const frames = Math.round(((20 * den) / num) * 25);
    return Array.from({ length: frames }, (_, f) => Math.min(19, Math.floor((f / 25 + 0.001) * (num / den))));
  });
  await renderNow(page, 'mp4', '270', '25');
  await (await page.waitForSelector(id('render-download')))!.click();
  expect(numbersIn(await session.downloaded('.mp4'))).toEqual(expected);
  await session.take('.mp4');
  await page.close();
});

describe('on a wide screen', () => {
  let page: Page;
  beforeAll(async () => {
    page = await placed(LAPTOP, ['25', '50'], 50);
  });

  it('what was added stands one after the other below the title, and the last is chosen', async () => {
    expect(await times(page)).toEqual({
      g1: '00:00:00:00 00:00:00:10',
      clip: '00:00:00:00 00:00:02:00',
      'clip-2': '00:00:02:00 00:00:01:00',
    });
    expect(await page.$eval(id('item-clip-2'), (e) => e.getAttribute('aria-pressed'))).toBe('true');
  });

  it('is dragged on the line, snaps to where another ends, and goes back with one undo', async () => {
    const drag = async (frames: number, pixels = 0) => {
      const { x, y, width, height } = (await (await page.$(id('item-clip-2')))!.boundingBox())!;
      const by = (frames * width) / 25 + pixels;
      await page.mouse.move(x + width / 2, y + height / 2);
      await page.mouse.down();
      await page.mouse.move(x + width / 2 + by, y + height / 2, { steps: 8 });
      await page.mouse.up();
    };
    await drag(20);
    expect((await times(page))['clip-2']).toBe('00:00:02:20 00:00:01:00');
    // A little off where the first ends is where it ends.
    await drag(-20, 4);
    expect((await times(page))['clip-2']).toBe('00:00:02:00 00:00:01:00');
    await tap(page, 'undo');
    expect((await times(page))['clip-2']).toBe('00:00:02:20 00:00:01:00');
    await tap(page, 'undo');
    expect((await times(page))['clip-2']).toBe('00:00:02:00 00:00:01:00');
  });

  it('is seen larger and smaller by the wheel and by keys, and never smaller than all of it', async () => {
    const width = async () => (await (await page.$(id('item-clip')))!.boundingBox())!.width;
    const all = await width();
    const rows = (await (await page.$(id('line-rows')))!.boundingBox())!;
    await page.mouse.move(rows.x + 40, rows.y + 60);
    await page.mouse.wheel({ deltaY: -240 });
    await waitForBox(page, 'item-clip', 'width', 2 * all);
    await page.focus(id('line-seek'));
    for (let i = 0; i < 4; i++) await page.keyboard.press('-');
    await waitForBox(page, 'item-clip', 'width', all);
    await quiet(page);
    expect(await width()).toBeCloseTo(all, 0);
  });

  it('is trimmed by the keys at either end', async () => {
    await page.focus(id('trim-end'));
    await page.keyboard.press('ArrowLeft');
    await page.focus(id('trim-start'));
    await page.keyboard.down('Shift');
    await page.keyboard.press('ArrowRight');
    await page.keyboard.up('Shift');
    expect((await times(page))['clip-2']).toBe('00:00:02:10 00:00:00:14');
    // Of 50 frames a second, ten frames of the reel are 0.4 s of the file.
    expect(await fieldValue(page, 'item-in')).toBe('0.40');
    await tap(page, 'undo');
    await tap(page, 'undo');
    expect((await times(page))['clip-2']).toBe('00:00:02:00 00:00:01:00');
  });

  it('is cut, copied, taken out with its gap closed; each is one undo', async () => {
    await tap(page, 'row-clip');
    await fill(page, 'begins-clip', '00:00:00:00');
    await page.focus(id('line-seek'));
    await page.keyboard.press('Home');
    await page.keyboard.press('PageDown');
    await waitForText(page, 'timecode', /00:00:01:00/);
    await tap(page, 'place-cut');
    expect(await times(page)).toMatchObject({
      clip: '00:00:00:00 00:00:01:00',
      'clip-3': '00:00:01:00 00:00:01:00',
    });
    await tap(page, 'place-remove-close');
    expect(await times(page)).toMatchObject({
      'clip-3': '00:00:00:00 00:00:01:00',
      'clip-2': '00:00:01:00 00:00:01:00',
    });
    await tap(page, 'undo');
    await tap(page, 'undo');
    expect(await times(page)).toMatchObject({ clip: '00:00:00:00 00:00:02:00' });
  });

  it('a title is not cut; the last one can be taken out, and comes back', async () => {
    await tap(page, 'row-g1');
    expect(await page.$eval(id('place-cut'), (e) => e.getAttribute('aria-disabled'))).toBe('true');
    await tap(page, 'place-remove');
    await page.waitForSelector(id('item-g1'), { hidden: true });
    await tap(page, 'undo');
    await page.waitForSelector(id('item-g1'));
  });

  it('a time that cannot be is told, and changes nothing', async () => {
    await fill(page, 'begins-clip', 'soon');
    await page.keyboard.press('Enter');
    await waitForText(page, 'row-of-clip', /"soon" is not a timecode/);
    await fill(page, 'begins-clip', '00:00:00:00');
    await page.keyboard.press('Enter');
  });

  it('a title comes in at the playhead, and a locked track keeps what is on it', async () => {
    await page.focus(id('line-seek'));
    await page.keyboard.press('Home');
    await page.keyboard.press('PageDown');
    await waitForText(page, 'timecode', /00:00:01:00/);
    await tap(page, 'place-title');
    await tap(page, 'title-name-strap');
    await page.waitForSelector(id('item-name-strap'));
    expect((await times(page))['name-strap']).toMatch(/^00:00:01:00/);
    const track = await page.$eval('[data-testid^="track-lock-"]', (e) => (e as HTMLElement).dataset.testid!);
    await tap(page, track);
    await tap(page, 'place-remove');
    await waitForText(page, 'toast', /is locked. Unlock it first/);
    await tap(page, track);
    await tap(page, 'place-remove');
    await page.waitForSelector(id('item-name-strap'), { hidden: true });
    await saved(page);
    await page.close();
  });
});

it('on a phone the line slides under the playhead, a touch chooses, and what is chosen is dragged', async () => {
  const page = await placed(PHONE, ['25'], 100);
  await page.touchscreen.tap(195, 20);
  const rows = (await (await page.$(id('line-rows')))!.boundingBox())!;
  // A finger that goes left moves on in time.
  const finger = await page.touchscreen.touchStart(rows.x + 300, rows.y + 14);
  for (let i = 1; i <= 6; i++) await finger.move(rows.x + 300 - i * 20, rows.y + 14);
  await finger.end();
  await quiet(page);
  await waitForText(page, 'timecode', /00:00:0[1-3]/);
  const middle = await page.$eval(id('line-rows'), (e) => {
    const mark = e.lastElementChild!.getBoundingClientRect();
    const box = e.getBoundingClientRect();
    return (mark.left + mark.width / 2 - box.left) / box.width;
  });
  expect(middle).toBeCloseTo(0.5, 1);
  // With something to hear, there is a button more beside the time, which stays readable.
  await choose(page, 'place-files', noise('heard.wav', 480_000));
  await page.waitForSelector(id('sound-on'));
  const [time, button] = await Promise.all(
    ['timecode', 'sound-on'].map((t) => page.$eval(id(t), (e) => e.getBoundingClientRect().toJSON())),
  );
  expect(time.right <= button.left || time.bottom <= button.top).toBe(true);
  await page.close();
});
