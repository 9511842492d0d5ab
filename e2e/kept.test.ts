import type { Page } from 'puppeteer-core';
import {
  drawn,
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
  textOf,
  until,
  waitForText,
  waitForValue,
} from './support/browser';
import { entryOf, putEntry, storedKeys } from './support/entries';

const session = serve({ demoShelf: true });

/** A finger that goes from one point to another, as the browser sees it. */
async function swipe(
  page: Page,
  from: [number, number],
  to: [number, number],
  cancel = false,
): Promise<void> {
  const client = await page.createCDPSession();
  const send = (type: string, points: [number, number][]) =>
    client.send('Input.dispatchTouchEvent', {
      type: type as 'touchStart',
      touchPoints: points.map(([x, y]) => ({ x, y, id: 1 })),
    });
  await send('touchStart', [from]);
  for (let i = 1; i <= 8; i++) {
    const k = i / 8;
    await send('touchMove', [[from[0] + (to[0] - from[0]) * k, from[1] + (to[1] - from[1]) * k]]);
    await drawn(page);
  }
  await send(cancel ? 'touchCancel' : 'touchEnd', []);
  await client.detach();
  await quiet(page);
}

const middle = async (page: Page, testID: string): Promise<[number, number]> => {
  const element = await page.waitForSelector(id(testID));
  const box = (await element!.boundingBox())!;
  return [box.x + box.width / 2, box.y + box.height / 2];
};
const valueNow = (page: Page, testID: string) =>
  page.$eval(`${id(testID)}[role="slider"]`, (e) => Number(e.getAttribute('aria-valuenow')));

describe('a finger on a slider', () => {
  let page: Page;
  const slider = 'slider-control-hold';
  beforeAll(async () => {
    page = await session.page(PHONE, '/reels/demo-strap');
    await tap(page, 'step-adjust');
    await page.waitForSelector(`${id(slider)}[role="slider"]`);
    await page.$eval(id(slider), (e) => e.scrollIntoView({ block: 'center' }));
    await quiet(page);
  });
  afterAll(() => page.close());

  it('that goes up or down scrolls, and changes nothing', async () => {
    const before = await valueNow(page, slider);
    const [x, y] = await middle(page, slider);
    const top = () => page.$eval(id(slider), (e) => e.getBoundingClientRect().top);
    const at = await top();
    await swipe(page, [x + 60, y], [x + 70, y + 120]);
    expect(await valueNow(page, slider)).toBe(before);
    expect(Math.abs((await top()) - at)).toBeGreaterThan(20);
    expect(await page.$eval(id('undo'), (e) => e.getAttribute('aria-disabled'))).toBe('true');
  });

  it('that goes sideways changes it, and a pointer that is taken away puts it back', async () => {
    await page.$eval(id(slider), (e) => e.scrollIntoView({ block: 'center' }));
    await quiet(page);
    const before = await valueNow(page, slider);
    const [x, y] = await middle(page, slider);
    await swipe(page, [x, y], [x + 80, y + 4], true);
    expect(await valueNow(page, slider)).toBe(before);
    await swipe(page, [x, y], [x + 80, y + 4]);
    expect(await valueNow(page, slider)).not.toBe(before);
    await tap(page, 'undo');
    expect(await valueNow(page, slider)).toBe(before);
  });
});

it('three reels deleted one after the other are all put back, later and in another visit', async () => {
  const page = await session.page(LAPTOP, '/reels');
  for (const name of ['demo-sting', 'demo-opener', 'demo-freeze']) {
    await tap(page, `delete-${name}`);
    await page.waitForSelector(id(`reel-${name}`), { hidden: true });
  }
  await page.reload();
  for (const name of ['demo-sting', 'demo-opener', 'demo-freeze']) {
    await tap(page, `put-back-${name}`);
    await page.waitForSelector(id(`reel-${name}`));
  }
  expect(await page.$(id('removed-reel'))).toBeNull();
  // For good is for good.
  await tap(page, 'duplicate-demo-strap');
  await page.waitForFunction(() => document.body.textContent?.includes('kite maker copy'));
  const copy = await page.$eval('[aria-label^="Delete Marit, kite maker copy"]', (e) =>
    e.getAttribute('data-testid')!.replace('delete-', ''),
  );
  await tap(page, `delete-${copy}`);
  await tap(page, `purge-${copy}`);
  await page.waitForSelector(id('removed-reel'), { hidden: true });
  expect((await storedKeys(page)).filter((k) => k.includes(copy))).toEqual([]);
  await page.close();
});

it('a file that was taken off the shelf is put back there', async () => {
  const page = await session.page(LAPTOP, '/shelf');
  await tap(page, 'media-dusk.jpg');
  await tap(page, 'media-remove');
  await page.waitForSelector(id('media-dusk.jpg'), { hidden: true });
  await page.reload();
  await page.waitForSelector(id('removed-media'));
  await page.click('[aria-label="Put back dusk.jpg"]');
  await page.waitForSelector(id('media-dusk.jpg'));
  await page.close();
});

