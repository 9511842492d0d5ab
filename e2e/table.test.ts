/** What the Render step tells before the start, and a reel that is filled by a table. */

import { writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { PDFDocument } from 'pdf-lib';
import { PNG } from 'pngjs';
import {
  choose,
  fill,
  id,
  LAPTOP,
  PHONE,
  renderNow,
  serve,
  tap,
  textOf,
  waitForText,
} from './support/browser';
import { folder, numberedClip } from './support/clips';
import { probe } from './support/probe';
import { clipReel, openReel } from './support/slotReel';

jest.setTimeout(600_000);
const session = serve();

it('every frame is looked at and all of it is heard; the level is put right in one touch', async () => {
  const page = await session.page(PHONE, '/reels/demo-sting');
  await tap(page, 'step-render');
  await waitForText(page, 'survey', /Every frame was looked at/);
  await tap(page, 'output-loudness--14');
  expect(await waitForText(page, 'check-loudness', /-14 is wanted/)).toContain('The sound');
  await tap(page, 'mend-loudness');
  await page.waitForSelector(id('check-loudness'), { hidden: true });
  await waitForText(page, 'loudness', /It is -1[345]\.\d LUFS/);
  await page.waitForSelector(`${id('loudness-chart')} svg`);
  await page.close();
});

it('a contact sheet shows each title to a client, on paper and as a picture', async () => {
  const page = await session.page(LAPTOP, '/reels/demo-strap');
  await tap(page, 'step-render');
  await tap(page, 'save-sheet-png');
  const png = PNG.sync.read(await session.take('.png'));
  // A4 on its side at 150 pixels to an inch, white at its edge, a picture and words on it.
  expect([png.width, png.height, ...png.data.subarray(0, 3)]).toEqual([1754, 1241, 255, 255, 255]);
  const dark = png.data.filter((v, i) => i % 4 === 0 && v < 90).length;
  expect(dark).toBeGreaterThan(20_000);
  await page.waitForSelector(`${id('save-sheet-pdf')}:not([aria-disabled="true"])`);
  await tap(page, 'save-sheet-pdf');
  const pdf = await PDFDocument.load(await session.take('.pdf'));
  expect(pdf.getPages().map((p) => [Math.round(p.getWidth()), Math.round(p.getHeight())])).toEqual([
    [842, 595],
  ]);
  await page.close();
});

it('tells what the time goes to, and a draft is half as large, plain, and named so', async () => {
  const page = await session.page(LAPTOP, '/reels');
  const clip = numberedClip('drafted.mp4', 12, '25', []);
  await openReel(session, page, {
    ...clipReel(clip, { num: 25, den: 1 }, 12),
    motionBlur: { samples: 4, shutter: 0.5 },
  });
  await tap(page, 'step-render');
  await tap(page, 'output-format-mp4');
  await tap(page, 'output-size-1080');
  await waitForText(page, 'render-estimate', /measured on some/);
  await tap(page, 'cost-measure');
  await page.waitForSelector(`${id('cost-chart')} svg`, { timeout: 120_000 });
  await waitForText(page, 'cost-note', /Each was measured/);
  await tap(page, 'cost-switch-blur');
  await waitForText(page, 'cost-note', /before the last change/);
  await tap(page, 'output-draft-draft');
  expect(await renderNow(page, 'mp4', '1080')).toContain('all 12 frames');
  await tap(page, 'render-download');
  const file = await session.downloaded('.mp4');
  expect(file).toMatch(/draft-[^/]*\.mp4$/);
  expect(probe(file)).toMatchObject({ frames: 12, width: 960, height: 540 });
  await session.take('.mp4');
  // It is remembered with the reel.
  await page.reload();
  await tap(page, 'step-render');
  await page.waitForSelector(`${id('output-draft-draft')}[aria-checked="true"]`);
  await page.waitForSelector(id('render-done'));
  // AV1, which this Chromium writes.
  await page.click('[aria-label^="Remove "]');
  await page.waitForSelector(id('render-done'), { hidden: true });
  expect(await renderNow(page, 'mp4-av1', '540')).toContain('all 12 frames');
  await tap(page, 'render-download');
  expect(probe(await session.downloaded('.mp4'))).toMatchObject({ frames: 12, codec: 'av1' });
  await page.close();
});

it('a table fills a reel: matched by name, put right by hand, rendered, placed at its times, and taken back', async () => {
  const page = await session.page(PHONE, '/reels/demo-strap');
  await tap(page, 'step-render');
  await tap(page, 'output-format-png-sequence');
  await tap(page, 'output-size-540');
  await tap(page, 'table-begin');
  const people = join(folder, 'people.csv');
  writeFileSync(people, 'At;Name;What they do;Badge\n0:07;Ida Brandvik;Pilot;\n0:20;Åse;Judge;gone.png\n');
  await choose(page, 'table-open', people);
  expect(await waitForText(page, 'table-said', '2 rows')).toContain('people.csv');
  expect(await textOf(page, 'column-1')).toContain('When it begins');
  expect(await textOf(page, 'column-3')).toContain('nothing');
  await tap(page, 'column-3');
  const [role] = await page.$$eval('[data-testid^="use-"][data-testid$="/slot/role"]', (found) =>
    found.map((e) => e.getAttribute('data-testid')!),
  );
  await tap(page, role!);
  await waitForText(page, 'table-missing', 'gone.png');
  await waitForText(page, 'row-fault-2', 'not on the Shelf');
  // What is wrong is left out, or is brought.
  await page.waitForSelector(`${id('rows-render')}[aria-disabled="true"]`);
  await tap(page, 'row-2');
  await waitForText(page, 'rows-chosen', '1 of 2');
  await tap(page, 'rows-also-tall');
  await waitForText(page, 'rows-render', 'Render 2 files');
  await tap(page, 'rows-render');
  await page.waitForFunction(() => /ida-brandvik[\s\S]*ida-brandvik/.test(document.body.textContent ?? ''));
  for (let left = 2; left > 0; left--) {
    await tap(page, 'render-cancel');
    await page.waitForFunction(
      (n: number) => document.querySelectorAll('[data-testid="render-cancel"]').length < n,
      {},
      left,
    );
  }

  // Words with times, as another tool wrote them.
  await tap(page, 'table-begin');
  await fill(
    page,
    'table-paste',
    'WEBVTT\n\n00:07.000 --> 00:12.000\nIda\n\n00:20.000 --> 00:24.000\nBram\n',
  );
  await tap(page, 'table-read');
  await tap(page, 'column-3');
  const [name] = await page.$$eval('[data-testid^="use-"][data-testid$="/slot/name"]', (found) =>
    found.map((e) => e.getAttribute('data-testid')!),
  );
  await tap(page, name!);
  await tap(page, 'rows-place');
  await waitForText(page, 'toast', /2 titles are in the reel/);
  await tap(page, 'step-place');
  await page.waitForFunction(() => /Ida[\s\S]*Bram/.test(document.body.textContent ?? ''));
  await tap(page, 'undo');
  await page.waitForFunction(() => !/Bram/.test(document.body.textContent ?? ''));
  await page.close();
});
