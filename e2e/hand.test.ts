import type { Page } from 'puppeteer-core';
import {
  drawn,
  fieldValue,
  fill,
  id,
  LAPTOP,
  look,
  PHONE,
  PLAIN,
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
import { asFile, discPng } from './support/probe';

/** In the hand: what a thumb, a keyboard and an ear find. */

const session = serve({ moving: true });

const focused = (page: Page) =>
  page.evaluate(() => {
    const at = document.activeElement;
    return at?.getAttribute('data-testid') ?? at?.id ?? '';
  });
const boxOf = (page: Page, testID: string) =>
  page
    .waitForSelector(id(testID))
    .then((e) => e!.evaluate((el) => el.getBoundingClientRect().toJSON() as DOMRect));
const scrolled = (page: Page, testID: string) => page.$eval(id(testID), (e) => e.scrollTop);

describe('by keyboard', () => {
  let page: Page;
  beforeAll(async () => {
    page = await session.page(LAPTOP, '/templates');
    await page.waitForSelector(id('template-card-name-strap'));
  });

  it('the first stop skips to the content', async () => {
    await page.keyboard.press('Tab');
    expect(await focused(page)).toBe('skip');
    await page.keyboard.press('Enter');
    expect(await focused(page)).toBe('content');
  });

  it('cards and places are links, which Enter opens', async () => {
    for (const testID of ['template-card-name-strap', 'place-reels'])
      expect(await page.$eval(id(testID), (e) => e.tagName)).toBe('A');
    expect(await page.$eval(id('template-card-name-strap'), (e) => e.getAttribute('href'))).toBe(
      '/templates/name-strap',
    );
    await page.focus(id('template-card-name-strap'));
    await page.keyboard.press('Enter');
    await page.waitForSelector(id('use-template'));
  });

  it('a group of choices is one stop, and its arrows choose', async () => {
    await page.focus(id('frame-shape-wide'));
    await page.keyboard.press('ArrowRight');
    expect(await focused(page)).toBe('frame-shape-tall');
    const checked = (shape: string) =>
      page.$eval(id(`frame-shape-${shape}`), (e) => e.getAttribute('aria-checked'));
    expect([await checked('wide'), await checked('tall')]).toEqual(['false', 'true']);
    await page.keyboard.press('Tab');
    expect(await focused(page)).not.toMatch(/^frame-shape/);
    await page.focus(id('frame-shape-tall'));
    await page.keyboard.press('ArrowLeft');
  });

  it('the space bar switches, and never scrolls', async () => {
    await page.focus(id('wearing-brand'));
    const top = await scrolled(page, 'template-details');
    await page.keyboard.press('Space');
    await page.waitForSelector(`${id('wearing-brand')}[aria-checked="true"]`);
    expect(await scrolled(page, 'template-details')).toBe(top);
  });

  it('after Use, the keys are in the first slot, and the brand is worn', async () => {
    await tap(page, 'use-template');
    await page.waitForFunction(() => document.activeElement?.getAttribute('data-testid') === 'slot-name');
    await tap(page, 'step-adjust');
    await waitForText(page, 'wear-brand', /^Wears Thistledown/);
    expect(await page.$eval(id('wear-brand'), (e) => e.getAttribute('aria-disabled'))).toBe('true');
  });

  it('page keys move the playhead by a second', async () => {
    await page.focus(id('seek'));
    await page.keyboard.press('Home');
    await waitForText(page, 'timecode', '^00:00:00;00$');
    await page.keyboard.press('PageDown');
    await waitForText(page, 'timecode', '^00:00:01;00$');
    await page.keyboard.press('PageUp');
    await waitForText(page, 'timecode', '^00:00:00;00$');
  });

  it('a sheet takes the keys, keeps them, and gives them back', async () => {
    const swatch = (
      await page.$$eval('[data-testid^="control-"][role="button"]', (all) =>
        all.map((e) => e.getAttribute('data-testid')!),
      )
    )[0]!;
    await page.focus(id(swatch));
    await page.keyboard.press('Enter');
    await page.waitForSelector(`${id('colour-sheet')}[aria-modal="true"]`);
    const inside = () => page.evaluate((s) => !!document.activeElement?.closest(s), id('colour-sheet'));
    // The keys go into it once it stands.
    await page.waitForFunction((s) => document.activeElement?.closest(s), {}, id('colour-sheet'));
    for (let i = 0; i < 30; i++) {
      expect(await inside()).toBe(true);
      await page.keyboard.press('Tab');
    }
    await page.keyboard.press('Escape');
    await page.waitForSelector(id('colour-sheet'), { hidden: true });
    await page.waitForFunction((t) => document.activeElement?.getAttribute('data-testid') === t, {}, swatch);
  });

  it('words are scaled and turned by keys, and say how far', async () => {
    await tap(page, 'step-fill');
    await tap(page, 'text-place-name');
    await page.waitForSelector(id('text-turn'));
    await page.keyboard.press('Escape');
    await page.focus(id('text-turn'));
    await page.keyboard.press('ArrowRight');
    await page.waitForSelector(`${id('text-turn')}[aria-valuetext="1°"]`);
    await page.focus(id('text-scale-2'));
    await page.keyboard.press('ArrowUp');
    await page.waitForSelector(`${id('text-scale-2')}[aria-valuetext="101%"]`);
    await page.close();
  });
});

describe('by thumb', () => {
  it('on its side, and in a low window, the picture stands beside the step', async () => {
    for (const view of [
      { width: 844, height: 390 },
      { width: 640, height: 400 },
    ]) {
      const page = await session.page(view as typeof LAPTOP, '/reels/demo-strap');
      await page.waitForSelector(id('slot-name'));
      const [picture, sheet, ribbon] = [
        await boxOf(page, 'preview'),
        await boxOf(page, 'sheet-fill'),
        await boxOf(page, 'seek'),
      ];
      expect(picture.right).toBeLessThanOrEqual(sheet.left + 1);
      expect(picture.height).toBeGreaterThan(110);
      expect(ribbon.bottom).toBeLessThanOrEqual(view.height);
      expect(sheet.height).toBeGreaterThan(200);
      await page.close();
    }
  });

  it('the time code is whole on the narrowest phone', async () => {
    const page = await session.page({ width: 320, height: 640 } as typeof LAPTOP, '/reels/demo-opener');
    const box = await boxOf(page, 'timecode');
    const seen = await page.evaluate(
      ({ x, y, width, height }) =>
        [0.05, 0.5, 0.95].map(
          (k) =>
            document.elementFromPoint(x + width * k, y + height / 2)?.getAttribute('data-testid') ?? 'other',
        ),
      box,
    );
    expect(seen).toEqual(['timecode', 'timecode', 'timecode']);
    expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(320);
    await page.close();
  });

  it('each step opens at its top, and where it was left', async () => {
    const page = await session.page(PHONE, '/reels/demo-opener');
    await page.waitForSelector(id('slot-title-1'));
    await page.$eval(id('sheet-fill'), (e) => {
      e.scrollTop = 400;
    });
    await quiet(page);
    await tap(page, 'step-adjust');
    expect(await scrolled(page, 'sheet-adjust')).toBe(0);
    await tap(page, 'step-fill');
    await page.waitForFunction((s) => document.querySelector(s)!.scrollTop === 400, {}, id('sheet-fill'));
    await page.close();
  });

  it('nothing moves once it is known that there is a sound', async () => {
    const page = await session.page(PHONE);
    // On a slow machine that is long after the first picture.
    await page.emulateCPUThrottling(4);
    await page.goto(`${session.address}/reels/demo-strap`);
    await page.waitForSelector(id('play'));
    const before = await boxOf(page, 'play');
    await page.waitForSelector(id('sound-on'));
    expect((await boxOf(page, 'play')).top).toBe(before.top);
    await page.close();
  });

  it('keyframes appear without moving what is touched, and their strip keeps its height', async () => {
    const page = await session.page(PHONE, '/reels/demo-strap');
    await tap(page, 'step-adjust');
    const button = (
      await page.$$eval('[data-testid^="over-time-"]', (all) =>
        all.map((e) => e.getAttribute('data-testid')!),
      )
    ).at(-1)!;
    await page.$eval(id(button), (e) => e.scrollIntoView({ block: 'end' }));
    await quiet(page);
    const before = await boxOf(page, button);
    await page.click(id(button));
    await page.waitForSelector(id('key-strip'));
    await quiet(page);
    expect(Math.abs((await boxOf(page, button)).top - before.top)).toBeLessThan(2);
    const high = (await boxOf(page, 'key-strip')).height;
    await tap(page, 'frame-on');
    await waitForText(page, 'key-toggle', /Add/);
    expect((await boxOf(page, 'key-strip')).height).toBe(high);
    await page.close();
  });

  it('a reel opens by its name, and a template made for tall video opens tall', async () => {
    const page = await session.page(PHONE, '/reels');
    await tap(page, 'name-demo-strap');
    await page.waitForSelector(id('slot-name'));
    await page.goto(`${session.address}/templates/tall-hook`);
    await page.waitForSelector(`${id('frame-shape-tall')}[aria-checked="true"]`);
    await page.close();
  });

  it('search and filters stay when one comes back, and search forgives', async () => {
    const page = await session.page(PHONE, '/templates');
    // The card in the middle moves before anything is touched, on and on: once its still and its first frame are there.
    // What still arrives above it may bring another to the middle.
    const looks = new Set<string>();
    while (looks.size < 8) {
      const canvas = await page.waitForSelector('[data-testid^="template-card-"] canvas');
      const card = await canvas!.evaluate(
        (e) => e.closest('[data-testid^="template-card-"]')?.getAttribute('data-testid') ?? null,
      );
      if (card) looks.add(card + (await look(page, card)));
    }
    await fill(page, 'search', 'lowr thirds');
    await page.waitForSelector(id('template-card-mask-rise'), { hidden: true });
    await tap(page, 'template-card-name-strap');
    await page.waitForSelector(id('use-template'));
    await tap(page, 'back');
    expect(await fieldValue(page, 'search')).toBe('lowr thirds');
    await fill(page, 'search', 'countdwn to the kite opener');
    await waitForText(page, 'nearest', /come nearest/);
    await fill(page, 'search', 'zzzzzzzz');
    await tap(page, 'show-all');
    await page.waitForSelector(id('template-card-mask-rise'));
    // One comes back to where one was, and stays there.
    const content = () => page.$eval('#content', (e) => e.scrollTop);
    const comesBack = async (height: number) => {
      await page.waitForSelector(id('use-template'));
      await tap(page, 'back');
      await page.waitForFunction((y) => document.getElementById('content')!.scrollTop > y, {}, height);
      await quiet(page);
      expect(await content()).toBeGreaterThan(height);
    };
    await tap(page, 'template-card-quote-card');
    await comesBack(500);
    // Also when one taps while it still moves, and before it tells that it has moved.
    await page.evaluate(async () => {
      const frame = () => new Promise((resolve) => requestAnimationFrame(resolve));
      const content = document.getElementById('content')!;
      for (const y of [600, 700, 800, 900]) {
        content.scrollTop = y;
        await frame();
      }
      content.scrollTop = 1400;
      const middle = document.elementsFromPoint(120, 420).map((e) => e.closest<HTMLElement>('a'));
      middle.find((a) => a)!.click();
    });
    await comesBack(1300);
    await page.close();
  });

  it('what lies behind transparent titles is chosen once, and never rendered', async () => {
    const page = await session.page(PHONE, '/reels/demo-strap');
    await page.waitForSelector(id('tag-name'));
    // Footage that stands shows a frame of its own, and not the small picture that stands for it until that is there.
    await page.waitForFunction(() => {
      const video = document.querySelector('video');
      return video && video.readyState >= 2 && video.currentTime > 0 && !video.seeking;
    });
    const footage = await look(page, 'preview');
    await tap(page, 'ground');
    await tap(page, 'ground-kind-plain');
    await page.keyboard.press('Escape');
    const plain = await waitForChange(page, 'preview', footage);
    await page.reload();
    await page.waitForSelector(id('tag-name'));
    await page.waitForFunction(() => !document.querySelector('video'));
    await quiet(page);
    expect((await look(page, 'preview')).length).toBeGreaterThan(0);
    expect(plain).not.toBe(footage);
    await page.close();
  });
});

describe('what is chosen for a render', () => {
  it('stays with the reel, and the time code counts in its rate', async () => {
    const page = await session.page(LAPTOP, '/reels/demo-sting');
    await tap(page, 'step-render');
    await tap(page, 'output-format-png-sequence');
    await tap(page, 'output-size-720');
    await tap(page, 'output-rate-25');
    await page.focus(id('seek'));
    await page.keyboard.press('Home');
    await page.keyboard.press('PageDown');
    await waitForText(page, 'timecode', '^00:00:01:00$');
    await page.keyboard.press('ArrowLeft');
    await waitForText(page, 'timecode', '^00:00:00:24$');
    await saved(page);
    await page.reload();
    await tap(page, 'step-render');
    for (const chosen of ['output-format-png-sequence', 'output-size-720', 'output-rate-25'])
      await page.waitForSelector(`${id(chosen)}[aria-checked="true"]`);
    await page.close();
  });
});

describe('while it plays', () => {
  it('nothing is rendered but the time code, and the sound comes from its own thread', async () => {
    const page = await session.page(LAPTOP, '/reels/demo-opener', async (p) => {
      await p.evaluateOnNewDocument(() => {
        const heard = { peak: 0 };
        Object.assign(window, { heard });
        const connect = AudioWorkletNode.prototype.connect as (this: AudioNode, to: AudioNode) => AudioNode;
        AudioWorkletNode.prototype.connect = function (this: AudioNode, to: AudioNode) {
          const meter = new AnalyserNode(this.context);
          connect.call(this, meter);
          const block = new Float32Array(meter.fftSize);
          setInterval(() => {
            meter.getFloatTimeDomainData(block);
            for (const v of block) heard.peak = Math.max(heard.peak, Math.abs(v));
          }, 40);
          return connect.call(this, to);
        } as AudioNode['connect'];
      });
    });
    await page.waitForSelector(id('sound-on'));
    await page.waitForSelector(id('tag-headline'));
    await quiet(page);
    await tap(page, 'play');
    await waitForText(page, 'time', /[1-9]/);
    const changes = await page.evaluate(async () => {
      const seen: string[] = [];
      let times = 0;
      let enough: () => void = () => undefined;
      const told = new Promise<void>((resolve) => {
        enough = resolve;
      });
      const observer = new MutationObserver((records) => {
        for (const { target, type } of records) {
          const element = target instanceof Element ? target : target.parentElement;
          if (element?.closest('[data-testid="time"]')) times++;
          else seen.push(`${type} ${element?.outerHTML.slice(0, 80)}`);
        }
        if (times > 20) enough();
      });
      observer.observe(document.body, { subtree: true, childList: true, characterData: true });
      await told;
      observer.disconnect();
      return seen;
    });
    // The resolution is told beside the time code, in the same row.
    expect(changes.slice(0, 3)).toEqual([]);
    await page.waitForFunction(() => (window as unknown as { heard: { peak: number } }).heard.peak > 0.01);
    await tap(page, 'play');
    await page.close();
  });
});

describe('files that come and go', () => {
  it('a picture taken off the shelf goes from the preview at once, and is back when it is put back', async () => {
    const page = await session.page(LAPTOP, '/reels/demo-strap');
    const [chooser] = await Promise.all([page.waitForFileChooser(), tap(page, 'choose-badge')]);
    await chooser.accept([asFile(discPng(300, [20, 90, 160]), 'disc.png')]);
    await saved(page);
    await page.waitForSelector(id('reset-slot-badge'));
    const shelf = await session.page(LAPTOP, '/shelf');
    await tap(shelf, 'media-disc.png');
    await tap(shelf, 'media-remove');
    await waitForText(shelf, 'toast', /off the shelf/);
    await page.bringToFront();
    await page.waitForSelector('[data-testid^="missing-"]');
    await waitForText(page, 'missing-files', /Missing here/);
    await shelf.bringToFront();
    await tap(shelf, 'toast-action');
    await drawn(shelf);
    await page.bringToFront();
    await page.waitForFunction(() => !document.querySelector('[data-testid^="missing-"]'));
    await shelf.close();
    await page.close();
  });
});

it('at an address that is not secure, which is said, one tab at a time edits a reel, and it is rendered as pictures', async () => {
  const plain = session.address.replace('localhost', PLAIN);
  const page = await session.page(LAPTOP);
  await page.goto(`${plain}/templates`);
  expect(await page.evaluate(() => [window.isSecureContext, 'locks' in navigator])).toEqual([false, false]);
  await waitForText(page, 'not-secure', /not secure: plain\.test/);
  await tap(page, 'template-card-name-strap');
  await tap(page, 'use-template');
  await fill(page, 'slot-name', 'Plain address');
  await saved(page);
  expect(await textOf(page, 'timecode')).toMatch(/^00:00:/);
  const other = await session.page(LAPTOP);
  await other.goto(page.url());
  await waitForText(other, 'elsewhere', /another tab/i);
  expect(await fieldValue(other, 'slot-name')).toBe('Plain address');
  await tap(other, 'take-over');
  await fill(other, 'slot-name', 'Taken over');
  await saved(other);
  await page.bringToFront();
  await page.waitForSelector(id('elsewhere'));
  await waitForValue(page, 'slot-name', 'Taken over');
  // The tab that has it is closed: the other goes on.
  await other.close();
  await page.bringToFront();
  await page.waitForSelector(id('elsewhere'), { hidden: true });
  await fill(page, 'slot-name', 'And back');
  await saved(page);
  expect(await renderNow(page, 'png', '270')).toMatch(/1 frame/);
  await page.close();
});
