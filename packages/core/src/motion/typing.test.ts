import fc from 'fast-check';
import { noiseAt } from './random';
import { typedAt, typingOf } from './typing';

describe('typing', () => {
  it('without slips adds one letter a stroke, at a pace that is not quite even', () => {
    const { strokes, length } = typingOf(40, 0, 3);
    expect(strokes.map((s) => s.shown)).toEqual(Array.from({ length: 40 }, (_, i) => i + 1));
    const gaps = strokes.slice(1).map((s, i) => s.at - strokes[i]!.at);
    expect(Math.min(...gaps)).toBeGreaterThanOrEqual(0.6);
    expect(Math.max(...gaps)).toBeLessThanOrEqual(1.4);
    // The mean stroke is one unit of time.
    expect(Math.abs(length / 40 - 1)).toBeLessThan(0.15);
  });

  it('waits after a word', () => {
    const even = typingOf(10, 0, 3).length;
    expect(typingOf(10, 0, 3, (i) => i === 4).length).toBeGreaterThan(even);
  });

  it('a slip is a wrong letter, a pause, and the way back, and all ends right', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 1, max: 60 }),
        fc.double({ min: 0, max: 0.5, noNaN: true }),
        fc.nat(99),
        (n, slips, seed) => {
          const plan = typingOf(n, slips, seed);
          expect(typedAt(plan, plan.length)).toEqual({ at: expect.any(Number), shown: n, wrong: false });
          expect(typedAt(plan, -1)).toEqual({ shown: 0, wrong: false });
          plan.strokes.forEach((s, i) => {
            const before = plan.strokes[i - 1];
            if (before) expect(s.at).toBeGreaterThan(before.at);
            // Only one letter is ever wrong, and it stands right after the ones that are right.
            if (s.wrong) expect(s.shown).toBe(before?.shown ?? 0);
          });
        },
      ),
    );
    const wrong = typingOf(1000, 0.1, 5).strokes.filter((s, i, all) => s.wrong && !all[i - 1]?.wrong).length;
    // 100 are expected; three standard deviations of a binomial are 28.
    expect(Math.abs(wrong - 100)).toBeLessThan(29);
  });
});

describe('smooth noise', () => {
  it('goes through its values without a jump, and stays in its range', () => {
    for (let x = 0; x < 40; x += 0.01) {
      const [a, b] = [noiseAt(7, 1, x), noiseAt(7, 1, x + 0.01)];
      expect(Math.abs(a)).toBeLessThanOrEqual(1);
      // The ease 3t² − 2t³ is at most 1.5 times as steep as the line; two values are at most 2 apart.
      expect(Math.abs(b - a)).toBeLessThanOrEqual(0.0301);
    }
    expect(noiseAt(7, 1, 3.4)).toBe(noiseAt(7, 1, 3.4));
    expect(noiseAt(7, 2, 3.4)).not.toBe(noiseAt(7, 1, 3.4));
  });
});
