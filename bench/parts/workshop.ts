import { templateById } from '@fresh-reel/templates';
import { id, pause, takeIn } from '../../e2e/support/browser';
import type { Part } from '../harness/bench';
import { percentile } from '../harness/figures';
import { inApp, LAPTOP } from '../harness/inApp';

/** A template of 400 layers on the bench of the workshop: choosing, dragging, undoing, and until a change shows. */
export const workshop: Part = async ({ browser, files, report }) => {
  const strap = templateById('name-strap');
  const dot = (i: number) => ({
    ...{ id: `dot-${i}`, kind: 'shape', outline: { kind: 'ellipse' }, size: [40, 40] },
    ...{ offset: [30 + (i % 25) * 74, 30 + Math.floor(i / 25) * 64], fill: { colour: '#F2A541' } },
  });
  const layers = Array.from({ length: 396 }, (_, i) => dot(i));
  const template = {
    ...strap,
    id: 'four-hundred',
    name: 'Four hundred',
    layers: [...layers, ...strap.layers.slice(-1)],
  };
  const path = await files.packageFile('four-hundred.freshreel', { 'template.json': template });
  const figures = await inApp(
    browser,
    '/templates',
    async (tab, go) => {
      await go();
      await takeIn(tab, 'open-template-file', path);
      await tab.waitForSelector(id('to-workshop'));
      await tab.click(id('to-workshop'));
      await tab.waitForSelector(id('part-tree'));
      // Until the demo's files are on the shelf: that is done once, at the very first start.
      await pause(12_000);
      /** Frames of the page a second while something is done. */
      const paced = async (work: () => Promise<void>) => {
        await tab.evaluate(() => {
          window.pace = { frames: 0, begun: performance.now(), going: true };
          const tick = () => {
            window.pace.frames++;
            if (window.pace.going) requestAnimationFrame(tick);
          };
          requestAnimationFrame(tick);
        });
        await work();
        return tab.evaluate(() => {
          window.pace.going = false;
          return (window.pace.frames * 1000) / (performance.now() - window.pace.begun);
        });
      };
      const ids = await tab.$$eval('[data-testid^="part-dot-"]', (all) =>
        all.map((e) => (e as HTMLElement).dataset.testid!),
      );
      const choosing = await paced(async () => {
        for (const part of ids.slice(0, 10)) {
          await tab.click(id(part));
          await pause(150);
        }
      });
      const box = (await (await tab.$('[data-testid^="part-box-dot-"]'))!.boundingBox())!;
      const [x, y] = [box.x + box.width / 2, box.y + box.height / 2] as const;
      const dragging = await paced(async () => {
        await tab.mouse.move(x, y);
        await tab.mouse.down();
        for (let i = 0; i < 90; i++) {
          await tab.mouse.move(x + i, y + i / 2);
          await pause(12);
        }
        await tab.mouse.up();
      });
      const undoing = await paced(async () => {
        for (let i = 0; i < 8; i++) {
          await tab.click(id(i % 2 === 0 ? 'undo' : 'redo'));
          await pause(150);
        }
      });
      const shows: number[] = [];
      for (let i = 0; i < 15; i++) {
        await tab.focus('[data-testid^="part-box-dot-"]');
        await tab.evaluate(() => (window.seen.frames.length = 0));
        await tab.keyboard.press('ArrowRight');
        shows.push(
          await tab.evaluate(
            () =>
              new Promise<number>((resolve) => {
                const look = () => {
                  const main = window.seen.frames[0];
                  if (main) resolve(main[2] - window.seen.key);
                  else setTimeout(look, 4);
                };
                look();
              }),
          ),
        );
        await pause(120);
      }
      return { choosing, dragging, undoing, shows };
    },
    LAPTOP,
  );
  for (const what of ['choosing', 'dragging', 'undoing'] as const)
    report.row(`workshop-400-${what}`, figures[what], 'fps', 50);
  const shows = percentile(figures.shows, 0.95);
  report.row('workshop-400-change-shows', shows, 'ms', 100);
};
