import { grownBy, withinFrame } from './bounds';
import type { Composite, Op } from './ops';

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
