import { z } from 'zod';
import { chunkKeys, readBytes, readChunk, removeBytes, writeBytes } from './bytes';
import { remove, store, write } from './store';

/** What is known of a file that the user brought; its bytes lie apart, under its hash. */
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
  /** Whether a clip has sound. */
  sound: z.boolean().optional(),
  /** A name the user sorts it under. */
  group: z.string().max(60).optional(),
  chunks: z.number().int().min(1),
  added: z.string(),
});
export type MediaRecord = z.infer<typeof mediaRecordSchema>;
export type MediaFactsFound = Omit<MediaRecord, 'hash' | 'chunks' | 'added' | 'size'>;

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
/** Records of files that were taken off the shelf in this visit. */
const GONE = 'gone/';

/**
 * Stores a file under its hash, once. Pieces go first and the record last, so that a record always has its bytes.
 * @throws {StorageError}; nothing of the file is left behind then
 */
export async function storeMedia(
  file: StoredFile,
  facts: MediaFactsFound,
  onProgress?: (stored: number) => void,
): Promise<MediaRecord> {
  const { hash, size } = file;
  // What lies here with parts missing is written anew.
  const held = await readWhole(hash);
  if (held) return held;
  await write({ [COMING + hash]: '1' });
  try {
    const chunks = await writeBytes(hash, file.pieces(), onProgress);
    const record: MediaRecord = { ...facts, hash, size, chunks, added: new Date().toISOString() };
    await saveMediaRecord(record);
    await remove([COMING + hash]);
    return record;
  } catch (error) {
    await forgetComing(hash).catch(() => undefined);
    throw error;
  }
}

export const mediaId = (record: MediaRecord) => `sha256:${record.hash}`;
/** A file as a reel names it. */
export const mediaFile = (record: MediaRecord) => ({ media: mediaId(record), name: record.name });

/** Removes what an import that was stopped has written. */
export async function forgetComing(hash: string): Promise<void> {
  if ((await store.getItem(RECORD + hash)) === null) await removeBytes(hash);
  await remove([COMING + hash]);
}

/** Removes what imports left behind that were cut off. Called when the app starts, before any import. */
export async function clearBrokenImports(): Promise<void> {
  const keys = await store.getAllKeys();
  for (const key of keys) if (key.startsWith(COMING)) await forgetComing(key.slice(COMING.length));
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
  const keys = (await store.getAllKeys()).filter((k) => k.startsWith(RECORD));
  const texts = await store.getMany(keys);
  return Object.values(texts)
    .flatMap((text) => (text === null ? [] : (openRecord(text) ?? [])))
    .sort((a, b) => b.added.localeCompare(a.added));
}

/** Takes a file off the shelf; its bytes stay until the next start, so that it can be put back. */
export async function removeMedia(record: MediaRecord): Promise<void> {
  await write({ [GONE + record.hash]: JSON.stringify(record) });
  await remove([RECORD + record.hash]);
}

/** Puts a file back that was taken off. */
export async function restoreMedia(record: MediaRecord): Promise<void> {
  await saveMediaRecord(record);
  await remove([GONE + record.hash]);
}

/** How many files were taken off and still take room. */
export async function countGone(): Promise<number> {
  return (await store.getAllKeys()).filter((k) => k.startsWith(GONE)).length;
}

/** Frees the room of files that were taken off the shelf. @returns how many */
export async function emptyGone(): Promise<number> {
  const gone = (await store.getAllKeys()).flatMap((k) => (k.startsWith(GONE) ? [k.slice(GONE.length)] : []));
  for (const hash of gone) {
    // One that was added again is on the shelf, with the same bytes.
    if ((await store.getItem(RECORD + hash)) === null) {
      await removeBytes(hash);
      await remove([`thumb/${hash}`, `wave/${hash}`]);
    }
    await remove([GONE + hash]);
  }
  return gone.length;
}

/** Those of some files that are not here whole: without their record, or without any part of their bytes. */
export async function lackingMedia(hashes: readonly string[]): Promise<Set<string>> {
  const keys = new Set(await store.getAllKeys());
  const lacking = new Set<string>();
  for (const hash of hashes) {
    const record = keys.has(RECORD + hash) ? await readMediaRecord(hash) : null;
    const whole = record && chunkKeys(hash, record.chunks).every((key) => keys.has(key));
    if (!whole) lacking.add(hash);
  }
  return lacking;
}

/** The record of a file that is here whole. */
export async function readWhole(hash: string): Promise<MediaRecord | null> {
  return (await lackingMedia([hash])).has(hash) ? null : readMediaRecord(hash);
}

/** The bytes of a stored file that is here whole, piece by piece. */
export function streamMedia({ hash, chunks, name }: MediaRecord): ReadableStream<Uint8Array> {
  let next = 0;
  return new ReadableStream({
    pull: async (controller) => {
      if (next === chunks) return controller.close();
      const piece = await readChunk(hash, next++);
      if (!piece) throw new Error(`A part of "${name}" is gone from this browser. Add the file again.`);
      controller.enqueue(piece);
    },
  });
}

/** The bytes of a stored file, or nothing when any part of it is gone. */
export async function readMedia(hash: string): Promise<{ record: MediaRecord; blob: Blob } | null> {
  const record = await readMediaRecord(hash);
  if (!record) return null;
  const parts = await readBytes(hash, record.chunks);
  return parts && { record, blob: new Blob(parts, { type: record.type }) };
}
