import { createNodeSurface, type NodeStudio } from '@fresh-reel/node-host';
import fc from 'fast-check';
import { IDENTITY_PLANE } from '../geometry/matrix';
import { grouped } from '../paint/compose';
import { type Op, sameOps } from '../paint/ops';
import { sceneOf, templateOf, testStudio } from '../testing/studio';
import { layoutFrame } from '../values/frame';
import { type EffectDocument, resolveEffect } from './registry';

let studio: NodeStudio;
beforeAll(async () => {
  studio = await testStudio();
});

const SIZE = { width: 960, height: 540 };
const FRAME = layoutFrame(SIZE);
const box = (
  id: string,
  at: [number, number],
  size: [number, number],
  colour: string,
  part: object = {},
) => ({
  id,
  kind: 'shape',
  outline: { kind: 'rectangle' },
  offset: at,
  size,
  fill: { colour },
  ...part,
});
const momentAt = (time: number) => ({
  value: (p: unknown) => p as never,
  time,
  box: { x: 0, y: 0, width: 1920, height: 1080 },
  plane: IDENTITY_PLANE,
});
/** Layers painted at 960 × 540, and the colour of a pixel of it. */
function painted(layers: readonly object[], time = 0) {
  const { ops } = sceneOf(studio, templateOf(layers)).evaluate(time);
  return pixelsOf(ops);
}
function pixelsOf(ops: readonly Op[]) {
  const surface = createNodeSurface(SIZE.width, SIZE.height);
  studio.painter.paint(ops, surface, FRAME);
  const { data } = surface.context.getImageData(0, 0, SIZE.width, SIZE.height);
  return (x: number, y: number) => [...data.subarray((y * SIZE.width + x) * 4, (y * SIZE.width + x) * 4 + 4)];
}

describe('frost', () => {
  const plate = (part: object = {}) =>
    box('plate', [200, 200], [1000, 600], '#FFFFFF', {
      effects: [{ effect: 'frost', radius: 30, tint: 0.25 }],
      ...part,
    });
  const halves = [
    box('left', [0, 0], [700, 1080], '#000000'),
    box('right', [700, 0], [1220, 1080], '#FFFFFF'),
  ];

  it('shows what lies behind out of focus, within the shape and nowhere else', () => {
    const pixel = painted([...halves, plate()]);
    // On the edge of black and white the blur comes to half; a quarter of white lies on it: 128 + 127 / 4.
    expect(Math.abs(pixel(350, 250)[0]! - 160)).toBeLessThan(6);
    expect(pixel(330, 250)[0]).toBeGreaterThan(70);
    expect(pixel(345, 40)).toEqual([0, 0, 0, 255]);
    expect(pixel(355, 40)).toEqual([255, 255, 255, 255]);
  });

  it('leaves one colour as it is, up to the edge of the frame', () => {
    const whole = plate({ offset: [-50, -50], size: [2100, 1300] });
    const pixel = painted([box('ground', [0, 0], [1920, 1080], '#C00000'), whole]);
    for (const [x, y] of [
      [0, 0],
      [959, 0],
      [0, 539],
      [959, 539],
      [480, 270],
      [480, 0],
    ] as const) {
      const [r, g, , a] = pixel(x, y);
      // A quarter of white over it: 192 + 63 / 4 and 64.
      expect(Math.abs(r! - 208)).toBeLessThan(3);
      expect(Math.abs(g! - 64)).toBeLessThan(3);
      expect(a).toBe(255);
    }
  });

  it('sees through a group that fades as one, and not past one that is a whole of its own', () => {
    const group = (part: object) => ({ id: 'g', kind: 'group', layers: [plate()], ...part });
    const open = painted([...halves, group({})]);
    expect(Math.abs(open(350, 250)[0]! - 160)).toBeLessThan(6);
    const apart = painted([...halves, group({ opacity: 0.999 })]);
    // Within the whole there is nothing behind: the edge stays sharp.
    expect(apart(345, 250)[0]).toBeLessThan(80);
  });

  it('keeps to the picture of each moment under motion blur', () => {
    const scene = (x: number) =>
      sceneOf(studio, templateOf([...halves, plate({ offset: [x, 200] })])).evaluate(0).ops;
    const surface = createNodeSurface(SIZE.width, SIZE.height);
    studio.painter.paintMoments([scene(200), scene(200.5)], surface, FRAME);
    const [r] = surface.context.getImageData(350, 250, 1, 1).data;
    expect(Math.abs(r! - 160)).toBeLessThan(6);
  });
});

