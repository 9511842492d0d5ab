import { createNodePath, createNodeSurface } from '@fresh-reel/node-host';
import fc from 'fast-check';
import type { Effect } from '../effects/registry';
import { type Homography, IDENTITY_PLANE, planeTimes } from '../geometry/matrix';
import { ellipsePath, type Path, rectanglePath } from '../geometry/path';
import { grouped, within } from './compose';
import type { Op, Paint } from './ops';
import { Painter } from './painter';

const FRAME = { width: 640, height: 360 };
const EVERYWHERE = rectanglePath({ x: -1000, y: -1000, width: 2640, height: 2360 });

/** A painter of its own that counts the surfaces it makes. */
function counting(draft: boolean): { painter: Painter; made: () => number } {
  let made = 0;
  const painter = new Painter({
    createSurface: (width, height) => {
      made++;
      return createNodeSurface(width, height);
    },
    createPath: createNodePath,
    picture: () => undefined,
  });
  painter.draft = draft;
  return { painter, made: () => made };
}

function pixels(ops: readonly Op[], draft: boolean, painter = counting(draft).painter): Uint8ClampedArray {
  const surface = createNodeSurface(FRAME.width, FRAME.height);
  painter.paint(ops, surface, FRAME);
  return surface.context.getImageData(0, 0, FRAME.width, FRAME.height).data;
}

const path = (shape: Path, fill: Paint, plane: Homography = IDENTITY_PLANE, opacity = 1): Op => ({
  ...{ op: 'path', path: shape, plane, fill, opacity },
});
const solid = (colour: string): Paint => ({ kind: 'solid', colour });
const most = (a: Uint8ClampedArray, b: Uint8ClampedArray) =>
  a.reduce((found, v, i) => Math.max(found, Math.abs(v - b[i]!)), 0);
const mean = (a: Uint8ClampedArray, b: Uint8ClampedArray) =>
  a.reduce((sum, v, i) => sum + Math.abs(v - b[i]!), 0) / a.length;

/** Whether two pictures are one. A matcher would take seconds to look at their pixels one by one. */
const alike = (a: Uint8ClampedArray, b: Uint8ClampedArray) => Buffer.from(a).equals(Buffer.from(b));

const point = fc.tuple(fc.integer({ min: -200, max: 840 }), fc.integer({ min: -200, max: 560 }));
const colour = fc.constantFrom('#A08060', '#203050', '#F2E8D0', '#40806080');
const plane = fc
  .tuple(fc.double({ min: 0.6, max: 1.5, noNaN: true }), fc.double({ min: -0.4, max: 0.4, noNaN: true }))
  .map(([k, turn]): Homography => {
    const [c, s] = [Math.cos(turn) * k, Math.sin(turn) * k];
    return [c, -s, 320 - c * 320 + s * 180, s, c, 180 - s * 320 - c * 180, 0, 0, 1];
  });

describe('a draft', () => {
  it('paints large gradients as they are, but for steps that nobody sees', () => {
    const gradient = fc.tuple(
      fc.boolean(),
      point,
      point,
      colour,
      colour,
      fc.double({ min: 0, max: 1, noNaN: true }),
    );
    fc.assert(
      fc.property(gradient, plane, ([round, from, to, a, b, at], of) => {
        const length = Math.hypot(to[0] - from[0], to[1] - from[1]);
        fc.pre(length > 200);
        const stops = [
          [0, a],
          [Math.min(0.6, Math.max(0.4, at)), b],
          [1, a],
        ] as const;
        const fill: Paint = round
          ? { kind: 'radial', centre: from, radius: length, stops }
          : { kind: 'linear', from, to, stops };
        const ops = [path(EVERYWHERE, fill, of)];
        // Four pixels of a ramp of 50 at least, over 210 levels.
        expect(most(pixels(ops, true), pixels(ops, false))).toBeLessThanOrEqual(12);
      }),
      { numRuns: 30 },
    );
  });

  it('paints a gradient with an edge in it as the final does', () => {
    const stops = [
      [0, '#102030'],
      [0.5, '#102030'],
      [0.5, '#F0E0D0'],
      [1, '#F0E0D0'],
    ] as const;
    const ops = [path(EVERYWHERE, { kind: 'linear', from: [0, 0], to: [640, 200], stops })];
    expect(alike(pixels(ops, true), pixels(ops, false))).toBe(true);
  });

  it('lays a shade that grows nearly as the final does', () => {
    const wood = (k: number): Paint => ({
      ...solid('#B08050'),
      material: { of: 'wood', strength: 1, map: [k, 0.1, -0.1, k, 7, 3] },
    });
    for (const k of [0.71, 0.93, 1.2]) {
      const ops = [path(ellipsePath({ x: 20, y: 20, width: 600, height: 320 }), wood(k))];
      expect(mean(pixels(ops, true), pixels(ops, false))).toBeLessThan(4);
    }
  });

  const INNER: Effect = {
    ...{ effect: 'inner-shadow', offset: [4, 6], radius: 5, colour: '#000000', opacity: 0.6 },
  };
  const disc = (x: number, size: number): Op[] => [
    path(ellipsePath({ x, y: 40, width: size, height: size }), solid('#D04020')),
  ];

  it('makes what is dear of fewer pixels, in the same place', () => {
    const ops = grouped(disc(180, 240), { effects: [INNER] });
    const [rough, fine] = [pixels(ops, true), pixels(ops, false)];
    expect(alike(rough, fine)).toBe(false);
    expect(mean(rough, fine)).toBeLessThan(1.5);
  });

  it('makes few surfaces for what grows from frame to frame, as the final does', () => {
    const SOFT: Effect = { effect: 'blur', radius: 14 };
    for (const draft of [true, false]) {
      const { painter, made } = counting(draft);
      for (let n = 0; n < 60; n++)
        pixels(grouped(disc(100, 150 + n * 1.3), { effects: [SOFT] }), draft, painter);
      expect(made()).toBeLessThan(20);
    }
  });

  it('does without grain', () => {
    const area = { x: 0, y: 0, ...FRAME };
    const ground = path(EVERYWHERE, solid('#808080'));
    const grain: Op = { op: 'grain', seed: 3, size: 2, area, opacity: 0.5, blend: 'overlay' };
    expect(alike(pixels([ground, grain], true), pixels([ground], true))).toBe(true);
    expect(alike(pixels([ground, grain], false), pixels([ground], false))).toBe(false);
  });
});