it('undo is there again when one comes back to a reel', async () => {
  const page = await session.page(LAPTOP, '/reels/demo-strap');
  const first = await fieldValue(page, 'slot-name');
  await fill(page, 'slot-name', 'Somebody else');
  await saved(page);
  await tap(page, 'back');
  await tap(page, 'open-demo-strap');
  expect(await fieldValue(page, 'slot-name')).toBe('Somebody else');
  await tap(page, 'undo');
  await waitForValue(page, 'slot-name', first);
  await saved(page);
  await page.close();
});

it('a drag of a word’s colour is one step', async () => {
  const page = await session.page(LAPTOP, '/reels/demo-freeze');
  await page.waitForSelector(id('slot-caption'));
  await tap(page, 'slot-caption');
  await page.keyboard.down('Control');
  await page.keyboard.press('a');
  await page.keyboard.up('Control');
  await tap(page, 'mark-colour-caption');
  const field = await page.waitForSelector(`${id('colour-sheet')} .react-colorful__saturation`);
  const box = (await field!.boundingBox())!;
  await page.mouse.move(box.x + 20, box.y + 20);
  await page.mouse.down();
  for (let i = 1; i < 8; i++) await page.mouse.move(box.x + 20 + i * 12, box.y + 20 + i * 8);
  await page.mouse.up();
  await drawn(page);
  await page.keyboard.press('Escape');
  await page.waitForSelector(id('colour-sheet'), { hidden: true });
  const steps = async () => {
    let n = 0;
    while (await page.$eval(id('undo'), (e) => e.getAttribute('aria-disabled') !== 'true')) {
      await tap(page, 'undo');
      await quiet(page);
      n++;
      if (n > 20) break;
    }
    return n;
  };
  expect(await steps()).toBe(1);
  await page.close();
});

it('edits of the brand are taken back, also after leaving the place', async () => {
  const page = await session.page(LAPTOP, '/brand');
  const before = await fieldValue(page, 'brand-name');
  await fill(page, 'brand-name', 'Another weekend');
  await tap(page, 'place-reels');
  await tap(page, 'place-brand');
  expect(await fieldValue(page, 'brand-name')).toBe('Another weekend');
  await tap(page, 'undo');
  await waitForValue(page, 'brand-name', before);
  expect(await page.$eval(id('undo'), (e) => e.getAttribute('aria-disabled'))).toBe('true');
  expect(await page.title()).toContain('Brand');
  await page.close();
});

it('a reel with nothing in it opens where things are placed, and says what is missing elsewhere', async () => {
  const page = await session.page(LAPTOP, '/reels/demo-strap');
  await page.waitForSelector(id('slot-name'));
  const reel = JSON.parse((await entryOf(page, 'reel/demo-strap'))!);
  await putEntry(
    page,
    'reel/bare',
    JSON.stringify({ ...reel, id: 'bare', tracks: [{ id: 't', items: [] }] }),
  );
  await page.goto(`${session.address}/reels/bare`);
  await page.waitForSelector(id('sheet-place'));
  await tap(page, 'step-fill');
  await waitForText(page, 'sheet-fill', /There is no title in this reel yet/);
  await tap(page, 'no-title');
  await tap(page, 'place-title');
  await tap(page, 'title-name-strap');
  await page.waitForSelector(id('item-name-strap'));
  await tap(page, 'step-fill');
  await page.waitForSelector(id('slot-name'));
  await page.close();
});

it('a screen that cannot be drawn says so, with a way on', async () => {
  const page = await session.page(LAPTOP, '/reels/demo-strap', async (p) => {
    await p.evaluateOnNewDocument(() => {
      HTMLCanvasElement.prototype.transferControlToOffscreen = () => {
        throw new Error('no canvas here');
      };
    });
  });
  await waitForText(page, 'stumbled', /could not be drawn.*What you have saved is safe/);
  session.faults.splice(0);
  await page.close();
});

