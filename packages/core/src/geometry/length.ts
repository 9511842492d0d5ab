import type { Path } from './path';

/**
 * Nodes and weights of Gauss–Legendre quadrature with 16 points on −1..1 (Abramowitz and Stegun, table 25.4; both
 * halves are symmetric).
 */
const GAUSS: readonly (readonly [node: number, weight: number])[] = [
  [0.0950125098376374, 0.1894506104550685],
  [0.2816035507792589, 0.1826034150449236],
  [0.4580167776572274, 0.1691565193950025],
  [0.6178762444026438, 0.1495959888165767],
  [0.755404408355003, 0.1246289712555339],
  [0.8656312023878318, 0.0951585116824928],
  [0.9445750230732326, 0.0622535239386479],
  [0.9894009349916499, 0.0271524594117541],
];

type Cubic = readonly [number, number, number, number, number, number, number, number];

/** A piece of a path with a length: a line, or a cubic as its four points. */
interface Piece {
  readonly cubic: Cubic;
  readonly length: number;
  readonly straight: boolean;
}

function speed([x0, y0, x1, y1, x2, y2, x3, y3]: Cubic, t: number): [number, number] {
  const u = 1 - t;
  const [a, b, c] = [3 * u * u, 6 * u * t, 3 * t * t];
  return [a * (x1 - x0) + b * (x2 - x1) + c * (x3 - x2), a * (y1 - y0) + b * (y2 - y1) + c * (y3 - y2)];
}

function pointOf([x0, y0, x1, y1, x2, y2, x3, y3]: Cubic, t: number): [number, number] {
  const u = 1 - t;
  const [a, b, c, d] = [u * u * u, 3 * u * u * t, 3 * u * t * t, t * t * t];
  return [a * x0 + b * x1 + c * x2 + d * x3, a * y0 + b * y1 + c * y2 + d * y3];
}

/** Length of a cubic from 0 to `t`, by quadrature of its speed. */
function cubicLength(cubic: Cubic, t = 1): number {
  let sum = 0;
  for (const [node, weight] of GAUSS) {
    for (const at of [(1 - node) / 2, (1 + node) / 2]) {
      const [dx, dy] = speed(cubic, at * t);
      sum += weight * Math.hypot(dx, dy);
    }
  }
  return (sum * t) / 2;
}

function piecesOf(path: Path): { pieces: Piece[]; closed: boolean }[] {
  const parts: { pieces: Piece[]; closed: boolean }[] = [];
  let [x, y, startX, startY] = [0, 0, 0, 0];
  const line = (toX: number, toY: number) => {
    const length = Math.hypot(toX - x, toY - y);
    if (length > 0) {
      parts.at(-1)?.pieces.push({ cubic: [x, y, x, y, toX, toY, toX, toY], length, straight: true });
    }
  };
  for (const c of path.commands) {
    if (c[0] === 'M') {
      parts.push({ pieces: [], closed: false });
      [x, y, startX, startY] = [c[1], c[2], c[1], c[2]];
    } else if (c[0] === 'L') {
      line(c[1], c[2]);
      [x, y] = [c[1], c[2]];
    } else if (c[0] === 'C') {
      const cubic: Cubic = [x, y, c[1], c[2], c[3], c[4], c[5], c[6]];
      const length = cubicLength(cubic);
      if (length > 0) parts.at(-1)?.pieces.push({ cubic, length, straight: false });
      [x, y] = [c[5], c[6]];
    } else {
      line(startX, startY);
      const last = parts.at(-1);
      if (last) last.closed = true;
      [x, y] = [startX, startY];
    }
  }
  return parts;
}

/** The longest of a path's separate strokes, in its own units. */
export function longestStroke(path: Path): number {
  return piecesOf(path).reduce(
    (most, { pieces }) =>
      Math.max(
        most,
        pieces.reduce((sum, p) => sum + p.length, 0),
      ),
    0,
  );
}

/** A place on a path: the point, and the direction there in radians (0 to the right, growing clockwise as seen). */
export interface PathPlace {
  readonly x: number;
  readonly y: number;
  readonly angle: number;
}

/** The first stroke of a path, measured: what words run along. */
export class PathRuler {
  readonly length: number;
  readonly closed: boolean;
  private readonly pieces: readonly Piece[];
  private readonly starts: readonly number[];
  private readonly alone: PathPlace;

  constructor(path: Path) {
    const first = piecesOf(path)[0];
    this.pieces = first?.pieces ?? [];
    this.closed = first?.closed ?? false;
    let length = 0;
    this.starts = this.pieces.map((p) => {
      const start = length;
      length += p.length;
      return start;
    });
    this.length = length;
    const [start] = path.commands;
    this.alone =
      start && start[0] !== 'Z' ? { x: start[1], y: start[2], angle: 0 } : { x: 0, y: 0, angle: 0 };
  }

  /**
   * The place at a distance from the beginning. Closed paths go round; open ones go on straight before their beginning
   * and past their end, so that words can travel in and out. A path without length is its one point, level.
   */
  at(distance: number): PathPlace {
    if (this.length === 0) return { ...this.alone, x: this.alone.x + distance };
    const s = this.closed ? ((distance % this.length) + this.length) % this.length : distance;
    if (s < 0) return beyond(this.place(0, 0), s);
    if (s > this.length) return beyond(this.place(this.pieces.length - 1, 1), s - this.length);
    let i = this.starts.findIndex((start) => start > s) - 1;
    if (i < 0) i = this.pieces.length - 1;
    const piece = this.pieces[i]!;
    return this.place(i, parameterAt(piece, s - this.starts[i]!));
  }

  private place(index: number, t: number): PathPlace {
    const { cubic } = this.pieces[index]!;
    const [x, y] = pointOf(cubic, t);
    let [dx, dy] = speed(cubic, t);
    // Where a handle lies on its point the curve has no speed; its direction is that of the way on.
    if (Math.hypot(dx, dy) < 1e-9) {
      const [before, after] = [pointOf(cubic, Math.max(0, t - 1e-3)), pointOf(cubic, Math.min(1, t + 1e-3))];
      [dx, dy] = [after[0] - before[0], after[1] - before[1]];
    }
    return { x, y, angle: Math.atan2(dy, dx) };
  }
}

function beyond(end: PathPlace, by: number): PathPlace {
  return { x: end.x + Math.cos(end.angle) * by, y: end.y + Math.sin(end.angle) * by, angle: end.angle };
}

/** The parameter at a length along a piece: Newton's method on the length, kept inside by bisection. */
function parameterAt({ cubic, length, straight }: Piece, wanted: number): number {
  const part = Math.min(1, Math.max(0, wanted / length));
  // A line drawn as a cubic with its handles on its ends runs as 3t² − 2t³.
  if (straight) return smoothInverse(part);
  let [low, high, t] = [0, 1, part];
  for (let i = 0; i < 24; i++) {
    const error = cubicLength(cubic, t) - wanted;
    if (Math.abs(error) < length * 1e-7) break;
    if (error > 0) high = t;
    else low = t;
    const pace = Math.hypot(...speed(cubic, t));
    const next = pace > 1e-9 ? t - error / pace : (low + high) / 2;
    t = next > low && next < high ? next : (low + high) / 2;
  }
  return t;
}

/** Inverse of 3t² − 2t³ on 0..1 (closed form). */
function smoothInverse(part: number): number {
  return 0.5 - Math.sin(Math.asin(1 - 2 * part) / 3);
}
