import { graphicsOf, type Reel } from '@fresh-reel/core';
import type { Page } from 'puppeteer-core';
import {
  fieldValue,
  fill,
  id,
  LAPTOP,
  quiet,
  saved,
  serve,
  tap,
  textOf,
  waitForText,
  waitForValue,
} from './support/browser';
import { entryOf, putEntry } from './support/entries';
import { reelFileOf } from './support/zip';

const session = serve();

const names = (page: Page) =>
  page.$$eval(`${id('reels')} [role="heading"][aria-level="2"]`, (all) => all.map((e) => e.textContent));

describe('reels', () => {
  let page: Page;
  beforeAll(async () => {
    page = await session.page(LAPTOP, '/reels');
    await page.waitForSelector(id('reel-demo-strap'));
  });

  it('come with the demo at the first start: one from each template, and a brand', async () => {
    expect(await names(page)).toEqual(
      expect.arrayContaining(['Marit, kite maker', 'Weekend logo sting', 'Saturday opener']),
    );
    await tap(page, 'place-brand');
    expect(await fieldValue(page, 'brand-name')).toBe('Thistledown Kite Weekend');
    await tap(page, 'place-reels');
  });

  it('are renamed, duplicated and deleted, and deleting can be undone', async () => {
    await tap(page, 'rename-demo-strap');
    await fill(page, 'rename-field-demo-strap', 'Marit by the tent');
    await page.keyboard.press('Enter');
    await page.waitForFunction(() => document.body.textContent?.includes('Marit by the tent'));
    await tap(page, 'duplicate-demo-strap');
    await page.waitForFunction(() => document.body.textContent?.includes('Marit by the tent copy'));
    await tap(page, 'delete-demo-strap');
    await page.waitForSelector(id('reel-demo-strap'), { hidden: true });
    // The notice of the renaming is still there, with its own way back.
    const notices = await page.$$eval(id('toast'), (all) => all.map((e) => e.textContent ?? ''));
    expect(notices[0]).toContain('Renamed to “Marit by the tent”.');
    expect(notices.at(-1)).toContain('“Marit by the tent” is deleted.');
    const [, back] = await page.$$(id('toast-action'));
    await back!.click();
    await page.waitForSelector(id('reel-demo-strap'));
    await page.reload();
    await page.waitForSelector(id('reel-demo-strap'));
    expect(await names(page)).toHaveLength(7);
  });

  it('that are damaged say so, keep their data, and harm no other', async () => {
    await putEntry(page, 'reel/broken', '{"format":"freshreel/reel","version":1,"id":"broken","na');
    await putEntry(page, 'reel/newer', '{"format":"freshreel/reel","version":7}');
    await page.reload();
    expect(await textOf(page, 'damaged-broken')).toMatch(/not complete JSON.*Your other reels are safe/);
    expect(await textOf(page, 'damaged-newer')).toMatch(/made by a newer Fresh Reel/);
    expect(await names(page)).toHaveLength(7);
    await page.goto(`${session.address}/reels/broken`);
    await page.waitForFunction(() => document.body.textContent?.includes('This reel cannot be opened'));
  });
});

describe('two tabs on one reel', () => {
  it('one edits and the other looks on, until it takes over', async () => {
    const first = await session.page(LAPTOP, '/reels/demo-sting');
    await fill(first, 'slot-line', 'First tab');
    await saved(first);
    const second = await session.page(LAPTOP, '/reels/demo-sting');
    await second.waitForSelector(id('elsewhere'));
    expect(await fieldValue(second, 'slot-line')).toBe('First tab');

    await first.bringToFront();
    await fill(first, 'slot-line', 'Changed in the first');
    await saved(first);
    await second.bringToFront();
    await waitForValue(second, 'slot-line', 'Changed in the first');

    await tap(second, 'take-over');
    await second.waitForSelector(id('elsewhere'), { hidden: true });
    await fill(second, 'slot-line', 'Second tab');
    await saved(second);
    await first.bringToFront();
    await first.waitForSelector(id('elsewhere'));
    await waitForValue(first, 'slot-line', 'Second tab');
    // A tab that comes back to the reel later reads what is stored now, not what it remembers.
    await tap(first, 'back');
    await second.bringToFront();
    await fill(second, 'slot-line', 'Second tab, later');
    await saved(second);
    await tap(second, 'back');
    await first.bringToFront();
    await tap(first, 'open-demo-sting');
    expect(await fieldValue(first, 'slot-line')).toBe('Second tab, later');
    // The reel is open in the first tab now; when that is closed, the second may edit without asking.
    await second.bringToFront();
    await tap(second, 'open-demo-sting');
    await second.waitForSelector(id('elsewhere'));
    await first.close();
    await second.waitForSelector(id('elsewhere'), { hidden: true });
    await fill(second, 'slot-line', 'The only tab left');
    await saved(second);
    await second.close();
  });
});