describe('two tabs', () => {
  /** One tab takes a reel over from another, with what that has last put in its line. */
  async function takenOver(from: Page, by: Page, line: string): Promise<void> {
    await by.bringToFront();
    await tap(by, 'take-over');
    await by.waitForSelector(id('elsewhere'), { hidden: true });
    expect(await fieldValue(by, 'slot-line')).toBe(line);
    await from.close();
    await by.close();
  }

  it('a reel that is being edited is not renamed elsewhere', async () => {
    const editing = await session.page(LAPTOP, '/reels/demo-strap');
    await editing.waitForSelector(id('slot-name'));
    const list = await session.page(LAPTOP, '/reels');
    await tap(list, 'rename-demo-strap');
    await fill(list, 'rename-field-demo-strap', 'Renamed behind its back');
    await list.keyboard.press('Enter');
    expect(await waitForText(list, 'reels-fault', /open in another tab/)).toBeTruthy();
    await editing.close();
    await tap(list, 'rename-demo-strap');
    await fill(list, 'rename-field-demo-strap', 'Marit on the hill');
    await list.keyboard.press('Enter');
    await waitForText(list, 'reel-demo-strap', /Marit on the hill/);
    await tap(list, 'toast-action');
    await waitForText(list, 'reel-demo-strap', /Marit, kite maker/);
    await list.close();
  });

  it('one that takes a reel over has every letter of the other', async () => {
    const first = await session.page(LAPTOP, '/reels/demo-sting');
    await first.waitForSelector(id('slot-line'));
    const second = await session.page(LAPTOP, '/reels/demo-sting');
    await second.waitForSelector(id('elsewhere'));
    await first.bringToFront();
    await fill(first, 'slot-line', 'Typed just before it was taken over');
    await takenOver(first, second, 'Typed just before it was taken over');
  });

  it('who looks on takes nothing back', async () => {
    const first = await session.page(LAPTOP, '/reels/demo-sting');
    await fill(first, 'slot-line', 'A step that could be taken back');
    await saved(first);
    await tap(first, 'back');
    await tap(first, 'open-demo-sting');
    await first.waitForSelector(id('slot-line'));
    const second = await session.page(LAPTOP, '/reels/demo-sting');
    await second.waitForSelector(id('elsewhere'));
    for (const key of ['z', 'y', 'z'] as const) {
      await second.keyboard.down('Control');
      await second.keyboard.press(key);
      await second.keyboard.up('Control');
    }
    await second.$eval('body', () => new Promise((drawn) => requestAnimationFrame(() => setTimeout(drawn))));
    expect(await fieldValue(second, 'slot-line')).toBe('A step that could be taken back');
    await first.bringToFront();
    await fill(first, 'slot-line', 'Work of the first');
    await saved(first);
    await takenOver(first, second, 'Work of the first');
  });

  it('what all of the app goes by is put together from both', async () => {
    const [first, second] = [await session.page(LAPTOP, '/brand'), await session.page(LAPTOP, '/brand')];
    await second.waitForSelector(id('brand-name'));
    await first.bringToFront();
    await fill(first, 'brand-name', 'Named in the first');
    await second.bringToFront();
    await waitForValue(second, 'brand-name', 'Named in the first');
    await fill(second, 'brand-line-line', 'Said in the second');
    await first.bringToFront();
    await waitForValue(first, 'brand-line-line', 'Said in the second');
    await fill(first, 'brand-name', 'Thistledown Kite Weekend');
    await second.bringToFront();
    await waitForValue(second, 'brand-name', 'Thistledown Kite Weekend');
    await second.reload();
    await waitForValue(second, 'brand-line-line', 'Said in the second');

    for (const page of [first, second]) await page.goto(`${session.address}/templates`);
    const favourite = (of: string) => `favourite-${of}`;
    const isOn = (page: Page, of: string) =>
      page.waitForSelector(`${id(favourite(of))}[aria-pressed="true"]`);
    await first.bringToFront();
    await tap(first, favourite('name-strap'));
    await second.bringToFront();
    await isOn(second, 'name-strap');
    await tap(second, favourite('quote-card'));
    await isOn(second, 'quote-card');
    await first.bringToFront();
    await isOn(first, 'quote-card');
    await isOn(first, 'name-strap');
    await first.close();
    await second.close();
  });

  it('a finished render stays, whatever other tabs begin, and is there in the next visit', async () => {
    const page = await session.page(LAPTOP, '/reels/demo-sting');
    await tap(page, 'step-render');
    await renderNow(page, 'png', '270');
    await tap(page, 'render-download');
    const first = await session.take('.png');
    const other = await session.page(LAPTOP, '/renders');
    await other.waitForSelector(id('job-done'));
    await page.bringToFront();
    await tap(page, 'render-download');
    expect(Buffer.from(await session.take('.png')).equals(Buffer.from(first))).toBe(true);
    await page.close();
    await other.bringToFront();
    await other.reload();
    await other.waitForSelector(id('job-done'));
    expect(await textOf(other, 'render-done')).toContain('1 frame');
    await tap(other, 'render-download');
    expect(Buffer.from(await session.take('.png')).equals(Buffer.from(first))).toBe(true);
    await other.click('[aria-label^="Remove "]');
    await other.waitForSelector(id('job-done'), { hidden: true });
    await until(
      async () => !(await storedKeys(other)).some((key) => key.startsWith('render/')),
      'It is gone',
    );
    await other.reload();
    await quiet(other);
    expect(await other.$(id('job-done'))).toBeNull();
    await other.close();
  });
});
