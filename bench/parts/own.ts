import type { Template } from '@fresh-reel/core';
import { allTemplates } from '@fresh-reel/templates';
import { id, pause, takeIn } from '../../e2e/support/browser';
import type { Part } from '../harness/bench';
import { percentile } from '../harness/figures';
import { inApp, LAPTOP } from '../harness/inApp';

/** A thousand templates of one's own: from the touch that goes to Templates until they are there. */
export const own: Part = async ({ browser, files, report }) => {
  const shipped = allTemplates();
  const templates: Record<string, Template> = {};
  const documents: object[] = [];
  for (let i = 0; i < 1000; i++) {
    const template = {
      ...shipped[i % shipped.length]!,
      id: `own-${i}`,
      name: `Own ${String(i).padStart(3, '0')}`,
    };
    const path = `templates/own-${i}.json`;
    documents.push({ kind: 'template', name: template.name, path });
    templates[path] = template;
  }
  const contents = { format: 'freshreel/contents', version: 2, documents, media: [], fonts: [] };
  const path = await files.packageFile('thousand.freshreel', { ...templates, 'contents.json': contents });
  const listed = await inApp(
    browser,
    '/templates',
    async (tab, go) => {
      await go();
      await takeIn(tab, 'open-template-file', path);
      await tab.waitForSelector('[data-testid^="template-card-own-"]', { timeout: 120_000 });
      const taken: number[] = [];
      for (let i = 0; i < 5; i++) {
        await tab.goto(`${new URL(tab.url()).origin}/renders`);
        await tab.waitForSelector(id('place-templates'));
        await pause(1500);
        taken.push(
          await tab.evaluate(
            () =>
              new Promise<number>((resolve) => {
                const begun = performance.now();
                document.querySelector<HTMLElement>('[data-testid="place-templates"]')!.click();
                const look = () => {
                  const there = document.querySelector('[data-testid^="template-card-own-"]');
                  if (there) resolve(performance.now() - begun);
                  else setTimeout(look, 2);
                };
                look();
              }),
          ),
        );
      }
      return percentile(taken, 0.5);
    },
    LAPTOP,
  );
  report.row('own-thousand-listed', listed, 'ms', 300);
};
