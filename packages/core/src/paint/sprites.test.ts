import { createNodeSurface, type NodeStudio } from '@fresh-reel/node-host';
import { ellipsePath, joinPaths } from '../geometry/path';
import { testStudio } from '../testing/studio';
import { layoutFrame } from '../values/frame';
import type { Op } from './ops';

let studio: NodeStudio;
beforeAll(async () => {
  studio = await testStudio();
});

const FRAME = { width: 960, height: 540 };
const units = layoutFrame(FRAME);
const ring = joinPaths([
  ellipsePath({ x: 0, y: -20, width: 60, height: 20 }),
  ellipsePath({ x: 70, y: -20, width: 60, height: 20 }),
]);
const word = (k: number, x: number, small: boolean): Op => ({
  op: 'path',
  path: ring,
  plane: [k, 0, x, 0, k, 500.3, 0, 0, 1],
  fill: { kind: 'solid', colour: '#FF8000' },
  opacity: 0.8,
  ...(small ? { small: true } : {}),
});
const painted = (ops: readonly Op[]) => {
  const surface = createNodeSurface(FRAME.width, FRAME.height);
  studio.painter.paint(ops, surface, units);
  return surface.context.getImageData(0, 0, FRAME.width, FRAME.height).data;
};

/** Whether two pictures are the same; a difference is not printed, pixel by pixel. */
const same = (a: Uint8ClampedArray, b: Uint8ClampedArray) => a.every((v, i) => v === b[i]);

describe('small words laid from a picture', () => {
  it('look as they do when they are painted, at any size and place', () => {
    for (const [k, x] of [
      [1, 200],
      [1.37, 411.7],
      [2.1, 600.2],
    ] as const) {
      const [own, laid] = [painted([word(k, x, false)]), painted([word(k, x, true)])];
      const sum = (data: Uint8ClampedArray) => data.reduce((n, v, i) => (i % 4 === 3 ? n + v : n), 0);
      const differs = own.reduce((n, v, i) => n + Math.abs(v - laid[i]!), 0) / own.reduce((n, v) => n + v, 0);
      expect(differs).toBeLessThan(0.16);
      expect(Math.abs(sum(laid) / sum(own) - 1)).toBeLessThan(0.02);
    }
  });

  it('do not depend on what was laid before', () => {
    const first = painted([word(1.37, 400, true)]);
    painted([word(1.2, 400, true)]);
    painted([word(2.9, 400, true)]);
    expect(same(painted([word(1.37, 400, true)]), first)).toBe(true);
  });

  it('are painted as they are where they are turned, or large', () => {
    const turned: Op = { ...word(1, 400, true), plane: [0.8, -0.6, 500, 0.6, 0.8, 500, 0, 0, 1] } as Op;
    const { small: _, ...plain } = turned as Extract<Op, { op: 'path' }>;
    expect(same(painted([turned]), painted([plain]))).toBe(true);
    expect(same(painted([word(40, 10, true)]), painted([word(40, 10, false)]))).toBe(true);
  });
});
