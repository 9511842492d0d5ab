import fc from 'fast-check';
import { pathBounds } from './path';
import { bubblePath, leaderPath } from './pointing';

const BOX = { x: 100, y: 100, width: 300, height: 120 };
const TAIL = { width: 40, reach: 1, bow: 0 };
const points = ({ commands }: ReturnType<typeof bubblePath>) =>
  commands.flatMap((c) => (c[0] === 'Z' ? [] : [c.slice(-2) as [number, number]]));

describe('a bubble', () => {
  it.each([
    ['above', [260, 0]],
    ['to the right', [600, 150]],
    ['below', [180, 400]],
    ['to the left', [0, 130]],
    ['off a corner', [500, 400]],
  ] as const)('points %s: its tip is there, its feet on the straight part of the side', (_, to) => {
    const made = points(bubblePath(BOX, 30, { ...TAIL, to }));
    const tip = made.findIndex(([x, y]) => x === to[0] && y === to[1]);
    expect(tip).toBeGreaterThan(0);
    const [left, right] = [made[tip - 1]!, made[tip + 1]!];
    expect(Math.hypot(left[0] - right[0], left[1] - right[1])).toBeCloseTo(40, 6);
    const straight = ([x, y]: readonly number[]) =>
      (x! >= 130 && x! <= 370 && (y === 100 || y === 220)) ||
      (y! >= 130 && y! <= 190 && (x === 100 || x === 400));
    expect(straight(left) && straight(right)).toBe(true);
  });

  it('has no tail while the point lies within it, or it does not reach out yet', () => {
    for (const tail of [
      { ...TAIL, to: [250, 150] as const },
      { ...TAIL, to: [250, 900] as const, reach: 0 },
    ])
      expect(pathBounds(bubblePath(BOX, 30, tail))).toEqual(BOX);
  });

  it('is finite and holds its box, wherever it points and however round it is', () => {
    const number = fc.double({ min: -5000, max: 5000, noNaN: true });
    fc.assert(
      fc.property(
        fc.tuple(number, number),
        fc.integer({ min: 0, max: 400 }),
        fc.double({ min: -1, max: 1, noNaN: true }),
        (to, corner, bow) => {
          const made = points(bubblePath(BOX, corner, { to, width: 60, reach: 1, bow }));
          expect(made.flat().every(Number.isFinite)).toBe(true);
          const b = pathBounds(bubblePath(BOX, corner, { to, width: 60, reach: 1, bow: 0 }));
          expect(b.x).toBeLessThanOrEqual(100.001);
          expect(b.x + b.width).toBeGreaterThanOrEqual(399.999);
        },
      ),
    );
  });
});

it('a line goes from its point to the near end of the edge that faces it, and along it', () => {
  expect(leaderPath(BOX, [0, 300], 0).commands).toEqual([
    ['M', 0, 300],
    ['L', 100, 220],
    ['L', 400, 220],
  ]);
  expect(leaderPath(BOX, [700, 20], 0).commands.slice(1)).toEqual([
    ['L', 400, 100],
    ['L', 100, 100],
  ]);
  // 100 away along a way of 500 (3:4:5).
  expect(leaderPath({ x: 300, y: 0, width: 10, height: 400 }, [0, 800], 100).commands[0]).toEqual([
    'M',
    60,
    720,
  ]);
});
