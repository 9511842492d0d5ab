import type { NodeStudio } from '@fresh-reel/node-host';
import earcut from 'earcut';
import { testStudio } from '../testing/studio';
import { parseSvgPath, pathBounds } from './path';
import { type Contour, prismOf } from './prism';

const SQUARE_WITH_HOLE = 'M0 0 L10 0 L10 10 L0 10 Z M3 3 L3 7 L7 7 L7 3 Z';
const area = ({ points }: Contour) => {
  let sum = 0;
  for (let i = 0, n = points.length; i < n; i += 2)
    sum += points[i]! * points[(i + 3) % n]! - points[(i + 2) % n]! * points[i + 1]!;
  return sum / 2;
};

describe('sides of an outline', () => {
  it('point out of what is solid, outside and in a hole, whichever way round it is drawn', () => {
    for (const data of [SQUARE_WITH_HOLE, 'M0 0 L0 10 L10 10 L10 0 Z M3 3 L7 3 L7 7 L3 7 Z']) {
      const { contours, area: solid } = prismOf(parseSvgPath(data), 0.01);
      expect(solid).toBe(84);
      for (const { points, normals } of contours) {
        for (let i = 0; i < points.length; i += 2) {
          const j = (i + 2) % points.length;
          const [mx, my] = [(points[i]! + points[j]!) / 2, (points[i + 1]! + points[j + 1]!) / 2];
          const [x, y] = [mx + normals[i]! * 0.1, my + normals[i + 1]! * 0.1];
          const isSolid = x > 0 && x < 10 && y > 0 && y < 10 && !(x > 3 && x < 7 && y > 3 && y < 7);
          expect(isSolid).toBe(false);
        }
      }
    }
  });

  it('a corner moves so that both its sides stay parallel, and a sharp one not beyond all measure', () => {
    const { contours } = prismOf(parseSvgPath(SQUARE_WITH_HOLE), 0.01);
    expect([...contours[0]!.outward].map(Math.abs)).toEqual([1, 1, 1, 1, 1, 1, 1, 1]);
    const { contours: sharp } = prismOf(parseSvgPath('M0 0 L100 1 L100 -1 Z'), 0.01);
    const reach = sharp[0]!.outward.reduce((most, v) => Math.max(most, Math.abs(v)), 0);
    expect(reach).toBeLessThanOrEqual(2);
  });

  it('strokes that cross are one solid', () => {
    const cross = 'M0 4 L10 4 L10 6 L0 6 Z M4 0 L6 0 L6 10 L4 10 Z';
    const { contours, area: solid } = prismOf(parseSvgPath(cross), 0.01);
    expect(contours).toHaveLength(1);
    expect(solid).toBeCloseTo(36, 9);
  });

  it('a line that is no area, and nothing at all, have no sides', () => {
    expect(prismOf({ commands: [] }, 0.01)).toEqual({ contours: [], area: 0 });
    expect(prismOf(parseSvgPath('M0 0 L5 5'), 0.01).contours).toEqual([]);
  });
});

describe('letters', () => {
  let studio: NodeStudio;
  beforeAll(async () => {
    studio = await testStudio();
  });

  // Overlapping strokes (Cinzel), counters, joined strokes, and a font of either winding.
  it.each([
    ['Cinzel', 900],
    ['Anton', 400],
    ['Pacifico', 400],
    ['Noto Sans Arabic', 700],
  ] as const)('%s has the area that earcut cuts into triangles, all wound one way', (family, weight) => {
    const words = family === 'Noto Sans Arabic' ? 'مهرجان' : 'ARB80&ge';
    const layout = studio.layouts.layout(
      words,
      { family, weight, size: 100, tracking: 0, leading: 1.2, align: 'start', case: 'as-typed' },
      { width: 5000, lines: 1, least: 1 },
    );
    for (const g of layout.glyphs) {
      const outline = g.face.outline(g.glyph);
      const { contours, area: solid } = prismOf(outline, 0.001);
      const way = Math.sign(contours.reduce((sum, c) => sum + area(c), 0));
      const outer = contours.filter((c) => area(c) * way > 0);
      const holes = contours.filter((c) => area(c) * way < 0);
      // Each part with the holes whose first corner lies in its box: letters have no part within a hole of another.
      let cut = 0;
      for (const part of outer) {
        const box = boxOf(part);
        const own = holes.filter(
          ({ points: [x, y] }) => x! > box.x && x! < box.right && y! > box.y && y! < box.bottom,
        );
        const flat = [part, ...own].flatMap(({ points }) => [...points]);
        let at = part.points.length / 2;
        const starts = own.map((hole) => {
          const start = at;
          at += hole.points.length / 2;
          return start;
        });
        const triangles = earcut(flat, starts);
        const ways = new Set<number>();
        for (let i = 0; i < triangles.length; i += 3) {
          const [a, b, c] = [triangles[i]!, triangles[i + 1]!, triangles[i + 2]!].map(
            (k) => [flat[2 * k]!, flat[2 * k + 1]!] as const,
          ) as [readonly [number, number], readonly [number, number], readonly [number, number]];
          const twice = (b[0] - a[0]) * (c[1] - a[1]) - (c[0] - a[0]) * (b[1] - a[1]);
          cut += Math.abs(twice) / 2;
          if (Math.abs(twice) > 1e-9) ways.add(Math.sign(twice));
        }
        expect(ways.size).toBe(1);
      }
      expect(cut).toBeCloseTo(solid, 4);
      const { width, height } = pathBounds(outline);
      expect(solid).toBeLessThan(width * height);
    }
  });
});

function boxOf({ points }: Contour) {
  const xs = [...points].filter((_, i) => i % 2 === 0);
  const ys = [...points].filter((_, i) => i % 2 === 1);
  return { x: Math.min(...xs), right: Math.max(...xs), y: Math.min(...ys), bottom: Math.max(...ys) };
}
