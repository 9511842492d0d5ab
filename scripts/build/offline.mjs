/** What lets the app open without a network: its service worker. */
import { createHash } from 'node:crypto';
import { readFileSync } from 'node:fs';
import { build } from 'esbuild';
import { root } from '../setup.mjs';

/** What is not needed to look at templates and to edit reels, and is kept once it was used. */
const RARE = /\/(es|data-by-group|contactSheet|unpack)[^/]*\.js$/;

/** What is kept when the app is first opened: the shell and the editor. */
const KEPT = [
  /^\/(index\.html|manifest\.webmanifest|version\.json)$/,
  /^\/icons\//,
  /^\/app\//,
  /^\/engine\//,
  /^\/templates\/documents\.json$/,
  /^\/fonts\/(bricolage|figtree)/i,
  // What is heard is small, and asked for only when something plays.
  /^\/templates\/shared\/[^/]+\.ogg$/,
];
const isKept = (url) => KEPT.some((kind) => kind.test(url)) && !RARE.test(url);

/** Writes the service worker of what was built. @param files their paths */
export async function writeServiceWorker(folder, files) {
  const all = files
    .filter((path) => !/\.(br|map)$/.test(path) && !path.endsWith('/metadata.json'))
    .map((path) => ({
      url: path.slice(folder.length),
      hash: createHash('sha256').update(readFileSync(path)).digest('hex').slice(0, 16),
    }));
  // Names of built code hold the hash of what is in it.
  const revision = ({ url, hash }) => (url.startsWith('/app/') ? null : hash);
  await build({
    entryPoints: [`${root}apps/studio/src/offline/service.worker.ts`],
    outfile: `${folder}/sw.js`,
    ...{ bundle: true, minify: true, format: 'iife' },
    define: {
      'process.env.NODE_ENV': '"production"',
      KEPT: JSON.stringify(
        all.filter((f) => isKept(f.url)).map((f) => ({ url: f.url, revision: revision(f) })),
      ),
      USED: JSON.stringify(
        Object.fromEntries(all.filter((f) => !isKept(f.url)).map(({ url, hash }) => [url, hash])),
      ),
    },
  });
}
