import { execFileSync } from 'node:child_process';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { hostilePackages } from '@fresh-reel/core/testing/hostilePackages';
import { templateById } from '@fresh-reel/templates';
import type { Page } from 'puppeteer-core';
import {
  choose,
  fill,
  id,
  LAPTOP,
  quiet,
  saved,
  serve,
  takeIn,
  tap,
  textOf,
  waitForText,
} from './support/browser';
import { noise } from './support/clips';
import { storedKeys } from './support/entries';
import { asFile } from './support/probe';

const session = serve();

/** Keeps a copy of a built-in template, by way of the workshop. */
async function keepCopy(page: Page): Promise<void> {
  await page.goto(`${session.address}/templates/mask-rise`);
  await tap(page, 'to-workshop');
  await page.waitForSelector(id('part-tree'));
  await tap(page, 'keep-made');
  await fill(page, 'keep-made-set', 'Hill crew');
  await tap(page, 'keep-made-do');
  await waitForText(page, 'toast', /stands in Templates now/);
  await saved(page);
}

it('everything goes out as one file that says who it is from, and comes into an empty browser beside what is there', async () => {
  const page = await session.page(LAPTOP, '/templates');
  await keepCopy(page);
  // The kept one is opened, a favourite, and in a group of its own with another.
  for (const template of ['quote-card', undefined]) {
    if (template) await page.goto(`${session.address}/templates/${template}`);
    else {
      await page.goto(`${session.address}/templates`);
      await tap(page, 'use-own');
      await page.$eval('[data-testid^="favourite-"]', (star) => (star as HTMLElement).click());
      await page.$eval('[data-testid^="template-card-"]', (card) => (card as HTMLElement).click());
    }
    await page.waitForSelector(id('template-groups'));
    if (template) {
      await fill(page, 'new-group', 'Sundays');
      await tap(page, 'new-group-add');
      await tap(page, 'rename-group-Sundays');
      await fill(page, 'group-name', 'For Sundays');
      await page.keyboard.press('Enter');
    } else await tap(page, 'in-group-For Sundays');
    await page.waitForSelector(`${id('in-group-For Sundays')}[aria-checked="true"]`);
  }
  await page.goto(`${session.address}/shelf`);
  await choose(page, 'shelf-add', noise('our-air.wav', 200_000));
  await tap(page, 'media-our-air.wav');
  await fill(page, 'media-group', 'Music');
  // What was typed is taken, whichever way the sheet is left.
  await page.keyboard.press('Escape');
  await page.waitForSelector(id('media-sheet'), { hidden: true });
  await page.waitForSelector(id('shelf-group'));
  await fill(page, 'signature', 'The hill crew');
  await tap(page, 'save-everything');
  const file = asFile(await session.take('.freshreel'), 'everything.freshreel');
  const cli = join(__dirname, '../apps/server/bin/fresh-reel.mjs');
  const listed = execFileSync('node', [cli, 'open', file, '--list'], { encoding: 'utf8' });
  expect(listed).toContain('from\tThe hill crew');
  expect(listed).toMatch(/template\tMask rise of mine|template\t.+ of mine/);
  expect(listed).toContain('brand\tThistledown Kite Weekend');
  const reels = listed.split('\n').filter((line) => line.startsWith('reel\t')).length;
  await page.close();

  const empty = await session.browser.createBrowserContext();
  const there = await empty.newPage();
  await there.setViewport(LAPTOP);
  await there.goto(`${session.address}/shelf`);
  await there.waitForSelector(id('open-everything'));
  const before = (await storedKeys(there)).filter((key) => /^(reel|template|brand)\//.test(key));
  await choose(there, 'open-everything', file);
  expect(await textOf(there, 'open-from')).toBe('From The hill crew, as it says.');
  expect(await textOf(there, 'open-what')).toMatch(/Reels \(\d+\).+Templates \(1\).+groups and settings/s);
  await tap(there, 'open-take');
  await waitForText(there, 'toast', /^Taken in: .*template/);
  const after = (await storedKeys(there)).filter((key) => /^(reel|template|brand)\//.test(key));
  // Nothing that was there is gone, and all that came is there.
  expect(after).toEqual(expect.arrayContaining(before));
  expect(after.filter((key) => key.startsWith('template/'))).toHaveLength(1);
  expect(after.filter((key) => key.startsWith('reel/')).length).toBeGreaterThanOrEqual(reels);
  // What was chosen came along: the favourite and the group name what is kept, under the id it has here.
  await there.goto(`${session.address}/templates`);
  await tap(there, 'use-group For Sundays');
  await there.waitForFunction(
    () => document.querySelectorAll('[data-testid^="template-card-"]').length === 2,
  );
  await tap(there, 'use-favourites');
  await there.waitForFunction(
    () => document.querySelectorAll('[data-testid^="template-card-"]').length === 1,
  );
  await there.goto(`${session.address}/shelf`);
  await tap(there, 'shelf-group-Music');
  await there.waitForSelector(id('media-our-air.wav'));
  // Opened again, nothing comes twice.
  await there.goto(`${session.address}/shelf`);
  await takeIn(there, 'open-everything', file);
  await waitForText(there, 'toast', /^(All of it is here already|Taken in)/);
  expect((await storedKeys(there)).filter((key) => key.startsWith('template/'))).toHaveLength(1);
  await empty.close();
});

/** Ways whose packages are taken in, too, where they open. */
const TAKEN = /script|code|keys|hash|links|asset|changed/;

it('two hundred hostile packages: no request leaves, no script runs, nothing hangs, and nothing that was there is lost', async () => {
  const page = await session.page(LAPTOP, '/reels');
  await page.waitForSelector(id('reel-demo-strap'));
  const before = await storedKeys(page);
  const elsewhere: string[] = [];
  page.on('request', (request) => {
    const url = request.url();
    if (!url.startsWith(session.address) && !/^(blob|data):/.test(url)) elsewhere.push(url);
  });
  const folder = mkdtempSync(join(tmpdir(), 'fresh-reel-hostile-'));
  const ways = new Set<string>();
  let refused = 0;
  for (const { name, bytes } of hostilePackages(200, 20_261_128, templateById('name-strap'))) {
    const file = join(folder, `${name}.freshreel`);
    writeFileSync(file, bytes);
    await choose(page, 'open-reel-file', file);
    await page.waitForFunction(
      (called) => document.body.textContent?.includes(called),
      {},
      `${name}.freshreel`,
    );
    rmSync(file);
    if (!(await page.$(id('open-sheet')))) {
      refused++;
      continue;
    }
    const way = name.slice(4);
    if (!TAKEN.test(way) || ways.has(way)) {
      await page.keyboard.press('Escape');
      await page.waitForSelector(id('open-sheet'), { hidden: true });
      continue;
    }
    ways.add(way);
    await tap(page, 'open-take');
    await page.waitForSelector(id('open-sheet'), { hidden: true });
    await quiet(page);
    await page.goto(`${session.address}/reels`);
    await page.waitForSelector(id('reel-demo-strap'));
  }
  rmSync(folder, { recursive: true });
  expect(refused).toBeGreaterThan(90);
  expect(elsewhere).toEqual([]);
  expect(await page.evaluate(() => 'taken' in window || 'taken' in {})).toBe(false);
  expect(await storedKeys(page)).toEqual(expect.arrayContaining(before));
  await page.close();
}, 400_000);
