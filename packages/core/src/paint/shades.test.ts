import { createNodeSurface } from '@fresh-reel/node-host';
import fc from 'fast-check';
import type { Effect } from '../effects/registry';
import type { Homography } from '../geometry/matrix';
import { roundedPath } from '../geometry/path';
import { countingPainter } from '../testing/countingPainter';
import { grouped, withEffects } from './compose';
import type { Op } from './ops';
import type { Painter } from './painter';

const FRAME = { width: 640, height: 480 };
const SHADOW: Effect = { effect: 'shadow', offset: [5, 12], radius: 9, colour: '#000000', opacity: 0.6 };
const LIGHT: Effect = {
  effect: 'inner-shadow',
  offset: [-1, -3],
  radius: 3,
  colour: '#FFFFFF',
  opacity: 0.6,
};
const DARK: Effect = { effect: 'inner-shadow', offset: [1, 4], radius: 6, colour: '#000000', opacity: 0.5 };
const TINT: Effect = { effect: 'tint', colour: '#2F7F9E', amount: 0.4 };

const PATH = roundedPath({ x: -90, y: -50, width: 180, height: 100 }, 14);
const plate = (plane: Homography, colour = '#F2A541'): Op[] => [
  { op: 'path', path: PATH, plane, fill: { kind: 'solid', colour }, opacity: 1 },
];

/** How a plate lies: its size, its turn and its lean, about a place. */
const lies = (wide: number, high: number, turn: number, lean: number, x: number, y: number): Homography => {
  const [cos, sin] = [Math.cos(turn), Math.sin(turn)];
  return [
    ...([cos * wide, (cos * lean - sin) * high, x] as const),
    ...([sin * wide, (sin * lean + cos) * high, y] as const),
    ...([0, 0, 1] as const),
  ];
};

function pixels(painter: Painter, ops: readonly Op[]): Uint8ClampedArray {
  const surface = createNodeSurface(FRAME.width, FRAME.height);
  painter.paint(ops, surface, FRAME);
  return surface.context.getImageData(0, 0, FRAME.width, FRAME.height).data;
}

/**
 * Largest and mean difference of what is seen, where colours count as much as they cover, and how many values are off
 * by more than the eye would tell.
 */
function difference(a: Uint8ClampedArray, b: Uint8ClampedArray) {
  let [most, sum, off] = [0, 0, 0];
  for (let i = 0; i < a.length; i += 4) {
    for (let c = 0; c < 4; c++) {
      const [p, q] =
        c < 3 ? [a[i + c]! * a[i + 3]!, b[i + c]! * b[i + 3]!] : [a[i + 3]! * 255, b[i + 3]! * 255];
      const by = Math.abs(p - q) / 255;
      if (by > most) most = by;
      if (by > 24) off++;
      sum += by;
    }
  }
  return { most, mean: sum / a.length, off: off / a.length };
}

const LISTS: Record<string, readonly Effect[]> = {
  'a shadow': [SHADOW],
  'a relief': [LIGHT, DARK],
  'a relief with a tint and a shadow': [TINT, LIGHT, DARK, SHADOW],
  'a shadow on itself, tinted after': [DARK, TINT],
};

const unit = (min: number, max: number) => fc.double({ min, max, noNaN: true });
const place = fc
  .tuple(unit(0.4, 1.4), unit(0.4, 1.4), unit(-3, 3), unit(-0.5, 0.5), unit(280, 360), unit(200, 280))
  .map((values) => lies(...values));

describe('shades laid from what they are at rest', () => {
  it.each(Object.keys(LISTS))('look as they do made in their place: %s', (name) => {
    const effects = LISTS[name]!;
    fc.assert(
      fc.property(place, (plane) => {
        const ops = plate(plane);
        const direct = grouped(ops, { effects });
        const { mean, off } = difference(
          pixels(countingPainter().painter, withEffects(ops, effects)),
          pixels(countingPainter().painter, direct),
        );
        // The canvas itself puts an outline's edge elsewhere on another surface, by part of a pixel.
        return off < 0.001 && mean < 0.35;
      }),
      { numRuns: 10 },
    );
  });

  it.each(Object.keys(LISTS))('do not depend on what was painted before: %s', (name) => {
    const effects = LISTS[name]!;
    fc.assert(
      fc.property(fc.array(place, { maxLength: 3 }), place, (before, plane) => {
        const { painter } = countingPainter();
        // Twice each, so that their pictures are kept.
        for (const each of [...before, plane, plane]) pixels(painter, withEffects(plate(each), effects));
        const ops = withEffects(plate(plane), effects);
        return difference(pixels(painter, ops), pixels(countingPainter().painter, ops)).most === 0;
      }),
      { numRuns: 6 },
    );
  });

  it('are made twice at most while what they belong to breathes', () => {
    const { painter, filled } = countingPainter();
    for (let n = 0; n < 20; n++) {
      const wave = Math.sin(n / 3);
      const plane = lies(1 + 0.005 * wave, 1 - 0.012 * wave, 0.008 * wave, 0.01 * wave, 200 + n, 150.3);
      pixels(painter, withEffects(plate(plane), [LIGHT, DARK, SHADOW]));
    }
    // The plate itself in each picture; its outline twice for what it throws, and twice for what falls on it.
    expect(filled()).toBe(20 + 2 + 2);
  });

  it('are not seen through what has faded: they fade as one', () => {
    const ops = plate(lies(1, 1, 0, 0, 200, 150));
    const faded = pixels(countingPainter().painter, withEffects(ops, [SHADOW], { opacity: 0.5 }));
    const whole = pixels(countingPainter().painter, withEffects(ops, [SHADOW]));
    const at = (150 * FRAME.width + 200) * 4;
    expect(Math.abs(faded[at + 3]! - 127.5)).toBeLessThan(1.5);
    expect(Math.abs(faded[at]! - whole[at]!)).toBeLessThan(3);
  });

  it('are left to groups where something is in perspective', () => {
    const plane: Homography = [1, 0, 200, 0.1, 1, 150, 0.001, 0, 1];
    const ops = plate(plane);
    const [apart, direct] = [withEffects(ops, [SHADOW]), grouped(ops, { effects: [SHADOW] })];
    expect(
      difference(pixels(countingPainter().painter, apart), pixels(countingPainter().painter, direct)).most,
    ).toBeLessThan(8);
  });
});
