import { randomAt } from '../motion/random';
import { IDENTITY_PLANE } from './matrix';
import { type Path, pathBounds } from './path';
import { flatten, type Point, type Polyline } from './plane';

/** Tries to hit the inside of a path, for each point wanted. */
const TRIES = 60;

/**
 * Seeded places on a path, evenly spread: all over its inside (by the non-zero rule), or along its edge.
 * @param tolerance farthest a line may lie from its curve
 * @returns as many as wanted; none of a path without length
 */
export function scatter(
  path: Path,
  count: number,
  seed: number,
  where: 'inside' | 'edge',
  tolerance = 0.25,
): Point[] {
  const lines = flatten(path, IDENTITY_PLANE, tolerance);
  const along = edgeOf(lines);
  if (!along) return [];
  const edge = (i: number) => along(randomAt(seed, i, 0));
  if (where === 'edge') return Array.from({ length: count }, (_, i) => edge(i));
  const { x, y, width, height } = pathBounds(path);
  return Array.from({ length: count }, (_, i) => {
    for (let t = 0; t < TRIES; t++) {
      const at: Point = [x + width * randomAt(seed, i, t, 1), y + height * randomAt(seed, i, t, 2)];
      if (windingOf(lines, at) !== 0) return at;
    }
    // What has hardly any inside is met at its edge.
    return edge(i);
  });
}

/** The point at a part of the way along lines, one after the other. */
function edgeOf(lines: readonly Polyline[]): ((part: number) => Point) | undefined {
  const pieces = lines.flatMap(({ points, closed }) =>
    points.flatMap((from, i) => {
      const to = points[i + 1] ?? (closed ? points[0] : undefined);
      return to ? [{ from, to, length: Math.hypot(to[0] - from[0], to[1] - from[1]) }] : [];
    }),
  );
  const total = pieces.reduce((sum, p) => sum + p.length, 0);
  if (!(total > 0)) return undefined;
  return (part) => {
    let left = part * total;
    for (const { from, to, length } of pieces) {
      if (left <= length && length > 0) {
        const k = left / length;
        return [from[0] + (to[0] - from[0]) * k, from[1] + (to[1] - from[1]) * k];
      }
      left -= length;
    }
    return pieces.at(-1)!.to;
  };
}

/** How often closed lines go round a point. Method: crossings of a ray to the right, by direction. */
export function windingOf(lines: readonly Polyline[], [x, y]: Point): number {
  let winding = 0;
  for (const { points } of lines) {
    for (let i = 0; i < points.length; i++) {
      const [x0, y0] = points[i]!;
      const [x1, y1] = points[(i + 1) % points.length]!;
      if (y0 <= y === y1 <= y) continue;
      if (x0 + ((y - y0) / (y1 - y0)) * (x1 - x0) > x) winding += y1 > y0 ? 1 : -1;
    }
  }
  return winding;
}
