import { createSHA256 } from 'hash-wasm';
import { CHUNK } from '../storage/bytes';

/** A file's pieces, as storage takes them, one in memory at a time. */
export async function* piecesOf(file: Blob): AsyncGenerator<Uint8Array> {
  for (let at = 0; at < file.size; at += CHUNK) {
    yield new Uint8Array(await file.slice(at, at + CHUNK).arrayBuffer());
  }
}

/** SHA-256 of a file, read piece by piece. */
export async function hashOf(file: Blob, onRead?: (bytes: number) => void): Promise<string> {
  const hash = await createSHA256();
  hash.init();
  let read = 0;
  for await (const piece of piecesOf(file)) {
    hash.update(piece);
    read += piece.length;
    onRead?.(read);
  }
  return hash.digest('hex');
}
