import { contrast } from '@fresh-reel/core';
import { snapped } from './Slider';
import { colour } from './theme';

describe('colours of the interface (WCAG 2.2)', () => {
  const text: [keyof typeof colour, keyof typeof colour][] = [
    ['ink', 'paper'],
    ['quiet', 'paper'],
    ['quiet', 'card'],
    ['ink', 'card'],
    ['accent', 'card'],
    ['accent', 'paper'],
    ['blue', 'card'],
    ['blue', 'paper'],
    ['ink', 'blueTint'],
    ['leaf', 'card'],
    ['ink', 'leafTint'],
    ['amber', 'paper'],
    ['amber', 'card'],
    ['ink', 'amberTint'],
    ['red', 'card'],
    ['red', 'paper'],
    ['ink', 'redTint'],
    ['ink', 'accentTint'],
    ['onSurround', 'surround'],
  ];
  it.each(text)('%s on %s reads (4.5 or more)', (a, b) => {
    expect(contrast(colour[a], colour[b])).toBeGreaterThanOrEqual(4.5);
  });

  it('white on the accent reads', () => {
    expect(contrast('#FFFFFF', colour.accent)).toBeGreaterThanOrEqual(4.5);
  });

  it.each(['paper', 'card'] as const)('edges of controls stand out from %s (3 or more)', (ground) => {
    expect(contrast(colour.edge, colour[ground])).toBeGreaterThanOrEqual(3);
  });
});

it('values stay on their steps and within their ends', () => {
  expect(snapped(13.4, 0, 100, 5)).toBe(15);
  expect(snapped(-3, 0, 100, 5)).toBe(0);
  expect(snapped(1000, 0, 100, 5)).toBe(100);
  expect(snapped(0.30000004, 0, 1, 0.1)).toBe(0.3);
  expect(snapped(61, 60, 160, 1)).toBe(61);
});
