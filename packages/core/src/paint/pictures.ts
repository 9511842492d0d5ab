import { type Homography, project } from '../geometry/matrix';
import { type Corner, corners, inset, intersection, isEmpty, type Rect } from '../geometry/rect';
import type { Op } from './ops';

/** Pixels a unit of a picture's own size is painted at, where it is painted largest. */
export function shownScale({ plane, source, target }: Extract<Op, { op: 'picture' }>, scale: number): number {
  return (
    planeScale(plane, target) * scale * Math.max(target.width / source.width, target.height / source.height)
  );
}

/**
 * The part of a picture that a clip leaves, and a little around it; all of it where it is turned or in perspective, and
 * nothing where none of it is left.
 */
export function seenPart(
  op: Extract<Op, { op: 'picture' }>,
  clip: Rect,
  around: number,
): { readonly source: Rect; readonly target: Rect } | undefined {
  const { plane: m, source, target } = op;
  if (m[1] !== 0 || m[3] !== 0 || m[6] !== 0 || m[7] !== 0 || m[0] <= 0 || m[4] <= 0) return op;
  const [kx, ky] = [m[0] / m[8], m[4] / m[8]];
  const near = inset(clip, around);
  const own = {
    x: (near.x - m[2] / m[8]) / kx,
    y: (near.y - m[5] / m[8]) / ky,
    width: near.width / kx,
    height: near.height / ky,
  };
  const left = intersection(own, target);
  if (isEmpty(left)) return undefined;
  const [sx, sy] = [source.width / target.width, source.height / target.height];
  return {
    source: {
      x: source.x + (left.x - target.x) * sx,
      y: source.y + (left.y - target.y) * sy,
      width: left.width * sx,
      height: left.height * sy,
    },
    target: left,
  };
}

/** The larger of how much a plane enlarges the two diagonals of a box. */
function planeScale(plane: Homography, r: Rect): number {
  const [a, b, c, d] = corners(r);
  const across = (p: Corner, q: Corner) => {
    const [from, to] = [project(plane, ...p), project(plane, ...q)];
    return Math.hypot(to[0] - from[0], to[1] - from[1]);
  };
  const diagonal = Math.hypot(r.width, r.height);
  return Math.max(across(a, c), across(b, d)) / diagonal;
}
