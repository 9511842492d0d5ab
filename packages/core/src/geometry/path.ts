import svgpath from 'svgpath';
import type { Affine } from './matrix';
import { EMPTY, type Rect } from './rect';

/**
 * An outline: M x y, L x y, C x1 y1 x2 y2 x y, Z. Plain data, so that it can be sent to a worker and written as JSON.
 * A path object is never changed once made: painters keep what they derive from it.
 */
export interface Path {
  readonly commands: readonly PathCommand[];
}
export type PathCommand =
  | readonly ['M', number, number]
  | readonly ['L', number, number]
  | readonly ['C', number, number, number, number, number, number]
  | readonly ['Z'];

/** Handle length for a quarter circle as a cubic: 4/3·tan(π/8), within 0.03% of the radius. */
const QUARTER = (4 / 3) * Math.tan(Math.PI / 8);

export function rectanglePath(r: Rect): Path {
  const { x, y, width, height } = r;
  return {
    commands: [['M', x, y], ['L', x + width, y], ['L', x + width, y + height], ['L', x, y + height], ['Z']],
  };
}

/** A rectangle with round corners; the radius is kept to half the shorter side. */
export function roundedPath(r: Rect, radius: number): Path {
  const c = Math.min(Math.max(radius, 0), r.width / 2, r.height / 2);
  if (c <= 0) return rectanglePath(r);
  const { x, y } = r;
  const [right, bottom] = [x + r.width, y + r.height];
  const k = c * (1 - QUARTER);
  return {
    commands: [
      ['M', x + c, y],
      ['L', right - c, y],
      ['C', right - k, y, right, y + k, right, y + c],
      ['L', right, bottom - c],
      ['C', right, bottom - k, right - k, bottom, right - c, bottom],
      ['L', x + c, bottom],
      ['C', x + k, bottom, x, bottom - k, x, bottom - c],
      ['L', x, y + c],
      ['C', x, y + k, x + k, y, x + c, y],
      ['Z'],
    ],
  };
}

export function ellipsePath(r: Rect): Path {
  const [rx, ry] = [r.width / 2, r.height / 2];
  const [cx, cy] = [r.x + rx, r.y + ry];
  const [kx, ky] = [rx * QUARTER, ry * QUARTER];
  return {
    commands: [
      ['M', cx, cy - ry],
      ['C', cx + kx, cy - ry, cx + rx, cy - ky, cx + rx, cy],
      ['C', cx + rx, cy + ky, cx + kx, cy + ry, cx, cy + ry],
      ['C', cx - kx, cy + ry, cx - rx, cy + ky, cx - rx, cy],
      ['C', cx - rx, cy - ky, cx - kx, cy - ry, cx, cy - ry],
      ['Z'],
    ],
  };
}

/**
 * A regular polygon standing on its circle's box, first point at the top. With `inner` (0..1) every second point lies
 * at that part of the radius, which makes a star.
 */
export function polygonPath(r: Rect, points: number, inner = 1): Path {
  const star = inner < 1;
  const count = star ? points * 2 : points;
  const commands: PathCommand[] = [];
  for (let i = 0; i < count; i++) {
    const angle = -Math.PI / 2 + (i * 2 * Math.PI) / count;
    const reach = star && i % 2 === 1 ? inner : 1;
    const x = r.x + (r.width / 2) * (1 + Math.cos(angle) * reach);
    const y = r.y + (r.height / 2) * (1 + Math.sin(angle) * reach);
    commands.push([i === 0 ? 'M' : 'L', x, y]);
  }
  commands.push(['Z']);
  return { commands };
}

/**
 * Reads SVG path data (SVG 2 §9): arcs and quadratics become cubics.
 * @throws {Error} naming the fault when the data does not parse.
 */
export function parseSvgPath(data: string): Path {
  const parsed = svgpath(data);
  const fault = (parsed as unknown as { err?: string }).err;
  if (fault)
    throw new Error(`The path "${data.slice(0, 40)}" cannot be read: ${fault.replace(/^SvgPath: /, '')}.`);
  const commands: PathCommand[] = [];
  let [x, y, startX, startY] = [0, 0, 0, 0];
  parsed
    .abs()
    .unarc()
    .unshort()
    .iterate((segment) => {
      const [letter, ...n] = segment as unknown as [string, ...number[]];
      const at = (i: number) => n[i] as number;
      if (letter === 'M' || letter === 'L') {
        [x, y] = [at(0), at(1)];
        commands.push([letter, x, y]);
        if (letter === 'M') [startX, startY] = [x, y];
      } else if (letter === 'H' || letter === 'V') {
        if (letter === 'H') x = at(0);
        else y = at(0);
        commands.push(['L', x, y]);
      } else if (letter === 'C') {
        commands.push(['C', at(0), at(1), at(2), at(3), at(4), at(5)]);
        [x, y] = [at(4), at(5)];
      } else if (letter === 'Q') {
        commands.push(quadratic(x, y, at(0), at(1), at(2), at(3)));
        [x, y] = [at(2), at(3)];
      } else if (letter === 'Z' || letter === 'z') {
        commands.push(['Z']);
        [x, y] = [startX, startY];
      }
    });
  return { commands };
}

