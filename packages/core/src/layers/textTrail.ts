import { IDENTITY_PLANE, planeOf, project } from '../geometry/matrix';
import type { Path, PathCommand } from '../geometry/path';
import type { Point } from '../geometry/plane';
import { noiseAt } from '../motion/random';
import { grouped } from '../paint/compose';
import type { Op, Paint } from '../paint/ops';
import type { PlacedGlyph } from '../text/textLayout';
import { valueAt } from '../values/property';
import { glyphMatrix, type TextMoment } from './textMoment';
import { movesAt } from './textMoves';
import type { Trail } from './textSchema';

/** Places along a way to begin with, and at most. */
const [FEW, MANY] = [12, 24];
/** Ems from one place to the next at most, while there may be more of them. */
const STEP = 0.8;
/** Ems of a way on which a trail strays as far as it is told. */
const ROOM = 4;
/** Outlines laid over each other, each shorter than the one below: together they fade. */
const SHADES = 4;
/** Letters that leave trails at most. */
const MOST_LETTERS = 400;

/** Trails of all letters that move, to lie below them. */
export function paintTrails(
  trail: Trail,
  moment: TextMoment,
  fillOf: (g: PlacedGlyph) => Paint | undefined,
): Op[] {
  const { layout, isMarked, tools } = moment;
  const { value } = tools;
  const length = value(trail.length);
  if (length <= 0) return [];
  let glyphs = layout.glyphs.filter(
    (g) => g.advance > 0 && (!trail.only || isMarked(g) === (trail.only === 'marked')),
  );
  if (glyphs.length > MOST_LETTERS) {
    tools.notice({ kind: 'too-much', slot: '' });
    glyphs = glyphs.slice(0, MOST_LETTERS);
  }
  const em = layout.size * tools.scale;
  const ways = waysOf(glyphs, moment, length, em);
  const [width, taper, fade, opacity] = [trail.width, trail.taper, trail.fade, trail.opacity].map((p) =>
    value(p),
  ) as [number, number, number, number];
  const stray = trail.stray ? value(trail.stray.amount) * em : 0;
  const own = trail.colour && value(trail.colour);
  const shades = fade > 0 ? SHADES : 1;
  // So many layers of this over each other are as opaque as is wanted.
  const shade = shades === 1 ? opacity : 1 - (1 - Math.min(0.995, opacity)) ** (1 / shades);
  const ops = glyphs.flatMap((g, i): Op[] => {
    const way = ways[i]!;
    const fill = own ? ({ kind: 'solid', colour: own } as const) : solidOf(fillOf(g));
    const gone = travelled(way);
    if (!fill || gone < 0.04 * em) return [];
    // A short way leaves no room to stray.
    const astray = stray * Math.min(1, gone / (ROOM * em));
    return Array.from({ length: trail.strands }, (_, strand) => strand).flatMap((strand) => {
      const spread = trail.strands === 1 ? 0 : strand / (trail.strands - 1) - 0.5;
      const line = strayed(way, (along, axis) => {
        if (astray === 0) return 0;
        const often = trail.stray!.often;
        return (
          astray *
          along *
          noiseAt(trail.seed + g.letter * 8 + strand, axis, along * often - tools.moment.time / 40)
        );
      });
      const broad = (width * em) / trail.strands;
      return Array.from({ length: shades }, (_, layer): Op => {
        // The longest lies lowest; without fading there is only that.
        const reach = 1 - (layer / shades) * fade;
        const places = Math.max(2, Math.round((line.length - 1) * reach) + 1);
        const path = ribbon(line.slice(0, places), line.length, broad, taper, spread * width * em);
        return { op: 'path', path, plane: IDENTITY_PLANE, fill, opacity: shade };
      });
    });
  });
  return ops.length > 0 && trail.blend !== 'normal' ? grouped(ops, { composite: trail.blend }) : ops;
}

const solidOf = (fill: Paint | undefined): Paint | undefined =>
  fill?.kind === 'solid' || !fill ? fill : { kind: 'solid', colour: fill.stops[0]![1] };

/** Frames before and after a moment of which the ways of letters are told. */
const AROUND = 45;

