import { PathRuler } from '../geometry/length';
import { parseSvgPath } from '../geometry/path';
import {
  addPoint,
  extendPath,
  isSmooth,
  moveHandle,
  movePoint,
  readPoints,
  removePoint,
  smoothPoint,
  writePoints,
} from './pathPoints';

const WAVE = 'M 0.1 0.5 C 0.3 0.2 0.4 0.2 0.5 0.5 C 0.6 0.8 0.7 0.8 0.9 0.5';

describe('a drawn path', () => {
  it('is read and written without a change', () => {
    for (const data of [WAVE, 'M 0 0 L 1 1', 'M 0.5 0.5', 'M 0 0 C 0 1 1 1 1 0 C 1 -1 0 -1 0 0 Z']) {
      expect(writePoints(readPoints(data))).toBe(data);
    }
  });

  it('gets a point without changing its way', () => {
    const { path, index } = addPoint(readPoints(WAVE), [0.3, 0.27]);
    expect(path.points).toHaveLength(4);
    expect(index).toBe(1);
    const [before, after] = [WAVE, writePoints(path)].map((d) => new PathRuler(parseSvgPath(d)));
    expect(after!.length).toBeCloseTo(before!.length, 4);
    for (const part of [0.1, 0.4, 0.7]) {
      const [a, b] = [before!.at(before!.length * part), after!.at(after!.length * part)];
      expect(Math.hypot(a.x - b.x, a.y - b.y)).toBeLessThan(1e-3);
    }
    expect(isSmooth(path.points[1]!)).toBe(true);
  });

  it('a path of one point grows', () => {
    const { path } = addPoint(readPoints('M 0.5 0.5'), [0.8, 0.4]);
    expect(writePoints(path)).toBe('M 0.5 0.5 L 0.8 0.4');
    expect(extendPath(readPoints('M 0.2 0.5 L 0.4 0.5')).path.points[2]!.at[0]).toBeCloseTo(0.52, 6);
  });

  it('points move with their handles, handles alone or both', () => {
    const path = readPoints(WAVE);
    const moved = movePoint(path, 1, [0.6, 0.6]).points[1]!;
    expect(moved.before[0]).toBeCloseTo(0.5, 9);
    expect(moved.after[1]).toBeCloseTo(0.9, 9);
    const alone = moveHandle(path, 1, 'after', [0.7, 0.5], false).points[1]!;
    expect(alone.before).toEqual([0.4, 0.2]);
    expect(isSmooth(alone)).toBe(false);
    const both = moveHandle(path, 1, 'after', [0.7, 0.5], true).points[1]!;
    expect(both.before[1]).toBeCloseTo(0.5, 9);
    expect(isSmooth(both)).toBe(true);
  });

  it('points become corners and smooth again, and go, but for the last', () => {
    const corner = smoothPoint(readPoints(WAVE), 1, false);
    expect(isSmooth(corner.points[1]!)).toBe(false);
    expect(isSmooth(smoothPoint(corner, 1, true).points[1]!)).toBe(true);
    expect(removePoint(removePoint(removePoint(corner, 0), 0), 0).points).toHaveLength(1);
  });
});
