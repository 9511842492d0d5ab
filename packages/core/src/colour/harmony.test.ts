import { converter, wcagContrast } from 'culori';
import fc from 'fast-check';
import { harmonies } from './harmony';

const toLch = converter('oklch');
const hueOf = (colour: string) => toLch(colour)?.h ?? 0;
const turned = (from: string, to: string) => (((hueOf(to) - hueOf(from)) % 360) + 360) % 360;

// Contrast and hue are measured by culori (https://culorijs.org), not by our own code.
describe('palettes around a colour', () => {
  it('keep it, can be read, and tell their colours from a ground, whatever it is', () => {
    const part = fc.integer({ min: 0, max: 255 });
    fc.assert(
      fc.property(part, part, part, (r, g, b) => {
        const main = `#${[r, g, b].map((v) => v.toString(16).padStart(2, '0')).join('')}`.toUpperCase();
        for (const { colours } of harmonies(main)) {
          expect(colours.main).toBe(main);
          expect(wcagContrast(colours.dark, colours.light)).toBeGreaterThanOrEqual(7);
          for (const colour of [main, colours.second])
            expect(
              Math.max(wcagContrast(colour, colours.dark), wcagContrast(colour, colours.light)),
            ).toBeGreaterThanOrEqual(3);
        }
      }),
      { numRuns: 400, seed: 13 },
    );
  });

  it('turn the hue of the second as they say', () => {
    const found = harmonies('#3F7FBF').map(({ name, colours }) => [
      name,
      turned(colours.main, colours.second),
    ]);
    for (const [name, turn] of [
      ['Opposite', 180],
      ['A third round', 120],
      ['Neighbour', 40],
    ] as const) {
      const [, is] = found.find(([n]) => n === name)!;
      // What screens cannot show is brought in, which moves the hue a little.
      expect(Math.abs((is as number) - turn)).toBeLessThan(12);
    }
  });

  it('give a grey some colour beside it', () => {
    for (const { colours } of harmonies('#808080')) expect(toLch(colours.second)!.c).toBeGreaterThan(0.05);
  });
});
