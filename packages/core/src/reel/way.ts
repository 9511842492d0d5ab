import type { ReelItemOf } from '../documents/item';
import type { Way, WaySample } from '../documents/way';
import type { Sighting } from '../follow/follower';
import { type Affine, multiplyAffine } from '../geometry/matrix';
import type { Size } from '../layers/kind';
import { clipTime, FRAME_SLACK } from '../media/clipTime';
import { type Rate, secondsAt } from '../time/rate';
import { framedAt, onFrame } from './framing';

/** How sure a place must be to count. */
export const SURE = 0.5;
/** Seconds that the widest smoothing looks to either side, as a standard deviation. */
const WIDEST = 0.5;

const sighting = ([, x, y, a, b, sure]: WaySample): Sighting => ({ x, y, a, b, sure });

/** The first sample that comes after a second. */
function after(samples: readonly WaySample[], second: number): number {
  let [low, high] = [0, samples.length];
  while (low < high) {
    const middle = (low + high) >> 1;
    if (samples[middle]![0] <= second) low = middle + 1;
    else high = middle;
  }
  return low;
}

/** Between two samples, straight; how sure it is at that time stays what it is. */
function between(p: WaySample, q: WaySample, second: number): Sighting {
  const k = q[0] > p[0] ? Math.min(1, Math.max(0, (second - p[0]) / (q[0] - p[0]))) : 0;
  const mix = (i: 1 | 2 | 3 | 4 | 5) => p[i] + (q[i] - p[i]) * k;
  return { x: mix(1), y: mix(2), a: mix(3), b: mix(4), sure: mix(5) };
}

/**
 * The second of the picture that shows at a second of a clip: each stays until the next comes. Samples are of pictures; where
 * there are none, because the thing was lost or none was asked for, pictures come as they do on the average.
 * @param rate mean pictures a second, where it is known
 */
export function heldSecond({ samples }: Pick<Way, 'samples'>, second: number, rate?: number): number {
  const at = after(samples, second + FRAME_SLACK) - 1;
  if (!rate || at < 0) return second;
  const from = samples[at]![0];
  // A hair more, so that quotients which are whole pictures stay so.
  return from + Math.floor((second + FRAME_SLACK - from) * rate + 1e-6) / rate;
}

/**
 * Where a thing is at a second of its clip. Where it was lost it goes straight from where it was last seen to where it is
 * seen again, and is not sure.
 * @param smooth 0..1: places are means of those around them, by a Gaussian of up to half a second
 * @returns nothing for a way without samples
 */
export function wayAt({ samples }: Pick<Way, 'samples'>, second: number, smooth = 0): Sighting | undefined {
  if (samples.length === 0) return undefined;
  const at = after(samples, second);
  const told = between(
    samples[Math.max(0, at - 1)]!,
    samples[Math.min(samples.length - 1, at)]!,
    second,
  ).sure;
  const sigma = smooth * WIDEST;
  if (sigma > 0.01) {
    const sum = { x: 0, y: 0, a: 0, b: 0 };
    let whole = 0;
    const from = after(samples, second - 2.5 * sigma);
    for (let i = from; i < samples.length && samples[i]![0] <= second + 2.5 * sigma; i++) {
      const sample = samples[i]!;
      if (sample[5] < SURE) continue;
      const weight = Math.exp(-0.5 * ((sample[0] - second) / sigma) ** 2);
      whole += weight;
      sum.x += weight * sample[1];
      sum.y += weight * sample[2];
      sum.a += weight * sample[3];
      sum.b += weight * sample[4];
    }
    if (whole > 0)
      return { x: sum.x / whole, y: sum.y / whole, a: sum.a / whole, b: sum.b / whole, sure: told };
  }
  let [left, right] = [at - 1, at];
  while (left >= 0 && samples[left]![5] < SURE) left--;
  while (right < samples.length && samples[right]![5] < SURE) right++;
  const p = samples[left] ?? samples[right];
  const q = samples[right] ?? samples[left];
  if (!p || !q) return { ...sighting(samples[0]!), sure: told };
  return { ...between(p, q, second), sure: told };
}

/** Where the picture of a clip lies in the frame, as pixels of it, at a frame of the item. */
export function clipPlane(
  clip: Pick<ReelItemOf<'clip'>, 'fit' | 'framing' | 'length'>,
  picture: Size,
  frame: Size,
  time: number,
): Affine {
  const cover = clip.fit === 'fill' ? Math.max : Math.min;
  const k = cover(frame.width / picture.width, frame.height / picture.height);
  // Whole numbers are the middles of pixels.
  const left = (frame.width - picture.width * k) / 2 + k / 2;
  const top = (frame.height - picture.height * k) / 2 + k / 2;
  const framed = framedAt(clip.framing, time, frame);
  return multiplyAffine(framed.matrix, [k, 0, 0, k, left, top]);
}

/** The second of its file that a clip shows at a frame of the item. */
export function secondOf(
  clip: Pick<ReelItemOf<'clip'>, 'clip' | 'length'>,
  time: number,
  rate: Rate,
  duration: number,
): number {
  return clipTime(secondsAt(time, rate), clip.clip, duration, secondsAt(clip.length, rate)) - FRAME_SLACK;
}

/** A thing in the frame: where it is, and how it is grown and turned there. */
export interface Seen {
  readonly at: readonly [number, number];
  readonly a: number;
  readonly b: number;
  readonly sure: number;
}

/** What was sighted in a clip, as it shows in the frame. */
export function seenIn({ x, y, a, b, sure }: Sighting, plane: Affine): Seen {
  // A framing turns and grows evenly: its first column is the complex number it multiplies by.
  const [c, s] = plane;
  return { at: onFrame(plane, [x, y]), a: c * a - s * b, b: s * a + c * b, sure };
}

/**
 * What takes an item from where it lay beside a thing to where it lies beside it now.
 * @returns the map, and how much larger it makes
 */
export function takenAlong(
  from: Seen,
  to: Seen,
  { grows, turns }: { readonly grows?: boolean | undefined; readonly turns?: boolean | undefined },
): { matrix: Affine; scale: number } {
  const size = Math.hypot(from.a, from.b) || 1;
  // The quotient of the two complex numbers.
  const [qa, qb] = [(to.a * from.a + to.b * from.b) / size ** 2, (to.b * from.a - to.a * from.b) / size ** 2];
  const k = grows ? Math.hypot(qa, qb) || 1 : 1;
  const angle = turns ? Math.atan2(qb, qa) : 0;
  const [c, s] = [k * Math.cos(angle), k * Math.sin(angle)];
  return {
    matrix: multiplyAffine([c, s, -s, c, to.at[0], to.at[1]], [1, 0, 0, 1, -from.at[0], -from.at[1]]),
    scale: k,
  };
}
