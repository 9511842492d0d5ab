/**
 * Bundles the server and the command line into apps/server/dist, unless that is newer than all it is made from: read
 * file by file, as TypeScript, they take seconds to start, and a third of a second more with each package's own files.
 */
import { existsSync, mkdirSync, readdirSync, renameSync, rmSync, statSync, writeFileSync } from 'node:fs';
import { basename, dirname } from 'node:path';
import { fileURLToPath, pathToFileURL } from 'node:url';
import { newest } from '../newest.mjs';
import { FOR_NODE } from './esbuild.mjs';

const root = fileURLToPath(new URL('../..', import.meta.url));
const server = `${root}apps/server`;
const dist = `${server}/dist`;

/** What is started by itself: a process or a thread. */
const ENTRIES = {
  main: 'src/main.ts',
  cli: 'src/cli/main.ts',
  paintThread: 'src/rendering/paintThread.ts',
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

async function bundle() {
  const { build } = await import('esbuild');
  const { outputFiles } = await build({
    absWorkingDir: server,
    entryPoints: ENTRIES,
    outdir: dist,
    outExtension: { '.js': '.mjs' },
    ...{ ...FOR_NODE, splitting: true, write: false },
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