/** The ways letters take about this moment; none of those that stand still. */
export function waysAround(glyphs: readonly PlacedGlyph[], moment: TextMoment): (Point[] | undefined)[] {
  const { layer, layout, tools } = moment;
  const { motion } = layer;
  if (motion.in.length + motion.during.length + motion.out.length === 0 || glyphs.length > MOST_LETTERS)
    return glyphs.map(() => undefined);
  const later = { ...tools.moment, time: tools.moment.time + AROUND };
  const ways = waysOf(
    glyphs,
    { ...moment, tools: { ...tools, moment: later } },
    2 * AROUND,
    layout.size * tools.scale,
  );
  return ways.map((way) => (travelled(way) > 1 ? way : undefined));
}

/**
 * Where the middle of each letter is, was, and was before that, in frame units: as many places as it takes for none of
 * them to lie far from the next.
 */
function waysOf(glyphs: readonly PlacedGlyph[], moment: TextMoment, length: number, em: number): Point[][] {
  const { layer, layout, isMarked, tools } = moment;
  const at = (back: number) => {
    const then = { ...tools.moment, time: tools.moment.time - back };
    const { moves } = movesAt(
      layer,
      layout,
      { ...tools, moment: then, value: (p) => valueAt(p, then) },
      isMarked,
    );
    return glyphs.map((g): Point => {
      const middle = [g.x + g.advance / 2, g.y - (g.face.capHeight * layout.size) / 2] as const;
      return project(planeOf(glyphMatrix(moment, moves, g)), ...middle);
    });
  };
  let rows = Array.from({ length: FEW + 1 }, (_, k) => at((length * k) / FEW));
  while (rows.length < MANY) {
    const far = rows.slice(1).some((row, k) => row.some((p, i) => distance(p, rows[k]![i]!) > STEP * em));
    if (!far) break;
    // One more between each two.
    const step = length / (rows.length - 1);
    rows = rows.flatMap((row, k) => (k === rows.length - 1 ? [row] : [row, at((k + 0.5) * step)]));
  }
  return glyphs.map((_, i) => rows.map((row) => row[i]!).filter((p) => p.every(Number.isFinite)));
}

const distance = (a: Point, b: Point) => Math.hypot(a[0] - b[0], a[1] - b[1]);

const travelled = (way: readonly Point[]) =>
  way.slice(1).reduce((sum, p, i) => sum + distance(p, way[i]!), 0);

/** A way whose places stray, more and more towards its end. */
const strayed = (way: readonly Point[], by: (along: number, axis: 0 | 1) => number): Point[] =>
  way.map(([x, y], k) => {
    const along = k / Math.max(1, way.length - 1);
    return [x + by(along, 0), y + by(along, 1)];
  });

/**
 * The outline of a line with a width.
 * @param all places that the whole line has: its taper is that of the whole
 * @param aside how far it lies beside the line where it begins
 */
function ribbon(line: readonly Point[], all: number, width: number, taper: number, aside: number): Path {
  const sides: [Point[], Point[]] = [[], []];
  line.forEach(([x, y], k) => {
    const [before, after] = [line[Math.max(0, k - 1)]!, line[Math.min(line.length - 1, k + 1)]!];
    const length = distance(before, after) || 1;
    const [nx, ny] = [-(after[1] - before[1]) / length, (after[0] - before[0]) / length];
    const narrow = 1 - (taper * k) / Math.max(1, all - 1);
    const [half, off] = [(width / 2) * narrow, aside * narrow];
    sides[0].push([x + nx * (off + half), y + ny * (off + half)]);
    sides[1].push([x + nx * (off - half), y + ny * (off - half)]);
  });
  const [there, back] = [curve(sides[0]), curve(sides[1].reverse())];
  const [[x, y], [bx, by]] = [sides[0][0]!, sides[1][0]!];
  return { commands: [['M', x, y], ...there, ['L', bx, by], ...back, ['Z']] };
}

/** A smooth line through points, from the first on. Method: Catmull and Rom's spline, as cubics. */
function curve(points: readonly Point[]): PathCommand[] {
  const at = (k: number) => points[Math.min(points.length - 1, Math.max(0, k))]!;
  return points.slice(1).map((to, k): PathCommand => {
    const [before, from, after] = [at(k - 1), at(k), at(k + 2)];
    return [
      'C',
      from[0] + (to[0] - before[0]) / 6,
      from[1] + (to[1] - before[1]) / 6,
      to[0] - (after[0] - from[0]) / 6,
      to[1] - (after[1] - from[1]) / 6,
      ...to,
    ];
  });
}
