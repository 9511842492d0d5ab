import { allTemplates } from '@fresh-reel/templates';
import { id, pause, takeIn } from '../../e2e/support/browser';
import type { Part } from '../harness/bench';
import { inApp, WIDE } from '../harness/inApp';
import { memoryOf } from '../harness/memory';

/** The place of templates with a hundred of them, and four side by side. */
export const collection: Part = async ({ browser, files, report }) => {
  const templates = allTemplates();
  const more = Math.max(0, 100 - templates.length);
  const own: string[] = [];
  for (let i = 0; i < more; i++) {
    const name = `Own ${String(i).padStart(2, '0')}`;
    const template = { ...templates[i], id: `own-${i}`, name };
    const contents = { format: 'freshreel/contents', version: 1, media: [], fonts: [] };
    own.push(
      await files.packageFile(`own-${i}.freshreel`, { 'template.json': template, 'contents.json': contents }),
    );
  }
  const compared = ['drift-wall', 'kite-tails', 'quiet-title', 'ticket'];
  const figures = await inApp(
    browser,
    '/templates',
    async (tab, go) => {
      await go();
      for (const path of own) {
        await takeIn(tab, 'open-template-file', path);
        await tab.waitForSelector(id('use-template'));
        await tab.goBack();
      }
      await tab.waitForSelector('[data-testid^="template-card-"]');
      await pause(1500);
      // Warm: everything of the app is there already.
      await tab.reload();
      const first = await tab
        .waitForFunction(
          () => {
            const there = (e: HTMLImageElement) => e.complete && e.naturalWidth > 0;
            const shown = [
              ...document.querySelectorAll<HTMLImageElement>('[data-testid^="template-card-"] img'),
            ].some(there);
            return shown && performance.now();
          },
          { timeout: 30_000 },
        )
        .then(async (handle) => Number(await handle.jsonValue()));
      await pause(2500);
      const before = memoryOf(browser);
      const scrolled = await tab.evaluate(async () => {
        const all = [document.scrollingElement!, ...document.querySelectorAll('*')];
        const room = (e: Element) => e.scrollHeight - e.clientHeight;
        const scroller = all.reduce((a, b) => (room(b) > room(a) ? b : a));
        let frames = 0;
        const begun = performance.now();
        for (let way = 0; way < 20; way++) {
          const [from, to] = way % 2 === 0 ? [0, room(scroller)] : [room(scroller), 0];
          await new Promise<void>((done) => {
            const start = performance.now();
            const tick = () => {
              frames++;
              const part = Math.min(1, (performance.now() - start) / 2500);
              scroller.scrollTop = from + (to - from) * part;
              if (part < 1) requestAnimationFrame(tick);
              else done();
            };
            requestAnimationFrame(tick);
          });
        }
        return { fps: (frames * 1000) / (performance.now() - begun), room: room(scroller) };
      });
      await pause(2000);
      const after = memoryOf(browser);
      await tab.goto(`${new URL(tab.url()).origin}/templates/compare?ids=${compared.join()}`);
      await tab.waitForFunction(() => window.seen.frames.length > 60, { timeout: 30_000 });
      await pause(2000);
      const slowest = await tab.evaluate(async () => {
        window.seen.frames.length = 0;
        await new Promise((resolve) => setTimeout(resolve, 3000));
        const counts = window.seen.counts();
        return { shown: counts.length, least: Math.min(...counts) / 3 };
      });
      return { first, scrolled, memory: after / before, slowest };
    },
    WIDE,
  );
  const { first, scrolled, memory, slowest } = figures;
  report.say(
    `${templates.length + more} templates, ${scrolled.room} pixels to scroll; ${slowest.shown} playing side by side`,
  );
  report.row('templates-first-card-warm', first, 'ms', 1000);
  report.row('templates-scrolling', scrolled.fps, 'fps', 50);
  report.row('templates-memory-after-ten-times', memory, 'times', 1.15);
  report.row('templates-side-by-side', slowest.least, 'fps', 15);
};
