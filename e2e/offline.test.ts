/** The app without a network, and when a newer one is there. */

import { appendFileSync, cpSync, mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { Page } from 'puppeteer-core';
import { createApp } from '../apps/server/src/app';
import { STUDIO } from '../apps/server/src/built';
import { id, LAPTOP, PHONE, renderNow, serve, tap, until, waitForText } from './support/browser';
import { kept } from './support/files';

jest.setTimeout(600_000);
const session = serve({ offline: true });

/** Removes the one render there is, on its page. */
async function removeRender(page: Page): Promise<void> {
  await page.waitForSelector(id('render-done'));
  await page.click('[aria-label^="Remove "]');
  await page.waitForSelector(id('render-done'), { hidden: true });
}

it('can be installed: a manifest with icons, and a service worker that is in place', async () => {
  const page = await session.page(PHONE, '/templates');
  const manifest = await page.evaluate(async () => {
    const link = document.querySelector<HTMLLinkElement>('link[rel=manifest]')!;
    const reply = await fetch(link.href);
    const told = (await reply.json()) as { display: string; icons: { src: string; sizes: string }[] };
    const sizes = await Promise.all(
      told.icons.map(async ({ src, sizes: wanted }) => {
        const { width, height } = await createImageBitmap(await (await fetch(src)).blob());
        return `${width}x${height}` === wanted;
      }),
    );
    return { type: reply.headers.get('content-type'), display: told.display, sizes };
  });
  expect(manifest.type).toContain('application/manifest+json');
  expect(manifest).toMatchObject({ display: 'standalone', sizes: [true, true, true] });
  await page.waitForFunction(() => navigator.serviceWorker.controller !== null, { timeout: 120_000 });
  await page.close();
});

it('tells that a render is done to an editor who looks at something else, when that is asked for and allowed', async () => {
  await session.browser.defaultBrowserContext().overridePermissions(session.address, ['notifications']);
  const page = await session.page(LAPTOP, '/reels/demo-opener');
  await page.waitForFunction(() => navigator.serviceWorker.controller !== null, { timeout: 120_000 });
  const told = () =>
    page.evaluate(async () => {
      const shown = await (await navigator.serviceWorker.ready).getNotifications();
      return shown.map(({ title, body }) => [title, body]);
    });
  // It is asked for while something renders.
  await tap(page, 'step-render');
  await tap(page, 'output-format-webm');
  await tap(page, 'output-size-540');
  await page.waitForSelector(`${id('render-start')}:not([aria-disabled="true"])`);
  await tap(page, 'render-start');
  await page.waitForFunction(() => /Frame \d+ of/.test(document.body.textContent ?? ''));
  await page.goto(`${session.address}/renders`);
  await tap(page, 'notices');
  await page.waitForSelector(`${id('notices')}[aria-checked="true"]`);
  const other = await session.browser.newPage();
  await other.bringToFront();
  expect(await page.evaluate(() => document.visibilityState)).toBe('hidden');
  await until(async () => (await told()).length > 0, 'It is told');
  expect(await told()).toEqual([['Fresh Reel', expect.stringMatching(/done|ready|rendered/)]]);
  await other.close();
  await removeRender(page);
  await page.close();
});

it('opens, shows and renders without a network, and says when a newer version is there', async () => {
  const port = Number(new URL(session.address).port);
  // What was opened once is there again: its fonts and media were kept when they were used.
  const before = await session.page(LAPTOP, '/reels/demo-sting');
  await waitForText(before, 'timecode', /00:00:0/);
  await before.waitForFunction(
    async () => {
      const used = (await (await caches.open('used-files')).keys()).map(({ url }) => url);
      return ['/fonts/Fraunces', 'festival-logo.svg'].every((file) => used.some((url) => url.includes(file)));
    },
    { polling: 200 },
  );
  // And nothing more comes.
  await before.evaluate(async () => {
    const used = async () => (await (await caches.open('used-files')).keys()).length;
    for (let now = await used(), same = 0; same < 20; ) {
      await new Promise((resolve) => setTimeout(resolve, 200));
      const next = await used();
      same = next === now ? same + 1 : 0;
      now = next;
    }
  });
  await before.close();
  await session.app.close();
  const page = await session.page(LAPTOP, '/templates');
  await page.waitForSelector('[data-testid^="template-card-"]');
  await page.goto(`${session.address}/reels/demo-sting`);
  expect(await renderNow(page, 'png', '270')).toContain('1 frame');
  const without = await kept(page, 'renders');
  expect(without).toHaveLength(1);
  // A card that moves asks for fonts that were never used, and so are not here.
  const gone = session.faults.splice(0);
  expect(gone.filter((fault) => !/ERR_FAILED \S+\/fonts\//.test(fault))).toEqual([]);

  // With a network again: the picture is the same, so nothing that it needs was missing.
  const folder = mkdtempSync(join(tmpdir(), 'fresh-reel-newer-'));
  cpSync(STUDIO, folder, { recursive: true });
  appendFileSync(`${folder}/sw.js`, '\n// a newer one');
  rmSync(`${folder}/sw.js.br`, { force: true });
  session.app = createApp(folder);
  await session.app.listen({ port, host: '127.0.0.1' });
  await page.goto(`${session.address}/renders`);
  await removeRender(page);
  await page.goto(`${session.address}/reels/demo-sting`);
  await renderNow(page, 'png', '270');
  expect(await kept(page, 'renders')).toEqual(without);

  await page.goto(`${session.address}/reels`);
  await page.waitForSelector(id('newer'), { timeout: 120_000 });
  await tap(page, 'open-newer');
  // The newer version lays out what it keeps, and the page comes back in it: seconds, and more on a busy machine.
  await page.waitForSelector(id('newer'), { hidden: true, timeout: 120_000 });
  const running = await page.evaluate(async () => {
    const registration = await navigator.serviceWorker.ready;
    return [registration.waiting === null, (await caches.keys()).some((name) => name.includes('precache'))];
  });
  expect(running).toEqual([true, true]);
  expect(readFileSync(`${folder}/sw.js`, 'utf8')).toContain('a newer one');
  rmSync(folder, { recursive: true, force: true });
});
