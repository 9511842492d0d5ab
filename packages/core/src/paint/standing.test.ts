import { createNodePath, createNodeSurface } from '@fresh-reel/node-host';
import fc from 'fast-check';
import type { PathSink, Picture } from '../canvas/surface';
import { ellipsePath, rectanglePath } from '../geometry/path';
import { grouped } from './compose';
import type { Op } from './ops';
import { Painter } from './painter';

const FRAME = { width: 160, height: 90 };
const rect = (x: number, y: number, colour: string, opacity = 1): Op => ({
  op: 'path',
  path: rectanglePath({ x, y, width: 60, height: 40 }),
  plane: [0.98, 0.17, 0, -0.17, 0.98, 0, 0, 0, 1],
  fill: { kind: 'solid', colour },
  opacity,
});
const glowing = (x: number, colour: string): Op[] =>
  grouped([rect(x, 20, colour, 0.7)], { opacity: 0.8, effects: [{ effect: 'blur', radius: 6 }] });
const clipped = (x: number, colour: string): Op[] => [
  { op: 'clip', path: ellipsePath({ x, y: 10, width: 70, height: 60 }), plane: [1, 0, 0, 0, 1, 0, 0, 0, 1] },
  rect(x, 15, colour, 0.5),
  { op: 'unclip' },
];

/** A painter that counts what it fills. */
function painter(pictures = new Map<string, Picture>()) {
  let fills = 0;
  const painting = new Painter({
    createSurface: (width, height) => {
      const surface = createNodeSurface(width, height);
      const fill = surface.context.fill.bind(surface.context);
      surface.context.fill = (path?: unknown) => {
        fills++;
        fill(path as PathSink);
      };
      return surface;
    },
    createPath: createNodePath,
    picture: (id) => pictures.get(id),
  });
  return { painting, fills: () => fills };
}

const shown = (painting: Painter, target: ReturnType<typeof createNodeSurface>, ops: readonly Op[]) => {
  painting.paint(ops, target, FRAME);
  return [...target.context.getImageData(0, 0, FRAME.width, FRAME.height).data];
};
const alone = (ops: readonly Op[]) =>
  shown(painter().painting, createNodeSurface(FRAME.width, FRAME.height), ops);

