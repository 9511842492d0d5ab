import { createNodeSurface, type NodeStudio } from '@fresh-reel/node-host';
import fc from 'fast-check';
import { luminance, parseColour } from '../colour/colour';
import { IDENTITY_PLANE } from '../geometry/matrix';
import { rectanglePath } from '../geometry/path';
import type { Rect } from '../geometry/rect';
import { withEffects } from '../paint/compose';
import type { Op } from '../paint/ops';
import { testStudio } from '../testing/studio';
import { layoutFrame } from '../values/frame';
import { lensSource } from './bulge';
import { type Effect, effectSchema, resolveEffect } from './registry';

let studio: NodeStudio;
beforeAll(async () => {
  studio = await testStudio();
});

const SIZE = { width: 480, height: 270 };
const FRAME = layoutFrame(SIZE);
/** Frame units of a pixel. */
const UNIT = FRAME.width / SIZE.width;

const box = (x: number, y: number, width: number, height: number, colour = '#FF8000'): Op => ({
  op: 'path',
  path: rectanglePath({ x: x * UNIT, y: y * UNIT, width: width * UNIT, height: height * UNIT }),
  plane: IDENTITY_PLANE,
  fill: { kind: 'solid', colour },
  opacity: 1,
});

const effectAt = (document: object, time = 0, area: Rect = { x: 0, y: 0, ...FRAME }): Effect | undefined =>
  resolveEffect(
    effectSchema.parse(document),
    { value: (p) => p as never, time, box: area, plane: IDENTITY_PLANE },
    1,
  );

function paint(ops: readonly Op[], document: object, time = 0, size = SIZE) {
  const effect = effectAt(document, time);
  const surface = createNodeSurface(size.width, size.height);
  studio.painter.paint(effect ? withEffects(ops, [effect]) : ops, surface, FRAME);
  const { data } = surface.context.getImageData(0, 0, size.width, size.height);
  const at = (x: number, y: number) => [
    ...data.subarray((y * size.width + x) * 4, (y * size.width + x) * 4 + 4),
  ];
  return { data, at };
}

const SHAPE = [box(180, 100, 120, 70)];
const ALL: readonly [name: string, strong: object, none: object][] = [
  ['tremble', { amount: 20 }, { amount: 0 }],
  ['flow', { colours: ['#FF0000', '#00FF00'] }, { colours: ['#FF0000', '#00FF00'], amount: 0 }],
  ['bulge', { amount: 0.8, radius: 300 }, { amount: 0 }],
  ['tape', { amount: 1, tracking: 0.5, noise: 1, run: 20 }, { amount: 0 }],
  ['crumple', { amount: 1, size: 60 }, { amount: 0 }],
  ['bleed', { amount: 12 }, { amount: 0 }],
  ['long-shadow', { length: 200 }, { length: 0 }],
  ['chalk', { amount: 0.5 }, { amount: 0 }],
  ['halftone', { cell: 20 }, { amount: 0 }],
];

describe('surfaces and periods', () => {
  it.each(ALL)('%s changes what it is put on, and nothing where it is nothing', (effect, strong, none) => {
    const plain = paint(SHAPE, { effect: 'blur', radius: 0 }).data;
    const same = (data: Uint8ClampedArray) => data.every((v, i) => v === plain[i]);
    expect(same(paint(SHAPE, { effect, ...strong }).data)).toBe(false);
    expect(effectAt({ effect, ...none })).toBeUndefined();
  });

  it.each(ALL)(
    '%s is the same whichever frame is made first, and leaves the corners clear',
    (effect, strong) => {
      const document = { effect, ...strong };
      const first = paint(SHAPE, document, 42);
      paint(SHAPE, document, 7);
      paint(SHAPE, document, 99);
      const again = paint(SHAPE, document, 42);
      expect(again.data.every((v, i) => v === first.data[i])).toBe(true);
      expect(first.at(1, 1)[3]).toBe(0);
    },
  );

  it('hostile amounts are refused by name', () => {
    for (const [effect, strong] of ALL)
      for (const bad of [Number.NaN, 1e6, Number.POSITIVE_INFINITY]) {
        const key = 'length' in strong ? 'length' : 'amount';
        const parsed = effectSchema.safeParse({ effect, ...strong, [key]: bad });
        expect({ effect, bad, taken: parsed.success }).toEqual({ effect, bad, taken: false });
      }
  });
});

