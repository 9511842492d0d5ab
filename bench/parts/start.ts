import { execFileSync } from 'node:child_process';
import { join } from 'node:path';
import type { Part } from '../harness/bench';
import { inApp, PHONE } from '../harness/inApp';
import {
  firstVisit,
  keptFromTheFirst,
  processorSeconds,
  scriptOfWorkers,
  untilAddress,
} from '../node/arrival';

/** From nothing to the first card, as a phone gets it: what goes over the wire, and how long it takes; and a start. */
export const start: Part = async ({ root, browser, files, report }) => {
  // What `npm start` does once the address is printed: it changes what goes over the wire.
  execFileSync(process.execPath, [`${root}scripts/build/squeezeRest.mjs`]);
  const figures = await inApp(
    browser,
    '/templates',
    async (tab, go) => {
      const begun = performance.now();
      await go();
      await tab.waitForSelector('[data-testid^="template-card-"] img');
      const card = (performance.now() - begun) / 1000;
      await tab.waitForFunction(
        () =>
          new Set(window.seen.frames.map(([s, n]) => `${s}/${n}`)).size >
          window.seen.frames.reduce((all, [s]) => all.add(s), new Set()).size,
      );
      const moving = (performance.now() - begun) / 1000;
      return { card, moving, ...(await firstVisit(browser, new URL(tab.url()).origin)) };
    },
    PHONE,
  );
  report.row('wire-until-cards', figures.cards, 'MB', 0.9);
  report.row('wire-after-all', figures.after, 'MB', 1.3);
  report.row('start-to-first-card', figures.card, 's', 3);
  report.row('start-to-first-movement', figures.moving, 's', 4);
  const site = `${root}apps/studio/dist`;
  const kept = keptFromTheFirst(site);
  report.say(`kept for times without a network: ${kept.files} files`);
  report.row('kept-from-the-first', kept.megabytes, 'MB', 6);
  const script = scriptOfWorkers(site);
  report.row('script-of-workers', script, 'MB', 4);
  const first = processorSeconds(root, 'scripts/build/build.mjs', '--force');
  report.row('first-start-processor', first, 's', 75);
  const data = join(files.folder, 'started');
  const warm = await untilAddress(root, data);
  report.row('warm-start', warm, 's', 2);
};
