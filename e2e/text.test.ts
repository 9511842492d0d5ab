import { readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import { FONTS } from '@fresh-reel/fonts';
import type { Page } from 'puppeteer-core';
import {
  choose,
  fieldValue,
  fill,
  id,
  LAPTOP,
  look,
  lookAtRest,
  PHONE,
  quiet,
  saved,
  serve,
  tap,
  textOf,
  waitForBox,
  waitForChange,
  waitForText,
  waitForValue,
} from './support/browser';
import { Hand } from './support/hand';
import { asFile } from './support/probe';

const require = createRequire(__filename);
const session = serve();

const VIEWS = [
  ['by touch on a phone', PHONE, true],
  ['by mouse on a wide screen', LAPTOP, false],
] as const;

async function begin(view: typeof PHONE | typeof LAPTOP, touch: boolean, template: string): Promise<Hand> {
  const page = await session.page(view, `/templates/${template}`);
  await tap(page, 'use-template');
  await page.waitForSelector(`${id('save-state')}`);
  await page.waitForSelector('[data-testid^="tag-"]');
  return new Hand(page, touch);
}

/** Selects the first letters of a field, as a person would with the keyboard. */
async function select(page: Page, testID: string, letters: number): Promise<void> {
  await page.focus(id(testID));
  await page.keyboard.down('Control');
  await page.keyboard.press('Home');
  await page.keyboard.up('Control');
  await page.keyboard.down('Shift');
  for (let i = 0; i < letters; i++) await page.keyboard.press('ArrowRight');
  await page.keyboard.up('Shift');
}

/** How far the caret leans, in degrees. */
const lean = (page: Page) =>
  page.$eval(id('caret'), (e) =>
    Number(/rotate\((-?[\d.]+)deg/.exec((e as HTMLElement).style.transform)?.[1]),
  );

describe.each(VIEWS)('words on the picture, %s', (_, view, touch) => {
  it('are typed in place on a title that is turned and moving', async () => {
    const hand = await begin(view, touch, 'swing-sign');
    const { page } = hand;
    // The board is on its way in: it swings, and its words with it.
    await hand.seek(0.1);
    const tag = await hand.box('tag-word');
    const onWords = { x: tag.x - 24, y: tag.y + tag.height / 2 };
    await hand.tap(onWords);
    await page.waitForSelector(id('text-box-word'));
    await hand.tap(await hand.middle('text-box-word'));
    await page.waitForSelector(id('caret'));
    await page.keyboard.type(' up');
    await waitForValue(page, 'slot-word', 'Kites this way up');
    const first = await lean(page);
    expect(Math.abs(first)).toBeGreaterThan(1);
    // Time goes on under the caret, and it stays on the letters.
    const before = await hand.box('caret');
    for (let i = 0; i < 6; i++) await tap(page, 'frame-on');
    await page.waitForFunction(
      (s: string, was: number) =>
        Math.abs(
          Number(
            /rotate\((-?[\d.]+)deg/.exec(
              (document.querySelector(s) as HTMLElement | null)?.style.transform ?? '',
            )?.[1],
          ) - was,
        ) > 0.2,
      {},
      id('caret'),
      first,
    );
    const after = await hand.box('caret');
    expect(Math.hypot(after.x - before.x, after.y - before.y)).toBeGreaterThan(2);
    // The caret goes where the letters are touched: at the first one, by its left half.
    const field = await page.waitForSelector(id('typing-field'));
    await field!.focus();
    await page.keyboard.press('Home');
    await page.keyboard.type('All ');
    await waitForValue(page, 'slot-word', 'All Kites this way up');
    await tap(page, 'typing-done');
    await page.waitForSelector(id('caret'), { hidden: true });
    await saved(page);
    await page.reload();
    expect(await fieldValue(page, 'slot-word')).toBe('All Kites this way up');
    await page.close();
  });

  it('run along a path that is drawn there, and travel by keyframes', async () => {
    const hand = await begin(view, touch, 'wind-line');
    const { page } = hand;
    await tap(page, 'step-adjust');
    await tap(page, 'control-path-draw');
    const before = await look(page, 'preview');
    const point = await hand.middle('path-point-1');
    await hand.drag(point, { x: point.x + 10, y: point.y - 50 });
    const drawn = await waitForChange(page, 'preview', before);
    // Four points once one is added at the end, three again once it is removed.
    await tap(page, 'control-path-add');
    await page.waitForSelector(id('path-point-3'));
    await tap(page, 'control-path-remove');
    await page.waitForSelector(id('path-point-3'), { hidden: true });
    await tap(page, 'control-path-smooth');
    await tap(page, 'control-path-smooth');
    await tap(page, 'control-path-apart');
    const onePoint = await hand.middle('path-handle-after');
    await hand.drag(onePoint, { x: onePoint.x + 6, y: onePoint.y - 24 });
    // One handle alone makes a corner of the point.
    await waitForText(page, 'control-path', 'Make smooth');
    await tap(page, 'control-path-draw');
    await page.waitForSelector(id('path-handles'), { hidden: true });
    expect(drawn).not.toBe(before);

    // The place along the path: a keyframe here, another later, with another value.
    await hand.seek(0.5);
    await tap(page, 'over-time-slide');
    await page.waitForSelector(id('key-0'));
    await hand.seek(0.75);
    await fill(page, 'control-slide', '60/2');
    await page.keyboard.press('Enter');
    await page.waitForSelector(id('key-1'));
    expect(await textOf(page, 'key-strip')).toMatch(/Place along the path: 30/);
    await tap(page, 'key-before');
    await waitForText(page, 'key-strip', 'Place along the path: 0');
    const start = await look(page, 'preview');
    await tap(page, 'key-after');
    await waitForText(page, 'key-strip', 'Place along the path: 30');
    await waitForChange(page, 'preview', start);

    // A keyframe is dragged to another time, its curve set, copied, given to the exit, and removed.
    const place = async () => (await hand.middle('key-1')).x;
    const was = await place();
    const key = await hand.middle('key-1');
    await hand.drag(key, { x: key.x + 24, y: key.y });
    expect((await place()) - was).toBeGreaterThan(10);
    await hand.seek(0.6);
    await tap(page, 'key-curve');
    await tap(page, 'curve-soft-stop');
    const handle = await hand.middle('curve-start');
    await hand.drag(handle, { x: handle.x + 40, y: handle.y + 30 });
    await page.keyboard.press('Escape');
    await page.waitForSelector(id('curve-sheet'), { hidden: true });
    await tap(page, 'key-copy');
    await page.waitForSelector(id('key-2'));
    await tap(page, 'key-of-in');
    await tap(page, 'key-toggle');
    await page.waitForSelector(id('key-2'), { hidden: true });
    await tap(page, 'reset-slide');
    await page.waitForSelector(id('key-strip'), { hidden: true });
    await saved(page);
    await page.close();
  });

  it('are moved, scaled and turned, with guides, and put back', async () => {
    const hand = await begin(view, touch, 'mask-rise');
    const { page } = hand;
    const tag = await hand.box('tag-headline');
    await hand.tap({ x: tag.x - 30, y: tag.y + tag.height / 2 - 8 });
    await page.waitForSelector(id('text-box-headline'));
    const start = await hand.box('text-box-headline');
    const from = { x: start.x + start.width / 2, y: start.y + start.height / 2 };
    // A little off the middle snaps back to it, and says so.
    if (!touch) {
      await page.mouse.move(from.x, from.y);
      await page.mouse.down();
      await page.mouse.move(from.x + 40, from.y + 30, { steps: 4 });
      await page.mouse.move(from.x + 3, from.y + 30, { steps: 4 });
      await page.waitForSelector(id('guide'));
      await page.mouse.up();
      // The box goes with the picture, which is painted apart from the page.
      await waitForBox(page, 'text-box-headline', 'x', start.x, 1);
    }
    await hand.drag(await hand.middle('text-box-headline'), { x: from.x - 60, y: from.y + 25 });
    const moved = await hand.box('text-box-headline');
    expect(moved.x - start.x).toBeLessThan(-25);
    const corner = await hand.middle('text-scale-2');
    await hand.drag(corner, { x: corner.x - 30, y: corner.y - 12 });
    const scaled = await hand.box('text-box-headline');
    expect(scaled.width).toBeLessThan(moved.width - 8);
    const turn = await hand.middle('text-turn');
    await hand.drag(turn, { x: turn.x + 30, y: turn.y + 4 });
    expect((await hand.box('text-box-headline')).height).toBeGreaterThan(scaled.height + 4);
    if (touch) {
      // Two fingers on the words, farther apart and turned.
      const at = await hand.middle('text-box-headline');
      const was = await hand.box('text-box-headline');
      const cdp = await page.createCDPSession();
      const fingers = (type: 'touchStart' | 'touchMove' | 'touchEnd', apart: number) =>
        cdp.send('Input.dispatchTouchEvent', {
          type,
          touchPoints:
            type === 'touchEnd'
              ? []
              : [
                  { x: at.x - apart, y: at.y, id: 1 },
                  { x: at.x + apart, y: at.y, id: 2 },
                ],
        });
      await fingers('touchStart', 20);
      for (let i = 1; i <= 6; i++) await fingers('touchMove', 20 + 3 * i);
      await fingers('touchEnd', 0);
      await quiet(page);
      expect((await hand.box('text-box-headline')).width).toBeGreaterThan(was.width * 1.4);
    }
    await page.focus(id('text-box-headline'));
    const before = await hand.box('text-box-headline');
    for (let i = 0; i < 3; i++) {
      await page.keyboard.down('Shift');
      await page.keyboard.press('ArrowRight');
      await page.keyboard.up('Shift');
    }
    await page.waitForFunction(
      (s: string, x: number) => document.querySelector(s)!.getBoundingClientRect().x > x + 2,
      {},
      id('text-box-headline'),
      before.x,
    );
    await tap(page, 'reset-text-headline');
    await page.waitForFunction(
      (s: string, x: number) => Math.abs(document.querySelector(s)!.getBoundingClientRect().x - x) < 1,
      {},
      id('text-box-headline'),
      start.x,
    );
    await page.close();
  });
});

describe('letters, marks and motion', () => {
  let hand: Hand;
  beforeAll(async () => {
    hand = await begin(LAPTOP, false, 'quote-card');
  });
  afterAll(() => hand.page.close());

  it('words are marked, and typing keeps the marks', async () => {
    const { page } = hand;
    await tap(page, 'slot-quote');
    const before = await look(page, 'preview');
    await select(page, 'slot-quote', 6);
    await tap(page, 'mark-marked-quote');
    await waitForChange(page, 'preview', before);
    await select(page, 'slot-quote', 3);
    await tap(page, 'mark-underline-quote');
    await saved(page);
  });

  it('an emoji is found and put where the caret is', async () => {
    const { page } = hand;
    await page.focus(id('slot-quote'));
    await page.keyboard.press('End');
    await page.keyboard.down('Control');
    await page.keyboard.press('End');
    await page.keyboard.up('Control');
    await tap(page, 'signs-quote');
    await fill(page, 'emoji-search', 'kite');
    await tap(page, 'sign-🪁');
    await page.keyboard.press('Escape');
    expect(await fieldValue(page, 'slot-quote')).toMatch(/aloud\.🪁$/);
  });

  it('a motion is added, set and taken away; font and outline change', async () => {
    const { page } = hand;
    await tap(page, 'text-motion-quote');
    await tap(page, 'motion-add');
    await tap(page, 'motion-kind-scramble');
    await page.waitForSelector(id('motion-in-1'));
    await tap(page, 'motion-unit-letter');
    await fill(page, 'motion-stagger', '2');
    await page.keyboard.press('Enter');
    await tap(page, 'motion-when-during');
    await page.waitForSelector(id('motion-in-1'), { hidden: true });
    await tap(page, 'motion-add');
    const still = await look(page, 'preview');
    await tap(page, 'motion-kind-wave');
    await waitForChange(page, 'preview', still);
    await tap(page, 'reset-motion-during');
    await page.waitForSelector(id('motion-during-0'), { hidden: true });
    await tap(page, 'text-tab-letters');
    const plain = await look(page, 'preview');
    await tap(page, 'text-font');
    await tap(page, 'font-Space Mono');
    const mono = await waitForChange(page, 'preview', plain);
    await tap(page, 'outline-add');
    await waitForChange(page, 'preview', mono);
    await tap(page, 'reset-outlines');
    // Where the letters go, as a working aid.
    await tap(page, 'text-tab-motion');
    await tap(page, 'show-ways');
    await page.keyboard.press('Escape');
    await page.waitForSelector(id('text-sheet'), { hidden: true });
    await page.focus(id('seek'));
    await page.keyboard.press('Home');
    for (let i = 0; i < 20; i++) await page.keyboard.press('ArrowRight');
    await page.waitForSelector(id('letter-ways'));
    await tap(page, 'text-motion-quote');
    await tap(page, 'show-ways');
    await page.waitForSelector(id('letter-ways'), { hidden: true });
    await page.keyboard.press('Escape');
    await saved(page);
  });
});

describe('a font of one’s own', () => {
  it('is added from a WOFF2, set, kept over a reload, and one that is broken is told', async () => {
    const hand = await begin(LAPTOP, false, 'mask-rise');
    const { page } = hand;
    await tap(page, 'step-adjust');
    const before = await look(page, 'preview');
    await tap(page, 'control-face');
    await choose(page, 'add-font', asFile(Buffer.from('not a font at all'), 'broken.ttf'));
    await waitForText(page, 'font-fault', 'is not a font. Use a TTF, OTF or WOFF2');
    const file = readFileSync(require.resolve(FONTS.find((f) => f.family === 'Recursive')!.source));
    await choose(page, 'add-font', asFile(file, 'Mine.woff2'));
    await waitForText(page, 'control-face', 'Recursive');
    await waitForChange(page, 'preview', before);
    const set = await lookAtRest(page, 'preview');
    await saved(page);
    await page.reload();
    await tap(page, 'step-adjust');
    await waitForText(page, 'control-face', 'Recursive');
    // The same frame, in the user's font, once it has come from storage.
    expect(await lookAtRest(page, 'preview')).toBe(set);
    await page.close();
  });
});

describe('a list', () => {
  it('comes from a file, 5,000 lines too, and what is no text is told', async () => {
    const hand = await begin(LAPTOP, false, 'credits-roll');
    const { page } = hand;
    await tap(page, 'show-credits');
    await choose(
      page,
      'open-list-credits',
      asFile(Buffer.from('Camera,Ines\nSound,"Wren, Tobias"\n'), 'crew.csv'),
    );
    await waitForText(page, 'said-credits', '2 lines from "crew.csv"');
    expect(await fieldValue(page, 'slot-credits')).toBe('Camera | Ines\nSound | Wren, Tobias');
    const many = Array.from({ length: 5000 }, (_, i) => `Line holder\tPerson ${i + 1}`).join('\n');
    const before = await look(page, 'preview');
    await choose(page, 'open-list-credits', asFile(Buffer.from(many), 'all.txt'));
    await waitForText(page, 'count-credits', '5000 lines');
    await waitForChange(page, 'preview', before);
    await choose(page, 'open-list-credits', asFile(Buffer.from([0x89, 0x50, 0, 0, 1, 2]), 'logo.txt'));
    await waitForText(page, 'said-credits', 'is not a text file');
    await saved(page);
    await page.close();
  });
});
