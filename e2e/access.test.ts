import { readFileSync } from 'node:fs';
import type { Page } from 'puppeteer-core';
import { drawn, id, LAPTOP, PHONE, quiet, serve, tap } from './support/browser';

const axe = readFileSync(require.resolve('axe-core/axe.min.js'), 'utf8');

const session = serve({ demoShelf: true });

/** Serious and critical faults that axe-core finds (WCAG 2.2 A and AA), as short lines. */
async function faults(page: Page): Promise<string[]> {
  // The page's own policy forbids foreign scripts; the tool comes in beside it.
  await page.evaluate(axe);
  const found = await page.evaluate(async () => {
    const { axe: tool } = window as unknown as {
      axe: {
        run(
          options: object,
        ): Promise<{ violations: { id: string; impact: string; nodes: { html: string }[] }[] }>;
      };
    };
    const { violations } = await tool.run({
      runOnly: ['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa', 'wcag22aa'],
    });
    return violations.map((v) => ({
      id: v.id,
      impact: v.impact,
      html: v.nodes.map((n) => n.html.slice(0, 160)),
    }));
  });
  return found
    .filter((v) => v.impact === 'serious' || v.impact === 'critical')
    .map((v) => `${v.id}: ${v.html.join(' | ')}`);
}

const screens: [string, string, (page: Page) => Promise<void>][] = [
  ['templates', '/templates', async (p) => void (await p.waitForSelector(id('template-card-name-strap')))],
  [
    'template details',
    '/templates/gust-sting',
    async (p) => void (await p.waitForSelector(id('use-template'))),
  ],
  ['what templates are found by', '/templates', async (p) => tap(p, 'find-by')],
  [
    'templates side by side',
    '/templates/compare?ids=name-strap,tall-hook',
    async (p) => void (await p.waitForSelector(id('compared-tall-hook'))),
  ],
  ['reels', '/reels', async (p) => void (await p.waitForSelector(id('reel-demo-strap')))],
  ['brand', '/brand', async (p) => void (await p.waitForSelector(id('brand-name')))],
  ['renders', '/renders', async (p) => void (await p.waitForSelector(id('renders')))],
  ['shelf', '/shelf', async (p) => void (await p.waitForSelector(id('media-festival-logo.svg')))],
  ['a file of the shelf', '/shelf', async (p) => tap(p, 'media-festival-logo.svg')],
  ['a clip in its slot', '/reels/demo-freeze', async (p) => tap(p, 'show-shot')],
  ['a sound in its slot', '/reels/demo-opener', async (p) => tap(p, 'show-bed')],
  ['fill', '/reels/demo-strap', async (p) => void (await p.waitForSelector(id('slot-name')))],
  ['adjust', '/reels/demo-strap', async (p) => tap(p, 'step-adjust')],
  [
    'another template',
    '/reels/demo-strap',
    async (p) => {
      await tap(p, 'step-adjust');
      await tap(p, 'another-template');
      await tap(p, 'another-groove');
      await p.waitForSelector(id('another-take'));
    },
  ],
  [
    'looks side by side',
    '/reels/demo-strap',
    async (p) => {
      await tap(p, 'step-adjust');
      await tap(p, 'compare-looks');
      await p.waitForSelector(id('beside-look-dusk'));
    },
  ],
  [
    'a colour',
    '/reels/demo-strap',
    async (p) => {
      await tap(p, 'step-adjust');
      await tap(p, 'control-accent');
      await p.waitForSelector(id('colour-code'));
    },
  ],
  [
    'place, with an item chosen',
    '/reels/demo-strap',
    async (p) => {
      await tap(p, 'step-place');
      await tap(p, 'row-demo-strap-1');
      await p.waitForSelector(id('trim-end'));
    },
  ],
  ['render', '/reels/demo-strap', async (p) => tap(p, 'step-render')],
  ...(['letters', 'place', 'motion'] as const).map((tab): [string, string, (p: Page) => Promise<void>] => [
    `the ${tab} of a text`,
    '/reels/demo-strap',
    async (p) => {
      await tap(p, 'step-fill');
      await tap(p, 'slot-name');
      await tap(p, `text-${tab}-name`);
      await p.waitForSelector(id('text-sheet'));
    },
  ]),
  [
    'the font list',
    '/reels/demo-strap',
    async (p) => {
      await tap(p, 'step-fill');
      await tap(p, 'slot-name');
      await tap(p, 'text-letters-name');
      await tap(p, 'text-font');
      await p.waitForSelector(id('font-sheet'));
    },
  ],
  [
    'emoji and signs',
    '/reels/demo-strap',
    async (p) => {
      await tap(p, 'step-fill');
      await tap(p, 'slot-name');
      await tap(p, 'signs-name');
      await p.waitForSelector(id('sign-sheet'));
    },
  ],
  [
    'keyframes and their curve',
    '/reels/demo-strap',
    async (p) => {
      await tap(p, 'step-adjust');
      await tap(p, 'over-time-size');
      await p.waitForSelector(id('key-0'));
    },
  ],
  [
    'markers and keys of place',
    '/reels/demo-strap',
    async (p) => {
      await tap(p, 'step-place');
      await tap(p, 'marker-add');
      await tap(p, 'place-keys');
      await p.waitForSelector(id('keys-sheet'));
    },
  ],
  [
    'place, while something is followed',
    '/shelf',
    async (p) => {
      await tap(p, 'shelf-new-reel');
      const card = `${id('new-reel-sheet')} ${id('media-kites-crossing.mp4')}`;
      await p.waitForSelector(card);
      await p.$eval(card, (e) => (e as HTMLElement).click());
      await tap(p, 'new-reel-make');
      await tap(p, 'place-title');
      await tap(p, 'title-name-strap');
      await tap(p, 'follow-begin');
      await p.waitForSelector(id('patch'));
    },
  ],
];

