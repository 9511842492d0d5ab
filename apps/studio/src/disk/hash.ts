import { createSHA256 } from 'hash-wasm/dist/sha256.umd.min.js';
import { CHUNK } from '../storage/bytes';

/** A file's pieces, as storage takes them, one in memory at a time. */
export async function* piecesOf(file: Blob): AsyncGenerator<Uint8Array> {
  for (let at = 0; at < file.size; at += CHUNK) {
    yield new Uint8Array(await file.slice(at, at + CHUNK).arrayBuffer());
  }
}

/** Cuts a stream of bytes into pieces, as storage takes them. */
export async function* recut(stream: AsyncIterable<Uint8Array>): AsyncGenerator<Uint8Array> {
  let piece = new Uint8Array(CHUNK);
  let filled = 0;
  for await (const bytes of stream) {
    for (let at = 0; at < bytes.length; ) {
      const part = bytes.subarray(at, at + CHUNK - filled);
      piece.set(part, filled);
      at += part.length;
      filled += part.length;
      if (filled < CHUNK) continue;
      yield piece;
      piece = new Uint8Array(CHUNK);
      filled = 0;
    }
  }
  if (filled > 0) yield piece.subarray(0, filled);
}

/** SHA-256 of bytes, and how many they are. */
export interface Hashed {
  readonly hash: string;
  readonly size: number;
}

/** Hashes what comes in pieces while it goes by. */
export async function hashing(): Promise<{
  through(pieces: AsyncIterable<Uint8Array>): AsyncGenerator<Uint8Array>;
  /** Of all that went by. */
  end(): Hashed;
}> {
  const hash = await createSHA256();
  hash.init();
  let size = 0;
  return {
    async *through(pieces) {
      for await (const piece of pieces) {
        hash.update(piece);
        size += piece.length;
        yield piece;
      }
    },
    end: () => ({ hash: hash.digest('hex'), size }),
  };
}

/** SHA-256 of what comes in pieces. */
export async function hashOf(pieces: AsyncIterable<Uint8Array>): Promise<Hashed> {
  const { through, end } = await hashing();
  for await (const _ of through(pieces));
  return end();
}
