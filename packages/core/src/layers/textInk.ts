import { longestStroke } from '../geometry/length';
import { type Homography, type Matrix4, multiplyAffine, planeOf, planeTimes } from '../geometry/matrix';
import { joinPaths, type Path, rectanglePath, transformPath } from '../geometry/path';
import type { Memo } from '../memo';
import { faded, within } from '../paint/compose';
import type { Op, Paint, StrokeStyle } from '../paint/ops';
import type { PlacedGlyph } from '../text/textLayout';

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
export function inkPath(path: Path, plane: Homography, ink: Ink, unit = 1): Inked {
  if (path.commands.length === 0) return { below: [], above: [] };
  const stroke = (o: InkOutline, times: number): StrokeStyle => ({
    ...ROUND,
    paint: o.paint,
    width: o.width * times * unit,
  });
  const base = { op: 'path', path, plane, opacity: 1 } as const;
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
      above.push({ op: 'clip', path, plane }, { ...base, stroke: stroke(o, 2) }, { op: 'unclip' });
    }
  }
  // Hollow letters show what is behind them: the inner half of an outside line is cut away.
  if (!ink.fill && below.length > 0) {
    const whole: Op = { ...base, fill: { kind: 'solid', colour: '#ffffff' } };
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
  change: {
    readonly glyph?: number;
    readonly dx?: number;
    readonly draw?: { pen: number; part: number };
  } = {},
): Inked {
  const plane = planeOf(matrix);
  const [x, y] = [g.x + (change.dx ?? 0), g.y - ink.shift];
  if (g.picture !== undefined) {
    const sign = planeTimes(plane, [1, 0, 0, 1, x, y]);
    return { below: [], above: [{ op: 'glyph', text: g.picture, size, plane: sign, opacity: 1 }] };
  }
  const path = g.face.outline(change.glyph ?? g.glyph);
  const own = planeTimes(plane, [size, 0, 0, size, x, y]);
  const local: Ink = {
    ...ink,
    fill: ink.fill && shifted(ink.fill, x, y, size),
    outlines: ink.outlines.map((o) => ({ ...o, paint: shifted(o.paint, x, y, size) })),
  };
  const painted = change.draw
    ? drawn(path, own, local, change.draw, size, 1 / size)
    : inkPath(path, own, local, 1 / size);
  if (!ink.underline) return painted;
  // A little overlap closes the seam between neighbours.
  const line = underlinePath(g.x - 0.5, g.x + g.advance + 0.5, y, size);
  const under = inkPath(line, plane, ink);
  return { below: [...under.below, ...painted.below], above: [...under.above, ...painted.above] };
}

/** The part of the way after which the pen has drawn the whole outline and the fill begins to come. */
const PEN_DONE = 0.72;
const FILL_FROM = 0.5;

/** A letter being drawn: its outline by a pen, then its fill. */
function drawn(
  path: Path,
  plane: Homography,
  ink: Ink,
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
    plane,
    opacity: 1 - filled,
    stroke: { ...ROUND, paint: colour, width: pen * size * unit, dash: [length * along, length * 2] },
  };
  if (filled === 0) return { below: [], above: [line] };
  const rest = inkPath(path, plane, ink, unit);
  return { below: [], above: [line, ...faded([...rest.below, ...rest.above], filled)] };
}

/** Outlines of glyphs as one path, by how far they are shifted. */
export function joinedPath(glyphs: readonly PlacedGlyph[], size: number, shift: number, memo: Memo): Path {
  const outlines = () =>
    glyphs.map((g) => transformPath(g.face.outline(g.glyph), [size, 0, 0, size, g.x, g.y - shift]));
  return memo.of(`joined/${shift}`, () => joinPaths(outlines()), glyphs);
}

/** A gradient and a material laid over the whole text, in the coordinates of one glyph. */
function shifted(paint: Paint, x: number, y: number, size: number): Paint {
  const { material } = paint;
  if (material) {
    const { material: _, ...ground } = paint;
    const map = multiplyAffine([1 / size, 0, 0, 1 / size, -x / size, -y / size], material.map);
    return { ...shifted(ground, x, y, size), material: { ...material, map } };
  }
  if (paint.kind === 'solid') return paint;
  const at = ([px, py]: readonly [number, number]): [number, number] => [(px - x) / size, (py - y) / size];
  return paint.kind === 'linear'
    ? { ...paint, from: at(paint.from), to: at(paint.to) }
    : { ...paint, centre: at(paint.centre), radius: paint.radius / size };
}
