import { PNG } from 'pngjs';
import type { Page } from 'puppeteer-core';
import { choose, id, LAPTOP, renderNow, serve, tap, until } from './support/browser';
import { numberedClip, numberIn, numbersIn } from './support/clips';
import { goTo } from './support/place';

const session = serve();

/** A key frame at its start alone: going through it is as slow as it gets. */
const HD = ['-vf', 'scale=1280:720:flags=neighbor', '-c:v', 'libx264', '-pix_fmt', 'yuv420p', '-g', '999'];

/** Number of the frame that the preview shows. */
async function shown(page: Page): Promise<number> {
  const canvas = (await page.$(`${id('preview')} canvas`))!;
  // Of the page as it stands: a picture of an element alone lays the page out anew, and the preview is painted again.
  const clip = (await canvas.boundingBox())!;
  return numberIn(PNG.sync.read(Buffer.from(await page.screenshot({ clip, captureBeyondViewport: false }))));
}

/** Keys of the app's storage that start so. */
const keysWith = (page: Page, prefix: string) =>
  page.evaluate(async (start: string) => {
    const found: string[] = [];
    for (const { name } of await indexedDB.databases()) {
      const db = await new Promise<IDBDatabase>((resolve, reject) => {
        const open = indexedDB.open(name!);
        open.onsuccess = () => resolve(open.result);
        open.onerror = () => reject(open.error);
      });
      for (const store of db.objectStoreNames) {
        const keys = await new Promise<IDBValidKey[]>((resolve) => {
          const all = db.transaction(store).objectStore(store).getAllKeys();
          all.onsuccess = () => resolve(all.result);
        });
        found.push(...keys.map(String).filter((key) => key.startsWith(start)));
      }
      db.close();
    }
    return found;
  }, prefix);

it('a large clip gets a proxy: its frames are those of the clip, before and after, and the render is of the clip', async () => {
  const page = await session.page(LAPTOP, '/shelf');
  await page.waitForSelector(id('shelf-add'));
  await choose(page, 'shelf-add', numberedClip('large.mp4', 100, '25', HD));
  await page.waitForSelector(id('media-large.mp4'));
  await tap(page, 'shelf-new-reel');
  const card = `[data-testid="new-reel-sheet"] ${id('media-large.mp4')}`;
  await page.waitForSelector(card);
  await page.click(card);
  await tap(page, 'new-reel-make');
  await page.waitForSelector(id('item-clip'));
  expect(await shown(page)).toBe(0);
  await until(async () => (await keysWith(page, 'proxy/')).length > 0, 'A working copy is made');
  await page.waitForFunction((s: string) => !document.querySelector(s), {}, id('proxy-making'));
  for (const frame of [99, 0, 31, 30, 76]) {
    await goTo(page, frame);
    expect(await shown(page)).toBe(frame);
  }
  await renderNow(page, 'mp4', '720');
  await tap(page, 'render-download');
  expect(numbersIn(await session.downloaded('.mp4'))).toEqual(Array.from({ length: 100 }, (_, i) => i));
  await page.close();
});
