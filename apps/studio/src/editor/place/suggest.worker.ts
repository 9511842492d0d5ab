import { BeatFinder, type Grey, messageOf, SHOT_PICTURE, ShotFinder } from '@fresh-reel/core';
import { AudioSampleSink } from 'mediabunny';
import { openClip } from '../../media/decode/clipSource';
import { openInput } from '../../media/decode/mediaSource';
import type { FromSuggest, ToSuggest } from './suggestMessages';

const tell = (message: FromSuggest) => postMessage(message);

/** Where shots change between two seconds of a clip. */
async function shots({ media, from, to }: ToSuggest): Promise<number[]> {
  const source = await openClip(media);
  if (!source) throw new Error('The clip is not here any more. Add its file again.');
  const { width, height } = SHOT_PICTURE;
  const context = new OffscreenCanvas(width, height).getContext('2d', { willReadFrequently: true })!;
  const finder = new ShotFinder();
  const found: number[] = [];
  let told = from;
  for await (const sample of source.samples(from)) {
    const { timestamp } = sample;
    if (timestamp >= to) {
      sample.close();
      break;
    }
    sample.draw(context, 0, 0, width, height);
    sample.close();
    const { data } = context.getImageData(0, 0, width, height);
    const grey: Grey = {
      width,
      height,
      data: Float32Array.from(
        { length: width * height },
        (_, i) => 0.2126 * data[4 * i]! + 0.7152 * data[4 * i + 1]! + 0.0722 * data[4 * i + 2]!,
      ),
    };
    if (finder.next(grey, timestamp)) found.push(timestamp);
    if (timestamp - told < 0.5) continue;
    told = timestamp;
    tell({ type: 'part', part: (timestamp - from) / (to - from) });
  }
  return found;
}

/** The beats between two seconds of a sound, or of a clip's sound. */
async function beats({ media, from, to }: ToSuggest): Promise<number[]> {
  const input = await openInput(media);
  const track = await input?.getPrimaryAudioTrack();
  if (!input || !track) throw new Error('There is no sound in it to beat.');
  let finder: BeatFinder | undefined;
  let first = 0;
  let told = from;
  let plane = new Float32Array(0);
  for await (const sample of new AudioSampleSink(track).samples(from, to)) {
    const { timestamp, sampleRate } = sample;
    if (!finder) {
      finder = new BeatFinder(sampleRate);
      first = timestamp;
    }
    const options = { planeIndex: 0, format: 'f32-planar' } as const;
    const size = sample.allocationSize(options) / 4;
    if (plane.length < size) plane = new Float32Array(size);
    sample.copyTo(plane.subarray(0, size), options);
    sample.close();
    finder.add(plane.subarray(0, size));
    if (timestamp - told < 2) continue;
    told = timestamp;
    tell({ type: 'part', part: (timestamp - from) / (to - from) });
  }
  input.dispose();
  return (finder?.beats() ?? []).map((t) => t + first).filter((t) => t >= from && t < to);
}

self.onmessage = ({ data }: MessageEvent<ToSuggest>) => {
  const work = data.what === 'cut' ? shots(data) : beats(data);
  work.then(
    (seconds) => tell({ type: 'found', seconds }),
    (error: unknown) => tell({ type: 'fault', message: messageOf(error) }),
  );
};
