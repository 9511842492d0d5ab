import { parseColour } from '../colour/colour';
import { type Homography, nearestAffine, project } from '../geometry/matrix';
import { EMPTY, type Rect } from '../geometry/rect';

/** Numbers of an operation's stroke: both ends and half the width there, the index of its colour, its opacity. */
export const STROKE_NUMBERS = 8;
/** Numbers of a stroke in pixels: both ends and half the width there; red, green, blue and alpha, premultiplied, 0..255. */
const PIXEL_NUMBERS = 10;

/** Below a pixel's width a stroke gets fainter rather than narrower. */
const THINNEST = 0.5;

/** Lays strokes in pixels over each other, the first lowest. @returns straight pixels of the picture, 0..255 each */
export type LayStrokes = (rows: Float32Array, width: number, height: number) => Uint8ClampedArray;

/** The box of strokes, in the coordinates of their plane. */
export function strokesBounds(rows: Float32Array): Rect {
  let [left, top, right, bottom] = [Infinity, Infinity, -Infinity, -Infinity];
  for (let i = 0; i + STROKE_NUMBERS <= rows.length; i += STROKE_NUMBERS) {
    for (const end of [i, i + 3]) {
      const [x, y, half] = [rows[end]!, rows[end + 1]!, rows[end + 2]!];
      left = Math.min(left, x - half);
      right = Math.max(right, x + half);
      top = Math.min(top, y - half);
      bottom = Math.max(bottom, y + half);
    }
  }
  return left > right ? EMPTY : { x: left, y: top, width: right - left, height: bottom - top };
}

/**
 * Strokes of an operation as rows of pixels take them: ten numbers each.
 * @param plane from the operation's coordinates to pixels of the picture they are laid in
 */
export function strokesInPixels(
  rows: Float32Array,
  colours: readonly string[],
  plane: Homography,
): Float32Array {
  const inks = colours.map((c) => parseColour(c).map((v, i) => (i < 3 ? v * 255 : v)));
  const flat = plane[6] === 0 && plane[7] === 0;
  const steady = flat ? scaleAt(plane, 0, 0) : 0;
  const made = new Float32Array((rows.length / STROKE_NUMBERS) * PIXEL_NUMBERS);
  let at = 0;
  const end = (i: number): number => {
    const [x, y] = project(plane, rows[i]!, rows[i + 1]!);
    const half = rows[i + 2]! * (flat ? steady : scaleAt(plane, rows[i]!, rows[i + 1]!));
    made[at++] = x;
    made[at++] = y;
    made[at++] = Math.max(half, THINNEST);
    return half;
  };
  for (let i = 0; i + STROKE_NUMBERS <= rows.length; i += STROKE_NUMBERS) {
    const ink = inks[rows[i + 6]!];
    const opacity = rows[i + 7]! * (ink?.[3] ?? 0);
    if (!ink || !(opacity > 0)) continue;
    const start = at;
    const widest = Math.max(end(i), end(i + 3));
    const alpha = opacity * Math.min(1, widest / THINNEST);
    if (!(alpha > 0.001) || !made.subarray(start, at).every(Number.isFinite)) {
      at = start;
      continue;
    }
    for (let k = 0; k < 3; k++) made[at++] = ink[k]! * alpha;
    made[at++] = 255 * alpha;
  }
  return made.subarray(0, at);
}

/**
 * Lays strokes with round ends over each other (Porter and Duff's "over"). A stroke without length is a dot. How much
 * of a pixel is covered follows from its middle's distance to the stroke's edge, which is the area under a straight
 * edge to within a few parts of a hundred. What hosts have a kernel for.
 */
export const layStrokes: LayStrokes = (rows, width, height) => {
  const sums = new Float32Array(width * height * 4);
  for (let i = 0; i + PIXEL_NUMBERS <= rows.length; i += PIXEL_NUMBERS)
    layStroke(rows, i, sums, width, height);
  const data = new Uint8ClampedArray(sums.length);
  for (let i = 3; i < sums.length; i += 4) {
    const alpha = sums[i]!;
    if (alpha === 0) continue;
    for (let k = 1; k < 4; k++) data[i - k] = (sums[i - k]! * 255) / alpha;
    data[i] = alpha;
  }
  return data;
};

function layStroke(rows: Float32Array, i: number, sums: Float32Array, width: number, height: number): void {
  const [x0, y0, r0] = [rows[i]!, rows[i + 1]!, rows[i + 2]!];
  const [dx, dy, grows] = [rows[i + 3]! - x0, rows[i + 4]! - y0, rows[i + 5]! - r0];
  const reach = Math.max(r0, r0 + grows) + 0.5;
  const first = Math.max(0, Math.ceil(Math.min(y0, y0 + dy) - reach - 0.5));
  const last = Math.min(height - 1, Math.floor(Math.max(y0, y0 + dy) + reach - 0.5));
  const left = Math.max(0, Math.ceil(Math.min(x0, x0 + dx) - reach - 0.5));
  const right = Math.min(width - 1, Math.floor(Math.max(x0, x0 + dx) + reach - 0.5));
  const square = dx * dx + dy * dy;
  const over = square > 1e-9 ? 1 / square : 0;
  const alpha = rows[i + 9]! / 255;
  for (let y = first; y <= last; y++) {
    const py = y + 0.5 - y0;
    for (let x = left; x <= right; x++) {
      const px = x + 0.5 - x0;
      const t = Math.min(1, Math.max(0, (px * dx + py * dy) * over));
      const part = Math.min(1, r0 + t * grows + 0.5 - Math.hypot(px - t * dx, py - t * dy));
      if (part <= 0) continue;
      const at = (y * width + x) * 4;
      for (let k = 0; k < 4; k++) sums[at + k] = sums[at + k]! * (1 - alpha * part) + rows[i + 6 + k]! * part;
    }
  }
}

/** How much larger than its own units a plane shows about a point: the root of what it does to areas. */
function scaleAt(plane: Homography, x: number, y: number): number {
  const [a, b, c, d] = nearestAffine(plane, x, y);
  return Math.sqrt(Math.abs(a * d - b * c));
}
