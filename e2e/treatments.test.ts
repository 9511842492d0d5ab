import type { Page } from 'puppeteer-core';
import { choose, fill, id, LAPTOP, PHONE, quiet, serve, tap, waitForText } from './support/browser';
import { ffmpeg, folder } from './support/clips';
import { goTo } from './support/place';
import { asFile, frameOf } from './support/probe';

const session = serve();

/** Half a second of one grey, a bar of white in it. */
function greyClip(): string {
  const path = `${folder}/grey.mp4`;
  const picture = 'color=c=0x969696:s=320x180:r=25:d=2,drawbox=x=200:y=60:w=60:h=60:c=white:t=fill';
  ffmpeg(['-f', 'lavfi', '-i', picture, '-c:v', 'libx264', '-pix_fmt', 'yuv420p', '-y', path]);
  return path;
}

/** The grey of the rendered clip at a second, at its left middle. */
function greyAt(path: string, second: number): number {
  const { data, width, height } = frameOf(path, second, false);
  return data[(Math.floor(height / 2) * width + Math.floor(width / 4)) * 4]!;
}

/** Renders the reel small, and takes the file. */
async function rendered(page: Page, count: number): Promise<string> {
  await tap(page, 'step-render');
  await tap(page, 'output-format-mp4');
  await tap(page, 'output-size-270');
  await tap(page, 'render-start');
  await page.waitForFunction(
    (s: string, n: number) => document.querySelectorAll(s).length === n,
    { timeout: 120_000 },
    id('render-download'),
    count,
  );
  // The newest stands first.
  await page.click(id('render-download'));
  return asFile(await session.take('.mp4'), 'treated.mp4');
}

const press = async (page: Page, testID: string, key: 'Enter') => {
  await page.focus(id(testID));
  await page.keyboard.press(key);
  await quiet(page);
};

it('an item is treated: off and on, in order, over time, in the render, and back by undo', async () => {
  const page = await session.page(LAPTOP, '/shelf');
  await page.waitForSelector(id('shelf-add'));
  await choose(page, 'shelf-add', greyClip());
  await page.waitForSelector(id('media-grey.mp4'));
  await tap(page, 'shelf-new-reel');
  const card = `[data-testid="new-reel-sheet"] ${id('media-grey.mp4')}`;
  await page.waitForSelector(card);
  await page.click(card);
  await tap(page, 'new-reel-make');
  await page.waitForSelector(id('item-clip'));
  await tap(page, 'row-clip');
  for (const kind of ['contrast', 'brightness']) {
    await tap(page, 'add-treatment');
    await tap(page, `treatment-kind-${kind}`);
  }
  await fill(page, 'treatment-contrast-amount', '200');
  await fill(page, 'treatment-brightness-amount', '50');
  // 150 by contrast of 2 is 172, and half of it 86; the other way round 75 is 22.
  const order = () =>
    page.$$eval('[data-testid^="treatment-on-"]', (rows) =>
      rows.map((r) => (r as HTMLElement).dataset.testid),
    );
  expect(await order()).toEqual(['treatment-on-contrast', 'treatment-on-brightness']);
  await tap(page, 'treatment-later-contrast');
  expect(await order()).toEqual(['treatment-on-brightness', 'treatment-on-contrast']);
  await press(page, 'undo', 'Enter');
  expect(await order()).toEqual(['treatment-on-contrast', 'treatment-on-brightness']);
  // Brightness goes from a half to all of it, over a second.
  await goTo(page, 0);
  await tap(page, 'over-time-brightness-amount');
  await page.waitForSelector(id('key-strip'));
  await goTo(page, 25);
  await fill(page, 'treatment-brightness-amount', '100');
  await page.keyboard.press('Enter');
  await waitForText(page, 'key-strip', /Brightness: 1\.00/);
  const path = await rendered(page, 1);
  expect(Math.abs(greyAt(path, 0.02) - 86)).toBeLessThan(6);
  expect(Math.abs(greyAt(path, 1.5) - 172)).toBeLessThan(6);
  await tap(page, 'step-place');
  await tap(page, 'treatment-on-contrast');
  await page.waitForSelector(id('treatment-contrast-amount'), { hidden: true });
  const plain = await rendered(page, 2);
  expect(Math.abs(greyAt(plain, 1.5) - 150)).toBeLessThan(5);
  await page.close();
});

it('what a template has put on a slot is named on a phone, can be switched off, and others added', async () => {
  const page = await session.page(PHONE, '/templates/ghost-sting');
  await tap(page, 'use-template');
  await tap(page, 'show-logo');
  await page.waitForSelector(id('treatments'));
  const named = await page.$$eval('[data-testid^="template-effect-"]', (rows) =>
    rows.map((r) => r.textContent),
  );
  expect(named.length).toBe(3);
  expect(named.every((n) => /^Blur of the template, on “.+”$/.test(n ?? ''))).toBe(true);
  const first = await page.$eval(
    '[data-testid^="template-effect-"]',
    (e) => (e as HTMLElement).dataset.testid!,
  );
  await tap(page, first);
  await page.waitForSelector(`${id(first)}[aria-checked="false"]`);
  await tap(page, 'add-treatment');
  await tap(page, 'treatment-kind-saturation');
  await page.waitForSelector(id('treatment-saturation-amount'));
  await tap(page, 'undo');
  await page.waitForSelector(id('treatment-saturation'), { hidden: true });
  await tap(page, 'undo');
  await page.waitForSelector(`${id(first)}[aria-checked="true"]`);
  await page.close();
});
