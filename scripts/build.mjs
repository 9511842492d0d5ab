/** Builds the studio into apps/studio/dist, unless it is newer than all it is made from. */
import { existsSync, readdirSync, statSync } from 'node:fs';
import { readFile, writeFile } from 'node:fs/promises';
import { basename } from 'node:path';
import { promisify } from 'node:util';
import { newest } from './newest.mjs';
import { ensurePackages, root, run, say } from './setup.mjs';

export async function build(force = false) {
  ensurePackages();
  const index = `${root}apps/studio/dist/index.html`;
  const made = existsSync(index) ? statSync(index).mtimeMs : 0;
  const sources = Math.max(
    ...['apps/studio', 'packages'].map((f) => newest(root + f)),
    statSync(`${root}package-lock.json`).mtimeMs,
  );
  if (!force && made > sources) return;
  say('Building the studio.');
  const { preparePublic } = await import('./prepare.mjs');
  await preparePublic();
  run('npx', ['--no-install', 'expo', 'export', '--platform', 'web'], {
    cwd: `${root}apps/studio`,
    env: { ...process.env, CI: '1', EXPO_NO_TELEMETRY: '1' },
  });
  const dist = `${root}apps/studio/dist`;
  const { writeManifest, writeServiceWorker } = await import('./offline.mjs');
  writeManifest(dist);
  await writeVersion(dist);
  await writeServiceWorker(dist, filesOf(dist));
  await compress(dist);
}

/** Writes down the version of what was built: a hash of its names and contents, so that the same sources are one version. */
async function writeVersion(folder) {
  const { createHash } = await import('node:crypto');
  const hash = createHash('sha256');
  for (const entry of filesOf(folder)) hash.update(entry.slice(folder.length)).update(await readFile(entry));
  await writeFile(`${folder}/version.json`, JSON.stringify({ version: hash.digest('hex').slice(0, 16) }));
}

/** All files of a folder, those of its folders too, in order. */
const filesOf = (folder) =>
  readdirSync(folder, { recursive: true, withFileTypes: true })
    .filter((e) => e.isFile())
    .map((e) => `${e.parentPath ?? e.path}/${e.name}`)
    .sort();

/** Files that get smaller; pictures, clips and sounds are compressed as they are. */
const SQUEEZED = /\.(js|json|html|css|wasm|svg|ttf|otf)$/;
/** Large fonts (of thousands of letters) gain little from a slow search. */
const LARGE = 2_000_000;

/**
 * How hard brotli searches: hardest for what the first page waits for, a tenth larger and twenty times as fast for what
 * comes after it.
 */
function qualityOf(name, bytes) {
  if (/^(entry|__common|__expo)/.test(name) || (bytes < LARGE / 4 && !/tf$/.test(name))) return 11;
  return bytes > LARGE && !name.endsWith('.js') ? 5 : 9;
}

/** Lays a compressed copy beside each file that is worth it (RFC 7932), so that the server has nothing to compress. */
async function compress(folder) {
  const { constants, brotliCompress } = await import('node:zlib');
  const squeeze = promisify(brotliCompress);
  const files = filesOf(folder).filter((path) => SQUEEZED.test(path));
  await Promise.all(
    files.map(async (path) => {
      const bytes = await readFile(path);
      const quality = qualityOf(basename(path), bytes.length);
      await writeFile(
        `${path}.br`,
        await squeeze(bytes, {
          params: {
            [constants.BROTLI_PARAM_QUALITY]: quality,
            [constants.BROTLI_PARAM_SIZE_HINT]: bytes.length,
          },
        }),
      );
    }),
  );
}

if (process.argv[1]?.endsWith('build.mjs')) await build(process.argv.includes('--force'));
