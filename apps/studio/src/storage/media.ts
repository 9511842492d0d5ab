import type { FileFacts } from '@fresh-reel/core';
import { z } from 'zod';
import { chunkKeys, readBytes, readChunk, removeBytes, writeBytes } from './bytes';
import { tellStored } from './changes';
import { removeToKeep } from './removed';
import { allKeys, keysWith, remove, store, write } from './store';
import { ifFree, whileHeld } from './tabs';

/** What is known of a file that the user brought; its bytes lie apart. */
export const mediaRecordSchema = z.strictObject({
  hash: z.string().regex(/^[0-9a-f]{64}$/),
  kind: z.enum(['picture', 'clip', 'sound']).default('picture'),
  name: z.string(),
  type: z.string(),
  size: z.number().int().min(0),
  /** As it is seen, upright; sounds have none. */
  width: z.number().positive().optional(),
  height: z.number().positive().optional(),
  alpha: z.boolean().default(false),
  /** Seconds. */
  duration: z.number().min(0).optional(),
  /** Mean frames a second of a clip. */
  rate: z.number().positive().optional(),
  codec: z.string().optional(),
  /** Its bytes are a working copy of the file that its hash and its codec are of; and how large that is. */
  original: z.strictObject({ size: z.number().int().min(0) }).optional(),
  /** Whether a clip has sound. */
  sound: z.boolean().optional(),
  /** A name the user sorts it under. */
  group: z.string().max(60).optional(),
  chunks: z.number().int().min(1),
  /** What its bytes lie under, where that is not its hash: they are written before the hash is known. */
  bytes: z.string().min(1).optional(),
  added: z.string(),
});
export type MediaRecord = z.infer<typeof mediaRecordSchema>;
export type MediaFactsFound = Omit<MediaRecord, 'hash' | 'chunks' | 'bytes' | 'added' | 'size'>;

/** What the bytes of a file lie under. */
export const bytesId = ({ hash, bytes }: Pick<MediaRecord, 'hash' | 'bytes'>) => bytes ?? hash;

/** Type of a stored picture sequence, which is a clip. */
export const SEQUENCE_TYPE = 'application/zip';

/** A file to store, piece by piece. */
export interface StoredFile {
  readonly hash: string;
  readonly size: number;
  pieces(): AsyncIterable<Uint8Array>;
}

const RECORD = 'media/';
/** Written before the bytes and removed with the record: what an import that was cut off has left behind. */
const COMING = 'coming/';

/**
 * Stores a file under its hash, once. Pieces go first and the record last, so that a record always has its bytes.
 * @throws {StorageError}; nothing of the file is left behind then
 */
export async function storeMedia(file: StoredFile, facts: MediaFactsFound): Promise<MediaRecord> {
  const { hash, size } = file;
  // What lies here with parts missing is written anew.
  const held = await readWhole(hash);
  if (held) return held;
  return coming(hash, async () => {
    const chunks = await writeBytes(hash, file.pieces());
    return keepRecord({ ...facts, hash, size, chunks, added: new Date().toISOString() });
  });
}

/** Bytes on their way in, whose hash is known when all have gone by. */
export interface Incoming {
  pieces(): AsyncIterable<Uint8Array>;
  /** What is known of the file, and SHA-256 and size of all pieces, once they have gone by. */
  end(): Promise<{ hash: string; size: number; facts: MediaFactsFound }>;
}

/**
 * Stores a file while it is hashed. Pieces go first and the record last, so that a record always has its bytes; of a
 * file that is here already nothing is written in the end.
 * @param id what its bytes lie under, new for each file
 * @throws {StorageError}; nothing of the file is left behind then
 */
export function storeIncoming(
  id: string,
  file: Incoming,
  onProgress?: (stored: number) => void,
): Promise<{ record: MediaRecord; again: boolean }> {
  return coming(id, async () => {
    const chunks = await writeBytes(id, file.pieces(), onProgress);
    const { hash, size, facts } = await file.end();
    const before = await readMediaRecord(hash);
    const held = before && (await readWhole(hash));
    if (held) {
      await removeBytes(id);
      return { record: held, again: true };
    }
    const added = new Date().toISOString();
    const record = await keepRecord({ ...facts, hash, size, chunks, bytes: id, added });
    if (before) await removeBytes(bytesId(before));
    return { record, again: false };
  });
}

