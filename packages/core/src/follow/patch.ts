import { type Grey, shadeAt } from './grey';
import { type Pose, resized } from './pose';

/** One size of a patch: its shades, and what is worked out of them once to find it in other pictures. */
export interface PatchLevel {
  /** The side of a pixel here, in pixels of the full picture. */
  readonly pixel: number;
  /** Points of a row, and of a column. */
  readonly side: number;
  /** From the middle of the patch to that of its first point, in pixels of this level. */
  readonly half: number;
  readonly shades: Float32Array;
  /** How much each point counts: the middle more than the rim, where what lies behind begins. Sums to one. */
  readonly weights: Float32Array;
  readonly mean: number;
  /** Square root of the weighted variance. */
  readonly spread: number;
  /**
   * How each shade changes with x, y, growing and turning (per unit of `a` and `b` at the patch's half width), less
   * what light could do to it, times its weight.
   */
  readonly steepest: readonly [Float32Array, Float32Array, Float32Array, Float32Array];
  /** Weighted products of the steepest changes, 4 × 4, row by row. */
  readonly normal: Float64Array;
}

/** What is followed: the surroundings of a point as they looked once, in several sizes, the finest first. */
export interface Patch {
  readonly levels: readonly PatchLevel[];
}

/** Points of a side at most; a larger patch is looked at in coarser pictures alone. */
const MOST = 41;
/** A level with fewer points a side tells nothing. */
const LEAST = 9;

/**
 * Takes the patch around a pose.
 * @param pyramid the picture and halves of it
 * @param half half the patch's width in pixels of the full picture
 */
export function takePatch(pyramid: readonly Grey[], pose: Pose, half: number): Patch {
  const levels: PatchLevel[] = [];
  for (let level = 0; level < pyramid.length; level++) {
    const pixel = 2 ** level;
    const points = Math.round((2 * half) / pixel) + 1;
    if (points > MOST && level + 1 < pyramid.length) continue;
    if (points < LEAST && levels.length > 0) break;
    levels.push(takeLevel(pyramid[level]!, resized(pose, 1 / pixel), half / pixel, points, pixel));
  }
  return { levels };
}

function takeLevel(grey: Grey, pose: Pose, reach: number, wanted: number, pixel: number): PatchLevel {
  const side = Math.min(MOST, Math.max(5, wanted | 1));
  const half = (side - 1) / 2;
  const step = reach / half;
  const at = (u: number, v: number) =>
    shadeAt(grey, pose.x + (pose.a * u - pose.b * v) * step, pose.y + (pose.b * u + pose.a * v) * step);
  const n = side * side;
  const shades = new Float32Array(n);
  const weights = new Float32Array(n);
  let total = 0;
  for (let i = 0; i < n; i++) {
    const [u, v] = [(i % side) - half, Math.floor(i / side) - half];
    shades[i] = at(u, v);
    weights[i] = Math.exp(-(u * u + v * v) / (half * half));
    total += weights[i]!;
  }
  let mean = 0;
  for (let i = 0; i < n; i++) {
    weights[i] = weights[i]! / total;
    mean += weights[i]! * shades[i]!;
  }
  let variance = 0;
  for (let i = 0; i < n; i++) variance += weights[i]! * (shades[i]! - mean) ** 2;
  const spread = Math.sqrt(variance);
  const steepest = [0, 1, 2, 3].map(() => new Float32Array(n)) as unknown as PatchLevel['steepest'];
  for (let i = 0; i < n; i++) {
    const [u, v] = [(i % side) - half, Math.floor(i / side) - half];
    const gx = (at(u + 0.5, v) - at(u - 0.5, v)) / step;
    const gy = (at(u, v + 0.5) - at(u, v - 0.5)) / step;
    steepest[0][i] = gx;
    steepest[1][i] = gy;
    // By the half width, so that all four are of one order.
    steepest[2][i] = (gx * u + gy * v) / half;
    steepest[3][i] = (gy * u - gx * v) / half;
  }
  // Brighter or with more contrast is no motion (project-out, Baker, Gross & Matthews 2003, part 3).
  for (const change of steepest) {
    let [same, alike] = [0, 0];
    for (let i = 0; i < n; i++) {
      same += weights[i]! * change[i]!;
      alike += weights[i]! * change[i]! * (shades[i]! - mean);
    }
    const slope = variance > 1e-6 ? alike / variance : 0;
    for (let i = 0; i < n; i++) change[i] = change[i]! - same - slope * (shades[i]! - mean);
  }
  const normal = new Float64Array(16);
  for (let j = 0; j < 4; j++)
    for (let k = j; k < 4; k++) {
      let sum = 0;
      for (let i = 0; i < n; i++) sum += weights[i]! * steepest[j]![i]! * steepest[k]![i]!;
      normal[j * 4 + k] = sum;
      normal[k * 4 + j] = sum;
    }
  for (const change of steepest) for (let i = 0; i < n; i++) change[i] = change[i]! * weights[i]!;
  return { pixel, side, half: reach, shades, weights, mean, spread, steepest, normal };
}

/** How well a place can be followed. */
export interface Footing {
  readonly verdict: 'good' | 'fair' | 'poor';
  /** Shades that the picture changes by with a pixel, in the direction in which it changes least. */
  readonly least: number;
  readonly most: number;
}

/** Shades a pixel below which noise moves a patch more than motion does, and above which it holds firmly. */
const POOR = 1.5;
const GOOD = 4;

/**
 * How well a patch can be told from what is beside it, by the smaller eigenvalue of its gradients' products (Shi & Tomasi,
 * Good Features to Track, 1994): a flat patch has two small ones, an edge one.
 */
export function footingOf(patch: Patch): Footing {
  const { normal } = patch.levels[0]!;
  const [xx, xy, yy] = [normal[0]!, normal[1]!, normal[5]!];
  const middle = (xx + yy) / 2;
  const swing = Math.hypot((xx - yy) / 2, xy);
  const [least, most] = [Math.sqrt(Math.max(0, middle - swing)), Math.sqrt(middle + swing)];
  return { verdict: least < POOR ? 'poor' : least < GOOD ? 'fair' : 'good', least, most };
}
