import { longestStroke } from '../geometry/length';
import {
  type Affine,
  affineOf,
  type Homography,
  IDENTITY,
  isAffine,
  type Matrix4,
  multiplyAffine,
  planeOf,
  project,
} from '../geometry/matrix';
import { joinPaths, type Path, projectPath, rectanglePath, transformPath } from '../geometry/path';
import { within } from '../paint/compose';
import type { Op, Paint, StrokeStyle } from '../paint/ops';
import type { PlacedGlyph } from '../text/layout';

export interface InkOutline {
  readonly paint: Paint;
  readonly width: number;
  readonly side: 'outside' | 'centre' | 'inside';
}

/** How letters are painted: their fill (none for hollow letters), and the lines along their edge. */
export interface Ink {
  readonly fill: Paint | undefined;
  readonly outlines: readonly InkOutline[];
  readonly underline: boolean;
  /** Frame units upwards. */
  readonly shift: number;
}

/** What a letter adds: what lies below all fills, and the rest. */
export interface Inked {
  readonly below: Op[];
  readonly above: Op[];
}

/** Place and thickness of an underline, in ems (common practice; few fonts say it well). */
const UNDERLINE = { top: 0.12, thickness: 0.065 };

export function underlinePath(from: number, to: number, baseline: number, size: number): Path {
  return rectanglePath({
    x: from,
    y: baseline + UNDERLINE.top * size,
    width: to - from,
    height: UNDERLINE.thickness * size,
  });
}

const ROUND = { join: 'round', cap: 'round' } as const;

/** A path with its fill and its outlines. Widths are in the path's own units: `unit` of them make a frame unit. */
export function inkPath(path: Path, matrix: Affine, ink: Ink, opacity: number, unit = 1): Inked {
  if (path.commands.length === 0) return { below: [], above: [] };
  const stroke = (o: InkOutline, times: number): StrokeStyle => ({
    ...ROUND,
    paint: o.paint,
    width: o.width * times * unit,
  });
  const base = { op: 'path', path, matrix, opacity } as const;
  const below: Op[] = [];
  const above: Op[] = [];
  // The first outline is the innermost: later ones lie below it.
  for (const o of [...ink.outlines].reverse()) {
    if (o.side === 'outside') below.push({ ...base, stroke: stroke(o, 2) });
  }
  if (ink.fill) above.push({ ...base, fill: ink.fill });
  for (const o of [...ink.outlines].reverse()) {
    if (o.side === 'centre') above.push({ ...base, stroke: stroke(o, 1) });
    if (o.side === 'inside') {
      above.push({ op: 'clip', path, matrix }, { ...base, stroke: stroke(o, 2) }, { op: 'unclip' });
    }
  }
  // Hollow letters show what is behind them: the inner half of an outside line is cut away.
  if (!ink.fill && below.length > 0) {
    const whole: Op = { ...base, opacity: 1, fill: { kind: 'solid', colour: '#ffffff' } };
    return { below: within(below, [whole], true), above };
  }
  return { below, above };
}

/** One glyph through a matrix from the text's own coordinates, projection included. */
export function inkGlyph(
  g: PlacedGlyph,
  size: number,
  ink: Ink,
  matrix: Matrix4,
  opacity: number,
  change: {
    readonly glyph?: number;
    readonly dx?: number;
    readonly draw?: { pen: number; part: number };
  } = {},
): Inked {
  const plane = nearlyFlat(planeOf(matrix), g, size);
  const flat = isAffine(plane);
  const [x, y] = [g.x + (change.dx ?? 0), g.y - ink.shift];
  if (g.picture !== undefined) {
    // Colour glyphs are drawn by the canvas, which knows affine maps only: perspective keeps their size and place.
    const view = flat ? affineOf(plane) : nearestAffine(plane, x, y);
    return {
      below: [],
      above: [
        { op: 'glyph', text: g.picture, size, matrix: multiplyAffine(view, [1, 0, 0, 1, x, y]), opacity },
      ],
    };
  }
  const outline = g.face.outline(change.glyph ?? g.glyph);
  const place: Affine = [size, 0, 0, size, x, y];
  const path = flat ? outline : projectPath(transformPath(outline, place), plane, 5);
  const view = flat ? multiplyAffine(affineOf(plane), place) : IDENTITY;
  const local: Ink = flat
    ? {
        ...ink,
        fill: ink.fill && shifted(ink.fill, x, y, size),
        outlines: ink.outlines.map((o) => ({ ...o, paint: shifted(o.paint, x, y, size) })),
      }
    : ink;
  const unit = flat ? 1 / size : 1;
  const painted = change.draw
    ? drawn(path, view, local, opacity, change.draw, size, unit)
    : inkPath(path, view, local, opacity, unit);
  if (!ink.underline) return painted;
  // A little overlap closes the seam between neighbours.
  const line = underlinePath(g.x - 0.5, g.x + g.advance + 0.5, y, size);
  const under = inkPath(
    flat ? line : projectPath(line, plane),
    flat ? affineOf(plane) : IDENTITY,
    ink,
    opacity,
  );
  return { below: [...under.below, ...painted.below], above: [...under.above, ...painted.above] };
}

