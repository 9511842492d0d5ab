/**
 * Bundles the server and the command line into apps/server/dist, unless that is newer than all it is made from: read
 * file by file, as TypeScript, they take seconds to start. Packages from the registry stay where they are.
 */
import { existsSync, mkdirSync, readdirSync, renameSync, rmSync, statSync, writeFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import { basename, dirname } from 'node:path';
import { fileURLToPath, pathToFileURL } from 'node:url';
import { newest } from './newest.mjs';

const root = fileURLToPath(new URL('..', import.meta.url));
const server = `${root}apps/server`;
const dist = `${server}/dist`;

/** What is started by itself: a process or a thread. */
const ENTRIES = {
  main: 'src/main.ts',
  cli: 'src/cli/main.ts',
  paintThread: 'src/cli/paintThread.ts',
  rangeThread: 'src/renders/rangeThread.ts',
};

/** Where an entry lies once it is there. @param {keyof ENTRIES} entry @returns {Promise<string>} its address */
export async function bundled(entry) {
  const path = `${dist}/${entry}.mjs`;
  const made = existsSync(path) ? statSync(path).mtimeMs : 0;
  const sources = [`${server}/src`, `${root}packages`].map(newest);
  if (made <= Math.max(...sources, statSync(`${root}package-lock.json`).mtimeMs)) await bundle();
  return pathToFileURL(path).href;
}

/** Whether what is bundled would find the same package as its source does: not ours, nor another version's. */
function isSameFromHere(name, importer) {
  if (name.startsWith('@fresh-reel/')) return false;
  const [there, here] = [importer, `${dist}/main.mjs`].map((from) => createRequire(from).resolve(name));
  return there === here;
}

async function bundle() {
  const { build } = await import('esbuild');
  const { outputFiles } = await build({
    absWorkingDir: server,
    entryPoints: ENTRIES,
    outdir: dist,
    outExtension: { '.js': '.mjs' },
    ...{ bundle: true, splitting: true, write: false, format: 'esm', platform: 'node', target: 'node20' },
    plugins: [
      {
        name: 'packages stay where they are',
        setup: ({ onResolve }) =>
          onResolve({ filter: /^[^./]/ }, ({ path, kind, importer }) =>
            kind !== 'entry-point' && isSameFromHere(path, importer) ? { path, external: true } : undefined,
          ),
      },
    ],
  });
  mkdirSync(dist, { recursive: true });
  // What others import comes first, and each file at once: another process may be about to read it.
  const isEntry = ({ path }) => basename(path, '.mjs') in ENTRIES;
  for (const { path, contents } of outputFiles.toSorted((a, b) => isEntry(a) - isEntry(b))) {
    const beside = `${dirname(path)}/.${basename(path)}-${process.pid}`;
    writeFileSync(beside, contents);
    renameSync(beside, path);
  }
  const names = new Set(outputFiles.map(({ path }) => basename(path)));
  for (const old of readdirSync(dist))
    if (!names.has(old) && !old.startsWith('.')) rmSync(`${dist}/${old}`, { force: true });
}
