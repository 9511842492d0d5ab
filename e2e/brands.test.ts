import {
  choose,
  fieldValue,
  fill,
  id,
  LAPTOP,
  lookAtRest,
  PHONE,
  serve,
  tap,
  textOf,
  waitForChange,
  waitForText,
  waitForValue,
} from './support/browser';
import { noise } from './support/clips';

const session = serve();

it('there is a brand for each client, one is worked with, and what was taken out comes back', async () => {
  const page = await session.page(PHONE, '/brand');
  await page.waitForSelector(id('brand-name'));
  expect(await page.$(id('which-brand'))).toBeNull();
  await tap(page, 'new-brand');
  await waitForValue(page, 'brand-name', 'New brand');
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
  await waitForValue(page, 'brand-name', 'Thistledown Kite Weekend');
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
  const worn = await lookAtRest(page, 'brand-worn');
  await tap(page, 'harmonies');
  const before = await textOf(page, 'brand-second');
  await tap(page, 'harmony-opposite');
  expect(await textOf(page, 'brand-second')).not.toBe(before);
  await waitForChange(page, 'brand-worn', worn);
  await tap(page, 'undo');
  expect(await textOf(page, 'brand-second')).toBe(before);
  expect(await lookAtRest(page, 'brand-worn')).toBe(worn);

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

it('a brand has sounds, which a title that wears it is heard with', async () => {
  const page = await session.page(LAPTOP, '/brand');
  await waitForText(page, 'brand-sound-logo', /gust-hit\.wav/);
  await tap(page, 'brand-sound-logo-off');
  await waitForText(page, 'brand-sound-logo', /None yet/);
  await tap(page, 'undo');
  await waitForText(page, 'brand-sound-logo', /gust-hit\.wav/);
  await tap(page, 'brand-sound-music-choose');
  await choose(page, 'brand-sound-music-file', noise('our-air.wav', 400_000));
  await page.waitForSelector(id('brand-sound-music-off'));
  expect(await textOf(page, 'brand-sound-music')).toMatch(/our-air\.wav/);

  await page.goto(`${session.address}/templates/sign-off`);
  await tap(page, 'wearing-brand');
  await tap(page, 'use-template');
  await waitForText(page, 'slot-bed', /our-air\.wav/);
  await page.close();
});

it('a reel is also rendered in a brand, and the rows of a table wear the one they name', async () => {
  const page = await session.page(LAPTOP, '/reels/demo-strap');
  await tap(page, 'step-render');
  await tap(page, 'output-format-png-sequence');
  await tap(page, 'output-size-540');
  await tap(page, 'also-brand-main');
  await tap(page, 'render-start');
  await page.waitForFunction(() => /thistledown-kite-weekend/.test(document.body.textContent ?? ''));
  for (let left = 2; left > 0; left--) await tap(page, 'render-cancel');

  await tap(page, 'table-begin');
  await fill(page, 'table-paste', 'Name,Client\nIda,Thistledown Kite Weekend\nÅse,Nobody\nBo,\n');
  await tap(page, 'table-read');
  await waitForText(page, 'column-2', /The brand it wears/);
  await waitForText(page, 'row-fault-2', /there is no brand "Nobody"; the brands are .*Thistledown/);
  const plain = await lookAtRest(page, 'row-3');
  // What a row wears by name changes nothing of the others; what all of them wear changes those without one.
  expect(await lookAtRest(page, 'row-1')).not.toBe(plain);
  await tap(page, 'wearing-brand');
  await waitForChange(page, 'row-3', plain);
  await page.close();
});