/** The part of the way after which the pen has drawn the whole outline and the fill begins to come. */
const PEN_DONE = 0.72;
const FILL_FROM = 0.5;

/** A letter being drawn: its outline by a pen, then its fill. */
function drawn(
  path: Path,
  matrix: Affine,
  ink: Ink,
  opacity: number,
  { pen, part }: { pen: number; part: number },
  size: number,
  unit: number,
): Inked {
  const along = Math.min(1, part / PEN_DONE);
  const filled = Math.min(1, Math.max(0, (part - FILL_FROM) / (1 - FILL_FROM)));
  const length = longestStroke(path);
  const colour = ink.fill ?? ink.outlines[0]?.paint;
  if (!colour || length === 0) return { below: [], above: [] };
  const line: Op = {
    op: 'path',
    path,
    matrix,
    opacity: opacity * (1 - filled),
    stroke: { ...ROUND, paint: colour, width: pen * size * unit, dash: [length * along, length * 2] },
  };
  const rest = inkPath(path, matrix, ink, opacity * filled, unit);
  return { below: filled > 0 ? rest.below : [], above: [line, ...(filled > 0 ? rest.above : [])] };
}

/** Outlines of glyphs as one path, kept with them, by how far they are shifted. */
const joined = new WeakMap<readonly PlacedGlyph[], Map<number, Path>>();

export function joinedPath(glyphs: readonly PlacedGlyph[], size: number, shift: number): Path {
  let kept = joined.get(glyphs);
  if (!kept) {
    kept = new Map();
    joined.set(glyphs, kept);
  }
  let path = kept.get(shift);
  if (!path) {
    path = joinPaths(
      glyphs.map((g) => transformPath(g.face.outline(g.glyph), [size, 0, 0, size, g.x, g.y - shift])),
    );
    if (kept.size > 40) kept.clear();
    kept.set(shift, path);
  }
  return path;
}

/** Largest error, in frame units, of drawing a letter without perspective of its own. */
const TOLERANCE = 0.75;

/**
 * The plane itself, or the affine map that stands in for it where a letter is too small to tell: a moving letter is
 * then its kept outline with a transform, which costs a fraction of projecting each of its points.
 */
function nearlyFlat(plane: Homography, g: PlacedGlyph, size: number): Homography {
  if (isAffine(plane)) return plane;
  const [width, height] = [Math.max(g.advance, size * 0.3), size];
  const near = nearestAffine(plane, g.x + width / 2, g.y - height * 0.35);
  for (const [dx, dy] of [
    [0, -1],
    [1, -1],
    [0, 0.3],
    [1, 0.3],
  ] as const) {
    const [x, y] = [g.x + dx * width, g.y + dy * height];
    const [px, py] = project(plane, x, y);
    const error = Math.hypot(
      near[0] * x + near[2] * y + near[4] - px,
      near[1] * x + near[3] * y + near[5] - py,
    );
    if (error > TOLERANCE) return plane;
  }
  return [near[0], near[2], near[4], near[1], near[3], near[5], 0, 0, 1];
}

/** A gradient laid over the whole text, in the coordinates of one glyph. */
function shifted(paint: Paint, x: number, y: number, size: number): Paint {
  if (paint.kind === 'solid') return paint;
  const at = ([px, py]: readonly [number, number]): [number, number] => [(px - x) / size, (py - y) / size];
  return paint.kind === 'linear'
    ? { ...paint, from: at(paint.from), to: at(paint.to) }
    : { ...paint, centre: at(paint.centre), radius: paint.radius / size };
}

/** The affine map that agrees with a plane's projection at one point and in its slopes there. */
function nearestAffine(plane: Homography, x: number, y: number): Affine {
  const w = plane[6] * x + plane[7] * y + plane[8];
  const px = (plane[0] * x + plane[1] * y + plane[2]) / w;
  const py = (plane[3] * x + plane[4] * y + plane[5]) / w;
  const a = (plane[0] - px * plane[6]) / w;
  const b = (plane[3] - py * plane[6]) / w;
  const c = (plane[1] - px * plane[7]) / w;
  const d = (plane[4] - py * plane[7]) / w;
  return [a, b, c, d, px - a * x - c * y, py - b * x - d * y];
}
