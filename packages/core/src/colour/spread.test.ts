import fc from 'fast-check';
import { contrast, fromOklab, oklabOf } from './colour';
import { spreadColours } from './spread';

const hex = fc.integer({ min: 0, max: 0xffffff }).map((n) => `#${n.toString(16).padStart(6, '0')}`);
const BRAND = ['#C8431C', '#1F6F8B', '#16202B', '#FBF8F2'];

describe('a brand spread over a design', () => {
  it('what could be read still can, whatever the colours', () => {
    fc.assert(
      fc.property(
        fc.array(hex, { minLength: 1, maxLength: 6 }),
        fc.array(hex, { minLength: 1, maxLength: 4 }),
        (own, brand) => {
          const names = Object.fromEntries(own.map((c, i) => [`c${i}`, c]));
          const spread = spreadColours(names, brand);
          for (const [i, p] of own.entries())
            for (const [j, q] of own.entries())
              if (contrast(p, q) >= 7)
                expect(contrast(spread[`c${i}`]!, spread[`c${j}`]!)).toBeGreaterThan(4.2);
        },
      ),
      { numRuns: 300 },
    );
  });

  it('every colour keeps its place between light and dark, and takes a hue of the brand', () => {
    const own = { ground: '#101820', words: '#FFFFFF', accent: '#00B140', second: '#FFC72C' };
    const spread = spreadColours(own, BRAND);
    for (const [id, colour] of Object.entries(own))
      expect(Math.abs(oklabOf(spread[id]!)[0] - oklabOf(colour)[0])).toBeLessThan(0.13);
    const hue = (c: string) => Math.atan2(oklabOf(c)[2], oklabOf(c)[1]);
    const hues = BRAND.map(hue);
    for (const id of ['accent', 'second'])
      expect(Math.min(...hues.map((h) => Math.abs(h - hue(spread[id]!))))).toBeLessThan(0.12);
    // Two strong colours do not become one.
    expect(spread.accent).not.toBe(spread.second);
  });

  it('alike stay alike, and doing it again changes nothing', () => {
    const spread = spreadColours({ a: '#FF0000', b: '#FF0000', c: '#00FF00' }, BRAND);
    expect(spread.a).toBe(spread.b);
    expect(spreadColours({ a: '#FF0000', b: '#FF0000', c: '#00FF00' }, BRAND)).toEqual(spread);
  });

  it('colours come back from OKLab as they were, or as near as a screen shows them', () => {
    fc.assert(
      fc.property(hex, (c) => {
        const back = fromOklab(oklabOf(c));
        for (const at of [1, 3, 5])
          expect(
            Math.abs(Number.parseInt(back.slice(at, at + 2), 16) - Number.parseInt(c.slice(at, at + 2), 16)),
          ).toBeLessThanOrEqual(1);
      }),
    );
    expect(fromOklab([0.5, 0.4, 0.4])).toMatch(/^#[0-9a-f]{6}$/);
  });
});
