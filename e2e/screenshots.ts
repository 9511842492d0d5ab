/**
 * `npm run screenshots`: the pictures of docs/screenshots, all at once, of the app as it is built and its demo. Names
 * after it make those alone.
 */
import { writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import type { Page } from 'puppeteer-core';
import { createApp } from '../apps/server/src/app';
import { choose, id, LAPTOP, launch, PHONE, pause, tap, waitForText } from './support/browser';
import { Hand } from './support/hand';

const FOLDER = fileURLToPath(new URL('../docs/screenshots/', import.meta.url));
const app = createApp();
const address = (await app.listen({ port: 0, host: '127.0.0.1' })).replace('127.0.0.1', 'localhost');
const browser = await launch();

/** A reel of one template, from its page. */
async function use(page: Page): Promise<void> {
  await tap(page, 'use-template');
  await page.waitForSelector('[data-testid^="tag-"]');
}

/** What each picture shows: how large the screen is, the place, and what is done there. */
const SHOTS: Record<
  string,
  [view: typeof PHONE | typeof LAPTOP, path: string, act?: (page: Page) => Promise<unknown>]
> = {
  'templates-phone': [PHONE, '/templates'],
  'templates-wide': [LAPTOP, '/templates'],
  'template-wide': [LAPTOP, '/templates/gust-sting', (page) => page.waitForSelector(id('use-template'))],
  'compare-wide': [
    LAPTOP,
    '/templates/compare?ids=drift-wall,kite-tails,quiet-title,ticket',
    async (page) => {
      await page.waitForSelector(id('compared-ticket'));
      // They play: all have their words when most of the shortest is over.
      await pause(5200);
      return page.screenshot();
    },
  ],
  'fill-phone': [PHONE, '/reels/demo-strap', (page) => page.waitForSelector(id('slot-name'))],
  'fill-wide': [LAPTOP, '/reels/demo-opener', (page) => page.waitForSelector(id('slot-headline'))],
  'adjust-phone': [PHONE, '/reels/demo-strap', (page) => tap(page, 'step-adjust')],
  'render-phone': [
    PHONE,
    '/reels/demo-sting',
    async (page) => {
      await tap(page, 'step-render');
      await page.waitForSelector(`${id('render-start')}:not([aria-disabled="true"])`);
    },
  ],
  'renders-phone': [
    PHONE,
    '/reels/demo-sting',
    async (page) => {
      await tap(page, 'step-render');
      for (const [format, size] of [
        ['png', '1080'],
        ['webm', '540'],
      ] as const) {
        await tap(page, `output-format-${format}`);
        await tap(page, `output-size-${size}`);
        await page.waitForSelector(`${id('render-start')}:not([aria-disabled="true"])`);
        await tap(page, 'render-start');
      }
      await page.waitForFunction(() => /Frame \d+ of/.test(document.body.textContent ?? ''));
      await tap(page, 'output-format-mp4');
      await page.waitForSelector(`${id('render-start')}:not([aria-disabled="true"])`);
      await tap(page, 'render-start');
      await page.goto(`${address}/renders`);
      await page.waitForSelector(id('render-done'));
    },
  ],
  'typing-phone': [
    PHONE,
    '/templates/swing-sign',
    async (page) => {
      await use(page);
      const hand = new Hand(page, true);
      await hand.seek(0.1);
      const { x, y } = await hand.middle('tag-word');
      await hand.tap({ x: x - 36, y });
      await hand.tap(await hand.middle('text-box-word'));
      await page.waitForSelector(id('caret'));
      await page.keyboard.type(' up');
    },
  ],
  'path-wide': [
    LAPTOP,
    '/templates/wind-line',
    async (page) => {
      await use(page);
      const hand = new Hand(page, false);
      await hand.seek(0.45);
      await tap(page, 'step-adjust');
      await tap(page, 'control-path-draw');
      await hand.tap(await hand.middle('path-point-0'));
    },
  ],
  'place-phone': [PHONE, '/reels/demo-film', (page) => tap(page, 'step-place')],
  'place-wide': [LAPTOP, '/reels/demo-film', (page) => tap(page, 'step-place')],
  'table-phone': [
    PHONE,
    '/reels/demo-strap',
    async (page) => {
      await tap(page, 'step-render');
      await tap(page, 'table-begin');
      await choose(page, 'table-open', fileURLToPath(new URL('../demo/flyers.csv', import.meta.url)));
      await waitForText(page, 'table-said', /rows/);
    },
  ],
  'reels-wide': [LAPTOP, '/reels', (page) => page.waitForSelector(id('reel-demo-strap'))],
  'shelf-phone': [PHONE, '/shelf', (page) => page.waitForSelector('[data-testid^="media-"]')],
  'brand-phone': [PHONE, '/brand'],
  'workshop-wide': [
    LAPTOP,
    '/templates/name-strap',
    async (page) => {
      await tap(page, 'to-workshop');
      await page.waitForSelector(id('part-tree'));
      await tap(page, 'part-name');
    },
  ],
  'workshop-phone': [
    PHONE,
    '/templates/name-strap',
    async (page) => {
      await tap(page, 'to-workshop');
      await page.waitForSelector(id('part-tree'));
      await tap(page, 'bay-controls');
    },
  ],
};

/** Waits until two pictures of a page are one: fonts, stills and previews are there. */
async function settled(page: Page): Promise<Uint8Array> {
  let last = await page.screenshot();
  for (let tries = 0, same = 0; tries < 15 && same < 3; tries++) {
    await pause(400);
    const now = await page.screenshot();
    same = Buffer.from(now).equals(Buffer.from(last)) ? same + 1 : 0;
    last = now;
  }
  return last;
}

const named = process.argv.slice(2);
for (const [name, [view, path, act]] of Object.entries(SHOTS)) {
  if (named.length > 0 && !named.includes(name)) continue;
  // Each begins as the demo does, whatever was done for the one before.
  const context = await browser.createBrowserContext();
  const page = await context.newPage();
  page.setDefaultTimeout(120_000);
  await page.setViewport({ isMobile: false, hasTouch: false, ...view, deviceScaleFactor: 1 });
  await page.goto(address + path);
  // What never stands still is taken at its moment.
  const taken = await act?.(page);
  writeFileSync(join(FOLDER, `${name}.png`), taken instanceof Uint8Array ? taken : await settled(page));
  console.log(name);
  await context.close();
}
await browser.close();
await app.close();
process.exit(0);
