import { execFileSync } from 'node:child_process';
import { mkdtempSync, readdirSync, readFileSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { PNG } from 'pngjs';
import type { Page } from 'puppeteer-core';
import {
  choose,
  fieldValue,
  fill,
  id,
  look,
  PHONE,
  quiet,
  renderNow,
  saved,
  serve,
  tap,
  textOf,
  waitForChange,
  waitForText,
  waitForValue,
} from './support/browser';
import { entryOf } from './support/entries';
import { asFile, difference, discPng, frameOf, pixel, probe } from './support/probe';

const LONG = 'Wilhelmina Featherstonehaugh-Ravenscroft, chair of the Marram and District Flyers';
const logo = asFile(discPng(300, [20, 90, 200]), 'disc.png');

const session = serve();
let page: Page;
beforeAll(async () => {
  page = await session.page(PHONE, '/');
});

describe('a lower third, made on a phone', () => {
  it('is picked from the contact sheet', async () => {
    await page.waitForSelector(id('template-card-name-strap'));
    await page.waitForSelector(`${id('template-card-name-strap')} img`);
    await fill(page, 'search', 'lower');
    await page.waitForSelector(id('template-card-four-corners'), { hidden: true });
    await tap(page, 'template-card-name-strap');
    await page.waitForSelector(id('template-details'));
    expect(await textOf(page, 'template-details')).toMatch(/Badge.*logo, optional/);
    await tap(page, 'use-template');
    await page.waitForSelector(id('preview'));
    await waitForText(page, 'timecode', /00:00:01/);
  });

  it('takes long words, and says what happened to them', async () => {
    const before = await look(page, 'preview');
    await fill(page, 'slot-name', LONG);
    expect(await waitForText(page, 'notice-name', /Shrunk to \d+%/)).toMatch(/longer than their place/);
    await waitForChange(page, 'preview', before);
    await fill(page, 'slot-role', 'Kite maker');
  });

  it('takes a logo from a PNG and keeps its transparency', async () => {
    const before = await look(page, 'preview');
    await choose(page, 'choose-badge', logo);
    await waitForText(page, 'said-badge', /transparent parts, and keeps them/);
    await waitForChange(page, 'preview', before);
    await saved(page);
  });

  it('shows each slot on the picture with its number, and touching the picture chooses the slot', async () => {
    expect(await textOf(page, 'tag-name')).toBe('1');
    expect(await textOf(page, 'tag-badge')).toBe('3');
    // Tags keep off the words: the role stands in the lower line of the strap, after the badge.
    const box = await page.$eval(id('preview'), (e) => e.getBoundingClientRect().toJSON());
    await page.mouse.click(box.x + box.width * 0.2, box.y + box.height * 0.87);
    await page.waitForSelector('[data-testid="show-role"][aria-pressed="true"]');
  });

  it('changes with looks, colours, choices and a handle, and each goes back', async () => {
    await tap(page, 'step-adjust');
    let seen = await look(page, 'preview');
    await tap(page, 'look-dusk');
    seen = await waitForChange(page, 'preview', seen);
    await tap(page, 'control-accent');
    await fill(page, 'colour-code', '#00AA55');
    await page.keyboard.press('Escape');
    seen = await waitForChange(page, 'preview', seen);
    expect(await textOf(page, 'control-accent')).toContain('#00AA55');
    await tap(page, 'reset-accent');
    await page.waitForSelector(id('reset-accent'), { hidden: true });
    expect(await textOf(page, 'control-accent')).toContain('#F2A541');

    const handle = await page.waitForSelector(id('handle-position'));
    const { x, y } = (await handle!.boundingBox())!;
    await page.mouse.move(x + 22, y + 22);
    await page.mouse.down();
    await page.mouse.move(x + 60, y - 40, { steps: 6 });
    await page.mouse.up();
    await waitForChange(page, 'preview', seen);
    expect(Number(await fieldValue(page, 'control-position-x'))).toBeGreaterThan(250);
    await page.focus(id('handle-position'));
    const across = Number(await fieldValue(page, 'control-position-x'));
    await page.keyboard.press('ArrowRight');
    await page.waitForFunction(
      (s: string, v: number) => Number((document.querySelector(s) as HTMLInputElement).value) > v,
      {},
      id('control-position-x'),
      across,
    );
  });

  it('undoes a whole drag in one step, from the keyboard, and does it again', async () => {
    await page.evaluate(() => (document.activeElement as HTMLElement | null)?.blur());
    const moved = await fieldValue(page, 'control-position-y');
    const press = async (key: string, shift = false) => {
      await page.keyboard.down('Control');
      if (shift) await page.keyboard.down('Shift');
      await page.keyboard.press(key as 'z');
      if (shift) await page.keyboard.up('Shift');
      await page.keyboard.up('Control');
    };
    await press('z');
    await press('z');
    await page.waitForFunction(
      (s: string, v: string) => (document.querySelector(s) as HTMLInputElement).value !== v,
      {},
      id('control-position-y'),
      moved,
    );
    expect(Math.abs(Number(await fieldValue(page, 'control-position-y')) - 0.865 * 1080)).toBeLessThan(1.5);
    await press('z', true);
    await press('z', true);
    await waitForValue(page, 'control-position-y', moved);
  });

  it('has a hold that is made longer on the ribbon, and the entrance stays', async () => {
    const before = await page.$eval(id('hold-end'), (e) => Number(e.getAttribute('aria-valuenow')));
    const box = (await (await page.waitForSelector(id('hold-end')))!.boundingBox())!;
    await page.mouse.move(box.x + 22, box.y + 22);
    await page.mouse.down();
    await page.mouse.move(box.x + 60, box.y + 22, { steps: 4 });
    await page.mouse.up();
    await page.waitForFunction(
      (s: string, v: number) => Number(document.querySelector(s)?.getAttribute('aria-valuenow')) > v,
      {},
      id('hold-end'),
      before,
    );
    await tap(page, 'undo');
    await page.waitForFunction(
      (s: string, v: number) => Number(document.querySelector(s)?.getAttribute('aria-valuenow')) === v,
      {},
      id('hold-end'),
      before,
    );
  });

  it('plays, steps frame by frame, and shows safe areas that never render', async () => {
    await tap(page, 'play');
    const first = await textOf(page, 'timecode');
    await page.waitForFunction(
      (s: string, t: string) => document.querySelector(s)?.textContent !== t,
      {},
      id('timecode'),
      first,
    );
    await tap(page, 'play');
    await quiet(page);
    await page.focus(id('seek'));
    await page.keyboard.press('Home');
    await waitForText(page, 'timecode', '^00:00:00;00$');
    await page.keyboard.press('ArrowRight');
    await waitForText(page, 'timecode', '^00:00:00;01$');
    await tap(page, 'frame-on');
    await waitForText(page, 'timecode', '^00:00:00;02$');
    await tap(page, 'safe-areas');
    await page.waitForSelector(id('safe-areas-shown'));
  });

  it('is all there after a reload', async () => {
    await saved(page);
    await page.reload();
    expect(await fieldValue(page, 'slot-name')).toBe(LONG);
    await tap(page, 'step-adjust');
    expect(await page.$eval(id('look-dusk'), (e) => e.getAttribute('aria-checked'))).toBe('true');
    expect(Number(await fieldValue(page, 'control-position-x'))).toBeGreaterThan(250);
  });

  it('renders to WebM with transparency, which ffprobe counts and ffmpeg reads back', async () => {
    const done = await renderNow(page, 'webm', '270', '25');
    expect(done).toMatch(/all 135 frames/);
    await tap(page, 'render-download');
    const path = asFile(await session.take('.webm'), 'out.webm');
    expect(probe(path)).toEqual({
      codec: 'vp9',
      width: 480,
      height: 270,
      rate: '25/1',
      frames: 135,
      alpha: true,
    });
    const frame = frameOf(path, 2, true);
    expect(pixel(frame, 450, 20)[3]).toBe(0);
    const opaque = frame.data.filter((v, i) => i % 4 === 3 && v === 255).length;
    expect(opaque).toBeGreaterThan(1250);
  });

  it('gives the same frame in the browser and from the command line', async () => {
    await tap(page, 'step-render');
    // The reel has the rate it was rendered at last: 25. The command line counts at 60.
    await tap(page, 'output-rate-60');
    await page.focus(id('seek'));
    await page.keyboard.press('Home');
    for (let i = 0; i < 12; i++) {
      await page.keyboard.down('Shift');
      await page.keyboard.press('ArrowRight');
      await page.keyboard.up('Shift');
    }
    await waitForText(page, 'timecode', '^00:00:02:00$');
    await page.evaluate(() => document.querySelector<HTMLElement>('[aria-label^="Remove "]')?.click());
    await renderNow(page, 'png', '1080');
    await tap(page, 'render-download');
    const browser = PNG.sync.read(await session.take('.png'));

    // The same reel, by its fill, through the command line.
    const folder = mkdtempSync(join(tmpdir(), 'fresh-reel-cli-'));
    const reel = JSON.parse((await entryOf(page, `reel/${new URL(page.url()).pathname.split('/').at(-1)}`))!);
    const graphic = reel.tracks[0].items[0];
    writeFileSync(
      join(folder, 'fill.json'),
      JSON.stringify({
        look: graphic.fill.look,
        controls: graphic.fill.controls,
        slots: { ...graphic.fill.slots, badge: logo },
      }),
    );
    execFileSync(
      'node',
      [
        'apps/server/bin/fresh-reel.mjs',
        'render',
        'name-strap',
        '--fill',
        join(folder, 'fill.json'),
        '--out',
        join(folder, 'out'),
        '--frames',
        '120-120',
      ],
      { cwd: join(__dirname, '..') },
    );
    const picture = readdirSync(join(folder, 'out')).find((name) => name.endsWith('.png'));
    const node = PNG.sync.read(readFileSync(join(folder, 'out', picture!)));
    expect(difference(browser, node)).toBeLessThan(0.5);
    // It is not two empty pictures that agree.
    expect(difference(browser, new PNG({ width: browser.width, height: browser.height }))).toBeGreaterThan(5);
  });
});
