import { createCanvas } from '@napi-rs/canvas';
import { PNG } from 'pngjs';
import type { Page } from 'puppeteer-core';
import {
  choose,
  fieldValue,
  fill,
  id,
  LAPTOP,
  look,
  saved,
  serve,
  tap,
  textOf,
  waitForChange,
  waitForText,
} from './support/browser';
import { asFile, discPng } from './support/probe';

const session = serve();
let page: Page;
const asked: string[] = [];
beforeAll(async () => {
  page = await session.page(LAPTOP, '/reels/demo-sting', async (p) => {
    p.on('request', (request) => asked.push(request.url()));
  });
  await page.waitForSelector(id('choose-logo'));
});

const svg = (inside: string, attributes = 'width="80" height="40"') =>
  Buffer.from(
    `<svg xmlns="http://www.w3.org/2000/svg" xmlns:xlink="http://www.w3.org/1999/xlink" ${attributes}>${inside}</svg>`,
  );
const box = '<rect x="5" y="5" width="60" height="30" fill="#0a0"/>';

describe('files that are not what they should be', () => {
  it.each([
    [
      'a text file named .png',
      Buffer.from('just words, no picture'),
      'notes.png',
      /"notes\.png" is not a picture, clip, sound or font, whatever its name says/,
    ],
    ['an empty file', Buffer.alloc(0), 'empty.png', /"empty\.png" is empty/],
    ['a PNG cut short', discPng(200, [9, 9, 9]).subarray(0, 400), 'cut.png', /"cut\.png" is damaged/],
    ['a PNG that claims to be huge', hugePng(), 'bomb.png', /says it is 60000 × 60000 pixels/],
    ['an SVG that is not well-formed', svg('<rect'), 'torn.svg', /"torn\.svg" is a damaged SVG/],
    ['an SVG with nothing in it', svg('', ''), 'blank.svg', /nothing to draw/],
  ])('%s', async (_, bytes, name, reason) => {
    const before = await look(page, 'slot-logo');
    await choose(page, 'choose-logo', asFile(bytes, name));
    expect(await waitForText(page, 'import-fault', reason)).toBeTruthy();
    expect(before).not.toBe('');
    // The slot keeps what it had, and nothing was changed.
    expect(await page.$(id('reset-slot-logo'))).toBeNull();
    expect(await textOf(page, 'save-state')).toBe('saved');
  });
});

/** A PNG whose header says 60,000 × 60,000 and whose data is a few bytes. */
function hugePng(): Buffer {
  const bytes = Buffer.from(PNG.sync.write(new PNG({ width: 1, height: 1 })));
  bytes.writeUInt32BE(60000, 16);
  bytes.writeUInt32BE(60000, 20);
  return bytes;
}

describe('files that need care', () => {
  it('an SVG with a script: the script goes and never runs, the picture stays', async () => {
    const file = asFile(
      svg(`<script>window.parent.hacked = 1; fetch('/stolen')</script>${box}<g onload="window.hacked = 2"/>`),
      'script.svg',
    );
    const before = await look(page, 'preview');
    await choose(page, 'choose-logo', file);
    expect(await waitForText(page, 'said-logo', /The script in this SVG was taken out/)).toBeTruthy();
    await waitForChange(page, 'preview', before);
    expect(await page.evaluate(() => (window as unknown as { hacked?: number }).hacked)).toBeUndefined();
    expect(asked.filter((u) => u.includes('stolen'))).toEqual([]);
  });

  it('an SVG that reaches elsewhere: it fetches nothing', async () => {
    const file = asFile(
      svg(`<image xlink:href="http://elsewhere.invalid/a.png" width="9" height="9"/>${box}`),
      'reach.svg',
    );
    await choose(page, 'choose-logo', file);
    expect(
      await waitForText(page, 'said-logo', /Links from this SVG to files elsewhere were taken out/),
    ).toBeTruthy();
    expect(asked.filter((u) => u.includes('elsewhere'))).toEqual([]);
  });

  it('an SVG without a size takes that of its drawing', async () => {
    await choose(page, 'choose-logo', asFile(svg(box, ''), 'nosize.svg'));
    expect(await waitForText(page, 'said-logo', /gives no size/)).toBeTruthy();
  });

  it('a 12,000-pixel picture is kept at a size that is plenty', async () => {
    const canvas = createCanvas(12000, 3000);
    const context = canvas.getContext('2d');
    context.fillStyle = '#C8431C';
    context.fillRect(0, 0, 12000, 3000);
    await choose(page, 'choose-logo', asFile(await canvas.encode('jpeg', 60), 'vast.jpg'));
    expect(
      await waitForText(page, 'said-logo', /12000 × 3000 pixels. It is kept at 4096 × 1024/),
    ).toBeTruthy();
  });

  it('a photo keeps its rectangle, and survives a reload', async () => {
    await saved(page);
    await page.reload();
    await page.waitForSelector(`${id('slot-logo')} img`);
    expect(await page.$(id('reset-slot-logo'))).not.toBeNull();
  });
});

describe('words that need care', () => {
  it.each([
    ['Arabic with digits', 'مهرجان الطائرات 2026'],
    ['Hindi', 'पतंग उत्सव, मैरम की पहाड़ी'],
    ['Thai', 'เทศกาลว่าวบนเนินเขา'],
    ['a family emoji', 'Bring them all 👨‍👩‍👧‍👦'],
  ])('%s shows, with nothing to complain about', async (_, words) => {
    const before = await look(page, 'preview');
    await fill(page, 'slot-line', words);
    await waitForChange(page, 'preview', before);
    expect(await fieldValue(page, 'slot-line')).toBe(words);
    expect(await page.$(id('notice-line'))).toBeNull();
  });

  it('500 letters without a space are cut, and it is said', async () => {
    await tap(page, 'slot-line');
    await page.evaluate((s: string) => {
      const field = document.querySelector(s) as HTMLTextAreaElement;
      field.select();
      document.execCommand('insertText', false, 'x'.repeat(500));
    }, id('slot-line'));
    expect(await waitForText(page, 'notice-line', /do not fit and are cut/)).toBeTruthy();
  });

  it('no words leave no hole where they are optional', async () => {
    await fill(page, 'slot-line', ' ');
    await page.keyboard.press('Backspace');
    expect(await fieldValue(page, 'slot-line')).toBe('');
    await page.waitForSelector(id('notice-line'), { hidden: true });
  });

  it('letters that no font has are named', async () => {
    await fill(page, 'slot-line', 'Kites ქარი');
    expect(await waitForText(page, 'notice-line', /No font here has these letters: ქ ა რ ი/)).toBeTruthy();
  });
});

it('a codec the browser lacks is shown before the start, with what to choose instead', async () => {
  const other = await session.page(LAPTOP, '/reels/demo-opener', async (p) => {
    await p.evaluateOnNewDocument(() => {
      const real = VideoEncoder.isConfigSupported.bind(VideoEncoder);
      VideoEncoder.isConfigSupported = async (config) =>
        config.codec.startsWith('avc') ? { supported: false, config } : real(config);
    });
  });
  await tap(other, 'step-render');
  expect(
    await waitForText(
      other,
      'codec-missing',
      /cannot write H\.264 at 1920 × 1080\. Choose WebM, or a PNG sequence/,
    ),
  ).toBeTruthy();
  expect(await other.$eval(id('render-start'), (e) => e.getAttribute('aria-disabled'))).toBe('true');
  await tap(other, 'output-format-webm');
  await other.waitForFunction(
    (s: string) => document.querySelector(s)?.getAttribute('aria-disabled') !== 'true',
    {},
    id('render-start'),
  );
  await other.close();
});
