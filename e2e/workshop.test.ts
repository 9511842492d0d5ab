import type { Page } from 'puppeteer-core';
import {
  fieldValue,
  fill,
  id,
  LAPTOP,
  look,
  PHONE,
  saved,
  serve,
  tap,
  textOf,
  waitForChange,
  waitForText,
  waitForValue,
} from './support/browser';

const session = serve();

/** Begins a template from a kind, on a page of some size. */
async function begin(page: Page, kind: string): Promise<void> {
  await tap(page, `begin-${kind}`);
  await page.waitForSelector(id('workshop-bench'));
  await page.waitForSelector(id('part-tree'));
}

/** Keeps what is on the bench, and begins a reel with it. */
async function keepAndUse(page: Page, name: string): Promise<void> {
  await tap(page, 'keep-made');
  await fill(page, 'keep-made-name', name);
  await tap(page, 'keep-made-do');
  await waitForText(page, 'toast', /stands in Templates now/);
  await tap(page, 'toast-action');
  await page.waitForSelector(id('template-details'));
  await tap(page, 'use-template');
  await page.waitForSelector(id('sheet-fill'));
}

/** The corners of the chosen part on the page, by its handles. */
async function boxOf(page: Page, part: string) {
  const box = await page.waitForSelector(id(`part-box-${part}`));
  return box!.evaluate((e) => {
    const { x, y, width, height } = e.getBoundingClientRect();
    return { x, y, width, height };
  });
}

/** Touches the middle of a part on the picture. */
async function touch(page: Page, { x, y, width, height }: Awaited<ReturnType<typeof boxOf>>): Promise<void> {
  await page.mouse.click(x + width / 2, y + height / 2);
}

it('a maker exposes two properties, names them, ties one to two parts and keeps it; an editor uses it in a reel', async () => {
  const page = await session.page(LAPTOP, '/workshop');
  await begin(page, 'strap');
  await tap(page, 'part-name');
  await tap(page, 'section-place-and-size');
  await tap(page, 'adjust-field-turn');
  await tap(page, 'adjustable-which-2');
  await fill(page, 'adjustable-name', 'Turn');
  await tap(page, 'adjustable-do');
  await waitForText(
    page,
    'adjustable-sheet',
    /“Turn” does not say of what. Call it “Name turn in the picture”/,
  );
  await fill(page, 'adjustable-name', 'Slant of the words');
  await tap(page, 'adjustable-do');
  await waitForText(page, 'toast', /is a control now/);
  await tap(page, 'section-when-it-shows');
  await tap(page, 'adjust-field-opacity');
  await tap(page, 'adjustable-proposal');
  await tap(page, 'adjustable-do');

  // The same control sets the role, too.
  await tap(page, 'part-role');
  await tap(page, 'section-place-and-size');
  await tap(page, 'from-field-turn');
  await tap(page, 'source-kind-parts');
  await tap(page, 'from-field-turn-parts-2');
  await page.$$eval(id('source-kind-control'), (all) => (all.at(-1) as HTMLElement).click());
  await page.waitForSelector(id('tie-sentence'));
  await tap(page, 'tie-control-slant-of-the-words');
  expect(await textOf(page, 'tie-sentence')).toBe(
    '“Slant of the words” sets Role, turned by, in the picture.',
  );
  await page.keyboard.press('Escape');
  await page.keyboard.press('Escape');
  await tap(page, 'bay-controls');
  await tap(page, 'open-control-slant-of-the-words');
  expect(await textOf(page, 'made-control-slant-of-the-words')).toContain('2 tied');
  await fill(page, 'control-says-slant-of-the-words', 'Both lines slant together.');
  await tap(page, 'control-name-slant-of-the-words');
  await saved(page);

  await keepAndUse(page, 'Slanted strap');
  await fill(page, 'slot-name', 'Ada Brek');
  await tap(page, 'step-adjust');
  const straight = await look(page, 'preview');
  await fill(page, 'control-slant-of-the-words', '12');
  await page.keyboard.press('Enter');
  await waitForText(page, 'says-slant-of-the-words', /slant together/);
  await waitForChange(page, 'preview', straight);
  await tap(page, 'undo');
  expect(await fieldValue(page, 'control-slant-of-the-words')).toBe('0');
  await page.close();
});

