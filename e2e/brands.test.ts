import type { Page } from 'puppeteer-core';
import {
  fieldValue,
  fill,
  id,
  look,
  PHONE,
  pause,
  serve,
  tap,
  textOf,
  waitForChange,
  waitForText,
} from './support/browser';

const session = serve();

/** What an element looks like once nothing of it has changed for two seconds. */
async function atRest(page: Page, testID: string): Promise<string> {
  let last = await look(page, testID);
  for (let tries = 0, same = 0; tries < 60 && same < 4; tries++) {
    await pause(500);
    const now = await look(page, testID);
    same = now === last ? same + 1 : 0;
    last = now;
  }
  return last;
}

it('there is a brand for each client, one is worked with, and what was taken out comes back', async () => {
  const page = await session.page(PHONE, '/brand');
  await page.waitForSelector(id('brand-name'));
  expect(await page.$(id('which-brand'))).toBeNull();
  await tap(page, 'new-brand');
  await page.waitForFunction(
    (s) => document.querySelector<HTMLInputElement>(s)?.value === 'New brand',
    {},
    id('brand-name'),
  );
  await fill(page, 'brand-name', 'Marram Ferry');
  await waitForText(page, 'which-brand', /Marram Ferry[\s\S]*Thistledown|Thistledown[\s\S]*Marram Ferry/);
  await page.reload();
  await page.waitForSelector(id('brand-name'));
  expect(await fieldValue(page, 'brand-name')).toBe('Marram Ferry');

  // A title wears the one that is worked with.
  await page.goto(`${session.address}/reels/demo-strap`);
  await tap(page, 'step-adjust');
  await waitForText(page, 'wear-brand', /Marram Ferry/);
  await page.goto(`${session.address}/brand`);
  await tap(page, 'which-brand-main');
  await page.waitForFunction(
    (s) => document.querySelector<HTMLInputElement>(s)?.value === 'Thistledown Kite Weekend',
    {},
    id('brand-name'),
  );
  await tap(page, 'take-out-brand');
  await waitForText(page, 'toast', /taken out/);
  expect(await fieldValue(page, 'brand-name')).toBe('Marram Ferry');
  await tap(page, 'put-back-main');
  await page.waitForSelector(id('which-brand'));
  expect(await fieldValue(page, 'brand-name')).toBe('Thistledown Kite Weekend');
  await page.close();
});

it('templates wear it while it changes, in colours that go together, and a brand has templates of its own', async () => {
  // On a phone they stand still, so that what is seen tells what they wear.
  const page = await session.page(PHONE, '/brand');
  await page.waitForSelector(`${id('brand-worn')} canvas`);
  const worn = await atRest(page, 'brand-worn');
  await tap(page, 'harmonies');
  const before = await textOf(page, 'brand-second');
  await tap(page, 'harmony-opposite');
  expect(await textOf(page, 'brand-second')).not.toBe(before);
  await waitForChange(page, 'brand-worn', worn);
  await tap(page, 'undo');
  expect(await textOf(page, 'brand-second')).toBe(before);
  expect(await atRest(page, 'brand-worn')).toBe(worn);

  await page.goto(`${session.address}/templates/quote-card`);
  await tap(page, 'of-brand');
  await page.goto(`${session.address}/brand`);
  await waitForText(page, 'brand-worn', /^Quote card/);
  await page.goto(`${session.address}/templates`);
  await tap(page, 'use-brand');
  await page.waitForSelector(id('template-card-quote-card'));
  expect(await page.$$eval('[data-testid^="template-card-"]', (all) => all.length)).toBe(4);
  await page.close();
});
