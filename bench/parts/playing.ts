import { allTemplates } from '@fresh-reel/templates';
import { id, pause } from '../../e2e/support/browser';
import type { Part } from '../harness/bench';
import { inApp, WIDE } from '../harness/inApp';

/** Pictures a second that are shown in the app at 960×540, with the sound on, and the page's own frames. */
export const playing: Part = async ({ browser, only, report }) => {
  const templates = allTemplates();
  for (const { id: template } of templates.filter((t) => !only || only.includes(t.id))) {
    const { shown, page: own } = await inApp(
      browser,
      `/templates/${template}`,
      async (tab, go) => {
        await go();
        await tab.waitForSelector(id('use-template'));
        // Wide, whatever it was made for: that is what the budget is about.
        await tab.click(id('frame-shape-wide'));
        await tab.click(id('use-template'));
        await tab.waitForSelector(id('play'));
        await pause(2500);
        await tab.click(id('play'));
        await pause(1500);
        return tab.evaluate(async () => {
          window.seen.frames.length = 0;
          let [page, going] = [0, true];
          const tick = () => {
            page++;
            if (going) requestAnimationFrame(tick);
          };
          const begun = performance.now();
          tick();
          await new Promise((resolve) => setTimeout(resolve, 4000));
          going = false;
          const seconds = (performance.now() - begun) / 1000;
          return { shown: Math.max(0, ...window.seen.counts()) / seconds, page: page / seconds };
        });
      },
      WIDE,
    );
    report.row(`shown-${template}`, shown, 'fps', 30);
    report.row(`page-${template}`, own, 'fps', 50);
  }
};
