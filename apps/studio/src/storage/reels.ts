import {
  DocumentError,
  keepable,
  messageOf,
  openDocument,
  parseJson,
  type Reel,
  reelKind,
} from '@fresh-reel/core';
import { checkedText, refused } from './checked';
import { removeToKeep } from './removed';
import { keysWith, store, write } from './store';
import { type ReelSummary, readSummaries, summarise, summaryEntry } from './summaries';
import { announce } from './tabs';

/** A stored reel that opens, or one that does not, with the reason and its text untouched. */
export type StoredReel = { readonly kind: 'reel'; readonly id: string; readonly reel: Reel } | DamagedReel;

export interface DamagedReel {
  readonly kind: 'damaged';
  readonly id: string;
  readonly reason: string;
  readonly text: string;
}

/** A reel in a list: what is told of it, or that it does not open. */
export type ListedReel =
  | { readonly kind: 'reel'; readonly id: string; readonly summary: ReelSummary }
  | DamagedReel;

const PREFIX = 'reel/';

/** Versions that are known to open, by their reels' ids: what is the same in the next is not looked through again. */
const opening = new Map<string, Reel>();

function open(id: string, text: string): StoredReel {
  try {
    const reel = openDocument(reelKind, parseJson(text, 'reel'));
    opening.set(id, reel);
    return { kind: 'reel', id, reel };
  } catch (error) {
    if (!(error instanceof DocumentError)) throw error;
    return { kind: 'damaged', id, reason: error.message, text };
  }
}

/**
 * All stored reels, the last changed first; damaged ones at the end. Their summaries are read, not they themselves: only
 * one that has none yet is opened, once.
 */
export async function listReels(): Promise<ListedReel[]> {
  const ids = (await keysWith(PREFIX)).map((key) => key.slice(PREFIX.length));
  const summaries = await readSummaries(ids);
  const listed = await Promise.all(
    ids.map(async (id): Promise<ListedReel | undefined> => {
      const summary = summaries.get(id);
      if (summary) return { kind: 'reel', id, summary };
      const stored = await readReel(id);
      if (stored?.kind !== 'reel') return stored ?? undefined;
      const made = summarise(stored.reel);
      // One that could not be kept is made again the next time.
      await write(summaryEntry(made)).catch(() => undefined);
      return { kind: 'reel', id, summary: made };
    }),
  );
  const when = (r: ListedReel) => (r.kind === 'reel' ? r.summary.changed : '');
  return listed.flatMap((r) => r ?? []).sort((a, b) => when(b).localeCompare(when(a)));
}

/** One reel, or nothing when it was deleted. */
export async function readReel(id: string): Promise<StoredReel | null> {
  const text = await store.getItem(PREFIX + id);
  return text === null ? null : open(id, text);
}

/** A reel as it is written. @throws {StorageError} saying why it would not open again */
export function reelText(reel: Reel): string {
  const before = opening.get(reel.id);
  if (!before) return checkedText(reelKind, reel);
  try {
    keepable(reel, before);
  } catch (error) {
    throw refused(reelKind, messageOf(error));
  }
  return JSON.stringify(reel);
}

/**
 * Writes a reel and what lists tell of it, both or none, and tells other tabs. What would not open again is never written
 * over what does.
 * @throws {StorageError} leaving the version before in place
 */
export async function saveReel(reel: Reel): Promise<void> {
  const text = reelText(reel);
  await write({ [PREFIX + reel.id]: text, ...summaryEntry(summarise(reel)) });
  opening.set(reel.id, reel);
  announce(reel.id);
}

/** Deletes a reel, damaged or not; for a while it can be put back. */
export async function deleteReel({
  id,
  name,
}: {
  readonly id: string;
  readonly name: string;
}): Promise<void> {
  await removeToKeep('reel', id, name);
}
