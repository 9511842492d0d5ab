import { createNodeSurface, type NodeStudio } from '@fresh-reel/node-host';
import fc from 'fast-check';
import { TREATMENTS } from '../edit/treatmentKinds';
import { IDENTITY_PLANE } from '../geometry/matrix';
import { rectanglePath } from '../geometry/path';
import type { Rect } from '../geometry/rect';
import type { Op } from '../paint/ops';
import { framedAt, framedOps } from '../reel/framing';
import { treatedOps } from '../reel/treated';
import { testStudio } from '../testing/studio';
import { layoutFrame } from '../values/frame';
import { type TreatmentKind, treatmentSchema } from './treatment';

let studio: NodeStudio;
beforeAll(async () => {
  studio = await testStudio();
});

const SIZE = { width: 960, height: 540 };
const FRAME = layoutFrame(SIZE);
const WHOLE = { x: 0, y: 0, width: FRAME.width, height: FRAME.height };
type Colour = readonly [number, number, number, number?];

const boxOp = (area: Rect, [r, g, b, a = 255]: Colour): Op => ({
  op: 'path',
  path: rectanglePath(area),
  plane: IDENTITY_PLANE,
  fill: { kind: 'solid', colour: `rgba(${r}, ${g}, ${b}, ${a / 255})` },
  opacity: 1,
});

/** Operations with treatments over all of the frame, painted; and the colour of a pixel. */
function painted(ops: readonly Op[], treatments: readonly object[], framing?: object, time = 0) {
  const parsed = treatments.map((t, i) => treatmentSchema.parse({ id: `t${i}`, ...t }));
  const treated = treatedOps({ ops, regions: [], notices: [], parts: [] }, parsed, time, FRAME);
  const lies = framedAt(framing as never, time, FRAME);
  const surface = createNodeSurface(SIZE.width, SIZE.height);
  studio.painter.paint(framedOps(treated, lies, 1, FRAME), surface, FRAME);
  const { data } = surface.context.getImageData(0, 0, SIZE.width, SIZE.height);
  return (x: number, y: number) => [...data.subarray((y * SIZE.width + x) * 4, (y * SIZE.width + x) * 4 + 4)];
}
const middle = (colour: Colour, ...treatments: object[]) =>
  painted([boxOp(WHOLE, colour)], treatments)(480, 270);
const bounded = (v: number) => Math.min(255, Math.max(0, v));
const near = (found: readonly number[], wanted: readonly number[], by: number) =>
  wanted.every((v, i) => Math.abs(found[i]! - v) <= by);

const level = fc.integer({ min: 0, max: 255 });
const colours = fc.tuple(level, level, level);

describe('colour, against the formulas of W3C Filter Effects 1, §6', () => {
  const amounts = fc.double({ min: 0, max: 2, noNaN: true });
  it('brightness times every colour', () => {
    fc.assert(
      fc.property(colours, amounts, (c, amount) =>
        near(
          middle(c, { effect: 'brightness', amount }),
          c.map((v) => bounded(v * amount)),
          1,
        ),
      ),
      { numRuns: 15 },
    );
  });

  it('contrast about the middle grey', () => {
    fc.assert(
      fc.property(colours, amounts, (c, amount) =>
        near(
          middle(c, { effect: 'contrast', amount }),
          c.map((v) => bounded((v / 255) * amount * 255 + (0.5 - 0.5 * amount) * 255)),
          1,
        ),
      ),
      { numRuns: 15 },
    );
  });

  it('saturation by its matrix', () => {
    fc.assert(
      fc.property(colours, amounts, ([r, g, b], s) => {
        // §6.4: the three rows of the matrix of `saturate`.
        const wanted = [
          (0.213 + 0.787 * s) * r + (0.715 - 0.715 * s) * g + (0.072 - 0.072 * s) * b,
          (0.213 - 0.213 * s) * r + (0.715 + 0.285 * s) * g + (0.072 - 0.072 * s) * b,
          (0.213 - 0.213 * s) * r + (0.715 - 0.715 * s) * g + (0.072 + 0.928 * s) * b,
        ].map(bounded);
        return near(middle([r, g, b], { effect: 'saturation', amount: s }), wanted, 2);
      }),
      { numRuns: 15 },
    );
  });

  it('tint keeps the luminosity, as the blend mode `color` does (Compositing 1, §10.2)', () => {
    const lum = ([r, g, b]: readonly number[]) => 0.3 * r! + 0.59 * g! + 0.11 * b!;
    fc.assert(
      fc.property(fc.tuple(level, level, level), (c) => {
        const found = middle(c, { effect: 'tint', colour: '#C8431C', amount: 1 });
        return Math.abs(lum(found) - lum(c)) < 3;
      }),
      { numRuns: 15 },
    );
    // A grey takes the hue: red is most of it.
    const [r, g, b] = middle([128, 128, 128], { effect: 'tint', colour: '#C8431C', amount: 1 });
    expect(r! > g! && g! > b!).toBe(true);
    expect(
      near(middle([90, 120, 30], { effect: 'tint', colour: '#C8431C', amount: 0 }), [90, 120, 30], 0),
    ).toBe(true);
  });
});