/** Pixels a page is wider than its window. */
const over = (page: Page) => page.evaluate(() => document.documentElement.scrollWidth - window.innerWidth);

/** The page that was looked at last: what lies on the same one is opened there, once all sheets are closed. */
let looked: { readonly path: string; readonly page: Page } | undefined;

async function pageOf(path: string): Promise<Page> {
  const { width, height } = PHONE;
  if (looked?.path === path) {
    const { page } = looked;
    await page.setViewport({ width, height, deviceScaleFactor: 1 });
    for (let i = 0; i < 4 && (await page.$('[role="dialog"]')); i++) {
      await page.keyboard.press('Escape');
      await drawn(page);
    }
    await page.waitForSelector('[role="dialog"]', { hidden: true });
    return page;
  }
  await leave();
  looked = { path, page: await session.page({ width, height }, path) };
  return looked.page;
}

/** A reel that is left open would be locked for the next. */
async function leave(): Promise<void> {
  await looked?.page.close();
  looked = undefined;
}

// Each screen is opened on a phone, and then the window is drawn out to a laptop's.
it.each(screens)(
  '%s has no serious fault and does not scroll sideways, small and wide',
  async (_name, path, open) => {
    try {
      const page = await pageOf(path);
      await open(page);
      await quiet(page);
      const small = { faults: await faults(page), over: await over(page) };
      await page.setViewport({ ...LAPTOP, deviceScaleFactor: 1 });
      await quiet(page);
      const wide = { faults: await faults(page), over: await over(page) };
      const none = { faults: [], over: 0 };
      expect({ small, wide }).toEqual({ small: none, wide: none });
    } catch (error) {
      await leave();
      throw error;
    }
  },
);

it('the whole job can be reached from the keyboard', async () => {
  await leave();
  const page = await session.page(LAPTOP, '/reels/demo-strap');
  await page.waitForSelector(id('slot-name'));
  const reached = new Set<string>();
  for (let i = 0; i < 60; i++) {
    await page.keyboard.press('Tab');
    reached.add(
      await page.evaluate(
        () =>
          document.activeElement?.getAttribute('data-testid') ??
          document.activeElement?.getAttribute('aria-label') ??
          '',
      ),
    );
  }
  for (const wanted of [
    'back',
    'play',
    'seek',
    'hold-end',
    'step-adjust',
    'step-render',
    'slot-name',
    'choose-badge',
  ])
    expect([...reached]).toContain(wanted);
  await page.close();
});
