/**
 * Lays compressed copies beside the files of a build (brotli, RFC 7932), so that the server has nothing to compress. What
 * the first page waits for is squeezed hard while it is built; the rest, less hard, once the app is served.
 */
import { existsSync } from 'node:fs';
import { readFile, rename, writeFile } from 'node:fs/promises';
import { basename } from 'node:path';
import { promisify } from 'node:util';
import { brotliCompress, constants } from 'node:zlib';
import { filesOf } from './files.mjs';

const compress = promisify(brotliCompress);

/** Files that get smaller; pictures, clips and sounds are compressed as they are. */
const SQUEEZED = /\.(js|json|html|css|wasm|svg|ttf|otf|webmanifest)$/;

/** What the page, and the worker of its previews, begin with; and the demo, at the first visit. */
const FIRST = [
  /\/index\.html$/,
  /\/app\/[0-9a-f]+\/(page|preview|chunk-[^/]*)\.js$/,
  /\/engine\/[^/]*\.wasm$/,
  /\/fonts\/(bricolage|figtree)[^/]*$/i,
  /\/demo\/reels\.json$/,
];

const isFirst = (path) => FIRST.some((kind) => kind.test(path));

async function squeeze(path, quality) {
  const bytes = await readFile(path);
  const params = {
    [constants.BROTLI_PARAM_QUALITY]: quality,
    [constants.BROTLI_PARAM_SIZE_HINT]: bytes.length,
  };
  const beside = `${path.slice(0, -basename(path).length)}.${basename(path)}-${process.pid}`;
  await writeFile(beside, await compress(bytes, { params }));
  // Whole at once: the server may be about to send it.
  await rename(beside, `${path}.br`);
}

/** Squeezes what the first page waits for. */
export async function squeezeFirst(folder) {
  const files = filesOf(folder).filter((path) => SQUEEZED.test(path) && isFirst(path));
  // Two at once: all threads of the pool would leave none for the files of this process.
  const waiting = files.values();
  const some = async () => {
    for (const path of waiting) await squeeze(path, 11);
  };
  await Promise.all([some(), some()]);
}

const DONE = '.squeezed';

/** Squeezes what has not been yet, one file after the other; what is there already, whole, stays. */
export async function squeezeRest(folder) {
  if (existsSync(`${folder}/${DONE}`)) return;
  for (const path of filesOf(folder)) {
    if (SQUEEZED.test(path) && !existsSync(`${path}.br`)) await squeeze(path, 5);
  }
  await writeFile(`${folder}/${DONE}`, '');
}
