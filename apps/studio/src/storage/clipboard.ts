import type { Copied } from '@fresh-reel/core';
import { jsonOf, store, write } from './store';

const KEY = 'copied';

/** Keeps what was copied last, for any reel and any tab. @throws {StorageError} */
export async function writeCopied(copied: Copied): Promise<void> {
  await write({ [KEY]: JSON.stringify(copied) });
}

/** What was copied last, as data from outside; nothing when nothing was. */
export async function readCopied(): Promise<unknown> {
  return jsonOf(await store.getItem(KEY));
}
