/** Renders that wait, stand still, and go on after a kill. */

import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { randomAt } from '@fresh-reel/core';
import type { Browser, Page } from 'puppeteer-core';
import {
  id,
  LAPTOP,
  lookAtRest,
  PHONE,
  pause,
  renderNow,
  serve,
  tap,
  textOf,
  until,
  waitForChange,
  waitForText,
} from './support/browser';
import { numberedClip } from './support/clips';
import { kept } from './support/files';
import { probe } from './support/probe';
import { clipReel, openReel } from './support/slotReel';

jest.setTimeout(Math.max(600_000, Number(process.env.FRESH_REEL_KILLS ?? 0) * 12_000));
const CLIP = numberedClip('killed.mp4', 96, '24', []);
const session = serve({ renders: true });

/** Waits until a render has come to a frame. */
async function reached(page: Page, frame: number): Promise<void> {
  await page.waitForFunction(
    (wanted: number) => Number(/Frame (\d+) of/.exec(document.body.textContent ?? '')?.[1] ?? 0) >= wanted,
    { timeout: 60_000 },
    frame,
  );
}

async function startRender(page: Page, format: string, size: string): Promise<void> {
  await tap(page, 'step-render');
  await tap(page, `output-format-${format}`);
  await tap(page, `output-size-${size}`);
  await page.waitForSelector(`${id('render-start')}:not([aria-disabled="true"])`);
  await tap(page, 'render-start');
}

/** How often the browser is killed, and which moments are drawn: `FRESH_REEL_KILLS=200 FRESH_REEL_SEED=1`. */
const KILLS = Number(process.env.FRESH_REEL_KILLS ?? 3);
const SEED = Number(process.env.FRESH_REEL_SEED ?? 1);
/** Milliseconds up to which a browser lives: from before it has read the queue to when the film is there. */
const LONGEST_LIFE = 3000;

it('renders whose browser is killed at any moment go on in the next visit, and each file is the same as one made in one go', async () => {
  // Painted in no time, and each of its frames is another.
  const reel = clipReel(CLIP, { num: 24, den: 1 }, 96);
  const page = await session.page(LAPTOP, '/reels');
  await openReel(session, page, reel);
  await renderNow(page, 'webm', '540');
  const [whole] = await kept(page, 'renders');
  expect(await kept(page, 'unfinished')).toEqual([]);
  await page.close();

  const folder = mkdtempSync(join(tmpdir(), 'fresh-reel-killed-'));
  let browser: Browser = await session.another(folder);
  let again = await browser.newPage();
  await again.goto(`${session.address}/reels`);
  await openReel(session, again, reel);
  const start = again.url();
  await startRender(again, 'webm', '540');
  // Two seconds are written, and a part of the third.
  await reached(again, 60);
  let films = 1;
  for (let kills = 0; kills < KILLS; ) {
    const process = browser.process()!;
    const gone = new Promise((resolve) => process.once('exit', resolve));
    process.kill('SIGKILL');
    kills++;
    await gone;
    browser = await session.another(folder);
    again = await browser.newPage();
    await again.goto(`${session.address}/renders`, { waitUntil: 'domcontentloaded' });
    await pause(randomAt(SEED, kills) * LONGEST_LIFE);
    if (kills < KILLS && (await again.$$(id('job-done'))).length === films) {
      expect(await kept(again, 'renders')).toEqual(Array(films).fill(whole));
      await again.goto(start);
      await startRender(again, 'webm', '540');
      await reached(again, 1 + randomAt(SEED, kills, 1) * 70);
      films++;
    }
  }
  await again.waitForFunction(
    (selector: string, count: number) => document.querySelectorAll(selector).length === count,
    { timeout: 120_000 },
    id('job-done'),
    films,
  );
  expect(await kept(again, 'renders')).toEqual(Array(films).fill(whole));
  expect(await kept(again, 'unfinished')).toEqual([]);
  expect(await textOf(again, 'render-done')).not.toContain(', in ');
  await browser.close();
  rmSync(folder, { recursive: true, force: true });
});

