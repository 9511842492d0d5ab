import { clamp, type Grey } from './grey';
import type { Patch, PatchLevel } from './patch';
import { type Pose, resized } from './pose';

/** Pictures wider than this are too fine to be searched. */
const WIDEST = 170;

/**
 * Looks for a patch around a place, pixel by pixel of a coarse picture, by the correlation of shades.
 * @param reach pixels of the full picture around the place
 * @returns the likeliest pose, turned and grown as the place's; nothing when no place is like the patch
 */
export function seek(patch: Patch, pyramid: readonly Grey[], around: Pose, reach: number): Pose | undefined {
  const level =
    patch.levels.find((l) => pyramid[Math.log2(l.pixel)]!.width <= WIDEST) ?? patch.levels.at(-1)!;
  const grey = pyramid[Math.log2(level.pixel)]!;
  const at = resized(around, 1 / level.pixel);
  const within = reach / level.pixel;
  const points = pointsOf(level, at);
  const [x0, x1] = bounds(at.x, within, grey.width);
  const [y0, y1] = bounds(at.y, within, grey.height);
  let best = { alike: 0.5, x: -1, y: -1 };
  for (let y = y0; y <= y1; y++)
    for (let x = x0; x <= x1; x++) {
      const alike = likeness(points, level, grey, x, y);
      if (alike > best.alike) best = { alike, x, y };
    }
  if (best.x < 0) return undefined;
  return resized({ ...at, x: best.x, y: best.y }, level.pixel);
}

const bounds = (middle: number, reach: number, size: number): [number, number] => [
  Math.max(0, Math.ceil(middle - reach)),
  Math.min(size - 1, Math.floor(middle + reach)),
];

interface Points {
  readonly dx: Int32Array;
  readonly dy: Int32Array;
}

/** Where the points of a patch lie from its middle, on whole pixels. */
function pointsOf({ side, half }: PatchLevel, { a, b }: Pose): Points {
  const middle = (side - 1) / 2;
  const step = half / middle;
  const [dx, dy] = [new Int32Array(side * side), new Int32Array(side * side)];
  for (let i = 0; i < side * side; i++) {
    const [u, v] = [((i % side) - middle) * step, (Math.floor(i / side) - middle) * step];
    dx[i] = Math.round(a * u - b * v);
    dy[i] = Math.round(b * u + a * v);
  }
  return { dx, dy };
}

function likeness({ dx, dy }: Points, level: PatchLevel, grey: Grey, x: number, y: number): number {
  const { shades, weights } = level;
  const { width, height, data } = grey;
  let [mean, square, together] = [0, 0, 0];
  for (let i = 0; i < dx.length; i++) {
    const px = clamp(x + dx[i]!, width - 1);
    const py = clamp(y + dy[i]!, height - 1);
    const shade = data[py * width + px]!;
    const w = weights[i]!;
    mean += w * shade;
    square += w * shade * shade;
    together += w * shade * shades[i]!;
  }
  const variance = square - mean * mean;
  return (together - mean * level.mean) / Math.max(1, Math.sqrt(Math.max(0, variance)) * level.spread);
}
