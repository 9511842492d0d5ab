import { ALL_FORMATS, BlobSource, CustomSource, Input } from 'mediabunny';
import type { ReadRange } from '../disk/zip';
import { CHUNK, readChunk } from '../storage/bytes';
import { bytesId, type MediaRecord, readMediaRecord, SEQUENCE_TYPE } from '../storage/media';
import { proxyBytesId, readProxy } from '../storage/proxies';
import { assetUrl, kindOfFile } from './assets';

/** Decoded chunks kept of one file that is being read. */
const KEPT_CHUNKS = 4;

/** Reads parts of stored bytes where they are wanted; they are never held whole. */
function storedRange(id: string): ReadRange {
  const kept = new Map<number, Promise<Uint8Array | null>>();
  const chunk = (i: number) => {
    let held = kept.get(i);
    if (!held) {
      held = readChunk(id, i);
      kept.set(i, held);
      if (kept.size > KEPT_CHUNKS) kept.delete(kept.keys().next().value!);
    }
    return held;
  };
  return async (start, end) => {
    const out = new Uint8Array(end - start);
    for (let i = Math.floor(start / CHUNK); i * CHUNK < end; i++) {
      const bytes = await chunk(i);
      if (!bytes) throw new Error('Part of this file is missing from storage. Add the file again.');
      const from = Math.max(start, i * CHUNK);
      const to = Math.min(end, i * CHUNK + bytes.length);
      out.set(bytes.subarray(from - i * CHUNK, to - i * CHUNK), from - start);
    }
    return out;
  };
}

/** One of the user's clips or sounds, with the way to read it. */
export interface StoredStream {
  readonly record: MediaRecord;
  readonly range: ReadRange;
}

/** @returns null when the media is not the user's, is not there (any more), or is a picture */
export async function openStored(media: string): Promise<StoredStream | null> {
  if (assetUrl(media)) return null;
  const record = await readMediaRecord(media.replace(/^sha256:/, ''));
  return record && record.kind !== 'picture' ? { record, range: storedRange(bytesId(record)) } : null;
}

/**
 * Opens the streams of a clip or a sound by its media id, in a worker or on the page.
 * @param stored what {@link openStored} gave, where it has been asked already
 * @returns null when it is not there (any more), or is a picture or a picture sequence
 */
export async function openInput(media: string, stored?: StoredStream | null): Promise<Input | null> {
  const asset = assetUrl(media);
  if (asset) {
    if (kindOfFile(asset) === 'picture') return null;
    const response = await fetch(new URL(asset, self.location.origin));
    return response.ok
      ? new Input({ formats: ALL_FORMATS, source: new BlobSource(await response.blob()) })
      : null;
  }
  const held = stored ?? (await openStored(media));
  if (!held || held.record.type === SEQUENCE_TYPE) return null;
  const { record, range } = held;
  const source = new CustomSource({ getSize: () => record.size, read: range });
  return new Input({ formats: ALL_FORMATS, source });
}

/** Opens the proxy of one of the user's clips. @returns null when there is none */
export async function openProxyInput(media: string): Promise<{ input: Input; side: number } | null> {
  const hash = media.replace(/^sha256:/, '');
  const proxy = await readProxy(hash);
  if (!proxy) return null;
  const source = new CustomSource({ getSize: () => proxy.size, read: storedRange(proxyBytesId(hash)) });
  return { input: new Input({ formats: ALL_FORMATS, source }), side: proxy.side };
}
