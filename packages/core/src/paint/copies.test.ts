import { createNodeSurface, type NodeStudio } from '@fresh-reel/node-host';
import { type Homography, multiply4, perspective4, planeOf, planeTimes, turn4 } from '../geometry/matrix';
import { ellipsePath } from '../geometry/path';
import { sceneOf, templateOf, testStudio } from '../testing/studio';
import { drawingBounds } from './bounds';
import { type Op, type Paint, sameOps } from './ops';

let studio: NodeStudio;
beforeAll(async () => {
  studio = await testStudio();
});

const FRAME = { width: 300, height: 200 };
const dot = ellipsePath({ x: 0, y: 0, width: 16, height: 10 });
/** Eight dots in two rows, each turned and scaled, the second row half over the first. */
const PLACES = Float32Array.from({ length: 8 }, (_, i) => i).reduce((all, i) => {
  const angle = i * 0.4;
  const k = 1 + i / 8;
  const [c, s] = [Math.cos(angle) * k, Math.sin(angle) * k];
  all.set([c, s, -s, c, 20 + (i % 4) * 30, 20 + Math.floor(i / 4) * 12], i * 6);
  return all;
}, new Float32Array(48));
const SOLID: Paint = { kind: 'solid', colour: '#C8431C' };
const GRADIENT: Paint = {
  kind: 'linear',
  from: [0, 0],
  to: [16, 0],
  stops: [
    [0, '#FF0000'],
    [1, '#0000FF'],
  ],
};
const FLAT: Homography = [1.2, 0.1, 10, -0.1, 1.2, 30, 0, 0, 1];
const TIPPED = planeOf(multiply4(perspective4(600, 150, 100), turn4(35, 25, 0)));

const copies = (part: object = {}): Extract<Op, { op: 'copies' }> => ({
  op: 'copies',
  path: dot,
  plane: FLAT,
  fill: SOLID,
  places: PLACES,
  opacity: 1,
  ...part,
});
const apart = ({ path, plane, fill, places, opacities }: Extract<Op, { op: 'copies' }>): Op[] =>
  Array.from({ length: places.length / 6 }, (_, i) => ({
    op: 'path',
    path,
    plane: planeTimes(plane, [...places.subarray(i * 6, i * 6 + 6)] as never),
    fill,
    opacity: opacities?.[i] ?? 1,
  }));
function pixels(ops: readonly Op[]): Uint8ClampedArray {
  const surface = createNodeSurface(FRAME.width, FRAME.height);
  studio.painter.paint(ops, surface, FRAME);
  return surface.context.getImageData(0, 0, FRAME.width, FRAME.height).data;
}
const most = (a: Uint8ClampedArray, b: Uint8ClampedArray) =>
  a.reduce((m, v, i) => Math.max(m, Math.abs(v - b[i]!)), 0);

describe('copies of an outline', () => {
  it.each([
    ['flat', { plane: FLAT }],
    ['in perspective', { plane: TIPPED }],
    ['with a gradient', { fill: GRADIENT }],
    ['with a gradient in perspective', { fill: GRADIENT, plane: TIPPED }],
    ['each as clear as it is', { opacities: Float32Array.from({ length: 8 }, (_, i) => i / 8) }],
  ])('are painted as they would be one by one: %s', (_, part) => {
    const op = copies(part);
    const seen = pixels([op]);
    expect(seen.some((v) => v > 0)).toBe(true);
    expect(most(seen, pixels(apart(op)))).toBeLessThanOrEqual(1);
  });

  it('fade as one, where they lie over each other', () => {
    const data = pixels([copies({ opacity: 0.5 })]);
    const alphas = new Set<number>();
    for (let i = 3; i < data.length; i += 4) alphas.add(data[i]!);
    expect(Math.max(...alphas)).toBeLessThanOrEqual(128);
  });

  it('lie within their bounds, and are told apart by their places', () => {
    for (const plane of [FLAT, TIPPED]) {
      const op = copies({ plane });
      const box = drawingBounds(op);
      const data = pixels([op]);
      for (let i = 3; i < data.length; i += 4) {
        if (data[i]! < 128) continue;
        const [x, y] = [((i - 3) / 4) % FRAME.width, Math.floor(i / 4 / FRAME.width)];
        expect(x >= box.x - 1 && x <= box.x + box.width && y >= box.y - 1 && y <= box.y + box.height).toBe(
          true,
        );
      }
    }
    expect(sameOps([copies()], [copies({ places: PLACES.slice() })])).toBe(true);
    const moved = PLACES.slice();
    moved[47]! += 0.01;
    expect(sameOps([copies()], [copies({ places: moved })])).toBe(false);
  });
});

it('a shape is laid as a grid, every other row aside, as one operation', () => {
  const template = templateOf([
    {
      id: 'dots',
      kind: 'shape',
      outline: { kind: 'rectangle' },
      offset: [100, 100],
      size: [10, 10],
      fill: { colour: '#FFFFFF' },
      copies: { across: 4, down: 3, step: [40, 30], shift: 0.5 },
    },
  ]);
  const { ops } = sceneOf(studio, template).evaluate(0);
  expect(ops).toHaveLength(1);
  const [op] = ops;
  const at = op?.op === 'copies' ? [...op.places] : [];
  expect(at.filter((_, i) => i % 6 === 4)).toEqual([0, 40, 80, 120, 20, 60, 100, 140, 0, 40, 80, 120]);
  expect(at.filter((_, i) => i % 6 === 5)).toEqual([0, 0, 0, 0, 30, 30, 30, 30, 60, 60, 60, 60]);
});