describe('a lens', () => {
  it('maps every place within it to one within it, in order, and its rim to itself', () => {
    fc.assert(
      fc.property(fc.double({ min: -1, max: 1, noNaN: true }), (amount) => {
        let before = -1e-9;
        for (let i = 0; i <= 100; i++) {
          const source = lensSource(i / 100, amount);
          expect(source).toBeGreaterThan(before);
          before = source;
        }
        expect(lensSource(1, amount)).toBeCloseTo(1, 12);
      }),
    );
  });

  it('enlarges its middle as the mapping says, without seams', () => {
    const radius = 400;
    const amount = 0.7;
    // Two lines up and down, so far from the middle; each shows where its place comes from.
    const off = 40;
    const { at } = paint([box(0, 0, 480, 270, '#0000FF'), box(240 + off, 0, 2, 270)], {
      effect: 'bulge',
      amount,
      radius,
    });
    const red = (x: number) => at(x, 135)[0]!;
    const brightest = Array.from({ length: 200 }, (_, i) => 241 + i).reduce((a, b) =>
      red(b) > red(a) ? b : a,
    );
    // The place whose source is 41 pixels from the middle.
    const r = radius / UNIT;
    const wanted =
      Array.from({ length: 1000 }, (_, i) => i / 1000).find((p) => lensSource(p, amount) * r >= off + 1)! * r;
    expect(Math.abs(brightest - 240 - wanted)).toBeLessThan(4);
    // All of it is covered.
    for (let x = 150; x < 330; x++) expect(at(x, 135)[3]).toBe(255);
  });
});

describe('a long shadow', () => {
  it('goes as far as it is told, in its own colour, under what casts it', () => {
    const length = 60 * UNIT;
    const { at } = paint(SHAPE, { effect: 'long-shadow', angle: 0, length, colour: '#0000FF', opacity: 1 });
    expect(at(240, 135)).toEqual([255, 128, 0, 255]);
    expect(at(330, 135)).toEqual([0, 0, 255, 255]);
    expect(at(358, 135)[3]).toBe(255);
    expect(at(364, 135)[3]).toBe(0);
    expect(at(170, 135)[3]).toBe(0);
  });
});

describe('printed dots', () => {
  it.each([0.2, 0.5, 0.8])('cover as much of the paper as the picture is dark: %s', (dark) => {
    const v = Math.round(255 * (1 - dark))
      .toString(16)
      .padStart(2, '0');
    const grey = `#${v}${v}${v}`;
    // The share of white that an even tone lacks, by its coded value weighed as luma: common practice in screening.
    const lacks = 1 - parseColour(grey)[0];
    const { data } = paint([box(0, 0, 480, 270, grey)], { effect: 'halftone', cell: 40, ink: '#000000' });
    const covered = data.reduce((n, a, i) => (i % 4 === 3 ? n + a / 255 : n), 0) / (480 * 270);
    expect(Math.abs(covered - lacks)).toBeLessThan(0.07);
    expect(luminance(grey)).toBeGreaterThan(0);
  });
});

describe('neon', () => {
  it('is nearly white in its core, its colour around it, and dark glass while it is off', () => {
    const tube = [box(230, 60, 20, 150, '#FF00FF')];
    const on = paint(tube, { effect: 'neon', amount: 1, colour: '#FF00FF', radius: 40, hum: 0 });
    const [r, g, b] = on.at(240, 135);
    expect(Math.min(r!, g!, b!)).toBeGreaterThan(150);
    const beside = on.at(262, 135);
    expect(beside[3]).toBeGreaterThan(20);
    expect(beside[1]).toBeLessThan(40);
    const off = paint(tube, { effect: 'neon', amount: 0, colour: '#FF00FF', radius: 40 });
    expect(off.at(240, 135)[0]).toBeLessThan(120);
    expect(off.at(262, 135)[3]).toBe(0);
  });

  it('fails now and then, always at the same moments', () => {
    const strength = (time: number, seed = 3) => {
      const effect = effectAt(
        { effect: 'neon', amount: 1, colour: '#FFFFFF', flicker: 1, hum: 0, seed },
        time,
      );
      return effect?.effect === 'neon' ? effect.amount : 0;
    };
    const row = Array.from({ length: 200 }, (_, t) => strength(t));
    expect(row.filter((v) => v < 0.7).length).toBeGreaterThan(40);
    expect(row.filter((v) => v === 1).length).toBeGreaterThan(40);
    expect(row).toEqual(Array.from({ length: 200 }, (_, t) => strength(t)));
    expect(row).not.toEqual(Array.from({ length: 200 }, (_, t) => strength(t, 4)));
  });
});

describe('running ink', () => {
  it('spreads, and takes nothing away', () => {
    const own = paint(SHAPE, { effect: 'blur', radius: 0 });
    const run = paint(SHAPE, { effect: 'bleed', amount: 16, uneven: 0 });
    const sum = (data: Uint8ClampedArray) => data.reduce((n, v, i) => (i % 4 === 3 ? n + v : n), 0);
    expect(sum(run.data)).toBeGreaterThan(sum(own.data) * 1.05);
    for (let i = 3; i < own.data.length; i += 4) if (own.data[i] === 255) expect(run.data[i]).toBe(255);
  });
});

describe('flowing bands', () => {
  it('are of their colours alone, and a band later each is where the next one was', () => {
    const document = { effect: 'flow', colours: ['#FF0000', '#00FF00'], band: 120, swing: 0, every: 60 };
    const [now, later] = [paint(SHAPE, document, 0), paint(SHAPE, document, 60)];
    const colours = new Set([105, 120, 135, 150, 165].map((y) => now.at(240, y).join()));
    for (const c of colours) expect(['255,0,0,255', '0,255,0,255']).toContain(c);
    for (const y of [105, 120, 135]) expect(later.at(240, y + 30)).toEqual(now.at(240, y));
  });
});
