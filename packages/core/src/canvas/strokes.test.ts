import { readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import { createNodeSurface, type NodeStudio } from '@fresh-reel/node-host';
import { StrokeLayer } from '@fresh-reel/pixels/strokes';
import fc from 'fast-check';
import { IDENTITY_PLANE } from '../geometry/matrix';
import type { Op } from '../paint/ops';
import { testStudio } from '../testing/studio';
import { layoutFrame } from '../values/frame';
import { layStrokes, strokesBounds, strokesInPixels } from './strokes';

let studio: NodeStudio;
let kernel: StrokeLayer;
beforeAll(async () => {
  studio = await testStudio();
  const path = createRequire(__filename).resolve('@fresh-reel/pixels/kernel.wasm');
  kernel = await StrokeLayer.load(readFileSync(path));
});

const stroke = (...numbers: number[]) => [...numbers, 0, 1];
const laid = (rows: number[], colours: string[], width: number, height: number) =>
  layStrokes(strokesInPixels(Float32Array.from(rows), colours, IDENTITY_PLANE), width, height);
const pixel = (data: Uint8ClampedArray, width: number, x: number, y: number) => [
  ...data.slice((y * width + x) * 4, (y * width + x) * 4 + 4),
];

describe('strokes', () => {
  it('cover what lies within half their width', () => {
    // A level line 4 high from 4 to 12: rows 6 to 9.
    const data = laid(stroke(4, 8, 2, 12, 8, 2), ['#FF8000'], 16, 16);
    for (const y of [6, 7, 8, 9]) expect(pixel(data, 16, 8, y)).toEqual([255, 128, 0, 255]);
    expect(pixel(data, 16, 8, 5)[3]).toBe(0);
    expect(pixel(data, 16, 8, 10)[3]).toBe(0);
    // Its ends are round: half of a disc beyond each.
    const total = data.reduce((sum, v, i) => (i % 4 === 3 ? sum + v / 255 : sum), 0);
    expect(total).toBeCloseTo(8 * 4 + Math.PI * 4, 0);
  });

  it('lie over each other as Porter and Duff have it, in straight colours', () => {
    const rows = [8, 8, 6, 8, 8, 6, 0, 0.5, 8, 8, 6, 8, 8, 6, 1, 0.5];
    const data = laid(rows, ['#FF0000', '#0000FF'], 16, 16);
    // Over: 0.5 blue, and 0.5 of 0.5 red; alpha 0.75.
    expect(pixel(data, 16, 8, 8)).toEqual([85, 0, 170, 191]);
  });

  it('fade where they are thinner than a pixel', () => {
    const sum = (half: number) =>
      laid(stroke(2, 8.5, half, 14, 8.5, half), ['#FFFFFF'], 16, 16).reduce(
        (n, v, i) => (i % 4 === 3 ? n + v : n),
        0,
      );
    expect(sum(0.125) / sum(0.5)).toBeCloseTo(0.25, 1);
  });

  it('what is not finite, has no colour or no width is left out', () => {
    const bad = [
      NaN,
      1,
      1,
      2,
      2,
      1,
      0,
      1,
      1,
      1,
      1,
      Infinity,
      2,
      1,
      0,
      1,
      1,
      1,
      1,
      2,
      2,
      1,
      7,
      1,
      1,
      1,
      0,
      2,
      2,
      0,
      0,
      1,
    ];
    expect(strokesInPixels(Float32Array.from(bad), ['#FFFFFF'], IDENTITY_PLANE)).toHaveLength(0);
    expect(strokesBounds(new Float32Array(0))).toEqual({ x: 0, y: 0, width: 0, height: 0 });
  });

  it('the kernel lays them as the core does, in one band or in many', () => {
    const number = (max: number) => fc.double({ min: -20, max, noNaN: true });
    const row = fc.tuple(
      number(90),
      number(70),
      fc.double({ min: 0, max: 9, noNaN: true }),
      number(90),
      number(70),
      fc.double({ min: 0, max: 9, noNaN: true }),
      fc.integer({ min: 0, max: 1 }),
      fc.double({ min: 0, max: 1, noNaN: true }),
    );
    fc.assert(
      fc.property(fc.array(row, { maxLength: 30 }), (rows) => {
        const made = strokesInPixels(
          Float32Array.from(rows.flat()),
          ['#C84A1C', '#1F6F8B80'],
          IDENTITY_PLANE,
        );
        const [own, theirs] = [layStrokes(made, 70, 50), kernel.lay(made, 70, 50)];
        own.forEach((v, i) => {
          // Colours of what is all but clear are lost in rounding.
          const least = i % 4 === 3 ? 255 : own[i - (i % 4) + 3]!;
          if (Math.abs(v - theirs[i]!) > (least < 24 ? 24 : 1))
            throw new Error(`${i}: ${v} and ${theirs[i]}`);
        });
      }),
      { numRuns: 60 },
    );
    // Wide enough that the kernel takes it in several bands: a line from corner to corner is whole.
    const wide = Float32Array.from([0, 0, 2, 4000, 600, 2, 255, 255, 255, 255]);
    const data = kernel.lay(wide, 4000, 600);
    for (let x = 10; x < 3990; x += 37)
      expect(data[(Math.floor((x + 0.5) * 0.15) * 4000 + x) * 4 + 3]).toBe(255);
  });

  it('are painted as one thing: they fade and blend together, wherever their plane lies', () => {
    const op: Op = {
      op: 'strokes',
      plane: [2, 0, 10, 0, 2, 10, 0, 0, 1],
      rows: Float32Array.from([...stroke(0, 20, 8, 60, 20, 8), ...stroke(30, 0, 8, 30, 40, 8)]),
      colours: ['#FFFFFF'],
      opacity: 0.5,
    };
    const surface = createNodeSurface(160, 100);
    studio.painter.paint([op], surface, layoutFrame({ width: 160, height: 100 }));
    const k = 160 / layoutFrame({ width: 160, height: 100 }).width;
    const at = (x: number, y: number) =>
      [
        ...surface.context.getImageData(Math.round((2 * x + 10) * k), Math.round((2 * y + 10) * k), 1, 1)
          .data,
      ][3];
    // Where the two cross it is no denser than elsewhere.
    expect(at(30, 20)).toBe(128);
    expect(at(10, 20)).toBe(128);
    expect(at(55, 5)).toBe(0);
  });
});