it('a part is found on the picture, moved, hidden and locked', async () => {
  const page = await session.page(LAPTOP, '/workshop');
  await begin(page, 'strap');
  await tap(page, 'part-strap');
  const strap = await boxOf(page, 'strap');
  // The topmost part there, then what lies below it, then what holds them.
  await touch(page, strap);
  const first = await page.$$eval('[role="treeitem"][aria-selected="true"]', (all) =>
    all.map((e) => e.textContent),
  );
  await touch(page, strap);
  const second = await page.$$eval('[role="treeitem"][aria-selected="true"]', (all) =>
    all.map((e) => e.textContent),
  );
  expect(first).not.toEqual(second);
  expect([...first, ...second].join()).toContain('Plate');

  await tap(page, 'part-name');
  const before = await boxOf(page, 'name');
  await page.focus(id('part-box-name'));
  await page.keyboard.down('Shift');
  await page.keyboard.press('ArrowRight');
  await page.keyboard.up('Shift');
  await page.waitForFunction(
    (sel, x) => (document.querySelector(sel)?.getBoundingClientRect().x ?? 0) > x + 2,
    {},
    id('part-box-name'),
    before.x,
  );
  await tap(page, 'undo');
  await page.waitForFunction(
    (sel, x) => Math.abs((document.querySelector(sel)?.getBoundingClientRect().x ?? 0) - x) < 1,
    {},
    id('part-box-name'),
    before.x,
  );
  await tap(page, 'lock-strap');
  await page.focus(id('part-box-name'));
  await page.keyboard.press('ArrowRight');
  await waitForText(page, 'toast', /“Name” is locked/);
  await tap(page, 'lock-strap');
  await tap(page, 'hide-name');
  await page.waitForFunction((sel) => !document.querySelector(sel), {}, id('part-box-name'));
  await tap(page, 'hide-name');
  await page.waitForSelector(id('part-box-name'));
  await page.close();
});

/** A strap from nothing: a plate, a name and a role, placed, set, moved and made slots. */
async function strapFromNothing(page: Page): Promise<void> {
  await begin(page, 'blank');
  for (const [slot, size] of [
    ['Name', '80'],
    ['Role', '40'],
  ] as const) {
    await tap(page, 'add-part');
    await tap(page, 'pick-words');
    await tap(page, 'words-slot');
    await fill(page, 'slot-name', slot);
    await tap(page, 'slot-do');
    await fill(page, 'part-name', slot);
    await page.keyboard.press('Enter');
    await fill(page, 'field-size', size);
    await page.keyboard.press('Enter');
    if (slot !== 'Role') continue;
    await tap(page, 'section-place-and-size');
    await fill(page, 'field-offset-1', '90');
    await page.keyboard.press('Enter');
  }
  await tap(page, 'choose-several');
  await tap(page, 'part-words');
  await page.waitForSelector(id('part-between'));
  await tap(page, 'add-part');
  await tap(page, 'pick-plate');
  await tap(page, 'choose-several');
  await tap(page, 'bay-try');
  await fill(page, 'slot-name', 'Wim Okonjo');
  await tap(page, 'bay-parts');
}

it.each([
  ['a phone', PHONE],
  ['a wide screen', LAPTOP],
] as const)('a strap is made from nothing on %s, kept, and used', async (_, size) => {
  const page = await session.page(size, '/workshop');
  await strapFromNothing(page);
  const names = await page.$$eval('[role="treeitem"]', (all) => all.map((e) => e.textContent));
  expect(names).toEqual(['Role', 'Name', 'Plate', 'All of it']);
  await keepAndUse(page, 'From nothing');
  const slots = await page.$$eval('textarea, input', (all) => all.map((e) => (e as HTMLInputElement).value));
  expect(slots).toEqual(expect.arrayContaining(['Your words']));
  await page.close();
});

/** Drags something on the picture, in steps as a hand does. */
async function dragBy(page: Page, testID: string, x: number, y: number): Promise<void> {
  const box = (await (await page.waitForSelector(id(testID)))!.boundingBox())!;
  const [fromX, fromY] = [box.x + box.width / 2, box.y + box.height / 2];
  await page.mouse.move(fromX, fromY);
  await page.mouse.down();
  for (let i = 1; i <= 8; i++) await page.mouse.move(fromX + (x * i) / 8, fromY + (y * i) / 8);
  await page.mouse.up();
}