describe('what has transparent parts keeps them', () => {
  const kinds = Object.keys(TREATMENTS) as TreatmentKind[];
  /** What adds light, ink or shadow of its own, or takes grains away, changes how much covers the ground. */
  const own: readonly TreatmentKind[] = ['glow', 'halftone', 'chalk', 'bleed', 'long-shadow', 'neon'];
  /** Colours that stand apart cover together what each covers alone. */
  const plain: Partial<Record<TreatmentKind, object>> = { blur: { inside: true }, tape: { run: 0 } };
  it.each(kinds.filter((k) => !own.includes(k)))('%s leaves half transparent half transparent', (effect) => {
    const { fresh } = TREATMENTS[effect];
    const treatment = { ...fresh, ...plain[effect] };
    const [, , , alpha] = painted([boxOp(WHOLE, [200, 90, 40, 128])], [treatment])(200, 270);
    expect(Math.abs(alpha! - 128)).toBeLessThanOrEqual(2);
  });

  it.each(kinds)('%s paints nothing where there is nothing', (effect) => {
    const pixel = painted(
      [boxOp({ x: 0, y: 0, width: 400, height: 400 }, [200, 90, 40])],
      [TREATMENTS[effect].fresh],
    );
    expect(pixel(700, 400)).toEqual([0, 0, 0, 0]);
  });

  it.each(kinds)('%s fades with its item as one', (effect) => {
    const { fresh } = TREATMENTS[effect];
    const inside = effect === 'blur' ? { inside: true } : {};
    const pixel = painted([boxOp(WHOLE, [200, 90, 40])], [{ ...fresh, ...inside }], { opacity: 0.5 });
    expect(Math.abs(pixel(480, 270)[3]! - 128)).toBeLessThanOrEqual(2);
  });
});

describe('blur', () => {
  it('of a picture that fills the frame stays opaque up to the corners, in its own colours', () => {
    const pixel = painted([boxOp(WHOLE, [200, 90, 40])], [{ effect: 'blur', radius: 30, inside: true }]);
    const edges = [pixel(0, 0), pixel(959, 0), pixel(0, 539), pixel(959, 539), pixel(480, 0)];
    expect(edges.filter((c) => !near(c, [200, 90, 40, 255], 8))).toEqual([]);
  });

  it('of anything else spreads', () => {
    const pixel = painted(
      [boxOp({ x: 400, y: 200, width: 600, height: 600 }, [255, 255, 255])],
      [{ effect: 'blur', radius: 30 }],
    );
    expect(pixel(190, 250)[3]).toBeGreaterThan(20);
  });
});

describe('sharpen', () => {
  it('leaves one colour as it is, and makes an edge overshoot by its amount', () => {
    expect(near(middle([120, 90, 200], { effect: 'sharpen', amount: 2, radius: 4 }), [120, 90, 200], 1)).toBe(
      true,
    );
    const halves = [
      boxOp({ ...WHOLE, width: 960 }, [100, 100, 100]),
      boxOp({ ...WHOLE, x: 960, width: 960 }, [160, 160, 160]),
    ];
    const pixel = painted(halves, [{ effect: 'sharpen', amount: 1, radius: 8 }]);
    // Beside the edge the blur is at the middle of both, nearly: 100 − 30 and 160 + 30.
    expect(Math.abs(pixel(479, 270)[0]! - 73)).toBeLessThan(6);
    expect(Math.abs(pixel(480, 270)[0]! - 187)).toBeLessThan(6);
    expect(pixel(300, 270)[0]).toBe(100);
  });
});

