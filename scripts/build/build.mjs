/** Builds the studio into apps/studio/dist, unless it is newer than all it is made from. */
import { createHash } from 'node:crypto';
import {
  existsSync,
  mkdirSync,
  readdirSync,
  readFileSync,
  renameSync,
  rmSync,
  statSync,
  utimesSync,
  writeFileSync,
} from 'node:fs';
import { newest } from '../newest.mjs';
import { ensurePackages, root, say, tellPlainly } from '../setup.mjs';
import { filesOf } from './files.mjs';

const STUDIO = `${root}apps/studio`;
export const DIST = `${STUDIO}/dist`;
/** Where a build is made, beside where it goes, so that it is moved in whole: one that was killed is none. */
const MAKING = `${root}.building`;

/** When the newest file was written of what the studio is made of. */
const sourcesTime = () =>
  Math.max(
    ...['apps/studio', 'packages', 'scripts/build'].map((folder) => newest(root + folder)),
    statSync(`${root}package-lock.json`).mtimeMs,
  );

const isBuilt = () =>
  existsSync(`${DIST}/index.html`) && statSync(`${DIST}/index.html`).mtimeMs > sourcesTime();

/** Builds what is not built. Of two that want to at once, one waits for the other. */
export async function build(force = false) {
  ensurePackages();
  if (!force && isBuilt()) return;
  mkdirSync(MAKING, { recursive: true });
  const release = await myTurn();
  try {
    // The other one may have made it meanwhile.
    if (force || !isBuilt()) await make();
  } finally {
    await release();
  }
}

/** Milliseconds after which a build that gives no sign of life, and did not let go, counts as killed. */
const SILENT = 60_000;

/** Waits until no other process builds. @returns what lets the next one */
async function myTurn() {
  const { check, lock } = await import('proper-lockfile');
  if (await check(MAKING, { stale: SILENT }))
    say('Another start is building the studio; this one waits for it.');
  return lock(MAKING, { stale: SILENT, retries: { retries: 1200, factor: 1, minTimeout: 500 } });
}

async function make() {
  say('Building the studio.');
  const begun = new Date();
  for (const left of readdirSync(MAKING)) rmSync(`${MAKING}/${left}`, { recursive: true, force: true });
  const made = `${MAKING}/site`;
  const { makeSite } = await import('./site.mjs');
  await makeSite(made, MAKING);
  writeFileSync(`${made}/version.json`, JSON.stringify({ version: versionOf(made) }));
  const { writeServiceWorker } = await import('./offline.mjs');
  await writeServiceWorker(made, filesOf(made));
  const { squeezeFirst } = await import('./squeeze.mjs');
  await squeezeFirst(made);
  // What changed while it was being built is not in it.
  utimesSync(`${made}/index.html`, begun, begun);
  if (existsSync(DIST)) renameSync(DIST, `${MAKING}/before`);
  renameSync(made, DIST);
  rmSync(`${MAKING}/before`, { recursive: true, force: true });
}

/** The version of what was built: a hash of its names and contents, so that the same sources are one version. */
function versionOf(folder) {
  const hash = createHash('sha256');
  for (const path of filesOf(folder)) hash.update(path.slice(folder.length)).update(readFileSync(path));
  return hash.digest('hex').slice(0, 16);
}

if (process.argv[1]?.endsWith('build.mjs')) await build(process.argv.includes('--force')).catch(tellPlainly);
