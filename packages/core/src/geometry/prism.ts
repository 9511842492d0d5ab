import polygonClipping from 'polygon-clipping';
import { IDENTITY_PLANE } from './matrix';
import type { Path } from './path';
import { flatten, type Point } from './plane';

/** One closed line of a prism's outline. All arrays hold x and y in turn. */
export interface Contour {
  /** Corners, the last joined to the first. */
  readonly points: Float64Array;
  /** Of each side from one corner to the next: the unit vector that points out of what is solid. */
  readonly normals: Float64Array;
  /** Of each corner: where it moves when the outline grows by one, its sides staying parallel. */
  readonly outward: Float64Array;
}

/** An outline that can be given depth: its solid inside, and what is outside or in its counters, told apart. */
export interface Prism {
  readonly contours: readonly Contour[];
  /** Area of the solid, in square units of the outline. */
  readonly area: number;
}

/** A corner moves outwards by at most so many times what its sides do: sharp ones would reach far. */
const MOST_MITER = 2;

/**
 * The sides of a filled outline, its curves as lines. Which side of a line is solid follows from the way most of it
 * runs: fonts run their outer lines one way and their counters the other (OpenType, "glyf" and "CFF ": either way
 * round). Parts of a letter that lie over each other are one solid.
 * @param tolerance farthest a line may lie from its curve, in units of the outline
 */
export function prismOf(path: Path, tolerance: number): Prism {
  const rings = merged(flatten(path, IDENTITY_PLANE, tolerance).map(({ points }) => points)).flatMap(
    (points) => {
      const kept = points.filter(([x, y], i) => {
        const [px, py] = points[(i + points.length - 1) % points.length]!;
        return Math.hypot(x - px, y - py) > 1e-6;
      });
      return kept.length >= 3 ? [kept] : [];
    },
  );
  const area = rings.reduce((sum, ring) => sum + areaOf(ring), 0);
  const way = area < 0 ? -1 : 1;
  return { contours: rings.map((ring) => contourOf(ring, way)), area: Math.abs(area) };
}

type Ring = readonly Point[];

/** Closed lines without those that lie within what is solid: of letters that are drawn as strokes over each other. */
function merged(rings: readonly Ring[]): readonly Ring[] {
  const areas = rings.map(areaOf);
  const way = areas.reduce((sum, a) => sum + a, 0) < 0 ? -1 : 1;
  const outer = rings.filter((_, i) => areas[i]! * way > 0);
  if (outer.length < 2) return rings;
  // A counter belongs to the smallest part that holds it.
  const parts = outer.map((ring) => ({ ring, size: Math.abs(areaOf(ring)), holes: [] as Ring[] }));
  rings.forEach((hole, i) => {
    if (areas[i]! * way >= 0) return;
    const holding = parts.filter(({ ring }) => holdsPoint(ring, hole[0]!)).sort((a, b) => a.size - b.size);
    holding[0]?.holes.push(hole);
  });
  const polygons = parts.map(({ ring, holes }) => [ring, ...holes] as unknown as Polygon);
  try {
    const [first, ...rest] = polygons;
    // Outer lines come all one way round, and holes the other.
    return polygonClipping
      .union(first!, ...rest)
      .flatMap((polygon) => polygon.map((ring) => ring.slice(0, -1)));
  } catch {
    // Outlines on which the library's sweep gives up keep their inner walls, which fronts cover.
    return rings;
  }
}

type Polygon = [number, number][][];

/** Whether a closed line goes round a point (even-odd crossings of a ray to the right). */
function holdsPoint(ring: Ring, [x, y]: Point): boolean {
  let inside = false;
  ring.forEach(([ax, ay], i) => {
    const [bx, by] = ring[(i + 1) % ring.length]!;
    if (ay > y !== by > y && x < ax + ((y - ay) / (by - ay)) * (bx - ax)) inside = !inside;
  });
  return inside;
}

/** The signed area of a closed line (the shoelace formula): positive where it runs clockwise, y downwards. */
function areaOf(ring: Ring): number {
  let sum = 0;
  ring.forEach(([x, y], i) => {
    const [nx, ny] = ring[(i + 1) % ring.length]!;
    sum += x * ny - nx * y;
  });
  return sum / 2;
}

function contourOf(ring: Ring, way: 1 | -1): Contour {
  const n = ring.length;
  const [points, normals, outward] = [0, 1, 2].map(() => new Float64Array(2 * n)) as [
    Float64Array,
    Float64Array,
    Float64Array,
  ];
  ring.forEach(([x, y], i) => {
    const [nx, ny] = ring[(i + 1) % n]!;
    const length = Math.hypot(nx - x, ny - y);
    points.set([x, y], 2 * i);
    normals.set([(way * (ny - y)) / length, (way * (x - nx)) / length], 2 * i);
  });
  for (let i = 0; i < n; i++) {
    const before = (i + n - 1) % n;
    const [ax, ay] = [normals[2 * before]!, normals[2 * before + 1]!];
    const [bx, by] = [normals[2 * i]!, normals[2 * i + 1]!];
    // The two sides, each moved by one, meet at (a + b) / (1 + a·b).
    const meet = 1 + ax * bx + ay * by;
    const k = Math.min(1 / Math.max(meet, 1e-6), MOST_MITER / Math.max(Math.hypot(ax + bx, ay + by), 1e-6));
    outward.set([(ax + bx) * k, (ay + by) * k], 2 * i);
  }
  return { points, normals, outward };
}
