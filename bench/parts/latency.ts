import { id, pause } from '../../e2e/support/browser';
import type { Part } from '../harness/bench';
import { percentile } from '../harness/figures';
import { inApp } from '../harness/inApp';

/** From a key, and from a tap, to the picture. */
export const latency: Part = async ({ browser, report }) => {
  const latencies = await inApp(browser, '/reels/demo-strap', async (tab, go) => {
    await go();
    await tab.waitForSelector(id('slot-name'));
    await pause(2500);
    await tab.evaluate(() => (window.seen.main = window.seen.frames[0]![0]));
    await tab.click(id('slot-name'));
    await pause(300);
    await tab.keyboard.type(' who flies the long line from the hill above Marram', { delay: 70 });
    await pause(600);
    return tab.evaluate(() => window.seen.latencies);
  });
  report.row('typing-to-picture', percentile(latencies, 0.95), 'ms', 100);

  const first = await inApp(browser, '/templates', async (tab, go) => {
    await go();
    await tab.waitForSelector(id('template-card-four-corners'));
    await pause(2500);
    await tab.evaluate(() => {
      document
        .querySelector('[data-testid="template-card-four-corners"]')!
        .scrollIntoView({ block: 'center' });
      window.seen.before = new Set(window.seen.frames.map(([surface]) => surface));
      window.seen.frames.length = 0;
      window.addEventListener(
        'click',
        () => {
          window.seen.tapped = performance.now();
          // The card that is pointed at began to move before the tap.
          for (const [surface] of window.seen.frames) window.seen.before.add(surface);
        },
        true,
      );
    });
    await tab.click(id('template-card-four-corners'));
    return tab.evaluate(
      () =>
        new Promise<number>((resolve) => {
          const look = () => {
            for (const [surface, number, time] of window.seen.frames) {
              // A surface that was not there before the tap, and has moved on from its first frame.
              const moved = !window.seen.before.has(surface) && number > 0;
              if (moved) return resolve((time - window.seen.tapped) / 1000);
            }
            requestAnimationFrame(look);
          };
          look();
        }),
    );
  });
  report.row('tap-to-first-moving-frame', first, 's', 1.5);
};
