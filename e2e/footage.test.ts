import type { Page } from 'puppeteer-core';
import {
  choose,
  drawn,
  fieldValue,
  fill,
  id,
  LAPTOP,
  PHONE,
  quiet,
  saved,
  serve,
  tap,
  textOf,
  waitForText,
} from './support/browser';
import { ffmpeg, folder, numberedClip, numbersIn } from './support/clips';
import { goTo, itemTimes } from './support/place';
import { probe } from './support/probe';

const session = serve();

const H264 = ['-c:v', 'libx264', '-pix_fmt', 'yuv420p', '-g', '12', '-crf', '16'];

const press = async (page: Page, key: string, ...held: readonly ('Control' | 'Shift' | 'Alt')[]) => {
  for (const each of held) await page.keyboard.down(each);
  await page.keyboard.press(key as 'Enter');
  for (const each of held) await page.keyboard.up(each);
  await drawn(page);
};

it('a title is put over a clip: frame and rate are the clip’s, and it waits to be filled', async () => {
  const page = await session.page(LAPTOP, '/templates/name-strap');
  await tap(page, 'over-footage');
  await choose(page, 'footage-add', numberedClip('over.mp4', 60, '30000/1001', H264));
  await page.waitForSelector(id('slot-name'));
  await tap(page, 'step-place');
  await page.waitForSelector(id('item-clip'));
  expect(await itemTimes(page)).toMatchObject({
    clip: '00:00:00;00 00:00:02;00',
    'name-strap': expect.stringMatching(/^00:00:00;15/),
  });
  await tap(page, 'step-render');
  expect(await page.$eval(id('output-rate-30000/1001'), (e) => e.getAttribute('aria-checked'))).toBe('true');
  await page.close();
});

