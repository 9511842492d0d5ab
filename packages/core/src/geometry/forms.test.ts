import fc from 'fast-check';
import {
  fitted,
  inBox,
  linkedAsNet,
  linkedInOrder,
  linkedToNearest,
  linkedWithin,
  onDisc,
  onGrid,
  onLine,
  onRing,
  onSphere,
  onSpiral,
  placesOf,
  type Spot,
} from './forms';

const distance = (a: Spot, b: Spot) => Math.hypot(a[0] - b[0], a[1] - b[1], a[2] - b[2]);

describe('points on a form', () => {
  it.each([
    ['line', onLine],
    ['ring', onRing],
    ['disc', onDisc],
    ['sphere', onSphere],
    ['spiral', (n: number) => onSpiral(n, 3)],
    ['box', (n: number) => inBox(n, 4)],
  ] as const)('%s: as many as are asked for, within the box', (_, form) => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 600 }), (n) => {
        const spots = form(n);
        expect(spots).toHaveLength(n);
        expect(spots.flat().filter((v) => !(Math.abs(v) <= 0.5 + 1e-12))).toEqual([]);
      }),
      { numRuns: 25 },
    );
  });

  it('a sphere is covered evenly', () => {
    const spots = onSphere(1000);
    for (const s of spots) expect(Math.hypot(...s)).toBeCloseTo(0.5, 12);
    // Archimedes: equal heights of a sphere have equal areas, so a tenth of the points lies in each tenth of the height.
    for (let i = 0; i < 10; i++) {
      const [from, to] = [i / 10 - 0.5, (i + 1) / 10 - 0.5];
      expect(spots.filter(([, y]) => y >= from && y < to).length).toBe(100);
    }
    // As near to each other as a lattice of that many lets them be: no two in a clump, none alone.
    const nearest = spots.map((s) => Math.min(...spots.filter((o) => o !== s).map((o) => distance(s, o))));
    expect(Math.max(...nearest) / Math.min(...nearest)).toBeLessThan(2);
  });

  it('rows, columns and ranks, in that order', () => {
    expect(onGrid(2, 1, 2)).toEqual([
      [-0.5, 0, -0.5],
      [0.5, 0, -0.5],
      [-0.5, 0, 0.5],
      [0.5, 0, 0.5],
    ]);
  });
});

describe('links', () => {
  it('follow the order, and close where the form does', () => {
    expect(linkedInOrder(3, false)).toEqual([
      [0, 1],
      [1, 2],
    ]);
    expect(linkedInOrder(3, true)).toHaveLength(3);
    expect(linkedInOrder(1, true)).toEqual([]);
  });

  it('of a net are those of a lattice', () => {
    fc.assert(
      fc.property(fc.tuple(...[0, 1, 2].map(() => fc.integer({ min: 1, max: 7 }))), ([a, d, r]) => {
        const links = linkedAsNet(a!, d!, r!);
        // Edges of a grid graph.
        expect(links).toHaveLength((a! - 1) * d! * r! + a! * (d! - 1) * r! + a! * d! * (r! - 1));
        const spots = onGrid(a!, d!, r!);
        for (const [i, j] of links) {
          const changed = spots[i]!.filter((v, k) => v !== spots[j]![k]).length;
          expect(changed).toBe(1);
        }
      }),
    );
  });

  it('of nearness and distance are those that a look at all pairs finds', () => {
    const spots = inBox(40, 9);
    const pairs = spots.flatMap((a, i) =>
      spots.slice(i + 1).map((b, k) => ({ i, j: i + 1 + k, d: distance(a, b) })),
    );
    const within = linkedWithin(spots, 0.3, 10_000);
    expect(within).toHaveLength(pairs.filter((p) => p.d <= 0.3).length);
    expect(linkedWithin(spots, 0.3, 5)).toEqual(within.slice(0, 5));
    const near = new Set(linkedToNearest(spots, 2).map(String));
    for (let i = 0; i < spots.length; i++) {
      const own = pairs
        .filter((p) => p.i === i || p.j === i)
        .sort((a, b) => a.d - b.d)
        .slice(0, 2);
      for (const { i: a, j: b } of own) expect(near.has(`${a},${b}`)).toBe(true);
    }
  });
});

describe('a list of places', () => {
  it('reads numbers as people write them, and tells which lines have none', () => {
    const rows = [
      ['Marram', '1.5', '52,25'],
      ['Ness', '', '52'],
      ['Hill', 'x', '1'],
      ['Quay', '-2', '+51'],
    ];
    const { placed, without } = placesOf(rows, [1, 2]);
    expect(placed).toEqual([
      { line: 0, x: 1.5, y: 52.25 },
      { line: 3, x: -2, y: 51 },
    ]);
    expect(without).toEqual([1, 2]);
  });

  it('is as large as the box takes it, north up, a degree of longitude as much narrower as the latitude makes it', () => {
    const at = (x: number, y: number) => ({ line: 0, x, y });
    // At 60° north a degree to the east is half of one to the north.
    const spots = fitted([at(10, 59), at(14, 61)], 1000, 500);
    const [dx, dy] = [(spots[1]![0] - spots[0]![0]) * 1000, (spots[1]![1] - spots[0]![1]) * 500];
    expect(dx / -dy).toBeCloseTo((4 * Math.cos((60 * Math.PI) / 180)) / 2, 9);
    expect(Math.abs(dy)).toBeCloseTo(500, 9);
    // Places of a plan, in metres, are not narrowed.
    const plan = fitted([at(0, 0), at(2000, 1000)], 1000, 500);
    expect(plan).toEqual([
      [-0.5, 0.5, 0],
      [0.5, -0.5, 0],
    ]);
    expect(fitted([at(3, 4)], 100, 100)).toEqual([[0, 0, 0]]);
    expect(fitted([], 100, 100)).toEqual([]);
  });
});
