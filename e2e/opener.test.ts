import { execFileSync, spawnSync } from 'node:child_process';
import { PNG } from 'pngjs';
import type { Page } from 'puppeteer-core';
import {
  choose,
  fill,
  id,
  LAPTOP,
  look,
  renderNow,
  saved,
  serve,
  tap,
  textOf,
  until,
  waitForChange,
  waitForText,
} from './support/browser';
import { kept } from './support/files';
import { asFile, frameOf, pixel, probe, soundOf, stripesPng } from './support/probe';
import { unzipped } from './support/zip';

const stripes = asFile(
  stripesPng(1600, 900, [
    [255, 0, 0],
    [0, 160, 0],
    [0, 0, 255],
  ]),
  'stripes.png',
);

const session = serve();
let page: Page;
beforeAll(async () => {
  page = await session.page(LAPTOP, '/reels/demo-opener');
});

describe('an opener, made on a laptop', () => {
  it('tells its scenes in order, each with its moment and its slots', async () => {
    await page.waitForSelector(id('scene-corner-1'));
    const heads = await page.$$eval('[data-testid^="scene-"]', (all) => all.map((e) => e.textContent));
    expect(heads).toEqual([
      'First cornerfrom 0.0 s',
      'Second cornerfrom 1.4 s',
      'Third cornerfrom 2.8 s',
      'All four cornersfrom 4.2 s',
    ]);
  });

  it('moves the preview to where a chosen slot shows', async () => {
    await tap(page, 'slot-title-2');
    await waitForText(page, 'timecode', '^00:00:02:34$');
    await tap(page, 'slot-headline');
    await waitForText(page, 'timecode', '^00:00:06:06$');
  });

  it('takes a picture dropped on its slot', async () => {
    const before = await look(page, 'preview');
    await page.evaluate(
      async (selector: string, base64: string) => {
        const bytes = Uint8Array.from(atob(base64), (c) => c.charCodeAt(0));
        const data = new DataTransfer();
        data.items.add(new File([bytes], 'stripes.png', { type: 'image/png' }));
        const target = document.querySelector(selector)!;
        for (const type of ['dragover', 'drop'])
          target.dispatchEvent(new DragEvent(type, { dataTransfer: data, bubbles: true, cancelable: true }));
      },
      id('slot-photo-1'),
      stripesPng(800, 900, [
        [255, 200, 0],
        [0, 160, 200],
      ]).toString('base64'),
    );
    await waitForChange(page, 'preview', before);
    await waitForText(page, 'timecode', '^00:00:01:10$');
  });

  it('takes another by the chooser, and drags it in its frame', async () => {
    const thumbnail = `${id('slot-photo-1')} img`;
    const dropped = await page
      .waitForSelector(thumbnail)
      .then((img) => img!.evaluate((e) => (e as HTMLImageElement).src));
    await choose(page, 'choose-photo-1', stripes);
    await page.waitForFunction(
      (s: string, old: string) => {
        const now = document.querySelector<HTMLImageElement>(s);
        return now !== null && now.src !== old;
      },
      {},
      thumbnail,
      dropped,
    );
    await page.focus(id('slider-frame-photo-1-scale'));
    for (let i = 0; i < 10; i++) await page.keyboard.press('PageUp');
    await page.waitForFunction(
      (s: string) => document.querySelector(s)?.getAttribute('aria-valuenow') === '200',
      {},
      id('slider-frame-photo-1-scale'),
    );
    const seen = await look(page, 'preview');
    const box = (await (await page.waitForSelector(id('preview')))!.boundingBox())!;
    await page.mouse.move(box.x + box.width / 2, box.y + box.height * 0.7);
    await page.mouse.down();
    await page.mouse.move(box.x + box.width / 2 + 150, box.y + box.height * 0.7, { steps: 5 });
    await page.mouse.up();
    await waitForChange(page, 'preview', seen);
    // The picture went right with the hand, so what stays in view lies further left.
    const focus = await page.$eval(id('slider-frame-photo-1-x'), (e) =>
      Number(e.getAttribute('aria-valuenow')),
    );
    expect(focus).toBeLessThan(50);
    await tap(page, 'undo');
    await page.waitForFunction(
      (s: string) => document.querySelector(s)?.getAttribute('aria-valuenow') === '50',
      {},
      id('slider-frame-photo-1-x'),
    );
  });

  it('wears the brand, and changes its frame', async () => {
    await tap(page, 'step-adjust');
    let seen = await look(page, 'preview');
    await tap(page, 'look-sea-glass');
    seen = await waitForChange(page, 'preview', seen);
    await tap(page, 'wear-brand');
    expect(await waitForText(page, 'control-accent', '#C8431C')).toBeTruthy();
    // Spread by contrast instead, its colours are others; and back again.
    await tap(page, 'spread-brand');
    await waitForText(page, 'spread-brand', /are spread/);
    await tap(page, 'wear-brand');
    expect(await waitForText(page, 'control-accent', '#C8431C')).toBeTruthy();
    await tap(page, 'frame-shape-tall');
    await page.waitForFunction(
      (s: string) => {
        const box = document.querySelector(s)!.getBoundingClientRect();
        return box.height > box.width * 1.7;
      },
      {},
      id('preview'),
    );
    await tap(page, 'undo');
    await saved(page);
  });

  it('checks before the render, and shows the slot that wants attention', async () => {
    await tap(page, 'step-fill');
    await fill(page, 'slot-title-3', 'x'.repeat(400));
    await tap(page, 'step-render');
    expect(await waitForText(page, 'check-cut', /Title 3: These words do not fit and are cut/)).toBeTruthy();
    await page.$eval(`${id('check-cut')} [role="button"]`, (e) => (e as HTMLElement).click());
    await page.waitForSelector(id('notice-title-3'));
    // More words than are read while they stand: one touch makes them stand longer.
    await fill(page, 'slot-title-3', 'Let it climb until the string sings and the whole hill looks up');
    await tap(page, 'step-render');
    await waitForText(page, 'check-read-in-haste', /characters to read/);
    await tap(page, 'mend-read-in-haste');
    await page.waitForSelector(id('check-read-in-haste'), { hidden: true });
    await tap(page, 'undo');
    await page.waitForSelector(id('mend-read-in-haste'));
    await tap(page, 'step-fill');
    await fill(page, 'slot-title-3', 'Let it climb');
  });

  it('tells other tools where it stands and what it says', async () => {
    await tap(page, 'step-render');
    await tap(page, 'save-otio');
    expect(JSON.parse((await session.take('.otio')).toString())).toMatchObject({ OTIO_SCHEMA: 'Timeline.1' });
    await tap(page, 'save-edl');
    expect((await session.take('.edl')).toString()).toMatch(
      /^TITLE: .*\r\nFCM: [\s\S]*\* SOURCE FILE: \S+-1920x1080-/,
    );
    await tap(page, 'save-srt');
    expect((await session.take('.srt')).toString()).toMatch(/^1\n00:00:00,000 --> [\s\S]*Let it climb/);
    await tap(page, 'save-vtt');
    expect((await session.take('.vtt')).toString()).toMatch(/^WEBVTT/);
  });

  it('renders a part of it to MP4 at 59.94 with every frame', async () => {
    await tap(page, 'step-render');
    await tap(page, 'output-extent-range');
    await fill(page, 'range-to', '00:00:02:00');
    await page.keyboard.press('Enter');
    expect(await renderNow(page, 'mp4', '270', '60000/1001')).toMatch(
      /all 120 frames.*59\.94 frames a second/,
    );
    await tap(page, 'render-download');
    const path = asFile(await session.take('.mp4'), 'out.mp4');
    expect(probe(path)).toMatchObject({
      codec: 'h264',
      width: 480,
      height: 270,
      rate: '60000/1001',
      frames: 120,
    });
    // At one second the middle stripe fills the middle of the picture.
    const [r, g, b] = pixel(frameOf(path, 1.1, false), 240, 200);
    expect(g!).toBeGreaterThan(r! + 60);
    expect(g!).toBeGreaterThan(b! + 60);
    await page.evaluate(() => document.querySelector<HTMLElement>('[aria-label^="Remove "]')?.click());
  });

  it('renders a sequence of numbered pictures', async () => {
    expect(await renderNow(page, 'png-sequence', '270', '24')).toMatch(/all 48 frames/);
    await tap(page, 'render-download');
    const files = await unzipped(await session.take('.zip'));
    const names = Object.keys(files)
      .filter((n) => n.endsWith('.png'))
      .sort();
    expect(names).toHaveLength(48);
    // The sound lies beside them, as long as they are.
    const [wav] = Object.entries(files).filter(([n]) => n.endsWith('.wav'));
    const { seconds, ...sound } = soundOf(asFile(wav![1], 'beside.wav'));
    expect(sound).toEqual({ codec: 'pcm_s24le', rate: 48000, channels: 2 });
    expect(seconds).toBeCloseTo(2, 3);
    expect(names[0]).toMatch(/_00001\.png$/);
    expect(names.at(-1)).toMatch(/_00048\.png$/);
    const first = PNG.sync.read(Buffer.from(files[names[30]!]!));
    expect([first.width, first.height]).toEqual([480, 270]);
    await page.evaluate(() => document.querySelector<HTMLElement>('[aria-label^="Remove "]')?.click());
  });

  it('renders the sound alone, as long as the reel and as loud as it tells', async () => {
    await tap(page, 'output-format-wav');
    await page.waitForSelector(id('output-size'), { hidden: true });
    await tap(page, 'render-start');
    await page.waitForFunction(
      (s: string) => document.querySelector(s)?.textContent?.includes('.wav'),
      { timeout: 60_000 },
      id('job-done'),
    );
    const told = Number(/(-[\d.]+) LUFS/.exec(await textOf(page, 'render-sound'))![1]);
    await tap(page, 'render-download');
    const path = await session.downloaded('.wav');
    const facts = execFileSync('ffprobe', [
      ...['-v', 'error', '-show_entries', 'stream=codec_name,sample_rate,duration', '-of', 'csv=p=0', path],
    ]);
    expect(facts.toString()).toMatch(/^pcm_s24le,48000,2\.0/);
    // Loudness as it was told is what ffmpeg’s ebur128 finds.
    const said = spawnSync('ffmpeg', [
      '-nostdin',
      '-nostats',
      '-i',
      path,
      '-af',
      'ebur128',
      '-f',
      'null',
      '-',
    ]);
    const summary = said.stderr.toString();
    const found = Number(/I:\s+(-?[\d.]+) LUFS/.exec(summary.slice(summary.lastIndexOf('Summary')))![1]);
    expect(Math.abs(found - told)).toBeLessThan(0.3);
    await session.take('.wav');
    await page.evaluate(() => document.querySelector<HTMLElement>('[aria-label^="Remove "]')?.click());
  });

  it('stops when told to, and keeps nothing', async () => {
    await tap(page, 'output-format-mp4');
    await tap(page, 'output-size-2160');
    await tap(page, 'render-start');
    await page.waitForSelector(id('render-progress'));
    await waitForText(page, 'job-running', /Frame [1-9]/);
    await tap(page, 'render-cancel');
    expect(await waitForText(page, 'job-cancelled', 'Cancelled. Nothing was kept.')).toBeTruthy();
    // Its workers let go of the file a moment later.
    await until(async () => (await kept(page, 'renders')).length === 0, 'Nothing is kept');
  });

  it('goes on rendering while the editor is elsewhere', async () => {
    await tap(page, 'output-format-webm');
    await tap(page, 'output-size-270');
    await tap(page, 'output-rate-24');
    await tap(page, 'render-start');
    await page.waitForSelector(id('render-progress'));
    await tap(page, 'back');
    await tap(page, 'place-renders');
    await page.waitForSelector(id('render-download'), { timeout: 120_000 });
    expect(await textOf(page, 'render-done')).toMatch(/all 48 frames/);
  });
});
