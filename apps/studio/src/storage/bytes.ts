import { keysWith, remove, store, write } from './store';

/** Base64 of this many bytes is a mebibyte of text; a multiple of three, so that chunks join. */
export const CHUNK = 786_432;

export async function sha256(bytes: Uint8Array): Promise<string> {
  // Browsers hash on secure addresses only.
  if (!crypto.subtle) return (await import('./plainSha256')).sha256(bytes);
  const digest = await crypto.subtle.digest('SHA-256', bytes as BufferSource);
  return [...new Uint8Array(digest)].map((b) => b.toString(16).padStart(2, '0')).join('');
}

/** Base64 as the language has it of itself (ECMAScript 2026), fifty times as fast; older browsers do without. */
interface WithBase64 {
  toBase64?(): string;
}
const fromText = (Uint8Array as { fromBase64?(text: string): Uint8Array<ArrayBuffer> }).fromBase64;

export function toBase64(bytes: Uint8Array): string {
  const own = (bytes as WithBase64).toBase64?.();
  if (own !== undefined) return own;
  let text = '';
  for (let i = 0; i < bytes.length; i += 32768) text += String.fromCharCode(...bytes.subarray(i, i + 32768));
  return btoa(text);
}

export function fromBase64(text: string): Uint8Array<ArrayBuffer> {
  return fromText ? fromText.call(Uint8Array, text) : Uint8Array.from(atob(text), (c) => c.charCodeAt(0));
}

const keyOf = (id: string, chunk: number) => `bytes/${id}/${chunk}`;

/** The keys a file's chunks lie under. */
export const chunkKeys = (id: string, chunks: number) =>
  Array.from({ length: chunks }, (_, i) => keyOf(id, i));

/** Bytes in memory, cut as `writeBytes` takes them. */
export async function* inPieces(bytes: Uint8Array): AsyncGenerator<Uint8Array> {
  for (let at = 0; at === 0 || at < bytes.length; at += CHUNK) yield bytes.subarray(at, at + CHUNK);
}

/** A file that is in memory whole, ready to be stored. */
export async function inMemory(
  bytes: Uint8Array,
): Promise<{ hash: string; size: number; pieces(): AsyncIterable<Uint8Array> }> {
  return { hash: await sha256(bytes), size: bytes.length, pieces: () => inPieces(bytes) };
}

/** Chunks that are written at once: the database takes the next while it finishes one. */
const AT_ONCE = 2;

/**
 * Stores a file's bytes under an id, chunk by chunk; no more than four are in memory. While some are written, the next is
 * already asked for: whoever reads or hashes them does it meanwhile.
 * @param pieces of CHUNK bytes each, the last one as long as it is
 * @returns the number of chunks, for the record that is written last
 * @throws {StorageError}
 */
export async function writeBytes(
  id: string,
  pieces: AsyncIterable<Uint8Array>,
  onProgress?: (stored: number) => void,
): Promise<number> {
  let [chunks, stored] = [0, 0];
  const writing: Promise<void>[] = [];
  for await (const piece of pieces) {
    const text = toBase64(piece);
    if (writing.length >= AT_ONCE) await writing.shift();
    const written = write({ [keyOf(id, chunks++)]: text });
    // Told where it is awaited, above or below; until then a failed write is nobody's surprise.
    written.catch(() => undefined);
    writing.push(written);
    stored += piece.length;
    onProgress?.(stored);
  }
  await Promise.all(writing);
  return chunks;
}

/** One chunk of a stored file, or nothing when it is gone. */
export async function readChunk(id: string, chunk: number): Promise<Uint8Array<ArrayBuffer> | null> {
  const text = await store.getItem(keyOf(id, chunk));
  return text === null ? null : fromBase64(text);
}

/** The chunks of a stored file in order, or nothing when any of them is gone. */
export async function readBytes(id: string, chunks: number): Promise<Uint8Array<ArrayBuffer>[] | null> {
  const keys = chunkKeys(id, chunks);
  const parts = await store.getMany(keys);
  if (keys.some((key) => parts[key] === null || parts[key] === undefined)) return null;
  return keys.map((key) => fromBase64(parts[key]!));
}

/** Removes all chunks of a file, whether or not a record tells how many there are. */
export async function removeBytes(id: string): Promise<void> {
  const keys = await keysWith(`bytes/${id}/`);
  for (let i = 0; i < keys.length; i += 100) await remove(keys.slice(i, i + 100));
}