describe('what stands below all that moves', () => {
  it('is painted twice, and not again while something moves before it', () => {
    const { painting, fills } = painter();
    const target = createNodeSurface(FRAME.width, FRAME.height);
    const backdrop = [...glowing(10, '#336699'), ...clipped(50, '#FFCC00'), ...glowing(40, '#10A060')];
    const counts = [];
    for (let t = 0; t < 6; t++) {
      const before = fills();
      const ops = [...backdrop, rect(t * 5, 30, '#FF0000')];
      expect(shown(painting, target, ops)).toEqual(alone(ops));
      counts.push(fills() - before);
    }
    // All of it for the first two, once more for its picture, and then the groups in it no more.
    expect(counts.slice(3)).toEqual([0, 0, 0]);
  });

  it('is never seen where it changes, whatever comes in which order', () => {
    const part = fc.oneof(
      fc.record({ x: fc.integer({ min: 0, max: 3 }) }).map(({ x }) => [rect(x * 20, 10, '#2266AA', 0.6)]),
      fc.integer({ min: 0, max: 3 }).map((x) => glowing(x * 20, '#CC3322')),
      fc.integer({ min: 0, max: 3 }).map((x) => clipped(x * 20, '#33AA55')),
    );
    const list = fc.array(part, { minLength: 1, maxLength: 4 }).map((parts) => parts.flat());
    fc.assert(
      fc.property(
        list,
        fc.array(fc.tuple(fc.nat({ max: 4 }), part), { minLength: 3, maxLength: 8 }),
        (first, changes) => {
          const { painting } = painter();
          const target = createNodeSurface(FRAME.width, FRAME.height);
          return changes.every(([keep, more]) => {
            // Most of a list stays as it was; sometimes all of it, sometimes none.
            const ops = keep === 0 ? more : [...first, ...(keep > 2 ? [] : more)];
            const [got, wanted] = [shown(painting, target, ops), alone(ops)];
            return got.every((v, i) => v === wanted[i]);
          });
        },
      ),
      { numRuns: 40 },
    );
  });

  it('is painted anew when a picture of it comes late, and in another size', () => {
    const pictures = new Map<string, Picture>();
    const { painting } = painter(pictures);
    const target = createNodeSurface(FRAME.width, FRAME.height);
    const all = { x: 0, y: 0, width: 20, height: 20 };
    const backdrop: Op[] = [
      ...glowing(80, '#123456'),
      {
        op: 'picture',
        picture: 'late',
        source: all,
        target: all,
        plane: [1, 0, 0, 0, 1, 0, 0, 0, 1],
        opacity: 1,
      },
    ];
    const ops = (t: number) => [...backdrop, rect(60 + t, 30, '#FF0000')];
    for (let t = 0; t < 4; t++) shown(painting, target, ops(t));
    const red = createNodeSurface(20, 20);
    red.context.fillStyle = '#FF0000';
    red.context.fillRect(0, 0, 20, 20);
    pictures.set('late', { image: red.canvas, width: 20, height: 20 });
    expect(shown(painting, target, ops(5)).slice(0, 4)).toEqual([255, 0, 0, 255]);
    target.canvas.width = 80;
    target.canvas.height = 45;
    painting.paint(ops(6), target, FRAME);
    expect([...target.context.getImageData(1, 1, 1, 1).data]).toEqual([255, 0, 0, 255]);
  });
});

describe('a picture behind a clip', () => {
  it('shows there what all of it would show, of a turned one and within a group too', () => {
    const cloth = createNodeSurface(64, 48);
    const { context } = cloth;
    for (let i = 0; i < 64 * 48; i++) {
      context.fillStyle = `rgb(${(i % 64) * 4},${Math.floor(i / 64) * 5},${200 - (i % 64) * 2})`;
      context.fillRect(i % 64, Math.floor(i / 64), 1, 1);
    }
    const pictures = new Map([['cloth', { image: cloth.canvas, width: 64, height: 48 }]]);
    const laid = (turn: number): Op => ({
      op: 'picture',
      picture: 'cloth',
      source: { x: 2, y: 3, width: 58, height: 40 },
      target: { x: -10, y: 5, width: 150, height: 80 },
      plane: [Math.cos(turn) * 1.1, -Math.sin(turn), 6.3, Math.sin(turn), Math.cos(turn), 1.7, 0, 0, 1],
      opacity: 1,
    });
    const hole = { x: 41.5, y: 22.25, width: 50, height: 31 };
    const clip: Op = { op: 'clip', path: rectanglePath(hole), plane: [1, 0, 0, 0, 1, 0, 0, 0, 1] };
    for (const turn of [0, 0.04])
      for (const within of [false, true]) {
        const content = within
          ? grouped([laid(turn)], { effects: [{ effect: 'blur', radius: 3 }] })
          : [laid(turn)];
        const target = () => createNodeSurface(FRAME.width, FRAME.height);
        const all = shown(painter(pictures).painting, target(), content);
        const part = shown(painter(pictures).painting, target(), [clip, ...content, { op: 'unclip' }]);
        let most = 0;
        for (let y = 24; y < 52; y++)
          for (let x = 43; x < 90; x++)
            for (let c = 0; c < 4; c++) {
              const at = (y * FRAME.width + x) * 4 + c;
              most = Math.max(most, Math.abs(all[at]! - part[at]!));
            }
        expect({ turn, within, same: most <= 2 }).toEqual({ turn, within, same: true });
        expect(part[(10 * FRAME.width + 20) * 4 + 3]).toBe(0);
      }
  });
});
