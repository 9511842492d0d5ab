import { converter, formatHex, interpolate, wcagContrast } from 'culori';
import { colourText, contrast, mixColours, mostReadable, parseColour, withAlpha } from './colour';

const pairs = [
  ['#C8431C', '#1E4D3B'],
  ['#000000', '#FFFFFF'],
  ['#F2A541', '#2F7F9E'],
  ['#5B3A6E', '#F3ECF4'],
] as const;

describe('colours against the culori package', () => {
  it.each(pairs)('mixes %s and %s through OKLab', (a, b) => {
    const theirs = interpolate([a, b], 'oklab');
    for (const t of [0, 0.25, 0.5, 0.8, 1]) {
      const [x, y] = [parseColour(mixColours(a, b, t)), converter('rgb')(theirs(t))];
      // One step of 8 bits each way.
      expect(Math.abs(x[0] - y.r)).toBeLessThan(1.5 / 255);
      expect(Math.abs(x[1] - y.g)).toBeLessThan(1.5 / 255);
      expect(Math.abs(x[2] - y.b)).toBeLessThan(1.5 / 255);
    }
  });

  it('mixes premultiplied: what is transparent lends no colour (CSS Color 4, 12.3)', () => {
    expect(mixColours('#C8431C', '#00FF0000', 0.5)).toBe('#c8431c80');
    expect(mixColours('#00FF0000', '#C8431C', 0.25)).toBe('#c8431c40');
    // At equal alpha it is as without.
    const half = mixColours('#C8431C80', '#1E4D3B80', 0.3);
    expect(half.slice(0, 7)).toBe(mixColours('#C8431C', '#1E4D3B', 0.3));
    expect(half.slice(7)).toBe('80');
  });

  it.each(pairs)('contrast of %s and %s (WCAG 2.2)', (a, b) => {
    expect(contrast(a, b)).toBeCloseTo(wcagContrast(a, b), 3);
  });

  it('writes what it reads', () => {
    expect(colourText(parseColour('#c8431c'))).toBe(formatHex('#C8431C'));
    expect(withAlpha('#C8431C', 0.5)).toBe('#c8431c80');
    expect(withAlpha('#C8431C80', 0.5)).toBe('#c8431c40');
  });
});

it('takes the ink that reads best', () => {
  expect(mostReadable('#FBF8F2', ['#16202B', '#FFFFFF'])).toBe('#16202B');
  expect(mostReadable('#16202B', ['#16202B', '#FFFFFF'])).toBe('#FFFFFF');
});

it('names a colour it cannot read', () => {
  expect(() => parseColour('red')).toThrow('"red" is not a colour such as #C8431C');
});
