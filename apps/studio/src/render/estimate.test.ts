import fc from 'fast-check';
import { sampleOf } from './estimate';

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