/** Brings bytes in under an id. What is written of them goes again when it fails, or when it is cut off. */
function coming<T>(id: string, work: () => Promise<T>): Promise<T> {
  return whileHeld(importLock(id), async () => {
    await write({ [COMING + id]: '1' });
    try {
      const done = await work();
      await remove([COMING + id]);
      return done;
    } catch (error) {
      await forgetComing(id).catch(() => undefined);
      throw error;
    }
  });
}

async function keepRecord(record: MediaRecord): Promise<MediaRecord> {
  await saveMediaRecord(record);
  tellStored({ kind: 'media', id: record.hash });
  return record;
}

/** Whether there is anything to hear of it. */
export const isHeard = ({ kind, sound }: MediaRecord): boolean => kind === 'sound' || (sound ?? false);

export const mediaId = (record: MediaRecord) => `sha256:${record.hash}`;
/** A file as a reel names it. */
export const mediaFile = (record: MediaRecord) => ({ media: mediaId(record), name: record.name });
/** A file as it goes into a reel. */
export const fileFacts = (record: MediaRecord): FileFacts => ({ ...record, media: mediaId(record) });

/** Removes what an import that was stopped has written. What has its record is whole, and stays. */
export async function forgetComing(id: string): Promise<void> {
  if (!(await listMedia()).some((record) => bytesId(record) === id)) await removeBytes(id);
  await remove([COMING + id]);
}

/** The lock that an import holds while it lives, in whichever tab. */
export const importLock = (id: string) => `import/${id}`;

/** Removes what imports left behind that were cut off. What one of another tab is bringing in is left alone. */
export async function clearBrokenImports(): Promise<void> {
  for (const key of await keysWith(COMING)) {
    const id = key.slice(COMING.length);
    await ifFree(importLock(id), () => forgetComing(id));
  }
}

export async function saveMediaRecord(record: MediaRecord): Promise<void> {
  await write({ [RECORD + record.hash]: JSON.stringify(record) });
}

function openRecord(text: string): MediaRecord | null {
  try {
    const parsed = mediaRecordSchema.safeParse(JSON.parse(text));
    return parsed.success ? parsed.data : null;
  } catch {
    return null;
  }
}

export async function readMediaRecord(hash: string): Promise<MediaRecord | null> {
  const text = await store.getItem(RECORD + hash);
  return text === null ? null : openRecord(text);
}

/** Everything on the shelf, the newest first. */
export async function listMedia(): Promise<MediaRecord[]> {
  const texts = await store.getMany(await keysWith(RECORD));
  return Object.values(texts)
    .flatMap((text) => (text === null ? [] : (openRecord(text) ?? [])))
    .sort((a, b) => b.added.localeCompare(a.added));
}

/** Takes a file off the shelf; for a while it can be put back. */
export async function removeMedia(record: MediaRecord): Promise<void> {
  await removeToKeep('media', record.hash, record.name);
  tellStored({ kind: 'media', id: record.hash });
}

/** Those of some files that are not here whole: without their record, or without any part of their bytes. */
export async function lackingMedia(hashes: readonly string[]): Promise<Set<string>> {
  const keys = new Set(await allKeys());
  const lacking = new Set<string>();
  for (const hash of hashes) {
    const record = keys.has(RECORD + hash) ? await readMediaRecord(hash) : null;
    const whole = record && chunkKeys(bytesId(record), record.chunks).every((key) => keys.has(key));
    if (!whole) lacking.add(hash);
  }
  return lacking;
}

/** The record of a file that is here whole. */
export async function readWhole(hash: string): Promise<MediaRecord | null> {
  return (await lackingMedia([hash])).has(hash) ? null : readMediaRecord(hash);
}

/** The bytes of a stored file that is here whole, piece by piece. */
export function streamMedia(record: MediaRecord): ReadableStream<Uint8Array> {
  let next = 0;
  return new ReadableStream({
    pull: async (controller) => {
      if (next === record.chunks) return controller.close();
      const piece = await readChunk(bytesId(record), next++);
      if (!piece)
        throw new Error(`A part of "${record.name}" is gone from this browser. Add the file again.`);
      controller.enqueue(piece);
    },
  });
}

/** The bytes of a stored file, or nothing when any part of it is gone. */
export async function readMedia(hash: string): Promise<{ record: MediaRecord; blob: Blob } | null> {
  const record = await readMediaRecord(hash);
  if (!record) return null;
  const parts = await readBytes(bytesId(record), record.chunks);
  return parts && { record, blob: new Blob(parts, { type: record.type }) };
}
