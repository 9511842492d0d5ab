import { strokesBounds } from '../canvas/strokes';
import type { Growth } from '../effects/kind';
import { growthOf } from '../effects/registry';
import { miterReach, type Path, pathBounds } from '../geometry/path';
import { planeBounds } from '../geometry/plane';
import type { Size } from '../geometry/rect';
import { corners, EMPTY, inset, intersection, isEmpty, type Rect, union } from '../geometry/rect';
import type { Op } from './ops';

type PathOp = Extract<Op, { op: 'path' }>;

/** The box of what a path operation inks, in the coordinates of its plane. */
export function inkedBounds({ path, stroke }: Pick<PathOp, 'path' | 'stroke'>): Rect {
  const box = pathBounds(path);
  if (!stroke) return box;
  // Square ends reach out to their corners.
  const reach = Math.max(
    stroke.join === 'miter' ? miterReach(path) : 0.5,
    stroke.cap === 'square' ? Math.SQRT1_2 : 0,
  );
  return inset(box, stroke.width * reach);
}

/** The box of all copies of an outline, in the coordinates of their plane. */
function copiesBounds(path: Path, places: Float32Array): Rect {
  const of = corners(pathBounds(path));
  let [left, top, right, bottom] = [Infinity, Infinity, -Infinity, -Infinity];
  for (let i = 0; i + 5 < places.length; i += 6) {
    for (const [px, py] of of) {
      const x = places[i]! * px + places[i + 2]! * py + places[i + 4]!;
      const y = places[i + 1]! * px + places[i + 3]! * py + places[i + 5]!;
      left = Math.min(left, x);
      right = Math.max(right, x);
      top = Math.min(top, y);
      bottom = Math.max(bottom, y);
    }
  }
  return left > right ? EMPTY : { x: left, y: top, width: right - left, height: bottom - top };
}

/** The box of faces, in the coordinates of their plane. */
function facesBounds(points: Float32Array): Rect {
  let [left, top, right, bottom] = [Infinity, Infinity, -Infinity, -Infinity];
  for (let i = 0; i + 1 < points.length; i += 2) {
    left = Math.min(left, points[i]!);
    right = Math.max(right, points[i]!);
    top = Math.min(top, points[i + 1]!);
    bottom = Math.max(bottom, points[i + 1]!);
  }
  return left > right ? EMPTY : { x: left, y: top, width: right - left, height: bottom - top };
}

/** The box of a colour sign on its baseline, in the coordinates of its plane. */
export function signBounds(size: number): Rect {
  return { x: 0, y: -size * 1.1, width: size * 1.5, height: size * 1.5 };
}

/** A box that holds all an operation list paints, in frame units. Clips narrow it; effects widen it. */
export function opsBounds(ops: readonly Op[]): Rect {
  let total = EMPTY;
  const clips: Rect[] = [];
  let depth = 0;
  for (const op of ops) {
    if (op.op === 'close') {
      depth--;
      continue;
    }
    if (op.op === 'open') {
      if (depth === 0 && op.composite !== 'keep-inside' && op.composite !== 'keep-outside') {
        total = union(total, clipped(op.bounds, clips));
      }
      depth++;
      continue;
    }
    if (depth > 0) continue;
    if (op.op === 'clip') clips.push(planeBounds(op.plane, pathBounds(op.path)));
    else if (op.op === 'unclip') clips.pop();
    else total = union(total, clipped(drawingBounds(op), clips));
  }
  return total;
}

function clipped(box: Rect, clips: readonly Rect[]): Rect {
  return clips.reduce(intersection, box);
}

export function drawingBounds(op: Op): Rect {
  switch (op.op) {
    case 'path':
      return planeBounds(op.plane, inkedBounds(op));
    case 'copies':
      return planeBounds(op.plane, copiesBounds(op.path, op.places));
    case 'faces':
      return planeBounds(op.plane, facesBounds(op.points));
    case 'strokes':
      return planeBounds(op.plane, strokesBounds(op.rows));
    case 'picture':
      return planeBounds(op.plane, op.target);
    case 'glyph':
      return planeBounds(op.plane, signBounds(op.size));
    case 'grain':
      return op.area;
    default:
      return EMPTY;
  }
}

/** The box of a group's content with what its effects add around it: nothing to nothing. */
export function grownBy(box: Rect, effects: readonly Parameters<typeof growthOf>[0][]): Rect {
  if (isEmpty(box)) return EMPTY;
  return effects.reduce((r, effect) => {
    const g = growthOf(effect);
    return {
      x: r.x - g.left,
      y: r.y - g.top,
      width: r.width + g.left + g.right,
      height: r.height + g.top + g.bottom,
    };
  }, box);
}

/**
 * The area whose content can be seen within `seen` once effects have reached as far as they do: what lies to the left
 * is brought in by what grows to the right.
 */
export function sourceOf(seen: Rect, growths: readonly Growth[]): Rect {
  return growths.reduceRight(
    (r, g) => ({
      x: r.x - g.right,
      y: r.y - g.bottom,
      width: r.width + g.left + g.right,
      height: r.height + g.top + g.bottom,
    }),
    seen,
  );
}

/** Edges are painted a pixel beyond their group's box; small pictures have large pixels. Frame units. */
const EDGE = 16;

/** Operations without the groups that are not seen: nothing of them is painted, and no frame of a clip is needed. */
export function withinFrame(ops: readonly Op[], { width, height }: Size): Op[] {
  const frame: Rect = { x: -EDGE, y: -EDGE, width: width + 2 * EDGE, height: height + 2 * EDGE };
  const needed: Rect[] = [frame];
  let skipping = 0;
  return ops.filter((op) => {
    if (skipping > 0) {
      if (op.op === 'open') skipping++;
      else if (op.op === 'close') skipping--;
      return false;
    }
    if (op.op === 'close') needed.pop();
    if (op.op !== 'open') return true;
    const source = sourceOf(needed.at(-1) ?? frame, op.effects.map(growthOf));
    // A group that keeps what is inside it takes all away when it is outside.
    if (op.composite === 'keep-inside' || !isEmpty(intersection(op.bounds, source))) {
      needed.push(source);
      return true;
    }
    skipping = 1;
    return false;
  });
}

/** Pixels by which the sides of a group's surface grow, at least. */
const LEAST_STEP = 16;

/**
 * A side of a group's surface, in whole pixels: it goes in steps of an eighth or less, so that a group that grows from
 * frame to frame finds a surface that is free already. To make one costs more than the pixels it has too many.
 */
export function roomy(side: number): number {
  const step = Math.max(LEAST_STEP, 2 ** (Math.floor(Math.log2(side)) - 3));
  return Math.ceil(side / step) * step;
}

/** The whole pixels a box covers, within the frame, and some more to the right and below. */
export function pixelBox(bounds: Rect, scale: number, whole: Rect): Rect {
  const x = Math.floor(bounds.x * scale) - 1;
  const y = Math.floor(bounds.y * scale) - 1;
  const right = Math.ceil((bounds.x + bounds.width) * scale) + 1;
  const bottom = Math.ceil((bounds.y + bounds.height) * scale) + 1;
  const box = intersection({ x, y, width: right - x, height: bottom - y }, whole);
  if (isEmpty(box)) return box;
  return { ...box, width: roomy(box.width), height: roomy(box.height) };
}
