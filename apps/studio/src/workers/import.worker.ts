import { VideoSampleSink } from 'mediabunny';
import { hashOf, piecesOf } from '../media/hash';
import type { FromImport, ToImport } from '../media/messages';
import { type Probed, probe, wavePeaks } from '../media/probe';
import { writeThumb } from '../media/thumb';
import { readMediaRecord, storeMedia } from '../storage/media';
import { StorageError, write } from '../storage/store';

const tell = (message: FromImport) => postMessage(message);

/** Peaks of a waveform that are kept. */
const PEAKS = 240;
/** Part of the work that reading and hashing is. */
const READING = 0.35;

/** Hashes first, stores second: the same file is stored once, and bytes lie under their hash from the beginning. */
async function take(file: File): Promise<void> {
  const probed = await probe(file);
  const digest = await hashOf(file, (read) =>
    tell({ type: 'progress', part: (READING * read) / file.size, storing: undefined }),
  );
  const held = await readMediaRecord(digest);
  if (held) {
    tell({ type: 'done', record: held, again: true });
    return;
  }
  // Small pictures come first: they are of no harm without a record, and a record is never without them.
  await preview(probed, digest);
  const record = await storeMedia(
    { hash: digest, size: file.size, pieces: () => piecesOf(file) },
    probed.facts,
    (stored) =>
      tell({ type: 'progress', part: READING + ((1 - READING) * stored) / file.size, storing: digest }),
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
  take(data.file).catch((error: unknown) =>
    tell({
      type: 'fault',
      message: error instanceof Error ? error.message : String(error),
      full: error instanceof StorageError && error.full,
    }),
  );
};