describe('tear', () => {
  const tear = (part: object = {}) =>
    ({
      effect: 'tear',
      only: undefined,
      band: 40,
      shift: 80,
      amount: 1,
      every: 3,
      seed: 5,
      ...part,
    }) as EffectDocument;
  const at = (time: number, part: object = {}) => resolveEffect(tear(part), momentAt(time), 1)!;
  const stripe = (y: number, height: number): Op[] => [
    {
      op: 'path',
      path: {
        commands: [['M', 900, y], ['L', 1000, y], ['L', 1000, y + height], ['L', 900, y + height], ['Z']],
      },
      plane: [1, 0, 0, 0, 1, 0, 0, 0, 1],
      fill: { kind: 'solid', colour: '#FFFFFF' },
      opacity: 1,
    },
  ];
  /** Where the white begins in a row of pixels. */
  const begins = (pixel: ReturnType<typeof pixelsOf>, y: number) => {
    for (let x = 0; x < SIZE.width; x++) if (pixel(x, y)[3]! > 128) return x;
    return undefined;
  };

  it('stays for its frames, and then goes elsewhere', () => {
    const ops = (time: number) => grouped(stripe(100, 800), { effects: [at(time)] });
    expect(sameOps(ops(0), ops(2.9))).toBe(true);
    expect(sameOps(ops(0), ops(3))).toBe(false);
    const rows = [60, 90, 110, 150, 200];
    const before = rows.map((y) => begins(pixelsOf(ops(0)), y));
    expect(rows.map((y) => begins(pixelsOf(ops(3)), y))).not.toEqual(before);
    // All of a band goes as one: 40 units are 20 rows.
    expect(begins(pixelsOf(ops(0)), 81)).toBe(begins(pixelsOf(ops(0)), 98));
  });

  it('belongs to the frame: how much is painted, and where it begins, changes nothing', () => {
    fc.assert(
      fc.property(fc.integer({ min: 0, max: 500 }), fc.integer({ min: 120, max: 500 }), (y, height) => {
        const whole = pixelsOf(grouped(stripe(0, 1080), { effects: [at(0)] }));
        const part = pixelsOf(grouped(stripe(y, height), { effects: [at(0)] }));
        const row = Math.round((y + height / 2) / 2);
        return begins(part, row) === begins(whole, row);
      }),
      { numRuns: 20 },
    );
  });

  it('is nothing without amount or shift, and moves no farther than its shift', () => {
    expect(resolveEffect(tear({ amount: 0 }), momentAt(0), 1)).toBeUndefined();
    const pixel = pixelsOf(grouped(stripe(0, 1080), { effects: [at(0)] }));
    for (let y = 0; y < 540; y += 7) expect(Math.abs(begins(pixel, y)! - 450)).toBeLessThanOrEqual(40);
  });
});

describe('inner shadow', () => {
  const lit = { effect: 'inner-shadow', angle: 90, distance: 30, radius: 4, colour: '#000000', opacity: 1 };
  const plate = (part: object = {}) =>
    box('plate', [400, 300], [800, 400], '#FFFFFF', { effects: [lit], ...part });

  it('falls onto the content from its edge, the way it is thrown, and keeps to it', () => {
    const pixel = painted([plate()]);
    expect(pixel(400, 155)[0]).toBeLessThan(40);
    expect(pixel(400, 250)).toEqual([255, 255, 255, 255]);
    expect(pixel(400, 345)).toEqual([255, 255, 255, 255]);
    expect(pixel(400, 145)[3]).toBe(0);
    expect(pixel(400, 355)[3]).toBe(0);
  });

  it('is not thrown by the edge of the frame', () => {
    const pixel = painted([plate({ offset: [-100, -100], size: [2200, 1400] })]);
    expect(pixel(400, 1)).toEqual([255, 255, 255, 255]);
  });

  it('leaves half-clear content as clear as it was', () => {
    const [plain, shaded] = [
      painted([plate({ effects: [], opacity: 0.5 })]),
      painted([plate({ opacity: 0.5 })]),
    ];
    for (const y of [148, 150, 160, 349, 350]) expect(shaded(300, y)[3]).toBe(plain(300, y)[3]);
  });
});
