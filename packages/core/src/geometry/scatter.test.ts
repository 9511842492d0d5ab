import { ellipsePath, joinPaths, rectanglePath, transformPath } from './path';
import { scatter } from './scatter';

const square = rectanglePath({ x: 0, y: 0, width: 10, height: 10 });

describe('places on a path', () => {
  it('inside a disc are as many in each quarter, and none outside', () => {
    const points = scatter(ellipsePath({ x: -5, y: -5, width: 10, height: 10 }), 4000, 7, 'inside', 0.01);
    expect(points.every(([x, y]) => Math.hypot(x, y) <= 5.001)).toBe(true);
    const quarter = points.filter(([x, y]) => x > 0 && y > 0).length;
    // Four standard deviations of a binomial of 4000 and a quarter.
    expect(Math.abs(quarter - 1000)).toBeLessThan(4 * Math.sqrt(4000 * 0.25 * 0.75));
    // By area: half of them lie within 1/√2 of the radius.
    const near = points.filter(([x, y]) => Math.hypot(x, y) < 5 / Math.SQRT2).length;
    expect(Math.abs(near - 2000)).toBeLessThan(4 * Math.sqrt(4000 * 0.25));
  });

  it('leave out a hole that goes the other way round, and keep what is laid over itself', () => {
    const hole = transformPath(rectanglePath({ x: 2, y: 2, width: 6, height: 6 }), [-1, 0, 0, 1, 10, 0]);
    const ring = scatter(joinPaths([square, hole]), 500, 1, 'inside');
    expect(ring.some(([x, y]) => x > 2.1 && x < 7.9 && y > 2.1 && y < 7.9)).toBe(false);
    const twice = scatter(joinPaths([square, square]), 200, 1, 'inside');
    expect(twice.every(([x, y]) => x >= 0 && x <= 10 && y >= 0 && y <= 10)).toBe(true);
  });

  it('along an edge lie on it, closing side included', () => {
    const points = scatter(square, 800, 3, 'edge');
    expect(points.every(([x, y]) => [x, y, x - 10, y - 10].some((d) => Math.abs(d) < 1e-9))).toBe(true);
    expect(points.filter(([x]) => x === 0).length).toBeGreaterThan(140);
  });

  it('are the same whenever they are asked for, and none on nothing', () => {
    expect(scatter(square, 5, 9, 'inside')).toEqual(scatter(square, 8, 9, 'inside').slice(0, 5));
    expect(scatter({ commands: [] }, 5, 9, 'inside')).toEqual([]);
    expect(scatter({ commands: [['M', 1, 1]] }, 5, 9, 'edge')).toEqual([]);
  });

  it('of a line without inside lie on the line', () => {
    const line = {
      commands: [
        ['M', 0, 0],
        ['L', 10, 0],
      ],
    } as const;
    expect(scatter(line, 20, 2, 'inside').every(([x, y]) => y === 0 && x >= 0 && x <= 10)).toBe(true);
  });
});
