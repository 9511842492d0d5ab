import {
  ellipsePath,
  type Path,
  parseSvgPath,
  pathBounds,
  polygonPath,
  roundedPath,
  transformPath,
} from './path';

/** Area inside a path, by cutting curves into many lines (the shoelace formula). */
function area(path: Path): number {
  const points: [number, number][] = [];
  let [px, py] = [0, 0];
  for (const c of path.commands) {
    if (c[0] === 'Z') continue;
    if (c[0] === 'C') {
      for (let i = 1; i <= 64; i++) {
        const [t, u] = [i / 64, 1 - i / 64];
        points.push([
          u ** 3 * px + 3 * u * u * t * c[1] + 3 * u * t * t * c[3] + t ** 3 * c[5],
          u ** 3 * py + 3 * u * u * t * c[2] + 3 * u * t * t * c[4] + t ** 3 * c[6],
        ]);
      }
      [px, py] = [c[5], c[6]];
    } else {
      points.push([c[1], c[2]]);
      [px, py] = [c[1], c[2]];
    }
  }
  return Math.abs(
    points.reduce((sum, [x, y], i) => {
      const [nx, ny] = points[(i + 1) % points.length]!;
      return sum + x * ny - nx * y;
    }, 0) / 2,
  );
}

const box = { x: 10, y: 20, width: 200, height: 100 };

describe('outlines', () => {
  it('an ellipse has its area, π·a·b', () => {
    expect(area(ellipsePath(box)) / (Math.PI * 100 * 50)).toBeCloseTo(1, 3);
  });

  it('round corners take (4 − π)·r² away, and no radius is too large', () => {
    expect(area(roundedPath(box, 20))).toBeCloseTo(200 * 100 - (4 - Math.PI) * 400, 0);
    expect(area(roundedPath(box, 1000)) / (100 * 100 + Math.PI * 50 * 50)).toBeCloseTo(1, 3);
    expect(area(roundedPath(box, 0))).toBe(20000);
  });

  it('a regular polygon has its area, n/2·r²·sin(2π/n)', () => {
    const square = { x: 0, y: 0, width: 100, height: 100 };
    expect(area(polygonPath(square, 6))).toBeCloseTo(3 * 2500 * Math.sin(Math.PI / 3), 6);
    expect(area(polygonPath(square, 5, 0.4))).toBeCloseTo(5 * 2500 * 0.4 * Math.sin(Math.PI / 5), 6);
  });
});

describe('SVG path data (SVG 2, §9)', () => {
  it('reads every command, absolute and relative', () => {
    const path = parseSvgPath(
      'M10 10 h80 v80 H10 z m20 20 q20 -20 40 0 t40 0 c0 10 10 10 10 0 s10 -10 10 0 a5 5 0 0 1 10 0 L0 0',
    );
    expect(path.commands.filter((c) => c[0] === 'M')).toHaveLength(2);
    expect(path.commands.every((c) => c.slice(1).every((n) => Number.isFinite(n as number)))).toBe(true);
  });

  it('turns an arc into curves that stay on the circle', () => {
    expect(
      area(parseSvgPath('M0 50 A50 50 0 1 1 100 50 A50 50 0 1 1 0 50 Z')) / (Math.PI * 2500),
    ).toBeCloseTo(1, 3);
  });

  it('says what is wrong', () => {
    expect(() => parseSvgPath('M10 banana')).toThrow('cannot be read');
  });
});

describe('transforms', () => {
  it('bounds hold what a transform makes', () => {
    const b = pathBounds(transformPath(roundedPath(box, 10), [0, 1, -1, 0, 0, 0]));
    expect(b.x).toBeCloseTo(-120, 9);
    expect(b.width).toBeCloseTo(100, 9);
    expect(b.height).toBeCloseTo(200, 9);
  });
});