describe('vignette', () => {
  const on = (framing?: object) =>
    painted([boxOp(WHOLE, [200, 200, 200])], [{ effect: 'vignette', amount: 1, clear: 0.4 }], framing);
  it('leaves the middle, darkens all corners alike, and to black at full amount', () => {
    const pixel = on();
    expect(pixel(480, 270)[0]).toBe(200);
    const corner = pixel(1, 1)[0]!;
    expect(corner).toBeLessThan(8);
    for (const [x, y] of [
      [958, 1],
      [1, 538],
      [958, 538],
    ] as const)
      expect(Math.abs(pixel(x, y)[0]! - corner)).toBeLessThanOrEqual(2);
  });

  it('goes with its item where that is moved, scaled and turned', () => {
    const pixel = on({ move: [300, 100], scale: 0.5, turn: 90 });
    // The middle of the frame is now at (960 + 300, 540 + 100) units.
    expect(pixel(630, 320)[0]).toBe(200);
    // Turned by a quarter: it is 540 high at half size to the sides, 960 from top to bottom.
    expect(pixel(630 - 133, 320 - 238)[0]).toBeLessThan(20);
    // On the middle of a side, 1/√2 of the way to the corners.
    expect(Math.abs(pixel(630 - 133, 320)[0]! - 97)).toBeLessThan(10);
  });
});

describe('grain', () => {
  it('is about its colour, stays for two frames, and belongs to the frame', () => {
    const ops = [boxOp(WHOLE, [128, 128, 128])];
    const of = (time: number) => painted(ops, [{ effect: 'grain', amount: 0.5, size: 2 }], undefined, time);
    const row = (pixel: ReturnType<typeof painted>) =>
      Array.from({ length: 400 }, (_, x) => pixel(x, 200)[0]!);
    const first = row(of(0));
    expect(new Set(first).size).toBeGreaterThan(20);
    expect(Math.abs(first.reduce((a, b) => a + b, 0) / first.length - 128)).toBeLessThan(6);
    expect(row(of(1))).toEqual(first);
    expect(row(of(2))).not.toEqual(first);
  });
});

describe('glow', () => {
  it('shines from what is bright into what lies beside it, and not from what is dark', () => {
    const scene = (c: number) => [
      boxOp(WHOLE, [20, 20, 20]),
      boxOp({ x: 860, y: 440, width: 200, height: 200 }, [c, c, c]),
    ];
    const beside = (c: number) =>
      painted(scene(c), [{ effect: 'glow', amount: 1, radius: 60 }])(415, 270)[0]!;
    expect(beside(255)).toBeGreaterThan(70);
    expect(beside(60)).toBeLessThan(30);
  });
});

describe('in order', () => {
  it('each works on what the one before it made', () => {
    const dark = { effect: 'brightness', amount: 0.5 };
    const hard = { effect: 'contrast', amount: 2 };
    expect(middle([150, 150, 150], dark, hard)[0]).toBe(bounded(75 * 2 - 127.5) | 0);
    expect(Math.abs(middle([150, 150, 150], hard, dark)[0]! - (150 * 2 - 127.5) / 2)).toBeLessThan(2);
  });

  it('what is off is not there, and amounts follow their keys', () => {
    expect(middle([150, 90, 60], { effect: 'brightness', amount: 0, off: true })).toEqual([150, 90, 60, 255]);
    const keys = {
      keys: [
        { at: 0, of: 'in', value: 1, ease: 'linear' },
        { at: 50, of: 'in', value: 0 },
      ],
    };
    const ops = [boxOp(WHOLE, [200, 200, 200])];
    const at = (time: number) =>
      painted(ops, [{ effect: 'brightness', amount: keys }], undefined, time)(480, 270)[0]!;
    expect([at(0), at(25), at(50), at(90)]).toEqual([200, 100, 0, 0]);
  });

  it('any of them combine: nothing throws, and what is opaque stays so, but for the gaps of chalk', () => {
    const kind = fc.constantFrom(...(Object.keys(TREATMENTS) as TreatmentKind[]));
    fc.assert(
      fc.property(fc.array(kind, { minLength: 2, maxLength: 4 }), (list) => {
        const treatments = list.map((k) => ({
          ...TREATMENTS[k].fresh,
          ...(k === 'blur' ? { inside: true } : {}),
        }));
        const pixel = painted([boxOp(WHOLE, [180, 90, 40])], treatments, { turn: 5, scale: 1.3 });
        return list.includes('chalk') || pixel(480, 270)[3]! >= 253;
      }),
      { numRuns: 12 },
    );
  });
});
