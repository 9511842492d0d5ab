import '../../workers/alive';
import { FRAME_SLACK } from '@fresh-reel/core';
import type { ClipSource } from '../../decode/clip';
import { openClip, openProxy } from '../../decode/clipSource';
import { firstChannel } from '../../decode/firstChannel';
import { openInput } from '../../decode/mediaSource';
import { type FromStrips, PEAKS_A_SECOND, type ToStrips } from './messages';

const tell = (message: FromStrips) => postMessage(message);

/** Pixels that a small picture is high. */
const HIGH = 72;
/** Clips that are kept open. */
const MOST_OPEN = 4;
/** Seconds of sound between two words of its wave. */
const STRETCH = 20;

const open = new Map<string, Promise<ClipSource | null>>();
let wanted: ToStrips = { pictures: [], waves: [], forget: [] };
const told = new Set<string>();
let busy = false;

function clipOf(media: string): Promise<ClipSource | null> {
  const held = open.get(media) ?? openQuickest(media).catch(() => null);
  open.delete(media);
  open.set(media, held);
  if (open.size > MOST_OPEN) {
    const [oldest, source] = [...open][0]!;
    open.delete(oldest);
    void source.then((s) => s?.dispose());
  }
  return held;
}

const openQuickest = async (media: string) => (await openProxy(media)) ?? openClip(media);

async function pictureOf(media: string, at: number): Promise<Blob | null> {
  const source = await clipOf(media);
  if (!source) return null;
  for await (const sample of source.samples(Math.max(0, at) + FRAME_SLACK)) {
    const { width, height } = source.facts;
    const canvas = new OffscreenCanvas(Math.max(1, Math.round((width / height) * HIGH)), HIGH);
    sample.draw(canvas.getContext('2d')!, 0, 0, canvas.width, HIGH);
    sample.close();
    return canvas.convertToBlob({ type: 'image/webp', quality: 0.7 });
  }
  return null;
}

/** Works a sound's wave out, telling what is known of it as it goes. */
async function wave(media: string): Promise<void> {
  const input = await openInput(media);
  const track = await input?.getPrimaryAudioTrack();
  if (!input || !track) return;
  const peaks = new Float32Array(Math.ceil((await track.computeDuration()) * PEAKS_A_SECOND) || 1);
  let saidAt = STRETCH;
  for await (const { timestamp, rate, samples } of firstChannel(track)) {
    for (let i = 0; i < samples.length; i++) {
      const n = Math.floor((timestamp + i / rate) * PEAKS_A_SECOND);
      const loud = Math.abs(samples[i]!);
      if (n >= 0 && loud > (peaks[n] ?? 2)) peaks[n] = loud;
    }
    if (timestamp > saidAt) {
      tell({ type: 'wave', media, peaks: peaks.slice() });
      saidAt = timestamp + STRETCH;
    }
  }
  input.dispose();
  tell({ type: 'wave', media, peaks });
}

/** Does what is wanted, one after the other; what has become wanted meanwhile comes first. */
async function work(): Promise<void> {
  if (busy) return;
  busy = true;
  for (;;) {
    const picture = wanted.pictures.find((p) => !told.has(`${p.media}@${p.at}`));
    const sound = wanted.waves.find((media) => !told.has(media));
    if (picture) {
      told.add(`${picture.media}@${picture.at}`);
      tell({
        type: 'picture',
        ...picture,
        picture: await pictureOf(picture.media, picture.at).catch(() => null),
      });
    } else if (sound !== undefined) {
      told.add(sound);
      await wave(sound).catch(() => undefined);
    } else break;
  }
  busy = false;
}

self.onmessage = ({ data }: MessageEvent<ToStrips>) => {
  for (const key of data.forget) told.delete(key);
  wanted = data;
  void work();
};