describe('a reel of clips', () => {
  let page: Page;
  beforeAll(async () => {
    page = await session.page(LAPTOP, '/shelf');
    await page.waitForSelector(id('shelf-add'));
    await choose(
      page,
      'shelf-add',
      numberedClip('one.mp4', 50, '25', H264),
      // The same pictures in other bytes: the same file would come in once.
      numberedClip('two.mp4', 50, '25', [...H264, '-bf', '0']),
    );
    await page.waitForSelector(id('media-two.mp4'));
    await tap(page, 'shelf-new-reel');
    for (const name of ['one', 'two']) {
      const card = `[data-testid="new-reel-sheet"] ${id(`media-${name}.mp4`)}`;
      await page.waitForSelector(card);
      await page.click(card);
    }
    await waitForText(page, 'new-reel-facts', /25 frames a second/);
    await tap(page, 'new-reel-make');
    await page.waitForSelector(id('item-clip-2'));
  });

  it('opens where things are placed: the clips one after the other, and no title yet', async () => {
    expect(await itemTimes(page)).toEqual({
      clip: '00:00:00:00 00:00:02:00',
      'clip-2': '00:00:02:00 00:00:02:00',
    });
    await tap(page, 'step-fill');
    await waitForText(page, 'sheet-fill', /no title in this reel yet/);
    await tap(page, 'no-title');
  });

  it('keys cut, choose, copy, paste, move, slip and take out; each is one undo', async () => {
    await goTo(page, 20);
    await tap(page, 'row-clip');
    await goTo(page, 20);
    await press(page, '/');
    expect(await itemTimes(page)).toMatchObject({
      clip: '00:00:00:00 00:00:00:20',
      'clip-3': '00:00:00:20 00:00:01:05',
    });
    await press(page, 'z', 'Control');
    expect(await itemTimes(page)).toMatchObject({ clip: '00:00:00:00 00:00:02:00' });
    await press(page, 'a', 'Control');
    await waitForText(page, 'chosen-count', /2 are chosen/);
    await press(page, 'c', 'Control');
    await waitForText(page, 'toast', /2 copied/);
    await press(page, 'End');
    await press(page, 'v', 'Control');
    await page.waitForFunction(() => document.querySelectorAll('[data-testid^="row-of-clip"]').length === 4);
    await press(page, 'z', 'Control');
    await tap(page, 'row-clip-2');
    await page.focus(id('line-seek'));
    await press(page, 'ArrowRight', 'Alt', 'Shift');
    expect((await itemTimes(page))['clip-2']).toBe('00:00:02:10 00:00:02:00');
    await press(page, 'PageDown', 'Alt');
    expect(await fieldValue(page, 'item-in')).toBe('0.04');
    await press(page, 'z', 'Control');
    await press(page, 'z', 'Control');
    await press(page, 'Delete');
    await page.waitForSelector(id('item-clip-2'), { hidden: true });
    await press(page, 'z', 'Control');
    expect(await itemTimes(page)).toEqual({
      clip: '00:00:00:00 00:00:02:00',
      'clip-2': '00:00:02:00 00:00:02:00',
    });
  });

  it('every key is told, and single letters can be switched off', async () => {
    await tap(page, 'place-keys');
    await waitForText(page, 'keys-sheet', /Cut at the playhead/);
    await tap(page, 'single-keys');
    await page.keyboard.press('Escape');
    await page.waitForSelector(id('keys-sheet'), { hidden: true });
    const before = await itemTimes(page);
    await goTo(page, 20);
    await press(page, '.');
    expect(await page.$('[data-testid^="line-marker-"]')).toBeNull();
    expect(await itemTimes(page)).toEqual(before);
    await tap(page, 'place-keys');
    await tap(page, 'single-keys');
    await page.keyboard.press('Escape');
    await page.waitForSelector(id('keys-sheet'), { hidden: true });
  });

  it('a cue of a title meets a marker, and stays there when its times change', async () => {
    await goTo(page, 75);
    await press(page, '.');
    await page.waitForSelector(id('line-marker-m1'));
    await goTo(page, 0);
    await tap(page, 'place-title');
    await tap(page, 'title-freeze-print');
    await page.waitForSelector(id('item-freeze-print'));
    await tap(page, 'meet-marker-m1');
    await waitForText(page, 'meets', /meets “Note at 00:00:03:00”/);
    const before = (await itemTimes(page))['freeze-print'];
    await fill(page, 'marker-at-m1', '00:00:03:10');
    await page.keyboard.press('Enter');
    await waitForText(page, 'meets', /at 00:00:03:10/);
    const moved = (await itemTimes(page))['freeze-print']!;
    expect(moved).not.toBe(before);
    // Shorter from its beginning, it would begin later; its cue stays on the marker, so it does not.
    await page.focus(id('trim-start'));
    await press(page, 'ArrowRight', 'Shift');
    const shorter = (await itemTimes(page))['freeze-print']!;
    expect(shorter.split(' ')[0]).toBe(moved.split(' ')[0]);
    expect(shorter).not.toBe(moved);
    await waitForText(page, 'meets', /meets “Note at 00:00:03:10”/);
    await press(page, 'z', 'Control');
    await tap(page, 'meet-stop');
    await page.waitForSelector(id('meets'), { hidden: true });
    await tap(page, 'place-remove');
    await tap(page, 'marker-remove-m1');
    await page.waitForSelector(id('line-marker-m1'), { hidden: true });
  });

  it('a clip is frozen for two seconds, and what follows comes later', async () => {
    await tap(page, 'row-clip');
    await goTo(page, 10);
    await tap(page, 'place-freeze');
    expect(await itemTimes(page)).toMatchObject({
      clip: '00:00:00:00 00:00:00:10',
      'clip-2': '00:00:04:00 00:00:02:00',
    });
    await tap(page, 'undo');
    expect(await itemTimes(page)).toMatchObject({ 'clip-2': '00:00:02:00 00:00:02:00' });
  });

  it('lies where it is dragged on the picture, and changes over time with keyframes', async () => {
    await tap(page, 'row-clip');
    await goTo(page, 10);
    const box = (await (await page.waitForSelector(id('place-box-clip')))!.boundingBox())!;
    await page.mouse.move(box.x + box.width / 2, box.y + box.height / 2);
    await page.mouse.down();
    await page.mouse.move(box.x + box.width / 2 + 60, box.y + box.height / 2 + 37, { steps: 6 });
    await page.mouse.up();
    const x = Number(await fieldValue(page, 'item-x'));
    expect(x).toBeGreaterThan(100);
    expect(Number(await fieldValue(page, 'item-y'))).toBeGreaterThan(60);
    await tap(page, 'over-time-move');
    await page.waitForSelector(id('key-0'));
    await goTo(page, 30);
    await fill(page, 'item-x', '0');
    await page.keyboard.press('Enter');
    await page.waitForSelector(id('key-1'));
    await goTo(page, 20);
    await quiet(page);
    const between = Number(await fieldValue(page, 'item-x'));
    expect(between).toBeGreaterThan(0);
    expect(between).toBeLessThan(x);
    await tap(page, 'key-close');
    for (let i = 0; i < 3; i++) await press(page, 'z', 'Control');
    await page.focus(id('place-scale-2'));
    await page.keyboard.press('ArrowLeft');
    expect(await fieldValue(page, 'item-scale')).toBe('99');
    await press(page, 'z', 'Control');
  });

  it('fades by its handles', async () => {
    await page.focus(id('fade-in'));
    await press(page, 'ArrowRight', 'Shift');
    expect(await fieldValue(page, 'item-fade-in')).toBe('0.40');
    await press(page, 'z', 'Control');
  });

  it('renders from one time to another, and the titles alone as long as the reel', async () => {
    await goTo(page, 5);
    await tap(page, 'place-title');
    await tap(page, 'title-name-strap');
    await page.waitForSelector(id('item-name-strap'));
    await saved(page);
    await tap(page, 'step-render');
    await tap(page, 'output-extent-titles');
    await waitForText(page, 'render-estimate', /\d+ frames/);
    const whole = Number((await textOf(page, 'render-estimate')).match(/(\d+) frames/)![1]);
    await tap(page, 'output-format-webm');
    await tap(page, 'output-size-270');
    await tap(page, 'render-start');
    await (await page.waitForSelector(id('render-download'), { timeout: 120_000 }))!.click();
    const titles = probe(await session.downloaded('.webm'));
    expect([titles.frames, titles.alpha]).toEqual([whole, true]);
    await session.take('.webm');
    await tap(page, 'output-extent-range');
    await fill(page, 'range-from', '00:00:01:15');
    await page.keyboard.press('Enter');
    await fill(page, 'range-to', '00:00:02:10');
    await page.keyboard.press('Enter');
    await waitForText(page, 'render-estimate', /^20 frames/);
    await tap(page, 'step-place');
    await tap(page, 'place-remove');
    await tap(page, 'step-render');
    await tap(page, 'output-format-mp4');
    await tap(page, 'render-start');
    await page.waitForFunction(
      () => document.querySelectorAll('[data-testid="render-download"]').length > 1,
      { timeout: 120_000 },
    );
    await page.click(id('render-download'));
    expect(numbersIn(await session.downloaded('.mp4'))).toEqual([
      ...Array.from({ length: 10 }, (_, i) => 40 + i),
      ...Array.from({ length: 10 }, (_, i) => i),
    ]);
    await session.take('.mp4');
    await fill(page, 'range-to', '00:00:01:00');
    await page.keyboard.press('Enter');
    await waitForText(page, 'sheet-render', /Nothing lies between these two times/);
    await page.close();
  });
});

