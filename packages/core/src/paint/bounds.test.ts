import { createNodePath, createNodeSurface } from '@fresh-reel/node-host';
import fc from 'fast-check';
import { IDENTITY_PLANE } from '../geometry/matrix';
import { miterReach, type Path, type PathCommand, rectanglePath } from '../geometry/path';
import { grownBy, inkedBounds, withinFrame } from './bounds';
import type { Composite, Op } from './ops';
import { Painter } from './painter';

const FRAME = { width: 1920, height: 1080 };
const open = (x: number, composite: Composite = 'normal'): Op => ({
  op: 'open',
  bounds: { x, y: 100, width: 200, height: 200 },
  opacity: 1,
  composite,
  effects: [],
});
const close: Op = { op: 'close' };
const picture = (name: string, at?: number) => ({ op: 'picture', picture: name, at }) as Op;
const names = (ops: readonly Op[]) => ops.map((o) => (o.op === 'picture' ? o.picture : o.op));

describe('operations within the frame', () => {
  it('lack the groups that lie outside, with all that is in them', () => {
    const ops = [
      picture('back'),
      open(-400),
      open(300),
      picture('gone', 1.5),
      close,
      close,
      open(300),
      picture('seen'),
      close,
      open(1930),
      picture('at the edge'),
      close,
      open(2300),
      picture('gone too'),
      close,
    ];
    expect(names(withinFrame(ops, FRAME))).toEqual([
      'back',
      'open',
      'seen',
      'close',
      'open',
      'at the edge',
      'close',
    ]);
  });

  it('keep a group that takes away what is outside it', () => {
    const ops = [open(300), picture('cut'), open(-400, 'keep-inside'), picture('shape'), close, close];
    expect(withinFrame(ops, FRAME)).toEqual(ops);
  });
});

it('effects make something larger, and nothing stays nothing', () => {
  const blur = [{ effect: 'blur', radius: 10 } as const];
  const grown = grownBy({ x: 100, y: 50, width: 40, height: 20 }, blur);
  expect(grown.x).toBeLessThan(100);
  expect(grown.width).toBeGreaterThan(40);
  expect(grownBy({ x: 0, y: 0, width: 0, height: 0 }, blur)).toMatchObject({ width: 0, height: 0 });
});

describe('a line reaches as far as it is drawn', () => {
  const inked = (path: Path, stroke: object) => {
    const op = { op: 'path', path, plane: IDENTITY_PLANE, opacity: 1, stroke } as never;
    const surface = createNodeSurface(400, 400);
    new Painter({
      createSurface: createNodeSurface,
      createPath: createNodePath,
      picture: () => undefined,
    }).paint([op], surface, { width: 400, height: 400 });
    const { data } = surface.context.getImageData(0, 0, 400, 400);
    const box = { left: 400, top: 400, right: 0, bottom: 0 };
    for (let i = 0; i < 400 * 400; i++) {
      if (data[i * 4 + 3]! < 8) continue;
      const [x, y] = [i % 400, Math.floor(i / 400)];
      box.left = Math.min(box.left, x);
      box.right = Math.max(box.right, x + 1);
      box.top = Math.min(box.top, y);
      box.bottom = Math.max(box.bottom, y + 1);
    }
    return box;
  };
  const joins = fc.constantFrom('miter', 'round', 'bevel');
  const place = fc.tuple(fc.integer({ min: 120, max: 280 }), fc.integer({ min: 120, max: 280 }));

  it('whatever its corners, joins and ends are', () => {
    const shapes = fc.record({
      points: fc.array(place, { minLength: 2, maxLength: 6 }),
      curved: fc.boolean(),
      closed: fc.boolean(),
      join: joins,
      cap: fc.constantFrom('butt', 'round', 'square'),
      width: fc.integer({ min: 1, max: 24 }),
    });
    fc.assert(
      fc.property(shapes, ({ points, curved, closed, width, join, cap }) => {
        const [first, ...rest] = points as [number, number][];
        const path: Path = {
          commands: [
            ['M', ...first!],
            ...rest.map((p, i): PathCommand => {
              const q = rest[(i + 1) % rest.length]!;
              return curved && i % 2 === 0 ? ['C', ...q, ...p, ...p] : ['L', ...p];
            }),
            ...(closed ? [['Z'] as const] : []),
          ],
        };
        const stroke = { paint: { kind: 'solid', colour: '#FF0000' }, width, join, cap };
        const box = inkedBounds({ path, stroke } as never);
        const seen = inked(path, stroke);
        if (seen.right === 0) return;
        expect(seen.left).toBeGreaterThanOrEqual(Math.floor(box.x) - 1);
        expect(seen.top).toBeGreaterThanOrEqual(Math.floor(box.y) - 1);
        expect(seen.right).toBeLessThanOrEqual(Math.ceil(box.x + box.width) + 1);
        expect(seen.bottom).toBeLessThanOrEqual(Math.ceil(box.y + box.height) + 1);
      }),
      { numRuns: 120 },
    );
  });

  it('a star’s tips, and no farther than they are', () => {
    // Half the angle of a tip is 18°: the miter is as long as 1/sin 18° of the width.
    const across = Math.tan(Math.PI / 10);
    const tip: Path = {
      commands: [
        ['M', 0, 100],
        ['L', 100 * across, 0],
        ['L', 200 * across, 100],
      ],
    };
    expect(miterReach(tip)).toBeCloseTo(0.5 / Math.sin(Math.PI / 10), 9);
    expect(miterReach(rectanglePath({ x: 0, y: 0, width: 5, height: 5 }))).toBeCloseTo(Math.SQRT1_2, 9);
  });
});
