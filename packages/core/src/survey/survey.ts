import type { Reel } from '../documents/reel';
import { withoutBlur } from '../edit/reel';
import type { Size } from '../geometry/rect';
import { type Op, sameMoments } from '../paint/ops';
import type { ReelCheck, ReelScene } from '../reel/reelScene';
import { FlashMeter, flashSize } from './flashes';
import { inkMarked, Legibility, legibleSize, type Pixels, wordMoments } from './legibility';

/** What paints frames to be looked at. */
export interface Looker {
  /** Straight sRGB pixels of frames of a reel at its own rate, in the order asked for. */
  frames(reel: Reel, size: Size, numbers: readonly number[]): AsyncIterable<Uint8ClampedArray>;
}

/** What paints frames of one reel at one size. */
interface FramePainter {
  readonly scene: ReelScene;
  /** @returns straight sRGB pixels */
  readonly paint: (moments: readonly (readonly Op[])[]) => Promise<Uint8ClampedArray>;
}

/**
 * Looks at frames by what paints them; one that shows the same as the one before is not painted anew.
 * @param begin makes ready what all of the frames need
 */
export const lookerOf = (begin: (reel: Reel, size: Size) => FramePainter): Looker => ({
  async *frames(reel, size, numbers) {
    const { scene, paint } = begin(reel, size);
    let last: { moments: readonly (readonly Op[])[]; rgba: Uint8ClampedArray } | undefined;
    for (const number of numbers) {
      const moments = scene.subFrames(number, reel.rate).map((f) => f.ops);
      if (!last || !sameMoments(last.moments, moments)) last = { moments, rgba: await paint(moments) };
      yield last.rgba;
    }
  },
});

/** Looks at words over what really lies behind them. @returns those that stand out too little */
export async function lookAtWords(scene: ReelScene, looker: Looker): Promise<ReelCheck[]> {
  const moments = wordMoments(scene);
  const numbers = [...new Set(moments.map((m) => m.frame))].sort((a, b) => a - b);
  if (numbers.length === 0) return [];
  const size = legibleSize(scene.reel.frame);
  const words = new Legibility(scene, moments);
  const painted = [scene.reel, inkMarked(scene, 0), inkMarked(scene, 1)].map((reel) =>
    looker.frames(withoutBlur(reel), size, numbers)[Symbol.asyncIterator](),
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
  for await (const pixels of looker.frames(withoutBlur(reel), size, numbers)) {
    meter.add(pixels);
    told(++looked);
  }
  return meter.harmful().map((second) => {
    const at = Math.round((second * rate.num) / rate.den);
    return { kind: 'flashes', slot: '', item: '', frame: at, time: at };
  });
}
