import type { Grey } from '../follow/grey';
import type { Pose } from '../follow/pose';
import { randomAt } from '../motion/random';

/** A made shot: how a thing moves over what lies behind it, and what light and lens do. */
export interface Moving {
  readonly width: number;
  readonly height: number;
  /** Where the thing is in a picture. */
  readonly pose: (frame: number) => Pose;
  /** Half the width of the thing, a disc; none: all of the picture moves with it. */
  readonly half?: number;
  /** What light does to shades. */
  readonly light?: (frame: number) => { gain: number; more: number };
  /** Shades by which noise is off, as a standard deviation. */
  readonly noise?: number;
  /** Pixels by which the lens blurs, as a standard deviation. */
  readonly blur?: number;
}

// Jest reaches globals slowly, and these are asked for with every pixel.
const { floor, min, max } = Math;

/** Random shades, laid out as a square that repeats. */
const SIDE = 256;
const LATTICE = Float32Array.from({ length: SIDE * SIDE }, (_, i) => randomAt(7, i));

/** A texture that is known between pixels: smooth noise in two sizes, about 0 to 255. */
function texture(x: number, y: number): number {
  return 128 + 150 * (smooth(x / 9, y / 9) - 0.5) + 110 * (smooth(x / 23 + 90.5, y / 23 + 40.5) - 0.5);
}

function smooth(x: number, y: number): number {
  const x0 = floor(x);
  const y0 = floor(y);
  const fx = eased(x - x0);
  const row = (y0 & (SIDE - 1)) * SIDE;
  const next = ((y0 + 1) & (SIDE - 1)) * SIDE;
  const left = x0 & (SIDE - 1);
  const right = (x0 + 1) & (SIDE - 1);
  const top = LATTICE[row + left]! + (LATTICE[row + right]! - LATTICE[row + left]!) * fx;
  const bottom = LATTICE[next + left]! + (LATTICE[next + right]! - LATTICE[next + left]!) * fx;
  return top + (bottom - top) * eased(y - y0);
}

const eased = (t: number) => t * t * t * (t * (6 * t - 15) + 10);

/** One picture of a made shot. */
export function pictureOf(shot: Moving, frame: number): Grey {
  const { width, height, half } = shot;
  const { x: px, y: py, a, b } = shot.pose(frame);
  const { gain, more } = shot.light?.(frame) ?? { gain: 1, more: 0 };
  const size = a * a + b * b;
  const data = new Float32Array(width * height);
  for (let y = 0, i = 0; y < height; y++)
    for (let x = 0; x < width; x++, i++) {
      const dx = x - px;
      const dy = y - py;
      const u = (a * dx + b * dy) / size;
      const v = (a * dy - b * dx) / size;
      const thing = half === undefined || u * u + v * v < half * half;
      // What lies behind is another part of it.
      data[i] = thing ? texture(u, v) : texture(x + 3000, y + 1000);
    }
  const seen = shot.blur ? blurred({ width, height, data }, shot.blur) : { width, height, data };
  for (let i = 0; i < data.length; i++) {
    const noise = shot.noise ? shot.noise * NOISE[(frame * data.length + i) % NOISE.length]! : 0;
    seen.data[i] = min(255, max(0, seen.data[i]! * gain + more + noise));
  }
  return seen;
}

/** Numbers of about standard normal distribution: each the sum of three even ones. */
const NOISE = Float32Array.from(
  { length: 65_521 },
  (_, n) => 2 * (randomAt(1, n) + randomAt(2, n) + randomAt(3, n) - 1.5),
);

function blurred({ width, height, data }: Grey, deviation: number): Grey {
  const reach = Math.ceil(deviation * 3);
  const kernel = Array.from({ length: 2 * reach + 1 }, (_, i) =>
    Math.exp(-((i - reach) ** 2) / (2 * deviation ** 2)),
  );
  const sum = kernel.reduce((a, k) => a + k, 0);
  const along = (from: Float32Array, dx: number, dy: number) => {
    const to = new Float32Array(from.length);
    for (let y = 0, i = 0; y < height; y++)
      for (let x = 0; x < width; x++, i++) {
        let total = 0;
        for (let k = -reach; k <= reach; k++) {
          const qx = min(width - 1, max(0, x + k * dx));
          const qy = min(height - 1, max(0, y + k * dy));
          total += kernel[k + reach]! * from[qy * width + qx]!;
        }
        to[i] = total / sum;
      }
    return to;
  };
  return { width, height, data: along(along(data, 1, 0), 0, 1) };
}
