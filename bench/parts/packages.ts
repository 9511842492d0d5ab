import { mkdirSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { addFile, emptyReel } from '@fresh-reel/core';
import type { ElementHandle, Page } from 'puppeteer-core';
import { pack, unpack } from '../../apps/server/src/cli/package';
import { choose, id, pause } from '../../e2e/support/browser';
import type { Part } from '../harness/bench';
import { took } from '../harness/figures';
import { copyAndHash, noiseSound } from '../harness/files';
import { inApp, LAPTOP } from '../harness/inApp';
import { memoryOf } from '../harness/memory';

/** A package of 500 MB, opened and written by the command line and in the app, against copying and hashing alone. */
export const packages: Part = async ({ browser, files, report }) => {
  const laid = join(files.folder, 'laid');
  mkdirSync(join(laid, 'media'), { recursive: true });
  const sound = noiseSound(join(files.folder, 'noise.wav'), 500_000_000);
  const media = `sha256:${sound.hash}`;
  const made = { id: 'large', name: 'Large', now: new Date().toISOString() };
  const empty = emptyReel({ ...made, frame: { width: 1920, height: 1080 }, rate: { num: 25, den: 1 } });
  const { reel } = addFile(empty, { kind: 'sound', media, name: 'noise.wav', duration: 20 }, 0);
  writeFileSync(join(laid, 'reel.json'), JSON.stringify(reel));
  const path = `media/${sound.hash}`;
  const listed = { id: media, path, name: 'noise.wav', type: 'audio/wav' };
  const contents = { format: 'freshreel/contents', version: 2, documents: [], media: [listed], fonts: [] };
  writeFileSync(join(laid, 'contents.json'), JSON.stringify(contents));
  const packed = join(files.folder, 'large.freshreel');
  const alone = await took(() => copyAndHash(sound.path, join(laid, path)));
  const before = process.memoryUsage.rss();
  const packing = await took(() => pack(laid, packed));
  const unpacking = await took(() => unpack(packed, join(files.folder, 'unpacked')));
  const grown = (process.memoryUsage.rss() - before) / 1e6;
  for (const [what, ms] of [
    ['pack', packing],
    ['unpack', unpacking],
  ] as const)
    report.row(`package-500mb-${what}`, alone / ms, 'of copying and hashing', 0.6);
  report.row('package-500mb-memory', grown, 'MB', 100);
  const app = await inApp(
    browser,
    '/reels',
    async (tab, go) => {
      await go();
      const bare = await bareCopy(tab, sound.path);
      await choose(tab, 'open-reel-file', packed);
      await tab.waitForSelector(id('open-take'));
      const start = memoryOf(browser);
      let most = start;
      const watching = setInterval(() => {
        most = Math.max(most, memoryOf(browser));
      }, 250);
      const opening = await took(async () => {
        await tab.click(id('open-take'));
        await tab.waitForSelector(id('step-render'), { timeout: 120_000 });
      });
      const opened = most - start;
      // With no reel open, so that nothing but the file is worked on.
      await tab.goto(`${new URL(tab.url()).origin}/shelf`);
      await tab.waitForSelector(id('save-everything'));
      await pause(3000);
      const rest = memoryOf(browser);
      most = rest;
      await tab.evaluate(() => {
        window.saved = new Promise<void>((resolve) => {
          HTMLAnchorElement.prototype.click = () => resolve();
        });
      });
      const saving = await took(async () => {
        await tab.click(id('save-everything'));
        await tab.evaluate(() => window.saved);
      });
      clearInterval(watching);
      report.say(
        `memory grows by ${opened.toFixed(0)} MB while it is opened, by ${(most - rest).toFixed(0)} MB while it is written`,
      );
      return { bare, opening, saving, grown: Math.max(opened, most - rest) };
    },
    LAPTOP,
  );
  for (const [what, ms] of [
    ['open', app.opening],
    ['save', app.saving],
  ] as const)
    report.row(`package-500mb-${what}-in-app`, app.bare / ms, 'of copying and hashing', 0.6);
  report.row('package-500mb-memory-in-app', app.grown, 'MB', 250);
};

/** Milliseconds in which a page copies a file to the disk that it has and hashes it, and does nothing else. */
async function bareCopy(tab: Page, path: string): Promise<number> {
  await tab.evaluate(() => {
    const field = Object.assign(document.createElement('input'), { type: 'file', id: 'bare' });
    document.body.append(field);
  });
  await ((await tab.$('#bare')) as ElementHandle<HTMLInputElement>).uploadFile(path);
  return tab.evaluate(async () => {
    const file = document.querySelector<HTMLInputElement>('#bare')!.files![0]!;
    const root = await navigator.storage.getDirectory();
    const begun = performance.now();
    const handle = await root.getFileHandle('bare', { create: true });
    const stream = await handle.createWritable();
    for (let at = 0; at < file.size; at += 786_432) {
      const piece = await file.slice(at, at + 786_432).arrayBuffer();
      await crypto.subtle.digest('SHA-256', piece);
      await stream.write(piece);
    }
    await stream.close();
    const took = performance.now() - begun;
    await root.removeEntry('bare');
    return took;
  });
}