/** A quadratic Bézier raised to a cubic (exact). */
export function quadratic(x0: number, y0: number, cx: number, cy: number, x: number, y: number): PathCommand {
  return [
    'C',
    x0 + (2 / 3) * (cx - x0),
    y0 + (2 / 3) * (cy - y0),
    x + (2 / 3) * (cx - x),
    y + (2 / 3) * (cy - y),
    x,
    y,
  ];
}

/** Maps every point; exact for affine maps, which is all this is used for. */
export function mapPath(path: Path, map: (x: number, y: number) => readonly [number, number]): Path {
  return {
    commands: path.commands.map((c): PathCommand => {
      if (c[0] === 'Z') return c;
      if (c[0] === 'C') return ['C', ...map(c[1], c[2]), ...map(c[3], c[4]), ...map(c[5], c[6])];
      return [c[0], ...map(c[1], c[2])];
    }),
  };
}

export function transformPath(path: Path, m: Affine): Path {
  return mapPath(path, (x, y) => [m[0] * x + m[2] * y + m[4], m[1] * x + m[3] * y + m[5]]);
}

/** One path drawn with the commands of many. */
export function joinPaths(paths: readonly Path[]): Path {
  return { commands: paths.flatMap((p) => p.commands) };
}

/** A box that holds the path: of its points and handles, so it can be a little larger than the ink. */
export function pathBounds(path: Path): Rect {
  // Asked for in every frame of every operation, hence without lists on the way.
  let [left, top, right, bottom] = [Infinity, Infinity, -Infinity, -Infinity];
  for (const command of path.commands) {
    for (let i = 1; i < command.length; i += 2) {
      const [x, y] = [command[i] as number, command[i + 1] as number];
      if (x < left) left = x;
      if (x > right) right = x;
      if (y < top) top = y;
      if (y > bottom) bottom = y;
    }
  }
  return left > right ? EMPTY : { x: left, y: top, width: right - left, height: bottom - top };
}

/** Ratio of a miter to the width of its line from which a corner is cut off: the default of canvas and of SVG 2, 13.5.5. */
const MITER_LIMIT = 10;

const REACHES = new WeakMap<Path, number>();

/** How far the sharpest corner of a path reaches out with mitered joins, as a multiple of the line's width; half at least. */
export function miterReach(path: Path): number {
  const known = REACHES.get(path);
  if (known !== undefined) return known;
  let reach = 0.5;
  for (const [before, after] of cornersOf(path)) {
    const [a, b] = [Math.hypot(...before), Math.hypot(...after)];
    // The cosine of the angle that the line turns by; it comes back on itself at −1.
    const turn = (before[0] * after[0] + before[1] * after[1]) / (a * b);
    const half = Math.sqrt(Math.max(0, (1 + turn) / 2));
    if (half * MITER_LIMIT >= 1) reach = Math.max(reach, 0.5 / half);
  }
  REACHES.set(path, reach);
  return reach;
}

type Direction = readonly [number, number];

/** The ways in which a path comes into each of its corners and goes out. */
function cornersOf({ commands }: Path): [Direction, Direction][] {
  const found: [Direction, Direction][] = [];
  let at: Direction = [0, 0];
  let start: Direction = at;
  let first: Direction | undefined;
  let into: Direction | undefined;
  const away = ([x, y]: Direction, from: Direction): Direction | undefined =>
    Math.hypot(x - from[0], y - from[1]) > 1e-9 ? [x - from[0], y - from[1]] : undefined;
  const go = (out: Direction | undefined, last: Direction | undefined, to: Direction) => {
    at = to;
    if (!out) return;
    if (into) found.push([into, out]);
    first ??= out;
    into = last ?? out;
  };
  for (const command of commands) {
    if (command[0] === 'M') {
      start = [command[1], command[2]];
      [at, first, into] = [start, undefined, undefined];
    } else if (command[0] === 'L') {
      const to: Direction = [command[1], command[2]];
      go(away(to, at), undefined, to);
    } else if (command[0] === 'C') {
      const [, x1, y1, x2, y2, x, y] = command;
      const [c1, c2, to]: readonly [Direction, Direction, Direction] = [
        [x1, y1],
        [x2, y2],
        [x, y],
      ];
      const out = away(c1, at) ?? away(c2, at) ?? away(to, at);
      go(out, away(to, c2) ?? away(to, c1) ?? out, to);
    } else {
      const back = away(start, at);
      if (back) go(back, undefined, start);
      if (into && first) found.push([into, first]);
      [at, first, into] = [start, undefined, undefined];
    }
  }
  return found;
}
