import { loadHarfBuzz, messageOf, readFontFacts } from '@fresh-reel/core';
import { FAMILIES } from '@fresh-reel/fonts';
import { type FontRecord, storeFont } from '../storage/fonts';
import { startWorker } from '../workers/startWorker';
import type { FromUnpack, ToUnpack } from './messages';

const MOST_BYTES = 60 * 1024 * 1024;

/** A font cannot be used; the message says why and what to do. */
export class FontError extends Error {
  override readonly name = 'FontError';
}

/**
 * Takes a font file in: unpacks it, reads what it says of itself, stores it.
 * @throws {FontError} when it is not a usable font
 * @throws {StorageError} when there is no room
 */
export async function importFont(file: File): Promise<FontRecord> {
  if (file.size === 0) throw new FontError(`"${file.name}" is empty (0 bytes). Choose another file.`);
  if (file.size > MOST_BYTES) throw new FontError(`"${file.name}" is larger than 60 MB. Use a smaller font.`);
  try {
    const bytes = await unpacked(new Uint8Array(await file.arrayBuffer()));
    const wasm = await (await fetch('/engine/hb.wasm')).arrayBuffer();
    const facts = readFontFacts(await loadHarfBuzz(wasm), bytes, file.name);
    // A family of the same name as a shipped one keeps its own name beside it.
    const taken = FAMILIES.some((f) => f.family === facts.family);
    return await storeFont(bytes, {
      ...facts,
      family: taken ? `${facts.family} (yours)` : facts.family,
      name: file.name,
    });
  } catch (error) {
    if (error instanceof Error && error.name === 'StorageError') throw error;
    throw new FontError(messageOf(error));
  }
}

/** A font as TrueType or OpenType; what is packed goes through a worker of its own. */
function unpacked(bytes: Uint8Array): Promise<Uint8Array> {
  const tag = String.fromCharCode(...bytes.subarray(0, 4));
  if (tag !== 'wOF2' && tag !== 'wOFF') return Promise.resolve(bytes);
  const worker = startWorker('unpack');
  return new Promise<Uint8Array>((resolve, reject) => {
    worker.onmessage = ({ data }: MessageEvent<FromUnpack>) =>
      'bytes' in data ? resolve(data.bytes) : reject(new Error(data.fault));
    worker.onerror = () =>
      reject(new Error('This browser could not unpack the font. Use its TTF or OTF file.'));
    worker.postMessage({ bytes } satisfies ToUnpack);
  }).finally(() => worker.terminate());
}
