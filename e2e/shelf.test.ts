import { execFileSync } from 'node:child_process';
import { mkdtempSync, readdirSync, readFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { Page } from 'puppeteer-core';
import { choose, id, LAPTOP, PHONE, saved, serve, takeIn, tap, textOf, waitForText } from './support/browser';
import { noise } from './support/clips';
import { storedKeys } from './support/entries';
import { asFile } from './support/probe';
import { reelFileOf } from './support/zip';

const shared = (name: string) => join(__dirname, '../packages/templates/src/shared', name);

const session = serve({ demoShelf: true });

/**
 * Run in a worker: its storage is full after so many writes, and says so as browsers do (a QuotaExceededError, Indexed
 * Database API 3.0; its words from memory). The quota that can be set from outside does not bind this Chromium's database.
 */
function fillsUp(writes: number): void {
  const put = IDBObjectStore.prototype.put;
  let done = 0;
  IDBObjectStore.prototype.put = function (...args) {
    if (++done > writes)
      throw new DOMException('The current transaction exceeded its quota limitations.', 'QuotaExceededError');
    return put.apply(this, args);
  };
}

/** Gives a file to the page as a drop on an element, or as a paste. */
async function hand(page: Page, how: 'drop' | 'paste', path: string, testID?: string): Promise<void> {
  await page.evaluate(
    (event: string, base64: string, name: string, selector: string) => {
      const bytes = Uint8Array.from(atob(base64), (c) => c.charCodeAt(0));
      const data = new DataTransfer();
      data.items.add(new File([bytes], name));
      const target = document.querySelector(selector)!;
      const init = { bubbles: true, cancelable: true };
      if (event === 'paste') {
        target.dispatchEvent(new ClipboardEvent('paste', { ...init, clipboardData: data }));
        return;
      }
      for (const type of ['dragover', 'drop'])
        target.dispatchEvent(new DragEvent(type, { ...init, dataTransfer: data }));
    },
    how,
    readFileSync(path).toString('base64'),
    path.split('/').at(-1)!,
    testID ? id(testID) : 'body',
  );
}

it('the first start puts the demo’s files on the shelf, in groups, each kind as what it is', async () => {
  const page = await session.page(PHONE, '/shelf');
  for (const name of ['festival-logo.svg', 'radio-logo.svg', 'kites-crossing.mp4', 'bed.ogg', 'dusk.jpg'])
    await page.waitForSelector(id(`media-${name}`));
  await tap(page, 'shelf-group-Logos');
  await page.waitForSelector(id('media-dusk.jpg'), { hidden: true });
  expect(await textOf(page, 'media-festival-logo.svg')).toMatch(/transparent/);
  // Each with its small picture, though it was looked at while it came.
  for (const name of ['festival', 'bakery', 'rope', 'radio'])
    await page.waitForSelector(`${id(`media-${name}-logo.svg`)} img`);
  await page.close();
});

it('files come in dropped and pasted, and the camera’s picture too', async () => {
  const page = await session.page(PHONE, '/shelf');
  await page.waitForSelector(id('media-festival-logo.svg'));
  await hand(page, 'drop', shared('tails.jpg'), 'media-festival-logo.svg');
  await page.waitForSelector(id('media-tails.jpg'));
  await hand(page, 'paste', shared('spool.jpg'));
  await page.waitForSelector(id('media-spool.jpg'));
  await choose(page, 'shelf-camera', shared('path.jpg'));
  await page.waitForSelector(id('media-path.jpg'));
  await page.close();
});

it('storage that fills half way says so and what could go; nothing stays of the file, nothing else is harmed', async () => {
  const page = await session.page(LAPTOP, '/shelf');
  await page.waitForSelector(id('media-festival-logo.svg'));
  const big = noise('endless.wav', 30_000_000);
  const before = await storedKeys(page);
  page.once('workercreated', (worker) => void worker.evaluate(fillsUp, 20));
  await choose(page, 'shelf-add', big);
  const said = await waitForText(page, 'import-fault', /no more room/);
  expect(said).toMatch(/Take files off the Shelf that no reel shows, delete a reel/);
  await page.waitForSelector(id('import-progress'), { hidden: true });
  const kept = (keys: readonly string[]) => keys.filter((k) => !/^(thumb|wave)\//.test(k)).sort();
  expect(kept(await storedKeys(page))).toEqual(kept(before));
  // As soon as there is room, it can be taken in.
  await choose(page, 'shelf-add', big);
  await page.waitForSelector(id('media-endless.wav'), { timeout: 60_000 });
  await page.close();
});

it('a reel file takes the user’s pictures, clips and sounds along', async () => {
  const page = await session.page(LAPTOP, '/reels/demo-opener');
  for (const [slot, name] of [
    ['bed', 'bed.ogg'],
    ['photo-1', 'hand-and-line.mp4'],
  ] as const) {
    await tap(page, `show-${slot}`);
    await tap(page, `shelf-${slot}`);
    await page.waitForSelector(id('shelf-sheet'));
    await tap(page, `media-${name}`);
    await page.waitForSelector(id(`reset-slot-${slot}`));
  }
  // What is hidden goes along too.
  await tap(page, 'hide-photo-1');
  await saved(page);
  await tap(page, 'step-render');
  await tap(page, 'save-reel-file');
  const bytes = await session.take('.freshreel');
  const { media } = await reelFileOf(bytes);
  expect(media.map((e) => e.name).sort()).toEqual([
    'bed.ogg',
    'hand-and-line.mp4',
    // Put in its slot when the demo was made.
    'kites-crossing.mp4',
  ]);
  for (const { name, bytes: held } of media)
    expect(Buffer.from(held).equals(readFileSync(shared(name)))).toBe(true);
  // It opens again, and on the command line.
  const path = asFile(bytes, 'opener.freshreel');
  await page.goto(`${session.address}/reels`);
  await takeIn(page, 'open-reel-file', path);
  await page.waitForSelector(id('step-fill'));
  expect(page.url()).not.toContain('demo-opener');
  const frames = mkdtempSync(join(tmpdir(), 'fresh-reel-opened-'));
  const cli = join(__dirname, '../apps/server/bin/fresh-reel.mjs');
  execFileSync('node', [cli, 'render', path, '--out', frames, '--size', '160x90', '--frames', '0-1']);
  expect(readdirSync(frames).filter((f) => f.endsWith('.png'))).toHaveLength(2);
  await page.close();
});

it('nothing on the pages complained', () => expect(session.faults).toEqual([]));
