import fc from 'fast-check';
import { sampleOf, wholeTime } from './estimate';

describe('frames that tell how long a render takes', () => {
  it('are within it, in order, each once, and spread over all of it', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 100_000 }), (count) => {
        const sample = sampleOf(count);
        expect(new Set(sample).size).toBe(sample.length);
        expect(sample).toEqual([...sample].sort((a, b) => a - b));
        expect(sample[0]).toBeGreaterThanOrEqual(0);
        expect(sample.at(-1)).toBeLessThan(count);
        expect(sample.length).toBeLessThanOrEqual(96);
        // No quarter of it is left out.
        for (let part = 0; part < 4 && count >= 4; part++) {
          const inPart = (n: number) => Math.floor((n * 4) / count) === part;
          expect(sample.some(inPart)).toBe(true);
        }
      }),
    );
  });
});

describe('what a sample says of the whole', () => {
  it('leaves out what only a sample costs: its start once, and the first two of each row', () => {
    const sample = [10, 11, 12, 13, 50, 51, 52, 53];
    // 3 to begin with, 100 for each jump and the frame after it, 2 for any other; 1 to compress the last.
    const steps = [3, 100, 2, 2, 100, 100, 2, 2, 1];
    const times = steps.map((_, i) => steps.slice(0, i + 1).reduce((a, b) => a + b));
    expect(wholeTime(sample, times, 101)).toBeCloseTo(3 + ((4 * 2 + 1) / 4) * 100, 9);
    expect(wholeTime([0], [3, 4], 1)).toBe(3);
  });
});
