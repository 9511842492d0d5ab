import { z } from 'zod';
import { chunkKeys, removeBytes } from './bytes';
import { tellStored } from './changes';
import { dropProxies, dropProxy } from './proxies';
import { jsonOf, keysWith, onFull, remove, store, write } from './store';
import { summaryKey } from './summaries';
import { announce, tellTabs } from './tabs';

/** Days that what was deleted stays, unless its room is needed. */
export const DAYS_KEPT = 30;

const PREFIX = 'removed/';
/** Where files lay that were taken off in versions before this place. */
const BEFORE = 'gone/';

const removedSchema = z.strictObject({
  kind: z.enum(['reel', 'media', 'template', 'brand']),
  /** The file's hash, or the id of what else it is. */
  id: z.string().min(1),
  name: z.string(),
  /** What lay in storage under it, to the letter. */
  text: z.string(),
  /** ISO 8601 instant. */
  removed: z.string(),
});

/** Something that was deleted and can still be put back. */
export type Removed = z.infer<typeof removedSchema>;

/** Names something that was deleted. */
export type RemovedId = Pick<Removed, 'kind' | 'id'>;

const keyOf = ({ kind, id }: RemovedId) => `${PREFIX}${kind}/${id}`;
const sourceOf = ({ kind, id }: RemovedId) => `${kind}/${id}`;

/**
 * Takes something out of its place; it stays with what was deleted. Nothing is there any more is nothing done.
 * @throws {StorageError} leaving it where it is
 */
export async function removeToKeep(
  kind: Removed['kind'],
  id: string,
  name: string,
  now = new Date(),
): Promise<void> {
  const text = await store.getItem(sourceOf({ kind, id }));
  if (text === null) return;
  const kept: Removed = { kind, id, name, text, removed: now.toISOString() };
  await write({ [keyOf(kept)]: JSON.stringify(kept) });
  await remove(kind === 'reel' ? [sourceOf(kept), summaryKey(id)] : [sourceOf(kept)]);
  tellOf(kept);
}

/** Tells other tabs that something left its list for what was deleted, or came back. */
function tellOf({ kind, id }: RemovedId): void {
  if (kind === 'reel') announce(id);
  else if (kind !== 'media') tellTabs(`${kind}s`);
  tellTabs('removed');
}

/** What was deleted and is still here, the newest first. */
export async function listRemoved(): Promise<Removed[]> {
  const texts = await store.getMany(await keysWith(PREFIX));
  const found = Object.values(texts).flatMap((text) => opened(text) ?? []);
  return found.sort((a, b) => b.removed.localeCompare(a.removed));
}

function opened(text: string | null): Removed | undefined {
  return removedSchema.safeParse(jsonOf(text)).data;
}

/**
 * Puts back what was deleted, to the letter. What is not there any more is nothing to do.
 * @throws {Error} when the bytes of a file are gone, or {StorageError}; it then stays where it is
 */
export async function putBack(id: RemovedId): Promise<void> {
  const removed = opened(await store.getItem(keyOf(id)));
  if (!removed) return;
  if (removed.kind === 'media' && !(await hasBytes(removed)))
    throw new Error(`The bytes of “${removed.name}” are gone from this browser. Add the file again.`);
  // What was made again under the same name meanwhile is the newer one.
  if ((await store.getItem(sourceOf(removed))) === null) await write({ [sourceOf(removed)]: removed.text });
  await remove([keyOf(removed)]);
  tellOf(removed);
  if (removed.kind === 'media') tellStored({ kind: 'media', id: removed.id });
}

/** Where the bytes of a file lie that is described by a record, of whichever version. */
function bytesOf(hash: string, text: string | null): { id: string; chunks: number } {
  const { bytes, chunks } = z
    .object({ bytes: z.string().optional(), chunks: z.number().int().min(1) })
    .catch({ chunks: 0 })
    .parse(jsonOf(text));
  return { id: bytes ?? hash, chunks };
}

async function hasBytes(removed: Removed): Promise<boolean> {
  const { id, chunks } = bytesOf(removed.id, removed.text);
  const keys = new Set(await keysWith(`bytes/${id}/`));
  return chunks > 0 && chunkKeys(id, chunks).every((key) => keys.has(key));
}

/** Deletes for good. */
export async function purge(all: readonly Removed[]): Promise<void> {
  for (const removed of all) {
    if (removed.kind === 'media') await dropFile(removed.id, bytesOf(removed.id, removed.text).id);
    else if (removed.kind === 'reel') await remove([`history/${removed.id}`]);
    else if (removed.kind === 'template') await remove(await keysWith(`edition/${removed.id}/`));
    await remove([keyOf(removed)]);
  }
  if (all.length > 0) tellTabs('removed');
}

/** Frees the bytes of a file that is on the shelf no more. */
async function dropFile(hash: string, bytes: string): Promise<void> {
  const again = await store.getItem(`media/${hash}`);
  // One that was added again is on the shelf, maybe with the same bytes.
  if (again === null || bytesOf(hash, again).id !== bytes) await removeBytes(bytes);
  if (again !== null) return;
  await remove([`thumb/${hash}`, `wave/${hash}`]);
  await dropProxy(hash);
}

/** Deletes for good what was deleted longer ago than it is kept. */
export async function purgeOld(now = new Date()): Promise<void> {
  const oldest = new Date(now.getTime() - DAYS_KEPT * 86_400_000).toISOString();
  await purge((await listRemoved()).filter((r) => r.removed < oldest));
  for (const key of await keysWith(BEFORE)) {
    const hash = key.slice(BEFORE.length);
    await dropFile(hash, hash);
    await remove([key]);
  }
}

/** Makes room by what was deleted. @returns whether there was any */
export async function freeRoom(): Promise<boolean> {
  const all = await listRemoved();
  await purge(all);
  return all.length > 0;
}

// What can be made again goes first.
onFull(async () => (await dropProxies()) || freeRoom());