it('what one title has is given to the others of its template, and a font is swapped everywhere', async () => {
  const page = await session.page(LAPTOP, '/templates/name-strap');
  await tap(page, 'over-footage');
  await choose(page, 'footage-add', numberedClip('alike.mp4', 400, '25', H264));
  await page.waitForSelector(id('slot-name'));
  await tap(page, 'step-place');
  await tap(page, 'row-name-strap');
  await goTo(page, 200);
  await tap(page, 'place-copy');
  await page.waitForSelector(id('item-name-strap-2'));
  await tap(page, 'row-name-strap');
  await fill(page, 'item-scale', '50');
  await page.keyboard.press('Enter');
  await tap(page, 'place-alike');
  await waitForText(page, 'alike-changes', /they are alike already/);
  await tap(page, 'alike-place');
  await waitForText(page, 'alike-changes', /This one changes.*at 00:00:08:00/);
  await tap(page, 'alike-do');
  await tap(page, 'row-name-strap-2');
  expect(await fieldValue(page, 'item-scale')).toBe('50');
  const [first] = await page.$$eval('[data-testid^="reel-font-"]', (all) =>
    all.map((e) => (e as HTMLElement).dataset.testid!),
  );
  expect(await textOf(page, 'reel-fonts')).toMatch(/In Name strap.*, Name strap/);
  await tap(page, first!);
  const other = first!.endsWith('Recursive') ? 'Figtree' : 'Recursive';
  await fill(page, 'font-search', other);
  await tap(page, `font-${other}`);
  await page.waitForSelector(id(`reel-font-${other}`));
  expect(await page.$(id(first!))).toBeNull();
  await page.close();
});

