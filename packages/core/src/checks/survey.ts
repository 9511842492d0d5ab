import type { Reel } from '../documents/reel';
import type { Size } from '../layers/kind';
import type { ReelCheck, ReelScene } from '../reel/reelScene';
import { FlashMeter, flashSize } from './flashes';
import { inkMarked, Legibility, legibleSize, type Pixels, wordMoments } from './legibility';

/** What paints frames to be looked at. */
export interface Looker {
  /** Straight sRGB pixels of frames of a reel at its own rate, in the order asked for. */
  frames(reel: Reel, size: Size, numbers: readonly number[]): AsyncIterable<Uint8ClampedArray>;
}

/** Looks at words over what really lies behind them. @returns those that stand out too little */
export async function lookAtWords(scene: ReelScene, looker: Looker): Promise<ReelCheck[]> {
  const moments = wordMoments(scene);
  const numbers = [...new Set(moments.map((m) => m.frame))].sort((a, b) => a - b);
  if (numbers.length === 0) return [];
  const size = legibleSize(scene.reel.frame);
  const words = new Legibility(scene, moments);
  const sharp = (reel: Reel): Reel => ({ ...reel, motionBlur: { ...reel.motionBlur, samples: 1 } });
  const painted = [scene.reel, inkMarked(scene, 0), inkMarked(scene, 1)].map((reel) =>
    looker.frames(sharp(reel), size, numbers)[Symbol.asyncIterator](),
  );
  for (const frame of numbers) {
    const three = await Promise.all(painted.map((frames) => frames.next()));
    const [own, ...marks] = three.map(({ value }): Pixels => ({ ...size, rgba: value as Uint8ClampedArray }));
    words.add(frame, own!, marks as [Pixels, Pixels]);
  }
  return words.found();
}

/**
 * Looks at every frame for flashes.
 * @param told how many frames have been looked at
 */
export async function lookForFlashes(
  scene: ReelScene,
  looker: Looker,
  told: (frames: number) => void = () => undefined,
): Promise<ReelCheck[]> {
  const { reel } = scene;
  const { rate, frame } = reel;
  const size = flashSize(frame);
  const meter = new FlashMeter(size.width * size.height, rate.num / rate.den);
  const count = scene.frameCount(rate);
  const numbers = Array.from({ length: count }, (_, i) => i);
  let looked = 0;
  // What a shutter mixes flashes no more than what it mixes.
  const sharp = { ...reel, motionBlur: { ...reel.motionBlur, samples: 1 } };
  for await (const pixels of looker.frames(sharp, size, numbers)) {
    meter.add(pixels);
    told(++looked);
  }
  return meter.harmful().map((second) => {
    const at = Math.round((second * rate.num) / rate.den);
    return { kind: 'flashes', slot: '', item: '', frame: at, time: at };
  });
}