it('a worker that the browser ends is noticed: what it did is begun anew', async () => {
  const page = await session.page(LAPTOP, '/reels');
  await openReel(session, page, clipReel(CLIP, { num: 24, den: 1 }, 96));
  /** Ends the workers of a kind as the browser does when it has no memory left: nobody is told. */
  const end = async (kind: string) => {
    const found = page.workers().filter((worker) => worker.url().endsWith(`/${kind}.js`));
    await Promise.all(found.map((worker) => worker.evaluate(() => self.close()).catch(() => undefined)));
    return found.length;
  };
  await renderNow(page, 'webm', '540');
  const [whole] = await kept(page, 'renders');
  await tap(page, 'output-format-webm');
  await startRender(page, 'webm', '540');
  await reached(page, 30);
  expect(await end('paint')).toBeGreaterThan(0);
  await reached(page, 50);
  expect(await end('render')).toBe(1);
  await page.waitForFunction((s: string) => document.querySelectorAll(s).length === 2, {}, id('job-done'));
  expect(new Set(await kept(page, 'renders'))).toEqual(new Set([whole]));
  await tap(page, 'step-place');
  const before = await lookAtRest(page, 'preview');
  expect(await end('preview')).toBe(1);
  // It shows what it showed, and goes on.
  await tap(page, 'frame-on');
  await waitForChange(page, 'preview', before);
  await page.close();
});

it('renders wait in an order of the editor’s, stand still and go on, in two tabs alike', async () => {
  const page = await session.page(PHONE, '/reels/demo-opener');
  await startRender(page, 'webm', '540');
  await tap(page, 'output-size-720');
  await page.waitForSelector(`${id('render-start')}:not([aria-disabled="true"])`);
  await tap(page, 'render-start');
  await tap(page, 'output-format-png');
  await page.waitForSelector(`${id('render-start')}:not([aria-disabled="true"])`);
  await tap(page, 'render-start');
  const other = await session.page(LAPTOP, '/renders');
  const order = (of: Page) =>
    of.$$eval('[data-testid^="job-"]', (rows) =>
      rows.map((r) => [r.getAttribute('data-testid'), /\d+x\d+/.exec(r.textContent ?? '')?.[0]].join(' ')),
    );
  const rowsAre = (of: Page, wanted: string[]) =>
    of.waitForFunction(
      (text: string) =>
        [...document.querySelectorAll('[data-testid^="job-"]')]
          .map((r) => `${r.getAttribute('data-testid')} ${/\d+x\d+/.exec(r.textContent ?? '')?.[0]}`)
          .join('|')
          .startsWith(text),
      {},
      wanted.join('|'),
    );
  await other.bringToFront();
  await rowsAre(other, ['job-running 960x540', 'job-waiting 1280x720', 'job-waiting 1280x720']);
  // The still goes before the film, and the one that runs is paused: the still is there first.
  const [, earlier] = await other.$$(id('render-earlier'));
  await earlier!.click();
  await tap(other, 'render-pause');
  await other.waitForSelector(id('job-done'));
  await rowsAre(other, ['job-paused 960x540', 'job-running 1280x720', 'job-done 1280x720']);
  const running = await other.$(`${id('job-running')} ${id('render-cancel')}`);
  await running!.click();
  await rowsAre(other, ['job-paused 960x540', 'job-cancelled 1280x720']);
  await tap(other, 'render-resume');
  await reached(other, 60);
  // The tab that rendered is closed: the other goes on with it.
  await page.close();
  await reached(other, 90);
  await tap(other, 'render-cancel');
  await waitForText(other, 'job-cancelled', /Nothing was kept/);
  await until(async () => (await kept(other, 'unfinished')).length === 0, 'Nothing is kept');
  expect((await order(other)).slice(0, 2)).toEqual(['job-cancelled 960x540', 'job-cancelled 1280x720']);
  await other.close();
});

it('a film of the server’s stands in the queue like any other, and is fetched', async () => {
  const page = await session.page(LAPTOP, '/reels/demo-strap');
  await tap(page, 'step-render');
  await page.waitForSelector(id('output-format-prores4444'));
  expect(await textOf(page, 'output-format-prores4444')).toContain('Transparent.');
  expect(await renderNow(page, 'h264', '540', '24')).toMatch(/all \d+ frames/);
  const frames = Number(/all (\d+) frames/.exec(await textOf(page, 'render-done'))![1]);
  await tap(page, 'render-download');
  const found = probe(await session.downloaded('.mp4'));
  expect([found.frames, found.codec]).toEqual([frames, 'h264']);
  // The server keeps nothing of it that it need not.
  expect(await page.evaluate(async () => (await fetch('/api/renders')).json())).toEqual([]);
  await page.close();
});
