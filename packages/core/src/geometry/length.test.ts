import { longestStroke, PathRuler } from './length';
import { ellipsePath, parseSvgPath } from './path';

describe('length along a path', () => {
  it('a line: the closed form', () => {
    const ruler = new PathRuler(parseSvgPath('M 10 20 L 310 420'));
    expect(ruler.length).toBeCloseTo(500, 9);
    for (const part of [0, 0.1, 0.37, 0.5, 0.9, 1]) {
      const { x, y, angle } = ruler.at(500 * part);
      expect([x, y]).toEqual([expect.closeTo(10 + 300 * part, 6), expect.closeTo(20 + 400 * part, 6)]);
      expect(angle).toBeCloseTo(Math.atan2(4, 3), 6);
    }
  });

  it('a circle: 2πr, and equal steps turn by equal angles', () => {
    const r = 250;
    const ruler = new PathRuler(ellipsePath({ x: -r, y: -r, width: 2 * r, height: 2 * r }));
    // Four cubics come within 0.03% of a circle.
    expect(Math.abs(ruler.length / (2 * Math.PI * r) - 1)).toBeLessThan(3e-4);
    expect(ruler.closed).toBe(true);
    for (let i = 0; i < 36; i++) {
      const { x, y, angle } = ruler.at((ruler.length * i) / 36);
      const turn = (2 * Math.PI * i) / 36;
      expect(Math.abs(x - r * Math.sin(turn))).toBeLessThan(r * 5e-4);
      expect(Math.abs(y + r * Math.cos(turn))).toBeLessThan(r * 5e-4);
      expect(Math.abs(Math.sin(angle - turn))).toBeLessThan(4e-3);
    }
    expect(ruler.at(ruler.length * 1.25).x).toBeCloseTo(ruler.at(ruler.length * 0.25).x, 6);
  });

  it('any cubic: numeric integration by Simpson’s rule with 20,000 steps', () => {
    const cubics = [
      [0, 0, 100, 300, 400, -200, 500, 100],
      [0, 0, 500, 0, 0, 500, 500, 500],
      [10, 10, 900, 20, -600, 40, 200, 300],
    ] as const;
    for (const [x0, y0, x1, y1, x2, y2, x3, y3] of cubics) {
      const speed = (t: number) => {
        const u = 1 - t;
        const d = (a: number, b: number, c: number, e: number) =>
          3 * u * u * (b - a) + 6 * u * t * (c - b) + 3 * t * t * (e - c);
        return Math.hypot(d(x0, x1, x2, x3), d(y0, y1, y2, y3));
      };
      const n = 20_000;
      let sum = speed(0) + speed(1);
      for (let i = 1; i < n; i++) sum += speed(i / n) * (i % 2 === 1 ? 4 : 2);
      const ruler = new PathRuler(parseSvgPath(`M ${x0} ${y0} C ${x1} ${y1} ${x2} ${y2} ${x3} ${y3}`));
      expect(Math.abs(ruler.length / (sum / (3 * n)) - 1)).toBeLessThan(2e-3);
    }
  });

  it('goes on straight past the ends of an open path', () => {
    const ruler = new PathRuler(parseSvgPath('M 0 0 C 0 -100 100 -100 100 0'));
    expect(ruler.at(-50)).toEqual({
      x: expect.closeTo(0, 6),
      y: expect.closeTo(50, 6),
      angle: expect.closeTo(-Math.PI / 2, 6),
    });
    expect(ruler.at(ruler.length + 30).y).toBeCloseTo(30, 6);
  });

  it('a path of one point, or of none, has no length and still has a place', () => {
    expect(new PathRuler(parseSvgPath('M 40 50')).at(10)).toEqual({ x: 50, y: 50, angle: 0 });
    expect(new PathRuler({ commands: [] }).length).toBe(0);
    expect(new PathRuler(parseSvgPath('M 40 50 L 40 50')).length).toBe(0);
  });

  it('the longest stroke of several', () => {
    expect(longestStroke(parseSvgPath('M0 0 L10 0 M0 0 L0 30 L40 30 Z'))).toBeCloseTo(120, 6);
  });
});
