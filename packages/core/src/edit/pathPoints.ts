import { type Path, parseSvgPath } from '../geometry/path';

type Pair = readonly [number, number];

/** A point of a drawn path, with its handles (absolute places). A handle on its point makes a straight way there. */
export interface PathPoint {
  readonly at: Pair;
  readonly before: Pair;
  readonly after: Pair;
}

/** A path as it is edited: its points, and whether its end meets its beginning. */
export interface EditedPath {
  readonly points: readonly PathPoint[];
  readonly closed: boolean;
}

/** Handles on one line through their point make it smooth. In the path's own units. */
const LEVEL = 1e-3;

const same = (a: Pair, b: Pair) => Math.hypot(a[0] - b[0], a[1] - b[1]) < 1e-6;

/** The first stroke of SVG path data as points. @throws {Error} when the data does not parse. */
export function readPoints(data: string): EditedPath {
  return pointsOf(parseSvgPath(data));
}

function pointsOf({ commands }: Path): EditedPath {
  const points: PathPoint[] = [];
  let closed = false;
  for (const c of commands) {
    if (c[0] === 'M') {
      if (points.length > 0) break;
      points.push({ at: [c[1], c[2]], before: [c[1], c[2]], after: [c[1], c[2]] });
    } else if (c[0] === 'L') {
      points.push({ at: [c[1], c[2]], before: [c[1], c[2]], after: [c[1], c[2]] });
    } else if (c[0] === 'C') {
      const last = points.at(-1);
      if (last) points[points.length - 1] = { ...last, after: [c[1], c[2]] };
      points.push({ at: [c[5], c[6]], before: [c[3], c[4]], after: [c[5], c[6]] });
    } else closed = true;
  }
  const [first, last] = [points[0], points.at(-1)];
  if (closed && first && last && points.length > 1 && same(first.at, last.at)) {
    points[0] = { ...first, before: last.before };
    points.pop();
  }
  return { points, closed };
}

const figure = (v: number) => String(Math.round(v * 1e5) / 1e5);
const written = (...pairs: Pair[]) => pairs.map(([x, y]) => `${figure(x)} ${figure(y)}`).join(' ');

/** Points as SVG path data. */
export function writePoints({ points, closed }: EditedPath): string {
  const [first] = points;
  if (!first) return 'M 0.5 0.5';
  const way = (from: PathPoint, to: PathPoint) =>
    same(from.at, from.after) && same(to.at, to.before)
      ? `L ${written(to.at)}`
      : `C ${written(from.after, to.before, to.at)}`;
  const parts = [`M ${written(first.at)}`];
  for (let i = 1; i < points.length; i++) parts.push(way(points[i - 1]!, points[i]!));
  if (closed && points.length > 1) parts.push(way(points.at(-1)!, first), 'Z');
  return parts.join(' ');
}

function changed(path: EditedPath, index: number, change: (p: PathPoint) => PathPoint): EditedPath {
  return { ...path, points: path.points.map((p, i) => (i === index ? change(p) : p)) };
}

/** Moves a point with its handles. */
export function movePoint(path: EditedPath, index: number, to: Pair): EditedPath {
  return changed(path, index, ({ at, before, after }) => {
    const [dx, dy] = [to[0] - at[0], to[1] - at[1]];
    return { at: to, before: [before[0] + dx, before[1] + dy], after: [after[0] + dx, after[1] + dy] };
  });
}

/** Moves one handle; with `both`, the other turns with it and keeps its length. */
export function moveHandle(
  path: EditedPath,
  index: number,
  which: 'before' | 'after',
  to: Pair,
  both: boolean,
): EditedPath {
  return changed(path, index, (p) => {
    if (!both) return { ...p, [which]: to };
    const other = which === 'before' ? 'after' : 'before';
    const reach = Math.hypot(p[other][0] - p.at[0], p[other][1] - p.at[1]);
    const length = Math.hypot(to[0] - p.at[0], to[1] - p.at[1]);
    if (length < 1e-9) return { ...p, [which]: to };
    const k = -reach / length;
    const turned: Pair = [p.at[0] + (to[0] - p.at[0]) * k, p.at[1] + (to[1] - p.at[1]) * k];
    return { ...p, [which]: to, [other]: turned };
  });
}

/** Whether the way goes through a point without a corner. */
export function isSmooth({ at, before, after }: PathPoint): boolean {
  const a: Pair = [at[0] - before[0], at[1] - before[1]];
  const b: Pair = [after[0] - at[0], after[1] - at[1]];
  const [la, lb] = [Math.hypot(...a), Math.hypot(...b)];
  if (la < 1e-6 || lb < 1e-6) return false;
  return Math.abs(a[0] * b[1] - a[1] * b[0]) / (la * lb) < LEVEL * 20 && a[0] * b[0] + a[1] * b[1] > 0;
}

