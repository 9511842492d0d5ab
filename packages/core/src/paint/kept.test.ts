import { createNodePath, createNodeSurface } from '@fresh-reel/node-host';
import fc from 'fast-check';
import type { Effect } from '../effects/registry';
import { ellipsePath, rectanglePath } from '../geometry/path';
import { countingPainter } from '../testing/countingPainter';
import { grouped, withEffects } from './compose';
import type { Op } from './ops';
import { Painter } from './painter';

const FRAME = { width: 400, height: 300 };
const BLUR: Effect = { effect: 'blur', radius: 20 };
const SHADOW: Effect = { effect: 'shadow', offset: [0, 12], radius: 16, colour: '#000000', opacity: 0.5 };
const card = (x: number, y: number, colour = '#FF0000', size = 80): Op[] => [
  {
    op: 'path',
    path: rectanglePath({ x: 0, y: 0, width: size, height: size / 2 }),
    plane: [0.98, 0.17, x, -0.17, 0.98, y, 0, 0, 1],
    fill: { kind: 'solid', colour },
    opacity: 1,
  },
];

function pixels(painter: Painter, ops: readonly Op[], scale = 0.5): Uint8ClampedArray {
  const surface = createNodeSurface(FRAME.width * scale, FRAME.height * scale);
  painter.paint(ops, surface, FRAME);
  return surface.context.getImageData(0, 0, FRAME.width * scale, FRAME.height * scale).data;
}

const fresh = () => countingPainter().painter;
/** Largest difference of what is seen: colours count as much as they cover. */
function difference(a: Uint8ClampedArray, b: Uint8ClampedArray): number {
  let most = 0;
  for (let i = 0; i < a.length; i += 4) {
    for (let c = 0; c < 3; c++)
      most = Math.max(most, Math.abs(a[i + c]! * a[i + 3]! - b[i + c]! * b[i + 3]!) / 255);
    most = Math.max(most, Math.abs(a[i + 3]! - b[i + 3]!));
  }
  return most;
}

describe('groups that move as one', () => {
  it('are painted twice at most, wherever they go', () => {
    const { painter, filled } = countingPainter();
    const at = (n: number) => grouped(card(60 + n * 3.3, 90 + n), { effects: [BLUR] });
    for (let n = 0; n < 10; n++) pixels(painter, at(n));
    expect(filled()).toBe(2);
  });

  it('look the same whatever was painted before, in any order', () => {
    fc.assert(
      fc.property(
        fc.array(fc.tuple(fc.integer({ min: -60, max: 360 }), fc.integer({ min: -40, max: 280 })), {
          maxLength: 4,
        }),
        fc.float({ min: 0, max: 200, noNaN: true }),
        fc.constantFrom<Effect>(BLUR, SHADOW),
        (before, x, effect) => {
          const { painter } = countingPainter();
          const at = (px: number, py: number) => withEffects(card(px, py), [effect]);
          for (const [px, py] of before) pixels(painter, at(px, py));
          return difference(pixels(painter, at(x, 100)), pixels(fresh(), at(x, 100))) <= 1;
        },
      ),
      { numRuns: 25 },
    );
  });

  it('are painted anew when their colour, size or pictures change', () => {
    const painter = fresh();
    const group = (ops: Op[]) => grouped(ops, { effects: [BLUR] });
    for (let n = 0; n < 3; n++) pixels(painter, group(card(100, 100)));
    const blue = group(card(100, 100, '#0000FF'));
    expect(difference(pixels(painter, blue), pixels(fresh(), blue))).toBe(0);
    const large = group(card(100, 100, '#FF0000', 120));
    expect(difference(pixels(painter, large), pixels(fresh(), large))).toBe(0);
  });

  it('are painted anew when a picture in them comes late, or is another of the same name', () => {
    const shown: { image: unknown; width: number; height: number }[] = [];
    const painter = new Painter({
      createSurface: createNodeSurface,
      createPath: createNodePath,
      picture: () => shown.at(-1) as never,
    });
    const box = { x: 0, y: 0, width: 80, height: 80 };
    const picture: Op = {
      op: 'picture',
      picture: 'p',
      source: box,
      target: box,
      plane: [1, 0, 90, 0, 1, 90, 0, 0, 1],
      opacity: 1,
    };
    const middle = () => {
      const data = pixels(painter, grouped([picture], { effects: [BLUR] }));
      return [...data.subarray((65 * 200 + 65) * 4, (65 * 200 + 65) * 4 + 3)];
    };
    for (let n = 0; n < 3; n++) expect(middle()).toEqual([0, 0, 0]);
    for (const colour of ['#FF0000', '#0000FF']) {
      const surface = createNodeSurface(80, 80);
      surface.context.fillStyle = colour;
      surface.context.fillRect(0, 0, 80, 80);
      shown.push({ image: surface.canvas, width: 80, height: 80 });
      for (let n = 0; n < 3; n++) expect(middle()).toEqual(colour === '#FF0000' ? [255, 0, 0] : [0, 0, 255]);
    }
  });
});

