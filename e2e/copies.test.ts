import { spawnSync } from 'node:child_process';
import { readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import type { Page } from 'puppeteer-core';
import { choose, id, LAPTOP, PHONE, serve, takeIn, tap, waitForText } from './support/browser';
import { ffmpeg, folder, numberedClip, numbersIn } from './support/clips';

const session = serve();

const HEVC = ['-c:v', 'libx265', '-x265-params', 'log-level=none', '-pix_fmt', 'yuv420p10le', '-crf', '12'];

async function shelf(view: typeof LAPTOP): Promise<Page> {
  const page = await session.page(view, '/shelf');
  await page.waitForSelector(id('shelf-add'));
  return page;
}

it('footage that the browser does not play comes in as a working copy, on a phone, and renders frame for frame', async () => {
  const clip = numberedClip('phone.mov', 40, '30000/1001', [...HEVC, '-tag:v', 'hvc1']);
  const page = await shelf(PHONE);
  await choose(page, 'shelf-add', clip);
  await waitForText(page, 'copy-question', /does not play H\.265.*working copy of it, about [\d.]+ [kM]B/);
  await tap(page, 'copy-leave');
  await page.waitForSelector(id('copy-question'), { hidden: true });
  expect(await page.$(id('media-phone.mov'))).toBeNull();
  await choose(page, 'shelf-add', clip);
  await tap(page, 'copy-make');
  await page.waitForSelector(id('media-phone.mov'));
  // The same file again is known by its own hash.
  await choose(page, 'shelf-add', clip);
  await waitForText(page, 'toast', /already/);
  await tap(page, 'media-phone.mov');
  await waitForText(page, 'media-sheet', /320 × 180.*H\.265, played from a working copy/);
  await page.keyboard.press('Escape');
  await tap(page, 'shelf-new-reel');
  const card = `[data-testid="new-reel-sheet"] ${id('media-phone.mov')}`;
  await page.waitForSelector(card);
  await page.click(card);
  await waitForText(page, 'new-reel-facts', /29\.97/);
  await tap(page, 'new-reel-make');
  await page.waitForSelector(id('item-clip'));
  await tap(page, 'step-render');
  await tap(page, 'output-format-mp4');
  await tap(page, 'output-size-270');
  await tap(page, 'render-start');
  await page.waitForSelector(id('render-download'), { timeout: 120_000 });
  await tap(page, 'render-download');
  expect(numbersIn(await session.downloaded('.mp4'))).toEqual(Array.from({ length: 40 }, (_, n) => n));
  await session.take('.mp4');
  // On the command line the original is rendered, where it lies beside the reel file.
  await page.focus(id('save-reel-file'));
  await page.keyboard.press('Enter');
  const reel = join(folder, 'copied.freshreel');
  writeFileSync(reel, await session.take('.freshreel'));
  const bin = join(__dirname, '../apps/server/bin/fresh-reel.mjs');
  const run = (out: string, ...more: string[]) =>
    spawnSync(
      'node',
      [bin, 'render', reel, '--out', join(folder, out), '--frames', '0', '--size', '320x180', ...more],
      {
        encoding: 'utf8',
      },
    );
  expect(run('with')).toMatchObject({ status: 0, stderr: '' });
  const without = run('without', '--originals', session.downloads);
  expect([without.status, without.stderr]).toEqual([
    0,
    expect.stringMatching(/"phone\.mov" is rendered from its working copy/),
  ]);
  await page.close();
});

it('an AVI and interlaced footage come through the server, and what was done is said', async () => {
  const avi = numberedClip('camera.avi', 20, '25', ['-c:v', 'mpeg4', '-q:v', '2']);
  const fields = join(folder, 'fields.mp4');
  const made = ['-f', 'lavfi', '-i', 'testsrc2=s=320x192:r=50:d=1', '-vf', 'interlace'];
  ffmpeg([...made, '-c:v', 'libx264', '-pix_fmt', 'yuv420p', '-flags', '+ildct+ilme', '-r', '25', fields]);
  const page = await shelf(LAPTOP);
  await choose(page, 'shelf-add', avi);
  await waitForText(page, 'copy-question', /does not play an AVI/);
  await tap(page, 'copy-make');
  await page.waitForSelector(id('media-camera.avi'));
  await choose(page, 'shelf-add', fields);
  await waitForText(page, 'copy-question', /may be interlaced/);
  await tap(page, 'copy-make');
  await page.waitForSelector(id('media-fields.mp4'));
  await waitForText(page, 'import-said', /was interlaced, and is deinterlaced/);
  await page.close();
});

it('an interlaced clip that was taken as it is goes along in a reel file, which opens without asking', async () => {
  const page = await shelf(LAPTOP);
  const fields = join(folder, 'plain.mp4');
  const made = ['-f', 'lavfi', '-i', 'testsrc=s=320x192:r=50:d=1', '-vf', 'interlace'];
  ffmpeg([...made, '-c:v', 'libx264', '-pix_fmt', 'yuv420p', '-flags', '+ildct+ilme', '-r', '25', fields]);
  await choose(page, 'shelf-add', fields);
  await tap(page, 'copy-plain');
  await page.waitForSelector(id('media-plain.mp4'));
  await waitForText(page, 'import-said', /combs show/);
  await tap(page, 'shelf-new-reel');
  const card = `[data-testid="new-reel-sheet"] ${id('media-plain.mp4')}`;
  await page.waitForSelector(card);
  await page.click(card);
  await tap(page, 'new-reel-make');
  await page.waitForSelector(id('item-clip'));
  await tap(page, 'step-render');
  await page.focus(id('save-reel-file'));
  await page.keyboard.press('Enter');
  const reel = join(folder, 'plain.freshreel');
  writeFileSync(reel, await session.take('.freshreel'));
  const before = page.url();
  await page.goto(`${session.address}/reels`);
  await takeIn(page, 'open-reel-file', reel);
  await page.waitForSelector(id('step-place'));
  expect(page.url()).not.toBe(before);
  await page.close();
});

it('a copy that is stopped leaves nothing; what is no clip is refused in words', async () => {
  const long = join(folder, 'long.mov');
  ffmpeg(['-f', 'lavfi', '-i', 'testsrc2=s=854x480:r=25:d=10', ...HEVC, '-preset', 'ultrafast', long]);
  const page = await shelf(LAPTOP);
  await choose(page, 'shelf-add', long);
  await tap(page, 'copy-make');
  await waitForText(page, 'import-progress', /Making a working copy/);
  await tap(page, 'import-cancel');
  await page.waitForSelector(id('import-progress'), { hidden: true });
  expect(await page.$(id('media-long.mov'))).toBeNull();
  // Cut off before its frames are told of: the server cannot read it either.
  const cut = join(folder, 'cut.avi');
  writeFileSync(cut, readFileSync(join(folder, 'camera.avi')).subarray(0, 600));
  await choose(page, 'shelf-add', cut);
  await tap(page, 'copy-make');
  await waitForText(page, 'import-fault', /"cut\.avi" cannot be used/);
  // The browser notes the refusal too.
  expect(session.faults.splice(0)).toEqual([expect.stringMatching(/422/)]);
  await page.close();
});

it('without a server it is said what to do instead', async () => {
  // As a host of plain files answers what it does not know.
  const page = await session.page(LAPTOP, '/shelf', async (opened) => {
    await opened.evaluateOnNewDocument(() => {
      const { fetch } = window;
      window.fetch = (what, how) => {
        const { pathname } = new URL(what instanceof Request ? what.url : what, location.href);
        return pathname === '/api/footage'
          ? Promise.resolve(new Response('<p>Not here.</p>', { headers: { 'content-type': 'text/html' } }))
          : fetch(what, how);
      };
    });
  });
  await choose(page, 'shelf-add', join(folder, 'phone.mov'));
  await waitForText(page, 'import-fault', /This browser cannot play H\.265.*Convert it to H\.264 in MP4/);
  await page.close();
});