it('copies that lie beyond the picture are not missed, those that reach into it are there', () => {
  const dot = ellipsePath({ x: 0, y: 0, width: 24, height: 12 });
  const places = fc.array(fc.tuple(point, fc.double({ min: 0.3, max: 4, noNaN: true })), {
    minLength: 1,
    maxLength: 20,
  });
  fc.assert(
    fc.property(places, plane, (all, of) => {
      const rows = Float32Array.from(
        all.flatMap(([[x, y], k]) => [k, 0.3, -0.3, k, x * 2 - 320, y * 2 - 180]),
      );
      const copies: Op = {
        op: 'copies',
        path: dot,
        plane: of,
        fill: solid('#204060'),
        places: rows,
        opacity: 1,
      };
      const apart = all.map((_, i) => {
        const place = [...rows.subarray(i * 6, i * 6 + 6)] as never;
        return path(dot, solid('#204060'), planeTimes(of, place));
      });
      expect(most(pixels([copies], false), pixels(apart, false))).toBeLessThanOrEqual(2);
    }),
    { numRuns: 40 },
  );
});

describe('what a plain outline cuts', () => {
  const cut = (fill: Paint, opacity = 1) => [
    path(rectanglePath({ x: 100, y: 60, width: 300, height: 200 }), fill, IDENTITY_PLANE, opacity),
  ];
  const inside = [
    path(EVERYWHERE, solid('#3070A0')),
    path(ellipsePath({ x: 60, y: 20, width: 300, height: 300 }), solid('#F0C040')),
  ];
  const kinds = (ops: readonly Op[]) => new Set(ops.map(({ op }) => op));

  it('is a clip, and looks as it would through alpha', () => {
    const clipped = within(inside, cut(solid('#FFFFFF')));
    expect(kinds(clipped)).toEqual(new Set(['clip', 'path', 'unclip']));
    // Barely more than full alpha less one level: the way of groups.
    const through = within(inside, cut(solid('#FFFFFFFE')));
    expect(kinds(through)).toEqual(new Set(['open', 'path', 'close']));
    // Where an edge of what is inside meets the cut, hosts count what a pixel covers in another way.
    expect(mean(pixels(clipped, false), pixels(through, false))).toBeLessThan(0.3);
  });

  it.each([
    ['one that is half clear', within(inside, cut(solid('#FFFFFF'), 0.5))],
    ['one that is turned inside out', within(inside, cut(solid('#FFFFFF')), true)],
    ['one whose light counts', within(inside, cut(solid('#FFFFFF')), false, true)],
    [
      'one with a soft edge',
      within(inside, cut(solid('#FFFFFF')), false, false, [{ effect: 'blur', radius: 4 }]),
    ],
    ['several', within(inside, [...cut(solid('#FFFFFF')), ...cut(solid('#FFFFFF'))])],
    [
      'what meets the ground by a blend',
      within([{ ...inside[0]!, blend: 'multiply' } as Op], cut(solid('#FFFFFF'))),
    ],
  ])('goes through alpha for %s', (_, ops) => {
    expect(kinds(ops).has('clip')).toBe(false);
  });
});