describe('what is painted small', () => {
  it('looks as it does at full size', () => {
    // A blur of a layer that is not the first of its effects is made at full size.
    const whole = pixels(fresh(), grouped(card(150, 120), { effects: [{ ...SHADOW, opacity: 0 }, BLUR] }));
    // Of 255: a Gaussian enlarged by lines is off by a part of its bend, 1 / (8 · 3²) at most.
    expect(difference(pixels(fresh(), grouped(card(150, 120), { effects: [BLUR] })), whole)).toBeLessThan(6);
  });

  it('throws the same shadow apart from its content and with it', () => {
    for (const opacity of [1, 0.5]) {
      const apart = pixels(fresh(), withEffects(card(150, 120), [SHADOW], { opacity }));
      const together = pixels(fresh(), grouped(card(150, 120), { opacity, effects: [SHADOW] }));
      expect(difference(apart, together)).toBeLessThan(6);
    }
  });
});

describe('gradients that stand still', () => {
  const gradient = (part: object = {}): Op => ({
    op: 'path',
    path: rectanglePath({ x: -60, y: -80, width: 600, height: 500 }),
    plane: [0.99, 0.1, 0, -0.1, 0.99, 30, 0, 0, 1],
    fill: {
      kind: 'linear',
      from: [0, 0],
      to: [300, 200],
      stops: [
        [0, '#FF0000'],
        [1, '#0000FF'],
      ],
    },
    opacity: 1,
    ...part,
  });

  it('are painted once for all, and look just as they did', () => {
    const { painter, filled } = countingPainter();
    const ops = [gradient()];
    for (let n = 0; n < 5; n++) expect(difference(pixels(painter, ops), pixels(fresh(), ops))).toBe(0);
    // Its picture; what was painted where it lies is on the frame's own surface.
    expect(filled()).toBe(1);
  });

  it.each([
    [
      'half clear',
      {
        fill: {
          kind: 'linear',
          from: [0, 0],
          to: [9, 9],
          stops: [
            [0, '#FF000080'],
            [1, '#0000FF'],
          ],
        },
      },
    ],
    ['smaller than the frame', { path: rectanglePath({ x: 20.3, y: 10.6, width: 300, height: 200 }) }],
    ['an ellipse whose box fills it', { path: ellipsePath({ x: -40, y: -40, width: 500, height: 400 }) }],
    ['faded', { opacity: 0.4 }],
    ['blended', { blend: 'multiply' }],
  ])('look just as they did when they are %s', (_, part) => {
    const painter = fresh();
    const ops = [...card(-20, -20, '#208040', 900), gradient(part)];
    for (let n = 0; n < 4; n++) expect(difference(pixels(painter, ops), pixels(fresh(), ops))).toBe(0);
  });

  it('are painted anew when anything of them changes', () => {
    const painter = fresh();
    for (let n = 0; n < 3; n++) pixels(painter, [gradient()]);
    const moved = gradient({ plane: [0.99, 0.1, 4, -0.1, 0.99, 30, 0, 0, 1] });
    expect(difference(pixels(painter, [moved]), pixels(fresh(), [moved]))).toBe(0);
    expect(difference(pixels(painter, [gradient()], 0.3), pixels(fresh(), [gradient()], 0.3))).toBe(0);
  });
});

describe('a group with effects at all its pixels', () => {
  const RELIEF: Effect = {
    effect: 'inner-shadow',
    offset: [2, 3],
    radius: 1,
    colour: '#000000',
    opacity: 0.6,
  };
  const relief = (x: number, opacity = 1): Op[] => grouped(card(x, 90), { effects: [RELIEF], opacity });
  /** What moves behind it, so that it does not stand on a ground that is kept whole. */
  const behind = (x: number) => card(x, 40, '#00FF00');

  it('that stays where it is is painted once, in front of what moves, and looks as it did', () => {
    const { painter, filled } = countingPainter();
    for (const t of [0, 1]) pixels(painter, [...behind(t * 9), ...relief(60)]);
    const before = filled();
    const shown = pixels(painter, [...behind(30), ...relief(60)]);
    // What is painted apart is counted: the group is laid from its picture.
    expect(filled() - before).toBe(0);
    expect(difference(shown, pixels(fresh(), [...behind(30), ...relief(60)]))).toBe(0);
  });

  it('may fade meanwhile, and is painted anew once it moves by any part of a pixel', () => {
    const { painter, filled } = countingPainter();
    for (const t of [0, 1]) pixels(painter, [...behind(t * 9), ...relief(60)]);
    const faded = pixels(painter, [...behind(30), ...relief(60, 0.4)]);
    expect(difference(faded, pixels(fresh(), [...behind(30), ...relief(60, 0.4)]))).toBeLessThanOrEqual(1);
    const before = filled();
    const moved = pixels(painter, [...behind(31), ...relief(60.3)]);
    expect(filled() - before).toBe(1);
    expect(difference(moved, pixels(fresh(), [...behind(31), ...relief(60.3)]))).toBe(0);
  });

  it('is the same whatever was painted before, in any order and at any size', () => {
    fc.assert(
      fc.property(
        fc.array(fc.tuple(fc.integer({ min: 0, max: 3 }), fc.constantFrom(0.5, 1)), {
          minLength: 3,
          maxLength: 8,
        }),
        (steps) => {
          const painter = fresh();
          for (const [t, scale] of steps) {
            const ops = [...behind(t * 7), ...relief(60 + 0.25 * Math.floor(t / 2))];
            expect(difference(pixels(painter, ops, scale), pixels(fresh(), ops, scale))).toBe(0);
          }
        },
      ),
      { numRuns: 25 },
    );
  });
});