/** Makes a point smooth (handles a third of the way along its neighbours) or a corner (no handles). */
export function smoothPoint(path: EditedPath, index: number, smooth: boolean): EditedPath {
  const { points, closed } = path;
  const n = points.length;
  const neighbour = (i: number) => points[closed ? (i + n) % n : Math.min(n - 1, Math.max(0, i))]!;
  return changed(path, index, (p) => {
    if (!smooth) return { ...p, before: p.at, after: p.at };
    const [a, b] = [neighbour(index - 1).at, neighbour(index + 1).at];
    const [dx, dy] = [b[0] - a[0], b[1] - a[1]];
    const length = Math.hypot(dx, dy) || 1;
    const reach = (q: Pair) => Math.hypot(q[0] - p.at[0], q[1] - p.at[1]) / 3 / length;
    return {
      at: p.at,
      before: [p.at[0] - dx * reach(a), p.at[1] - dy * reach(a)],
      after: [p.at[0] + dx * reach(b), p.at[1] + dy * reach(b)],
    };
  });
}

/** Takes a point away; the last one stays. */
export function removePoint(path: EditedPath, index: number): EditedPath {
  return path.points.length <= 1 ? path : { ...path, points: path.points.filter((_, i) => i !== index) };
}

const between = (a: Pair, b: Pair, t: number): Pair => [a[0] + (b[0] - a[0]) * t, a[1] + (b[1] - a[1]) * t];

/** Adds a point on the way nearest to a place, without changing the way (de Casteljau). @returns its number too */
export function addPoint(path: EditedPath, near: Pair): { path: EditedPath; index: number } {
  const { points, closed } = path;
  const ways = points.length + (closed ? 0 : -1);
  let best = { way: -1, t: 0, distance: Number.POSITIVE_INFINITY };
  for (let way = 0; way < ways; way++) {
    const cubic = wayOf(points, way);
    for (let i = 1; i < STEPS; i++) {
      const t = i / STEPS;
      const { middle } = split(cubic, t);
      const distance = Math.hypot(middle[0] - near[0], middle[1] - near[1]);
      if (distance < best.distance) best = { way, t, distance };
    }
  }
  if (best.way < 0) {
    // A path of one point grows by the place itself.
    const made = { at: near, before: near, after: near };
    return { path: { ...path, points: [...points, made] }, index: points.length };
  }
  const { way, t } = best;
  const cut = split(wayOf(points, way), t);
  const next = (way + 1) % points.length;
  const kept = points.map((p, i) => {
    const after = i === way && !same(p.at, p.after) ? cut.first : p.after;
    const before = i === next && !same(p.at, p.before) ? cut.last : p.before;
    return { ...p, before, after };
  });
  const straight = same(points[way]!.at, points[way]!.after) && same(points[next]!.at, points[next]!.before);
  const made: PathPoint = straight
    ? { at: cut.middle, before: cut.middle, after: cut.middle }
    : { at: cut.middle, before: cut.before, after: cut.after };
  return {
    path: { ...path, points: [...kept.slice(0, way + 1), made, ...kept.slice(way + 1)] },
    index: way + 1,
  };
}

const STEPS = 48;

function wayOf(points: readonly PathPoint[], way: number): readonly [Pair, Pair, Pair, Pair] {
  const [a, b] = [points[way]!, points[(way + 1) % points.length]!];
  return [a.at, a.after, b.before, b.at];
}

function split([a, b, c, d]: readonly [Pair, Pair, Pair, Pair], t: number) {
  const [ab, bc, cd] = [between(a, b, t), between(b, c, t), between(c, d, t)];
  const [before, after] = [between(ab, bc, t), between(bc, cd, t)];
  return { first: ab, before, middle: between(before, after, t), after, last: cd };
}

/** Adds a point past the end, straight on by a tenth of the frame. */
export function extendPath(path: EditedPath): { path: EditedPath; index: number } {
  const { points } = path;
  const [last, before] = [points.at(-1)!, points.at(-2)];
  const [dx, dy] = before ? [last.at[0] - before.at[0], last.at[1] - before.at[1]] : [1, 0];
  const length = Math.hypot(dx, dy) || 1;
  const at: Pair = [
    Math.min(1.2, Math.max(-0.2, last.at[0] + (dx / length) * 0.12)),
    Math.min(1.2, Math.max(-0.2, last.at[1] + (dy / length) * 0.12)),
  ];
  return { path: { ...path, points: [...points, { at, before: at, after: at }] }, index: points.length };
}
