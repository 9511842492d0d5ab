import { createNodeSurface, type NodeStudio } from '@fresh-reel/node-host';
import fc from 'fast-check';
import { pathBounds } from '../geometry/path';
import type { Op } from '../paint/ops';
import { sceneOf, templateOf, testStudio } from '../testing/studio';
import { layoutFrame } from '../values/frame';

let studio: NodeStudio;
beforeAll(async () => {
  studio = await testStudio();
});

const beam = (part: Record<string, unknown> = {}) => ({
  id: 'b',
  kind: 'beam',
  from: [0.25, 0.5],
  to: [0.75, 0.5],
  width: [10, 30],
  colour: '#00AAFF',
  ...part,
});
type PathOp = Extract<Op, { op: 'path' }>;
const opsAt = (part: Record<string, unknown>, time = 60) =>
  sceneOf(studio, templateOf([beam(part)])).evaluate(time).ops;
/** What is painted after all that is blurred: the cores. */
const cores = (part: Record<string, unknown>, time = 60) =>
  opsAt({ core: '#FFFFFF', ...part }, time).filter(
    (op): op is PathOp => op.op === 'path' && op.fill?.kind === 'solid' && /^#ffffff$/i.test(op.fill.colour),
  );

describe('a beam', () => {
  it('lies between its points, as wide at either end as it is said, and only as far as it has grown', () => {
    const [whole] = cores({});
    expect(pathBounds(whole!.path)).toEqual({ x: 480, y: 525, width: 960, height: 30 });
    const [half] = cores({ grown: 0.5, gone: 0.25 });
    // From a quarter to a half of its way; there it is 15 and 20 wide, as it widens evenly.
    expect(pathBounds(half!.path)).toEqual({ x: 720, y: 530, width: 240, height: 20 });
    expect(opsAt({ grown: 0.3, gone: 0.3 })).toEqual([]);
    expect(opsAt({ to: [0.25, 0.5] })).toEqual([]);
  });

  it('has beams beside it that are there from the start, or come a moment after', () => {
    const grown = {
      keys: [
        { at: 0, value: 0, ease: 'linear' },
        { at: 60, value: 1 },
      ],
    };
    const sides = { count: 2, apart: 40, strength: 0.5 };
    const widths = (ops: readonly PathOp[]) => ops.map((op) => Math.round(pathBounds(op.path).width));
    expect(widths(cores({ grown, sides }, 30))).toEqual([480, 480, 480, 480, 480]);
    // Two of them 20 frames after, two 10, and the beam itself.
    expect(widths(cores({ grown, sides: { ...sides, after: 10 } }, 30))).toEqual([160, 160, 320, 320, 480]);
    expect(cores({ grown, sides: { ...sides, after: 10 } }, 5)).toHaveLength(1);
  });

  it('is brightest in its core, and falls off to either side in its colour', () => {
    const surface = createNodeSurface(960, 540);
    const { ops } = sceneOf(studio, templateOf([beam({ width: [8, 8], glow: 80 })])).evaluate(60);
    studio.painter.paint(ops, surface, layoutFrame({ width: 960, height: 540 }));
    const { data } = surface.context.getImageData(480, 200, 1, 140);
    const alpha = (y: number) => data[(y - 200) * 4 + 3]!;
    expect([...data.subarray(70 * 4, 70 * 4 + 4)]).toEqual([255, 255, 255, 255]);
    const row = [270, 280, 290, 300, 315, 330].map(alpha);
    expect([...row].sort((a, b) => b - a)).toEqual(row);
    expect(row.at(-1)!).toBeLessThan(40);
    expect(alpha(260)).toBeCloseTo(alpha(279), -1);
    // Beyond the core there is more blue than red.
    expect(data[(290 - 200) * 4 + 2]!).toBeGreaterThan(data[(290 - 200) * 4]! + 60);
  });

  it('flickers by a seed, the same in any order', () => {
    const flicker = { amount: 0.8, every: 3 };
    const strengths = (times: readonly number[], seed = 1) =>
      times.map((t) => cores({ flicker, seed }, t)[0]!.opacity);
    const [forwards, backwards] = [strengths([10, 20, 30]), strengths([30, 20, 10]).reverse()];
    expect(backwards).toEqual(forwards);
    expect(new Set(forwards).size).toBe(3);
    expect(strengths([10, 20, 30], 2)).not.toEqual(forwards);
  });

  it('stays a list of numbers whatever it is given, and refuses what is none', () => {
    const wild = fc.double({ min: -50, max: 50, noNaN: true });
    const point = fc.tuple(wild, wild);
    fc.assert(
      fc.property(point, point, fc.nat(12), (from, to, count) => {
        for (const op of opsAt({ from, to, sides: { count, apart: 900, after: 3 }, flares: [90, 1e5] })) {
          if (op.op === 'path') expect(op.path.commands.flat().every((v) => !Number.isNaN(v))).toBe(true);
        }
      }),
      { numRuns: 30 },
    );
    for (const part of [
      { grown: 2 },
      { glow: -1 },
      { brightness: Number.NaN },
      { sides: { count: 1e6, apart: 1 } },
    ])
      expect(() => templateOf([beam(part)])).toThrow(/grown|glow|brightness|count/);
  });
});