it('the beats of a sound and the cuts of a clip are offered as markers', async () => {
  const page = await session.page(LAPTOP, '/templates/name-strap');
  await tap(page, 'over-footage');
  await choose(page, 'footage-add', numberedClip('beats.mp4', 60, '25', H264));
  await page.waitForSelector(id('slot-name'));
  await tap(page, 'step-place');
  await goTo(page, 0);
  // A stroke each half second, for eight seconds.
  const path = `${folder}/strokes.wav`;
  const stroke = '0.6*exp(-30*mod(t\\,0.5))*sin(2*PI*90*mod(t\\,0.5))+0.02*sin(2*PI*220*t)';
  ffmpeg(['-f', 'lavfi', '-i', `aevalsrc=${stroke}:s=48000:d=8`, '-y', path]);
  await choose(page, 'place-files', path);
  await page.waitForSelector(id('sound-shape'));
  await tap(page, 'suggest-beats');
  await waitForText(page, 'suggestions', /1[3-6] beats in/);
  await tap(page, 'suggest-all');
  const frames = await page.$$eval('[data-testid^="marker-at-"]', (all) =>
    all.map((e) => (e as HTMLInputElement).value),
  );
  // Half a second is 12 or 13 frames; each is within two frames of its stroke.
  for (const time of frames) {
    const [, , s, f] = time.split(':').map(Number) as [number, number, number, number];
    const second = s + f / 25;
    expect(Math.abs(second - Math.round(second * 2) / 2)).toBeLessThanOrEqual(0.08);
  }
  await tap(page, 'undo');
  await page.waitForSelector('[data-testid^="marker-at-"]', { hidden: true });
  // Two shots of a second each, in one file.
  const shots = `${folder}/shots.mp4`;
  const parts = ['smptebars', 'testsrc2'].flatMap((s) => ['-f', 'lavfi', '-i', `${s}=s=320x180:r=25:d=1`]);
  ffmpeg([...parts, '-filter_complex', 'concat=n=2', ...H264, '-y', shots]);
  await goTo(page, 0);
  await choose(page, 'place-files', shots);
  await page.waitForSelector(id('item-clip-2'));
  await page.waitForSelector(id('strip-picture'));
  await tap(page, 'suggest-cuts');
  await waitForText(page, 'suggestions', /1 change of shot in/);
  await tap(page, 'suggest-take-25');
  expect(await page.$eval('[data-testid^="marker-at-"]', (e) => (e as HTMLInputElement).value)).toBe(
    '00:00:01:00',
  );
  await page.close();
});

it('on a phone two fingers show it larger, and one that rests on an item drags it', async () => {
  const page = await session.page(PHONE, '/templates/name-strap');
  await tap(page, 'over-footage');
  await choose(page, 'footage-add', numberedClip('phone.mp4', 100, '25', H264));
  await page.waitForSelector(id('slot-name'));
  await tap(page, 'step-place');
  await page.waitForSelector(id('item-clip'));
  const middle = async (testID: string) => {
    const { x, y, width, height } = (await (await page.$(id(testID)))!.boundingBox())!;
    return { x: x + width / 2, y: y + height / 2, width };
  };
  const before = (await middle('item-clip')).width;
  const rows = await middle('line-rows');
  const ruler = {
    x: rows.x,
    y: (await page.$eval(id('line-rows'), (e) => e.getBoundingClientRect().top)) + 100,
  };
  const left = await page.touchscreen.touchStart(ruler.x - 30, ruler.y);
  const right = await page.touchscreen.touchStart(ruler.x + 30, ruler.y);
  for (let i = 1; i <= 6; i++) {
    await left.move(ruler.x - 30 - i * 5, ruler.y);
    await right.move(ruler.x + 30 + i * 5, ruler.y);
  }
  await left.end();
  await right.end();
  await quiet(page);
  expect((await middle('item-clip')).width / before).toBeGreaterThan(1.6);
  const starts = (await itemTimes(page))['name-strap'];
  const at = await middle('item-name-strap');
  const x = Math.min(370, Math.max(20, at.x));
  const finger = await page.touchscreen.touchStart(x, at.y);
  // It rests there until it has taken hold of the item.
  await page.waitForSelector(`${id('item-name-strap')}[aria-pressed="true"]`);
  for (let i = 1; i <= 5; i++) await finger.move(x + i * 9, at.y);
  await finger.end();
  await quiet(page);
  expect(await page.$eval(id('item-name-strap'), (e) => e.getAttribute('aria-pressed'))).toBe('true');
  expect((await itemTimes(page))['name-strap']).not.toBe(starts);
  await page.close();
});

it('a template goes into a reel that is there, after its last title', async () => {
  const page = await session.page(LAPTOP, '/templates/typed-note');
  await tap(page, 'into-reel');
  await tap(page, 'into-demo-strap');
  await page.waitForSelector(id('step-place'));
  await tap(page, 'step-place');
  await page.waitForSelector(id('item-typed-note'));
  const times = await itemTimes(page);
  expect(times['demo-strap-1']).toBe('00:00:00:00 00:00:05:24');
  expect(times['typed-note']).toMatch(/^00:00:05:24/);
  await page.close();
});
