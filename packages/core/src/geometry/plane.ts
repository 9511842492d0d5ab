import { type Affine, affineOf, type Homography, isAffine, nearestAffine, project } from './matrix';
import type { Path, PathCommand } from './path';
import { boundsOf, corners, type Rect } from './rect';

/** A point of a plane or of the picture. */
export type Point = readonly [x: number, y: number];

/** A row of straight lines. */
export interface Polyline {
  readonly points: readonly Point[];
  readonly closed: boolean;
}

/** What is nearer to the camera than this part of its distance is not seen. */
const NEAR = 0.01;

/** Distance from the camera, as a part of the distance at which things show at their own size. */
function depthAt(h: Homography, [x, y]: Point): number {
  return h[6] * x + h[7] * y + h[8];
}

/** Whether all of a box lies before the near plane. */
export function isBeforeCamera(h: Homography, box: Rect): boolean {
  return corners(box).every((p) => depthAt(h, p) >= NEAR);
}

/**
 * The part of a polygon that lies before the near plane (Sutherland and Hodgman, "Reentrant polygon clipping", 1974,
 * against one line).
 */
export function clipToNear(points: readonly Point[], h: Homography): readonly Point[] {
  const depths = points.map((p) => depthAt(h, p));
  if (depths.every((w) => w >= NEAR)) return points;
  const kept: Point[] = [];
  points.forEach((p, i) => {
    const j = (i + 1) % points.length;
    const [q, wp, wq] = [points[j]!, depths[i]!, depths[j]!];
    if (wp >= NEAR) kept.push(p);
    if (wp >= NEAR !== wq >= NEAR) {
      const t = (NEAR - wp) / (wq - wp);
      kept.push([p[0] + (q[0] - p[0]) * t, p[1] + (q[1] - p[1]) * t]);
    }
  });
  return kept;
}

/** The box, on the picture, of what is seen of a box of a plane; empty when it lies behind the camera. */
export function planeBounds(h: Homography, box: Rect): Rect {
  return boundsOf(clipToNear(corners(box), h).map(([x, y]) => project(h, x, y)));
}

/**
 * The affine map by which a box of a plane may be drawn: the plane's own where it has no perspective, else the nearest
 * one if no corner lies farther than `tolerance` from where it should; nothing when the difference would be seen.
 */
export function flatMap(h: Homography, box: Rect, tolerance: number): Affine | undefined {
  if (isAffine(h)) return affineOf(h);
  if (!isBeforeCamera(h, box)) return undefined;
  const near = nearestAffine(h, box.x + box.width / 2, box.y + box.height / 2);
  const error = corners(box).reduce((most, [x, y]) => {
    const [px, py] = project(h, x, y);
    return Math.max(
      most,
      Math.hypot(near[0] * x + near[2] * y + near[4] - px, near[1] * x + near[3] * y + near[5] - py),
    );
  }, 0);
  return error <= tolerance ? near : undefined;
}

/** The box that a box takes up once it is mapped. */
export const boundsThrough = ([a, b, c, d, e, f]: Affine, box: Rect): Rect =>
  boundsOf(corners(box).map(([x, y]) => [a * x + c * y + e, b * x + d * y + f]));

/** Halvings of a curve at most: 1024 pieces. */
const DEEPEST = 10;

/**
 * A path as straight lines in its own coordinates, as many as its picture needs.
 * @param tolerance farthest a line may lie from its curve, on the picture
 */
export function flatten(path: Path, h: Homography, tolerance: number): Polyline[] {
  const lines: { points: Point[]; closed: boolean }[] = [];
  let pen: Point = [0, 0];
  let open: { points: Point[]; closed: boolean } | undefined;
  const begin = () => {
    if (!open) {
      open = { points: [pen], closed: false };
      lines.push(open);
    }
    return open.points;
  };
  for (const c of path.commands) {
    if (c[0] === 'M') {
      open = undefined;
      pen = [c[1], c[2]];
    } else if (c[0] === 'L') {
      begin().push([c[1], c[2]]);
      pen = [c[1], c[2]];
    } else if (c[0] === 'C') {
      const end: Point = [c[5], c[6]];
      halve([pen, [c[1], c[2]], [c[3], c[4]], end], h, tolerance, DEEPEST, begin());
      pen = end;
    } else if (open) {
      open.closed = true;
      pen = open.points[0]!;
      open = undefined;
    }
  }
  return lines;
}

type Cubic = readonly [Point, Point, Point, Point];

const middle = (p: Point, q: Point): Point => [(p[0] + q[0]) / 2, (p[1] + q[1]) / 2];

function split([a, b, c, d]: Cubic): [Cubic, Cubic] {
  const [ab, bc, cd] = [middle(a, b), middle(b, c), middle(c, d)];
  const [abc, bcd] = [middle(ab, bc), middle(bc, cd)];
  const m = middle(abc, bcd);
  return [
    [a, ab, abc, m],
    [m, bcd, cd, d],
  ];
}

/** Pushes the ends of the pieces of a curve, its own end last (de Casteljau). */
function halve(cubic: Cubic, h: Homography, tolerance: number, depth: number, into: Point[]): void {
  const [left, right] = split(cubic);
  if (depth === 0 || bend(cubic, left, right, h) <= tolerance) {
    into.push(cubic[3]);
    return;
  }
  halve(left, h, tolerance, depth - 1, into);
  halve(right, h, tolerance, depth - 1, into);
}

/** How far the picture of a curve lies from its chord, at a quarter, half and three quarters of its way. */
function bend(cubic: Cubic, left: Cubic, right: Cubic, h: Homography): number {
  const [from, to] = [project(h, ...cubic[0]), project(h, ...cubic[3])];
  const [dx, dy] = [to[0] - from[0], to[1] - from[1]];
  const chord = Math.hypot(dx, dy);
  const off = (p: Point): number => {
    const [x, y] = project(h, ...p);
    if (chord < 1e-9) return Math.hypot(x - from[0], y - from[1]);
    return Math.abs((x - from[0]) * dy - (y - from[1]) * dx) / chord;
  };
  return Math.max(off(split(left)[0][3]), off(left[3]), off(split(right)[0][3]));
}

/**
 * A filled path as it shows through a plane: cut at the near plane, its curves as lines. Open parts are closed, as
 * filling does.
 * @param tolerance farthest a line may lie from its curve, on the picture
 */
export function projectPath(path: Path, h: Homography, tolerance: number): Path {
  const commands: PathCommand[] = [];
  for (const { points } of flatten(path, h, tolerance)) {
    const seen = clipToNear(points, h);
    if (seen.length < 3) continue;
    seen.forEach(([x, y], i) => {
      commands.push([i === 0 ? 'M' : 'L', ...project(h, x, y)]);
    });
    commands.push(['Z']);
  }
  return { commands };
}
