import {
  layoutFrame,
  newReel,
  openDocument,
  type Reel,
  ReelScene,
  reelKind,
  templateKind,
} from '@fresh-reel/core';
import { NodeStudio, pngOf } from '@fresh-reel/node-host';
import { SHIPPED_PATHS } from '@fresh-reel/templates/assets';
import { PNG } from 'pngjs';
import families from '../bench/page/families.json';
import { id, LAPTOP, renderNow, serve, takeIn, tap, waitForText } from './support/browser';
import { asFile, difference } from './support/probe';
import { reelFileOf, unzipped } from './support/zip';

const session = serve();
let studio: NodeStudio;
beforeAll(async () => {
  studio = await NodeStudio.start(SHIPPED_PATHS);
});
afterAll(() => studio.close());

/** One frame of a reel, as Node paints it. */
async function inNode(
  reel: Reel,
  media: readonly { id: string; bytes: Uint8Array }[],
  frame: number,
): Promise<PNG> {
  for (const { id, bytes } of media) {
    if (!SHIPPED_PATHS.find(id)) await studio.addPicture(id, bytes);
  }
  const scene = new ReelScene(reel, studio);
  await studio.prepare(scene);
  const size = { width: 480, height: 270 };
  const evaluated = scene.frameAt(frame, reel.rate);
  await studio.framesReady([evaluated.ops]);
  return PNG.sync.read(await pngOf(studio.paint(evaluated, layoutFrame(reel.frame), size)));
}

describe('the same frame from Chromium and from Node', () => {
  // Words at rest and in motion; a logo in perspective with its shadow; pictures and a clip cropped, blended and grained.
  it.each([
    ['demo-strap', [22, 300]],
    ['demo-sting', [20, 90]],
    ['demo-opener', [60, 400]],
  ] as const)('%s', async (name, frames) => {
    const page = await session.page(LAPTOP, `/reels/${name}`);
    await tap(page, 'step-render');
    await tap(page, 'save-reel-file');
    const { reel: held, media } = await reelFileOf(await session.take('.freshreel'));
    const reel = openDocument(reelKind, held);
    for (const frame of frames) {
      await page.focus(id('seek'));
      await page.keyboard.press('Home');
      await page.keyboard.down('Shift');
      for (let i = 0; i < Math.floor(frame / 10); i++) await page.keyboard.press('ArrowRight');
      await page.keyboard.up('Shift');
      for (let i = 0; i < frame % 10; i++) await page.keyboard.press('ArrowRight');
      await waitForText(
        page,
        'timecode',
        `^00:00:0${Math.floor(frame / 60)}:${String(frame % 60).padStart(2, '0')}$`,
      );
      await renderNow(page, 'png', '270');
      await tap(page, 'render-download');
      const browser = PNG.sync.read(await session.take('.png'));
      await page.evaluate(() => document.querySelector<HTMLElement>('[aria-label^="Remove "]')?.click());
      const node = await inNode(reel, media, frame);
      const empty = difference(browser, new PNG({ width: browser.width, height: browser.height }));
      const differs = difference(browser, node);
      expect({ frame, agrees: differs < 1.2, differs, shows: empty > 1 }).toMatchObject({
        agrees: true,
        shows: true,
      });
    }
    await page.close();
  });
});

it('every family of effects is the same from Chromium and from Node', async () => {
  // Each for six frames, one after the other: one sequence of all of them.
  const EACH = 6;
  const templates = (families as readonly object[]).map((data) =>
    openDocument(templateKind, {
      ...data,
      timing: { in: 2, hold: 2, out: 2 },
      still: { at: 0, of: 'hold' },
      scenes: [
        { id: 'all', name: 'All', from: { at: 0 }, to: { at: 2, of: 'out' }, still: { at: 0, of: 'hold' } },
      ],
    }),
  );
  const [first] = templates;
  const alone = newReel(first!, {
    id: 'families',
    name: 'Families',
    now: '2026-07-04T10:00:00Z',
    shape: 'wide',
  });
  const reel: Reel = {
    ...alone,
    templates: Object.fromEntries(templates.map((t) => [t.id, t])),
    tracks: [
      {
        id: 'graphics',
        items: templates.map((t, i) => ({
          kind: 'graphic' as const,
          id: `family-${i}`,
          template: t.id,
          fill: { slots: {}, controls: {} },
          start: i * EACH,
        })),
      },
    ],
  };
  const page = await session.page(LAPTOP, '/reels');
  await takeIn(page, 'open-reel-file', asFile(Buffer.from(JSON.stringify(reel)), 'families.freshreel'));
  await page.waitForSelector(id('step-render'));
  await renderNow(page, 'png-sequence', '270');
  await tap(page, 'render-download');
  const files = await unzipped(await session.take('.zip'));
  const frames = Object.keys(files)
    .filter((name) => name.endsWith('.png'))
    .sort();
  expect(frames).toHaveLength(templates.length * EACH);
  for (const [i, template] of templates.entries()) {
    const frame = i * EACH + 3;
    const browser = PNG.sync.read(Buffer.from(files[frames[frame]!]!));
    const node = await inNode(reel, [], frame);
    const empty = difference(browser, new PNG({ width: browser.width, height: browser.height }));
    const differs = difference(browser, node);
    expect({ family: template.id, agrees: differs < 1.2, differs, shows: empty > 1 }).toMatchObject({
      agrees: true,
      shows: true,
    });
  }
  await page.close();
});