it('leaving the page in the middle of typing loses no letter', async () => {
  const page = await session.page(LAPTOP, '/reels/demo-strap');
  await page.waitForSelector(id('slot-role'));
  await quiet(page);
  await fill(page, 'slot-role', 'Typed to the very last letter');
  await page.goto(`${session.address}/brand`);
  await page.goto(`${session.address}/reels/demo-strap`);
  expect(await fieldValue(page, 'slot-role')).toBe('Typed to the very last letter');
  await page.close();
});

describe('storage that is full', () => {
  /** Lets nothing more into the database of a page, until `room` is called there. */
  const fillUp = (page: Page) =>
    page.evaluate(() => {
      const put = IDBObjectStore.prototype.put;
      (window as unknown as { room: () => void }).room = () => {
        IDBObjectStore.prototype.put = put;
      };
      IDBObjectStore.prototype.put = () => {
        throw new DOMException('The quota has been exceeded.', 'QuotaExceededError');
      };
    });

  it('is said, loses nothing, and saving goes on when there is room', async () => {
    const page = await session.page(LAPTOP, '/reels/demo-sting');
    await page.waitForSelector(id('slot-line'));
    await quiet(page);
    await fillUp(page);
    await fill(page, 'slot-line', 'Typed while full');
    expect(
      await waitForText(page, 'save-fault', /Not saved.*no more room.*last saved version is safe/),
    ).toBeTruthy();
    expect(await fieldValue(page, 'slot-line')).toBe('Typed while full');
    await tap(page, 'save-file');
    const { reel } = await reelFileOf(await session.take('.freshreel'));
    const file = reel as Reel;
    expect(graphicsOf(file)[0]!.fill.slots.line).toBe('Typed while full');
    // One leaves the reel all the same, and comes back to it.
    await tap(page, 'back');
    await tap(page, 'open-demo-sting');
    expect(await fieldValue(page, 'slot-line')).toBe('Typed while full');
    await waitForText(page, 'save-fault', /Not saved/);
    await page.evaluate(() => (window as unknown as { room: () => void }).room());
    await tap(page, 'save-again');
    await saved(page);
    await page.reload();
    expect(await fieldValue(page, 'slot-line')).toBe('Typed while full');
    await page.close();
  });

  it('what is left unsaved is there again at the next start', async () => {
    const page = await session.page(LAPTOP, '/reels/demo-sting');
    await page.waitForSelector(id('slot-line'));
    await fillUp(page);
    await fill(page, 'slot-line', 'Left while full');
    await waitForText(page, 'save-fault', /Not saved/);
    await tap(page, 'back');
    await page.waitForSelector(id('open-demo-sting'));
    await page.goto(`${session.address}/reels/demo-sting`);
    expect(await fieldValue(page, 'slot-line')).toBe('Left while full');
    await page.close();
  });

  it('a reel file opens again as a reel of its own', async () => {
    const page = await session.page(LAPTOP, '/reels');
    const { asFile } = await import('./support/probe');
    const { choose } = await import('./support/browser');
    await page.waitForSelector(id('reel-demo-opener'));
    await choose(page, 'open-reel-file', asFile(Buffer.from('{"format":"something"}'), 'other.json'));
    expect(
      await waitForText(page, 'reels-fault', /"other\.json" could not be opened.*not a reel/),
    ).toBeTruthy();
    await page.close();
  });
});

it('a long list is there again when one comes back to it, to its end', async () => {
  const page = await session.page(LAPTOP, '/reels');
  await page.waitForSelector(id('reel-demo-strap'));
  const reel = JSON.parse((await entryOf(page, 'reel/demo-strap'))!) as Reel;
  for (let i = 0; i < 60; i++) {
    const copy = {
      ...reel,
      id: `copy-${i}`,
      name: `Copy ${i}`,
      changed: `2020-01-01T00:00:${10 + (i % 50)}Z`,
    };
    await putEntry(page, `reel/${copy.id}`, JSON.stringify(copy));
  }
  await page.reload();
  const copies = () => page.$$eval('[data-testid^="reel-copy-"]', (all) => all.length);
  await page.waitForSelector('[data-testid^="reel-"]');
  await tap(page, 'place-shelf');
  await page.waitForSelector(id('shelf-add'));
  await tap(page, 'place-reels');
  await page.waitForSelector('[data-testid^="reel-"]');
  // Only what is near is there; scrolled to its end, the list ends with the oldest.
  await page.waitForFunction(() => {
    const card = document.querySelector('[data-testid^="reel-"]')!;
    let scroller = card.parentElement;
    while (scroller && scroller.scrollHeight <= scroller.clientHeight + 1) scroller = scroller.parentElement;
    if (scroller) scroller.scrollTop = scroller.scrollHeight;
    return document.querySelector('[data-testid="reel-copy-50"], [data-testid="reel-copy-0"]') !== null;
  });
  expect(await copies()).toBeLessThan(60);
  await page.close();
});
