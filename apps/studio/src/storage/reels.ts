import { DocumentError, openDocument, parseJson, type Reel, reelKind } from '@fresh-reel/core';
import { removeToKeep } from './removed';
import { keysWith, store, write } from './store';

/** A stored reel that opens, or one that does not, with the reason and its text untouched. */
export type StoredReel =
  | { readonly kind: 'reel'; readonly id: string; readonly reel: Reel }
  | { readonly kind: 'damaged'; readonly id: string; readonly reason: string; readonly text: string };

const PREFIX = 'reel/';

function open(id: string, text: string): StoredReel {
  try {
    return { kind: 'reel', id, reel: openDocument(reelKind, parseJson(text, 'reel')) };
  } catch (error) {
    if (!(error instanceof DocumentError)) throw error;
    return { kind: 'damaged', id, reason: error.message, text };
  }
}

/** All stored reels, the last changed first; damaged ones at the end. */
export async function listReels(): Promise<StoredReel[]> {
  const texts = await store.getMany(await keysWith(PREFIX));
  const reels = Object.entries(texts).flatMap(([key, text]) =>
    text === null ? [] : [open(key.slice(PREFIX.length), text)],
  );
  const when = (r: StoredReel) => (r.kind === 'reel' ? r.reel.changed : '');
  return reels.sort((a, b) => when(b).localeCompare(when(a)));
}

/** One reel, or nothing when it was deleted. */
export async function readReel(id: string): Promise<StoredReel | null> {
  const text = await store.getItem(PREFIX + id);
  return text === null ? null : open(id, text);
}

/** @throws {StorageError} leaving the version before in place. */
export async function saveReel(reel: Reel): Promise<void> {
  await write({ [PREFIX + reel.id]: JSON.stringify(reel) });
}

/** Deletes a reel, damaged or not; for a while it can be put back. */
export async function deleteReel(stored: StoredReel): Promise<void> {
  await removeToKeep('reel', stored.id, stored.kind === 'reel' ? stored.reel.name : 'A damaged reel');
}
