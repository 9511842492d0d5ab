import { type Grey, shadeAt } from './grey';
import type { Patch, PatchLevel } from './patch';
import { apart, type Pose, resized, within } from './pose';

/** Where a patch was found, and how alike it is there: the weighted correlation of shades, −1 to 1. */
export interface Found {
  readonly pose: Pose;
  readonly alike: number;
}

const ROUNDS = 20;
/** Pixels of a level a round may move less than, to be the last. */
const STILL = 0.01;

/**
 * Finds a patch near a pose: the inverse compositional method (Baker & Matthews, Lucas-Kanade 20 Years On, 2004), from
 * the coarsest size to the finest. Light that changes by a factor and an amount makes no difference.
 */
export function align(patch: Patch, pyramid: readonly Grey[], from: Pose): Found {
  let pose = from;
  let alike = -1;
  for (let i = patch.levels.length - 1; i >= 0; i--) {
    const level = patch.levels[i]!;
    const grey = pyramid[Math.log2(level.pixel)]!;
    // Growth and turn are told by fine sizes; in coarse ones they are mostly noise.
    const free = i < 2 ? 4 : 2;
    const found = alignLevel(level, grey, resized(pose, 1 / level.pixel), free);
    pose = resized(found.pose, level.pixel);
    alike = found.alike;
  }
  return { pose, alike };
}

const seen = new Float32Array(64 * 64);

/** The shades at a pose, in `seen`, with their mean and how they go with the patch's. */
function look(level: PatchLevel, grey: Grey, { x, y, a, b }: Pose) {
  const { side, half, shades, weights } = level;
  const middle = (side - 1) / 2;
  const step = half / middle;
  const { width, height, data } = grey;
  const reach = half * (Math.abs(a) + Math.abs(b));
  const inside = x - reach >= 0 && y - reach >= 0 && x + reach < width - 1 && y + reach < height - 1;
  let mean = 0;
  for (let v = 0, i = 0; v < side; v++) {
    let px = x + (-a * middle - b * (v - middle)) * step;
    let py = y + (-b * middle + a * (v - middle)) * step;
    for (let u = 0; u < side; u++, i++, px += a * step, py += b * step) {
      let shade: number;
      if (inside) {
        const x0 = px | 0;
        const y0 = py | 0;
        const at = y0 * width + x0;
        const fx = px - x0;
        const top = data[at]! + (data[at + 1]! - data[at]!) * fx;
        const bottom = data[at + width]! + (data[at + width + 1]! - data[at + width]!) * fx;
        shade = top + (bottom - top) * (py - y0);
      } else shade = shadeAt(grey, px, py);
      seen[i] = shade;
      mean += weights[i]! * shade;
    }
  }
  let [variance, together] = [0, 0];
  for (let i = 0; i < side * side; i++) {
    const d = seen[i]! - mean;
    variance += weights[i]! * d * d;
    together += weights[i]! * d * (shades[i]! - level.mean);
  }
  const spread = Math.sqrt(variance);
  return { mean, together, alike: together / Math.max(1e-6, spread * level.spread) };
}

function alignLevel(level: PatchLevel, grey: Grey, from: Pose, free: 2 | 4): Found {
  const { side, half, shades, steepest, normal } = level;
  let best: Found = { pose: from, alike: -2 };
  let pose = from;
  for (let round = 0; round < ROUNDS; round++) {
    const { mean, together, alike } = look(level, grey, pose);
    if (alike > best.alike) best = { pose, alike };
    // Contrast that grew makes every difference larger by as much.
    const gain = together / Math.max(1e-6, level.spread ** 2);
    if (gain < 0.05) break;
    const pull = [0, 0, 0, 0];
    for (let i = 0; i < side * side; i++) {
      const off = (seen[i]! - mean) / gain - (shades[i]! - level.mean);
      for (let k = 0; k < free; k++) pull[k]! += steepest[k]![i]! * off;
    }
    const move = solve(normal, pull, free);
    if (!move) break;
    const [dx, dy, grow = 0, turn = 0] = move;
    // The patch itself would have to move by that to look like the picture: the pose moves by its inverse.
    const k = 1 + grow! / half;
    const t = turn! / half;
    const size = k * k + t * t;
    if (!(size > 0.25 && size < 4) || Math.hypot(dx!, dy!) > 2 * half) break;
    const [ia, ib] = [k / size, -t / size];
    const next = within(pose, { x: -(ia * dx! - ib * dy!), y: -(ib * dx! + ia * dy!), a: ia, b: ib });
    const moved = apart(pose, next, half);
    pose = next;
    if (moved < STILL) break;
  }
  const { alike } = look(level, grey, pose);
  return alike >= best.alike ? { pose, alike } : best;
}

/** How firmly growth and turn stay as they are where the picture does not tell: squared shades a pixel. */
const FIRM = 0.05;

/** Solves the first `n` of four normal equations by Cholesky's decomposition; nothing where they say nothing. */
function solve(normal: Float64Array, pull: readonly number[], n: 2 | 4): number[] | undefined {
  const l = new Float64Array(16);
  for (let j = 0; j < n; j++) {
    for (let k = 0; k <= j; k++) {
      let sum = normal[j * 4 + k]! + (j === k && j >= 2 ? FIRM : 0);
      for (let m = 0; m < k; m++) sum -= l[j * 4 + m]! * l[k * 4 + m]!;
      if (j !== k) l[j * 4 + k] = sum / l[k * 4 + k]!;
      else if (sum > 1e-6) l[j * 4 + j] = Math.sqrt(sum);
      else return undefined;
    }
  }
  const x = pull.slice(0, n);
  for (let j = 0; j < n; j++) {
    for (let k = 0; k < j; k++) x[j]! -= l[j * 4 + k]! * x[k]!;
    x[j]! /= l[j * 4 + j]!;
  }
  for (let j = n - 1; j >= 0; j--) {
    for (let k = j + 1; k < n; k++) x[j]! -= l[k * 4 + j]! * x[k]!;
    x[j]! /= l[j * 4 + j]!;
  }
  return x;
}
