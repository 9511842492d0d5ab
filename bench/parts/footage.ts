import { choose, id, pause, takeIn } from '../../e2e/support/browser';
import type { Part } from '../harness/bench';
import { percentile } from '../harness/figures';
import { inApp, shownWhilePlaying, WIDE } from '../harness/inApp';
import { memoryOf } from '../harness/memory';

/** A clip of 1080p with two titles over it in the app, its sound on; going through it; and reels of ten minutes and of one. */
export const footage: Part = async ({ browser, files, report, measure }) => {
  const hd = files.hdClip('shot.mp4', [
    '-f',
    'lavfi',
    '-i',
    'sine=frequency=330:duration=6',
    '-map',
    '0:v',
    '-map',
    '1:a',
  ]);
  const one = await measure('one-clip', { path: hd });
  const titles = await measure('templates', { of: ['name-strap', 'pointer'] });
  const painting = titles.reduce((sum, { p95 }) => sum + p95, 0);
  const apart = 1000 / (one.mean + painting);
  const wanted = Math.min(30, 0.9 * apart);
  const view = WIDE;
  const { shown, scrubs } = await inApp(
    browser,
    '/shelf',
    async (tab, go) => {
      await go();
      await choose(tab, 'shelf-add', hd);
      await tab.waitForSelector(id('media-shot.mp4'));
      await tab.click(id('shelf-new-reel'));
      const card = '[data-testid="new-reel-sheet"] [data-testid="media-shot.mp4"]';
      await tab.waitForSelector(card);
      await tab.click(card);
      await tab.click(id('new-reel-make'));
      for (const title of ['name-strap', 'pointer']) {
        await tab.waitForSelector(id('place-title'));
        await tab.click(id('place-title'));
        await tab.waitForSelector(id(`title-${title}`));
        await tab.click(id(`title-${title}`));
        await tab.waitForSelector(id(`item-${title}`));
      }
      const begun = performance.now();
      await tab.waitForSelector(id('proxy-making'));
      await tab.waitForFunction(() => !document.querySelector('[data-testid="proxy-making"]'));
      report.say(`its proxy is made in ${((performance.now() - begun) / 1000).toFixed(1)} s`);
      await pause(2000);
      const pictures = await shownWhilePlaying(tab, 3500);
      await tab.click(id('play'));
      await pause(800);
      await tab.focus(id('line-seek'));
      const times: number[] = [];
      let frame = 0;
      const seek = async (key: 'Home' | 'PageDown' | 'PageUp' | 'ArrowLeft', to: number) => {
        await tab.evaluate(() => (window.seen.frames.length = 0));
        await tab.keyboard.press(key);
        const took = await tab.evaluate(
          (wanted) =>
            new Promise<number>((resolve) => {
              const look = () => {
                const shows = window.seen.frames.find(([, number]) => number === wanted);
                if (shows) resolve(shows[2] - window.seen.key);
                else setTimeout(look, 5);
              };
              look();
            }),
          to,
        );
        times.push(took);
        frame = to;
        await pause(120);
      };
      await seek('Home', 0);
      for (let i = 0; i < 4; i++) await seek('PageDown', frame + 30);
      for (let i = 0; i < 30; i++) await seek('ArrowLeft', frame - 1);
      for (let i = 0; i < 3; i++) await seek('PageUp', Math.max(0, frame - 30));
      return { shown: pictures, scrubs: times };
    },
    view,
  );
  report.say(
    `decoding and painting apart ${apart.toFixed(1)} frames a second; ${scrubs.length} jumps, the middle one ${percentile(scrubs, 0.5).toFixed(0)} ms`,
  );
  report.row('preview-clip-two-titles', shown, 'fps', Number(wanted.toFixed(1)));
  report.row('scrub-to-picture', percentile(scrubs, 0.95), 'ms', 150);
  const figures = [];
  for (const minutes of [1, 10]) {
    const file = await files.reelFile(minutes);
    figures.push(
      await inApp(browser, '/reels', async (tab, go) => {
        await go();
        await takeIn(tab, 'open-reel-file', file);
        await tab.waitForSelector(id('play'));
        await pause(2500);
        await tab.goBack();
        const card = '[data-testid="reels"] a[href^="/reels/"]';
        await tab.waitForSelector(card);
        await pause(2500);
        await tab.evaluate(() => (window.seen.frames.length = 0));
        const open = await tab.evaluate(
          (selector) =>
            new Promise<number>((resolve) => {
              const before = new Set(window.seen.frames.map(([surface]) => surface));
              const begun = performance.now();
              document.querySelector<HTMLElement>(selector)!.click();
              const look = () => {
                const there = document.querySelector('[data-testid="line"], [data-testid="sheet-fill"]');
                const frame = window.seen.frames.find(
                  ([surface, , time]) => time > begun && !before.has(surface),
                );
                if (there && frame) return resolve((frame[2] - begun) / 1000);
                requestAnimationFrame(look);
              };
              look();
            }),
          card,
        );
        await pause(1500);
        await shownWhilePlaying(tab, 8000);
        return { open, memory: memoryOf(browser) };
      }),
    );
  }
  const [short, long] = [figures[0]!, figures[1]!];
  report.row('open-ten-minutes-in-app', long.open, 's', 1.5);
  report.say(
    `memory with a reel of one minute ${short.memory.toFixed(0)} MB, of ten ${long.memory.toFixed(0)} MB`,
  );
  report.row('memory-ten-minutes', long.memory / short.memory, 'times', 1.15);
};
