import { VideoSampleSink } from 'mediabunny';
import { type Frames, openFrames, sequenceBytes } from '../../decode/sequence';
import { hashing, hashOf, piecesOf, recut } from '../../disk/hash';
import { rangeOf } from '../../disk/zip';
import { newId } from '../../storage/ids';
import {
  listMedia,
  type MediaFactsFound,
  type MediaRecord,
  readWhole,
  storeIncoming,
} from '../../storage/media';
import { write } from '../../storage/store';
import { damaged, MediaError } from './mediaError';
import type { OriginalFile, Take } from './messages';
import { type Probed, probe, wavePeaks } from './probe';
import { probeSequence } from './probeSequence';
import { sniffMedia } from './sniff';
import { keepThumb, makeThumb } from './thumb';

/** Part of the work when the pictures of a sequence have been looked at. */
const LOOKED = 0.3;
/** Peaks of a waveform that are kept. */
const PEAKS = 240;

/** What is known of a file, and its bytes. */
interface Looked {
  readonly facts: MediaFactsFound;
  readonly bytes: () => AsyncIterable<Uint8Array>;
  /** Bytes, as far as they are known before they are read; for the progress. */
  readonly size: number;
  /** Makes what the shelf shows of it. */
  preview(): Promise<Preview>;
}

/** How far the work is, 0..1, and what the bytes lie under, once they are being stored. */
export type OnProgress = (part: number, storing?: string) => void;

/** Tells how far one stretch of the work is, which lies between two parts of the whole. */
const telling =
  (tell: OnProgress, [from, to]: readonly [number, number], size: number, storing?: string) =>
  (done: number) =>
    tell(from + (to - from) * Math.min(1, done / size), storing);

async function lookAt(what: Take, tell: OnProgress): Promise<Looked> {
  if ('frames' in what) {
    const { frames, name, rate } = what;
    const names = frames.map((f) => f.name);
    const size = frames.reduce((sum, f) => sum + f.size, 0);
    const seen = await lookAtFrames(name, { rate, names, read: async (i) => frames[i]! }, tell);
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
    return { ...(await lookAtFrames(file.name, frames, tell)), size: file.size, bytes };
  }
  const probed = await probe(file, what.asks);
  return {
    facts: factsOf(probed, what.original),
    size: file.size,
    bytes,
    preview: () => makePreview(probed),
  };
}

const nameOf = (what: Take): string => ('frames' in what ? what.name : what.file.name);

/** What is known of a clip; of a working copy, that it is one, and of what. */
function factsOf({ facts }: Probed, original: OriginalFile | undefined): MediaFactsFound {
  if (!original) return facts;
  const { codec, size } = original;
  return { ...facts, codec, original: { size } };
}

async function lookAtFrames(
  name: string,
  frames: Frames,
  tell: OnProgress,
): Promise<Pick<Looked, 'facts' | 'preview'>> {
  let thumb = '';
  const facts = await probeSequence(
    name,
    frames,
    async (bitmap) => {
      thumb = await makeThumb(bitmap.width, bitmap.height, (context, w, h) =>
        context.drawImage(bitmap, 0, 0, w, h),
      );
    },
    telling(tell, [0, LOOKED], 1),
  );
  return { facts, preview: async () => ({ thumb }) };
}

/**
 * Takes a clip, a sound or a picture sequence in, hashed while it is stored. A file of the size of one on the shelf is
 * hashed first, so that the same file does not need its room twice.
 * @throws {MediaError} when it cannot be used; {StorageError} when it cannot be kept, and then nothing of it is
 */
export async function takeIn(what: Take, tell: OnProgress): Promise<{ record: MediaRecord; again: boolean }> {
  const looked = await lookAt(what, tell);
  const { original, wanted } = 'file' in what ? what : {};
  if (original || (await listMedia()).some((record) => record.size === looked.size)) {
    const { hash } = original ?? (await hashOf(looked.bytes()));
    if (wanted !== undefined && hash !== wanted) throw damaged(nameOf(what));
    const held = await readWhole(hash);
    if (held) return { record: held, again: true };
  }
  const id = newId();
  // Made while the bytes are written: the decoder has a thread of its own.
  const making = looked.preview();
  // Told where it is awaited; a store that fails before does not wait for it.
  making.catch(() => undefined);
  const { through, end } = await hashing();
  return storeIncoming(
    id,
    {
      pieces: () => through(looked.bytes()),
      end: async () => {
        const whole = end();
        if (wanted !== undefined && whole.hash !== wanted) throw damaged(nameOf(what));
        // A working copy stands for its original, and is known as that.
        const hashed = { ...whole, ...(original ? { hash: original.hash } : {}) };
        // Small pictures come first: they are of no harm without a record, and a record is never without them.
        await keepPreview(hashed.hash, await making);
        return { ...hashed, facts: looked.facts };
      },
    },
    telling(tell, ['frames' in what ? LOOKED : 0, 1], looked.size, id),
  );
}

/** What the shelf shows of a file: a small picture, and the shape of its sound. */
interface Preview {
  readonly thumb?: string;
  readonly wave?: readonly number[];
}

/** Makes what the shelf shows of a clip or a sound. */
export async function makePreview({ input, video, audio, facts }: Probed): Promise<Preview> {
  // A little way in: many clips begin in black.
  const second = video && (await video.getFirstTimestamp()) + facts.duration! * 0.2;
  const sample = video && (await new VideoSampleSink(video).getSample(second!));
  const thumb =
    sample &&
    (await makeThumb(facts.width!, facts.height!, (context, w, h) => sample.draw(context, 0, 0, w, h)));
  sample?.close();
  const wave = audio ? await wavePeaks(audio, facts.duration!, PEAKS) : undefined;
  input.dispose();
  return { ...(thumb ? { thumb } : {}), ...(wave ? { wave } : {}) };
}

/** Keeps what the shelf shows of a file. */
export async function keepPreview(hash: string, { thumb, wave }: Preview): Promise<void> {
  if (thumb) await keepThumb(hash, thumb);
  if (wave) await write({ [`wave/${hash}`]: JSON.stringify(wave) });
}
