import { randomAt, shuffled } from './random';
import { fittingStagger, startRanks } from './stagger';

describe('order', () => {
  it('forwards, backwards, from and to the middle', () => {
    expect(startRanks(5, 'forwards', 0)).toEqual([0, 1, 2, 3, 4]);
    expect(startRanks(5, 'backwards', 0)).toEqual([4, 3, 2, 1, 0]);
    expect(startRanks(5, 'from-middle', 0)).toEqual([2, 1, 0, 1, 2]);
    expect(startRanks(4, 'from-middle', 0)).toEqual([1, 0, 0, 1]);
    expect(startRanks(5, 'to-middle', 0)).toEqual([0, 1, 2, 1, 0]);
  });

  it('random is a permutation, the same for the same seed', () => {
    const ranks = startRanks(40, 'random', 7);
    expect([...ranks].sort((a, b) => a - b)).toEqual(Array.from({ length: 40 }, (_, i) => i));
    expect(startRanks(40, 'random', 7)).toEqual(ranks);
    expect(startRanks(40, 'random', 8)).not.toEqual(ranks);
  });

  it('handles none and one', () => {
    for (const order of ['forwards', 'backwards', 'from-middle', 'to-middle', 'random'] as const) {
      expect(startRanks(0, order, 1)).toEqual([]);
      expect(startRanks(1, order, 1)).toEqual([0]);
    }
  });
});

describe('a stagger longer than its stretch', () => {
  it('gives way so that the last unit ends in time', () => {
    const ranks = startRanks(500, 'forwards', 0);
    const stagger = fittingStagger(4, ranks, 20, 60);
    expect(499 * stagger + 20).toBeCloseTo(60, 9);
    expect(fittingStagger(4, [0, 1, 2], 20, 60)).toBe(4);
    expect(fittingStagger(4, ranks, 80, 60)).toBe(0);
  });
});

describe('seeded randomness', () => {
  it('is even: each tenth gets about a tenth', () => {
    const counts = new Array<number>(10).fill(0);
    for (let i = 0; i < 20_000; i++) counts[Math.floor(randomAt(5, i) * 10)]!++;
    // Chi-squared with 9 degrees of freedom: 27.9 is passed by chance once in a thousand (handbook table).
    const chi = counts.reduce((sum, c) => sum + (c - 2000) ** 2 / 2000, 0);
    expect(chi).toBeLessThan(27.9);
  });

  it('does not depend on what was asked before', () => {
    const first = randomAt(1, 2, 3);
    shuffled(100, 9);
    expect(randomAt(1, 2, 3)).toBe(first);
  });
});
