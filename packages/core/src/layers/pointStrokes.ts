import { STROKE_NUMBERS } from '../canvas/strokes';
import { mixColours } from '../colour/colour';
import { IDENTITY_PLANE } from '../geometry/matrix';
import type { Op } from '../paint/ops';
import type { PaintTools } from './kind';
import type { Far, PointsLayer, Shown } from './pointsSchema';

/** Straight pieces of a curved link. */
const PIECES = 8;
/** Steps in which colours get darker with distance. */
const SHADES = 8;

/** A colour at even steps of distance, the nearest first: one alone where distance changes nothing. */
export function shadesOf(colour: string, { darker, dark }: Far): string[] {
  if (darker <= 0) return [colour];
  return Array.from({ length: SHADES }, (_, i) => mixColours(colour, dark, (darker * i) / (SHADES - 1)));
}

/** Which of so many shades something has that is so far away. */
export const shadeAt = (shades: number, away: number) => Math.min(shades - 1, Math.floor(away * shades));

/** Lines and dots as strokes, the farthest first. */
export function paintStrokes(
  { links, points: dots }: PointsLayer,
  shown: readonly Shown[],
  pairs: readonly (readonly [Shown, Shown])[],
  far: Far,
  { value, scale }: PaintTools,
): Op[] {
  const lines = links && links.shape !== 'ribbon' ? links : undefined;
  const bow = lines?.shape === 'curved' ? value(lines.bow) : 0;
  const pieces = bow === 0 ? 1 : PIECES;
  const joined = lines ? pairs.length : 0;
  const many = joined + (dots ? shown.length : 0);
  if (many === 0) return [];
  const depths = new Float64Array(many);
  pairs.slice(0, joined).forEach(([a, b], i) => {
    // A line lies behind the points it joins.
    depths[i] = (a.depth + b.depth) / 2 + 0.01;
  });
  for (let i = joined; i < many; i++) depths[i] = shown[i - joined]!.depth;
  const order = Uint32Array.from(depths.keys()).sort((a, b) => depths[b]! - depths[a]!);
  const lineShades = lines ? shadesOf(value(lines.colour), far) : [];
  const dotShades = dots ? shadesOf(value(dots.colour), far) : [];
  const rows = new Float32Array((joined * pieces + many - joined) * STROKE_NUMBERS);
  const [lineHalf, lineOpacity] = lines ? [(value(lines.width) / 2) * scale, value(lines.opacity)] : [0, 0];
  const [dotHalf, dotOpacity] = dots ? [(value(dots.across) / 2) * scale, value(dots.opacity)] : [0, 0];
  let at = 0;
  for (const k of order) {
    if (k < joined) {
      const [a, b] = pairs[k]!;
      const away = (a.away + b.away) / 2;
      const shade = shadeAt(lineShades.length, away);
      at = putLink(rows, at, a, b, bow, lineHalf, shade, lineOpacity * (1 - far.fainter * away));
    } else {
      const { x, y, scale: size, away, come } = shown[k - joined]!;
      const radius = dotHalf * size * easeOut(come);
      const shade = lineShades.length + shadeAt(dotShades.length, away);
      rows.set([x, y, radius, x, y, radius, shade, dotOpacity * (1 - far.fainter * away)], at);
      at += STROKE_NUMBERS;
    }
  }
  return [{ op: 'strokes', plane: IDENTITY_PLANE, rows, colours: [...lineShades, ...dotShades], opacity: 1 }];
}

/** Puts a link as far as it has grown: one stroke, or the pieces of a curve. @returns where the next begins */
function putLink(
  rows: Float32Array,
  start: number,
  a: Shown,
  b: Shown,
  bow: number,
  half: number,
  shade: number,
  opacity: number,
): number {
  const end = easeOut(Math.min(a.come, b.come));
  const [dx, dy] = [b.x - a.x, b.y - a.y];
  // It bows upwards on the picture, whichever way it runs.
  const side = dx >= 0 ? bow : -bow;
  const pieces = bow === 0 ? 1 : PIECES;
  let at = start;
  for (let i = 0; i < pieces; i++) {
    for (const t of [(i / pieces) * end, ((i + 1) / pieces) * end]) {
      const lift = 4 * t * (1 - t) * side;
      rows[at++] = a.x + dx * t + dy * lift;
      rows[at++] = a.y + dy * t - dx * lift;
      rows[at++] = half * (a.scale + (b.scale - a.scale) * t);
    }
    rows[at++] = shade;
    rows[at++] = opacity;
  }
  return at;
}

/** How a point comes: quickly at first. */
export const easeOut = (t: number) => 1 - (1 - t) ** 3;
