import { assetFile } from '@fresh-reel/templates';
import { ALL_FORMATS, BlobSource, CustomSource, Input } from 'mediabunny';
import { CHUNK, readChunk } from '../storage/bytes';
import { type MediaRecord, readMediaRecord } from '../storage/media';

/** Decoded chunks kept of one file that is being read. */
const KEPT_CHUNKS = 4;

/** Whether a template's asset is a clip or a sound, by its file's name. */
export function assetKind(media: string): 'picture' | 'clip' | 'sound' {
  const file = assetFile(media);
  if (/\.(mp4|webm)$/.test(file)) return 'clip';
  return /\.ogg$/.test(file) ? 'sound' : 'picture';
}

/** A stored clip or sound, read from storage where it is wanted and never held whole. */
function storedSource({ hash, size }: MediaRecord): CustomSource {
  const kept = new Map<number, Promise<Uint8Array | null>>();
  const chunk = (i: number) => {
    let held = kept.get(i);
    if (!held) {
      held = readChunk(hash, i);
      kept.set(i, held);
      if (kept.size > KEPT_CHUNKS) kept.delete(kept.keys().next().value!);
    }
    return held;
  };
  return new CustomSource({
    getSize: () => size,
    read: async (start, end) => {
      const out = new Uint8Array(end - start);
      for (let i = Math.floor(start / CHUNK); i * CHUNK < end; i++) {
        const bytes = await chunk(i);
        if (!bytes) throw new Error('Part of this file is missing from storage. Add the file again.');
        const from = Math.max(start, i * CHUNK);
        const to = Math.min(end, i * CHUNK + bytes.length);
        out.set(bytes.subarray(from - i * CHUNK, to - i * CHUNK), from - start);
      }
      return out;
    },
  });
}

/**
 * Opens a clip or a sound by its media id, in a worker or on the page.
 * @returns null when it is not there (any more), or is a picture
 */
export async function openMedia(media: string): Promise<Input | null> {
  if (media.startsWith('asset:')) {
    if (assetKind(media) === 'picture') return null;
    const response = await fetch(new URL(`/templates/${assetFile(media)}`, self.location.origin));
    return response.ok
      ? new Input({ formats: ALL_FORMATS, source: new BlobSource(await response.blob()) })
      : null;
  }
  const record = await readMediaRecord(media.replace(/^sha256:/, ''));
  if (!record || record.kind === 'picture') return null;
  return new Input({ formats: ALL_FORMATS, source: storedSource(record) });
}
