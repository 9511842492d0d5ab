import { mkdirSync, writeFileSync } from 'node:fs';
import { allTemplates } from '@fresh-reel/templates';
import { LISTED } from '@fresh-reel/templates/listed';
import { demoReels } from '../../apps/studio/src/demo/reels';

/** Writes JSON, its folder made. */
function put(path: string, data: unknown): void {
  mkdirSync(path.slice(0, path.lastIndexOf('/')), { recursive: true });
  writeFileSync(path, JSON.stringify(data));
}

/**
 * Writes the documents that the app fetches, each checked now, so that nothing is checked when it is opened: every
 * built-in template by itself and all as one file (for times without a network), and the reels of the demo. What lists
 * tell of the templates goes into the app, as text, which is read much faster than code.
 * @param site the folder that is served
 * @param listed the module that stands for `@fresh-reel/templates/listed` in the app
 */
export function writeDocuments(site: string, listed: string): void {
  for (const template of allTemplates()) put(`${site}/templates/${template.id}/template.json`, template);
  put(`${site}/templates/documents.json`, allTemplates());
  put(`${site}/demo/reels.json`, demoReels(''));
  const told = LISTED.map((one) => ({ ...one }));
  writeFileSync(listed, `export const LISTED = JSON.parse(${JSON.stringify(JSON.stringify(told))});\n`);
}
