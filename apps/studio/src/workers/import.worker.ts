import { VideoSampleSink } from 'mediabunny';
import { hashOf, piecesOf, recut } from '../media/hash';
import type { FromImport, ToImport } from '../media/messages';
import { MediaError, type Probed, probe, wavePeaks } from '../media/probe';
import { probeSequence } from '../media/probeSequence';
import { type Frames, openFrames, sequenceBytes } from '../media/sequence';
import { sniffMedia } from '../media/sniff';
import { keepThumb, makeThumb, writeThumb } from '../media/thumb';
import { rangeOf } from '../media/zip';
import { lackingMedia, type MediaFactsFound, readMediaRecord, storeMedia } from '../storage/media';
import { StorageError, write } from '../storage/store';

const tell = (message: FromImport) => postMessage(message);

/** Peaks of a waveform that are kept. */
const PEAKS = 240;

/** What is known of a file, and its bytes. */
interface Looked {
  readonly facts: MediaFactsFound;
  readonly bytes: () => AsyncIterable<Uint8Array>;
  /** Bytes, as far as they are known before they are read; for the progress. */
  readonly size: number;
  /** Makes what the shelf shows of it, once its hash is known. */
  preview(hash: string): Promise<void>;
}

/** Tells how far one stretch of the work is, which lies between two parts of the whole. */
const telling = (from: number, to: number, size: number, storing?: string) => (done: number) =>
  tell({ type: 'progress', part: from + (to - from) * Math.min(1, done / size), storing });

async function lookAt(what: ToImport): Promise<Looked> {
  if ('frames' in what) {
    const { frames, name, rate } = what;
    const names = frames.map((f) => f.name);
    const size = frames.reduce((sum, f) => sum + f.size, 0);
    const seen = await lookAtFrames(name, { rate, names, read: async (i) => frames[i]! });
    return { ...seen, size, bytes: () => recut(sequenceBytes(frames, rate)) };
  }
  const { file } = what;
  const bytes = () => piecesOf(file);
  if (sniffMedia(new Uint8Array(await file.slice(0, 4).arrayBuffer())) === 'zip') {
    const frames = await openFrames(file.size, rangeOf(file)).catch(() => {
      throw new MediaError(
        `"${file.name}" is a zip that holds no picture sequence. Unpack it, and add the files in it.`,
      );
    });
    return { ...(await lookAtFrames(file.name, frames)), size: file.size, bytes };
  }
  const probed = await probe(file);
  return { facts: probed.facts, size: file.size, bytes, preview: (hash) => preview(probed, hash) };
}

async function lookAtFrames(name: string, frames: Frames): Promise<Pick<Looked, 'facts' | 'preview'>> {
  let thumb = '';
  const facts = await probeSequence(
    name,
    frames,
    async (bitmap) => {
      thumb = await makeThumb(bitmap.width, bitmap.height, (context, w, h) =>
        context.drawImage(bitmap, 0, 0, w, h),
      );
    },
    telling(0, 0.3, 1),
  );
  return { facts, preview: (hash) => keepThumb(hash, thumb) };
}

/** Hashes first, stores second: the same file is stored once, and bytes lie under their hash from the beginning. */
async function take(what: ToImport): Promise<void> {
  const looked = await lookAt(what);
  const looking = 'frames' in what ? 0.3 : 0;
  const { hash, size } = await hashOf(looked.bytes(), telling(looking, 0.5, looked.size));
  const held = await readMediaRecord(hash);
  if (held && !(await lackingMedia([hash])).has(hash)) {
    tell({ type: 'done', record: held, again: true });
    return;
  }
  // Small pictures come first: they are of no harm without a record, and a record is never without them.
  await looked.preview(hash);
  const record = await storeMedia(
    { hash, size, pieces: looked.bytes },
    looked.facts,
    telling(0.5, 1, size, hash),
  );
  tell({ type: 'done', record, again: false });
}

async function preview({ video, audio, facts }: Probed, hash: string): Promise<void> {
  if (video) {
    // A little way in: many clips begin in black.
    const sample = await new VideoSampleSink(video).getSample(
      (await video.getFirstTimestamp()) + facts.duration! * 0.2,
    );
    if (sample) {
      await writeThumb(hash, facts.width!, facts.height!, (context, w, h) =>
        sample.draw(context, 0, 0, w, h),
      );
      sample.close();
    }
  }
  if (audio) {
    const peaks = await wavePeaks(audio, facts.duration!, PEAKS);
    await write({ [`wave/${hash}`]: JSON.stringify(peaks) });
  }
}

self.onmessage = ({ data }: MessageEvent<ToImport>) => {
  take(data).catch((error: unknown) =>
    tell({
      type: 'fault',
      message: error instanceof Error ? error.message : String(error),
      full: error instanceof StorageError && error.full,
    }),
  );
};
