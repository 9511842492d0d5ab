import { growthOf } from '../effects/registry';
import { type Affine, affineOf, isAffine, project } from '../geometry/matrix';
import { type Path, pathBounds } from '../geometry/path';
import { boundsOf, corners, EMPTY, inset, intersection, isEmpty, type Rect, union } from '../geometry/rect';
import type { Size } from '../layers/kind';
import type { Op } from './ops';

const known = new WeakMap<Path, Rect>();

function outlineBounds(path: Path): Rect {
  let box = known.get(path);
  if (!box) {
    box = pathBounds(path);
    known.set(path, box);
  }
  return box;
}

function mapRect(m: Affine, r: Rect): Rect {
  return boundsOf(
    corners(r).map(([x, y]) => [m[0] * x + m[2] * y + m[4], m[1] * x + m[3] * y + m[5]] as const),
  );
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
    if (op.op === 'clip') clips.push(mapRect(op.matrix, outlineBounds(op.path)));
    else if (op.op === 'unclip') clips.pop();
    else total = union(total, clipped(drawingBounds(op), clips));
  }
  return total;
}

function clipped(box: Rect, clips: readonly Rect[]): Rect {
  return clips.reduce(intersection, box);
}

function drawingBounds(op: Op): Rect {
  switch (op.op) {
    case 'path': {
      const box = outlineBounds(op.path);
      // A miter may reach farther than half the width; twice the width holds the default limit in practice.
      return mapRect(
        op.matrix,
        op.stroke ? inset(box, op.stroke.width * (op.stroke.join === 'miter' ? 2 : 0.5)) : box,
      );
    }
    case 'picture':
      return isAffine(op.plane)
        ? mapRect(affineOf(op.plane), op.target)
        : boundsOf(corners(op.target).map(([x, y]) => project(op.plane, x, y)));
    case 'glyph':
      return mapRect(op.matrix, { x: 0, y: -op.size * 1.1, width: op.size * 1.5, height: op.size * 1.5 });
    case 'grain':
      return op.area;
    default:
      return EMPTY;
  }
}

/** The box of a group's content with what its effects add around it. */
export function grownBy(box: Rect, effects: readonly Parameters<typeof growthOf>[0][]): Rect {
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

/** Edges are painted a pixel beyond their group's box; small pictures have large pixels. Frame units. */
const EDGE = 16;

/** Operations without the groups that lie outside the frame: nothing of them is painted, and no frame of a clip is needed. */
export function withinFrame(ops: readonly Op[], { width, height }: Size): Op[] {
  const frame: Rect = { x: -EDGE, y: -EDGE, width: width + 2 * EDGE, height: height + 2 * EDGE };
  let skipping = 0;
  return ops.filter((op) => {
    if (skipping > 0) {
      if (op.op === 'open') skipping++;
      else if (op.op === 'close') skipping--;
      return false;
    }
    // A group that keeps what is inside it takes all away when it is outside.
    if (op.op !== 'open' || op.composite === 'keep-inside' || !isEmpty(intersection(op.bounds, frame)))
      return true;
    skipping = 1;
    return false;
  });
}