it('points of a part and its outline are drawn on the picture, each a step of undo', async () => {
  const page = await session.page(LAPTOP, '/workshop');
  await begin(page, 'blank');
  await tap(page, 'add-part');
  await tap(page, 'pick-beam');
  await page.waitForSelector(id('handle-to'));
  const before = await fieldValue(page, 'field-to-1');
  await dragBy(page, 'handle-to', -60, 70);
  await page.waitForFunction(
    (s, was) => document.querySelector<HTMLInputElement>(s)?.value !== was,
    {},
    id('field-to-1'),
    before,
  );
  expect(Number(await fieldValue(page, 'field-to-1'))).toBeGreaterThan(Number(before));
  await tap(page, 'undo');
  await waitForValue(page, 'field-to-1', before);

  await page.goto(`${session.address}/templates/poster`);
  await tap(page, 'to-workshop');
  await tap(page, 'part-paper');
  await tap(page, 'open-field-outline');
  const data = await fieldValue(page, 'field-outline-data');
  await tap(page, 'outline-draw');
  await dragBy(page, 'path-point-1', 40, 60);
  await page.waitForFunction(
    (s, was) => document.querySelector<HTMLTextAreaElement>(s)?.value !== was,
    {},
    id('field-outline-data'),
    data,
  );
  const points = () => page.$$eval('[data-testid^="path-point-"]', (all) => all.length);
  const count = await points();
  await tap(page, 'outline-remove');
  await page.waitForFunction(
    (n) => document.querySelectorAll('[data-testid^="path-point-"]').length === n,
    {},
    count - 1,
  );
  await tap(page, 'undo');
  await tap(page, 'undo');
  await waitForValue(page, 'field-outline-data', data);
  await tap(page, 'outline-draw');
  await page.waitForSelector(id('path-handles'), { hidden: true });

  // A part that stands in a group of another template is copied alone.
  await tap(page, 'copy-from');
  await fill(page, 'pick-find', 'Name strap');
  await tap(page, 'pick-name-strap');
  await tap(page, 'pick-name');
  await page.waitForSelector(`${id('part-page')}`);
  await waitForText(page, 'part-tree', /Name/);
  await page.close();
});

it('what a user would trip over leads to where it is mended; a copy of a built-in template is opened and kept', async () => {
  const page = await session.page(LAPTOP, '/templates/name-strap');
  await tap(page, 'to-workshop');
  await page.waitForSelector(id('part-tree'));
  await tap(page, 'bay-controls');
  await tap(page, 'open-control-corner');
  await tap(page, 'untie-corner-0');
  await tap(page, 'bay-try');
  await tap(page, 'trips-look');
  await waitForText(page, 'try-list', /Look again/);
  expect(await textOf(page, 'try-list')).toContain('“Size” does not say of what.');
  await tap(page, 'trip-go-0');
  await page.waitForSelector(
    `${id('controls-list')}, ${id('slots-list')}, ${id('part-page')}, ${id('finish-list')}`,
  );
  await tap(page, 'keep-made');
  await tap(page, 'keep-made-do');
  await waitForText(page, 'toast', /“Name strap of mine” stands in Templates now/);
  await page.goto(`${session.address}/workshop`);
  await page.waitForFunction(() => document.body.textContent?.includes('Name strap of mine'));
  // A bench is none of the reels.
  await page.goto(`${session.address}/reels`);
  await page.waitForSelector(id('reels'));
  expect(await page.$eval('body', (b) => b.textContent)).not.toContain('Name strap of mine');
  await page.close();
});

it('a strip is moved and trimmed in time, a key goes to another moment, and a maker’s guide shows while one fills', async () => {
  const page = await session.page(LAPTOP, '/workshop');
  await begin(page, 'strap');
  await tap(page, 'bay-times');
  const left = (testID: string) =>
    page.$eval(id(testID), (e) => Math.round(e.getBoundingClientRect().x * 10) / 10);
  await page.waitForSelector(id('key-plate-30'));
  await page.focus(id('key-plate-30'));
  await page.keyboard.press('ArrowRight');
  await page.waitForSelector(id('key-plate-31'));
  await page.focus(id('strip-plate'));
  await page.keyboard.down('Shift');
  await page.keyboard.press('ArrowRight');
  await page.keyboard.up('Shift');
  await page.waitForSelector(id('key-plate-41'));
  const before = await left('strip-name');
  await page.focus(id('trim-from-name'));
  for (let i = 0; i < 3; i++) await page.keyboard.press('ArrowRight');
  await page.waitForFunction(
    (sel, x) => (document.querySelector(sel)?.getBoundingClientRect().x ?? 0) > x,
    {},
    id('strip-name'),
    before,
  );
  for (let i = 0; i < 5; i++) await tap(page, 'undo');
  await page.waitForSelector(id('key-plate-30'));
  // Dragged quickly, it goes as far as the pointer: no move between two pictures is lost.
  const strip = await page.$eval(id('strip-plate'), (e) => {
    const { x, y, width, height } = e.getBoundingClientRect();
    return { x: x + width / 2, y: y + height / 2, width };
  });
  await page.mouse.move(strip.x, strip.y);
  await page.mouse.down();
  await Promise.all(Array.from({ length: 40 }, (_, i) => page.mouse.move(strip.x + i + 1, strip.y)));
  await page.mouse.up();
  // 48 + 180 + 30 frames are as wide as the strip.
  await page.waitForSelector(id(`key-plate-${30 + Math.round((40 * 258) / strip.width)}`));
  await tap(page, 'undo');
  await page.waitForSelector(id('key-plate-30'));
  expect(await left('strip-name')).toBe(before);
  await tap(page, 'bay-slots');
  await tap(page, 'open-field-guidelines');
  await tap(page, 'add-field-guidelines');
  await page.waitForSelector(id('makers-guides'));
  await page.close();
});
