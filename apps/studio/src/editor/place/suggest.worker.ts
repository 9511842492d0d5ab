import '../../workers/alive';
import { BeatFinder, messageOf, SHOT_PICTURE, ShotFinder } from '@fresh-reel/core';
import { openClip } from '../../decode/clipSource';
import { firstChannel } from '../../decode/firstChannel';
import { GreyReader } from '../../decode/grey';
import { openInput } from '../../decode/mediaSource';
import type { FromSuggest, ToSuggest } from './suggestMessages';

const tell = (message: FromSuggest) => postMessage(message);

/** Where shots change between two seconds of a clip. */
async function shots({ media, from, to }: ToSuggest): Promise<number[]> {
  const source = await openClip(media);
  if (!source) throw new Error('The clip is not here any more. Add its file again.');
  const reader = new GreyReader(SHOT_PICTURE.width, SHOT_PICTURE.height);
  const finder = new ShotFinder();
  const found: number[] = [];
  let told = from;
  for await (const sample of source.samples(from)) {
    const { timestamp } = sample;
    if (timestamp >= to) {
      sample.close();
      break;
    }
    if (finder.next(reader.read(sample), timestamp)) found.push(timestamp);
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
  for await (const { timestamp, rate, samples } of firstChannel(track, from, to)) {
    if (!finder) {
      finder = new BeatFinder(rate);
      first = timestamp;
    }
    finder.add(samples);
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
