import { createNodeSurface, type NodeStudio } from '@fresh-reel/node-host';
import { sceneOf, templateOf, testStudio } from '../testing/studio';
import { layoutFrame } from '../values/frame';

let studio: NodeStudio;
beforeAll(async () => {
  studio = await testStudio();
});

const SIZE = { width: 960, height: 540 };
const FRAME = layoutFrame(SIZE);

/** The operations of a bar of a colour in the middle of the frame under a broken link. */
function opsOf(effect: object, time = 0, colour = '#FFFFFF', part: object = {}) {
  const bar = {
    id: 'bar',
    kind: 'shape',
    outline: { kind: 'rectangle' },
    offset: [800, 0],
    size: [320, 1080],
    fill: { colour },
    effects: [
      {
        effect: 'disturb',
        amount: 1,
        bursts: 1,
        apart: 0,
        thrown: 0,
        blocks: 0,
        every: 2,
        seed: 5,
        ...effect,
      },
    ],
    ...part,
  };
  return sceneOf(studio, templateOf([bar])).evaluate(time).ops;
}

/** The same, painted; and the colour of a pixel. */
function painted(...bar: Parameters<typeof opsOf>) {
  const ops = opsOf(...bar);
  const surface = createNodeSurface(SIZE.width, SIZE.height);
  studio.painter.paint(ops, surface, FRAME);
  const { data } = surface.context.getImageData(0, 0, SIZE.width, SIZE.height);
  const at = (x: number, y: number) => [
    ...data.subarray((y * SIZE.width + x) * 4, (y * SIZE.width + x) * 4 + 4),
  ];
  return { ops, data, at };
}

describe('a broken link', () => {
  it('puts red apart from green and blue: at the edges they stand alone, between them they are what they were', () => {
    const { ops, at } = painted({ apart: 80 });
    const [open] = ops.flatMap((op) => (op.op === 'open' ? op.effects : []));
    const apart = (open as unknown as { apart: number }).apart * 0.5;
    expect(apart).toBeGreaterThan(12);
    // The bar lies from 400 to 560: red goes half of the way to the left, the others to the right.
    expect(at(400 - Math.floor(apart / 2) + 3, 100)).toEqual([255, 0, 0, 255]);
    expect(at(560 + Math.floor(apart / 2) - 3, 100)).toEqual([0, 255, 255, 255]);
    expect(at(480, 100)).toEqual([255, 255, 255, 255]);
    expect(at(400 - Math.ceil(apart / 2) - 2, 100)[3]).toBe(0);
    expect(painted({ apart: 80 }, 0, '#336699').at(480, 300)).toEqual([0x33, 0x66, 0x99, 255]);
  });

  it('throws slices as they are: rows are what they were, only elsewhere', () => {
    const { data } = painted({ thrown: 300 });
    let thrown = 0;
    for (let y = 0; y < SIZE.height; y++) {
      const row = data.subarray(y * SIZE.width * 4, (y + 1) * SIZE.width * 4);
      const lit = Array.from({ length: SIZE.width }, (_, x) => x).filter((x) => row[x * 4 + 3]! > 0);
      expect(lit).toHaveLength(160);
      expect(lit.at(-1)! - lit[0]!).toBe(159);
      if (lit[0] !== 400) thrown++;
    }
    expect(thrown).toBeGreaterThan(10);
    expect(thrown).toBeLessThan(SIZE.height);
  });

  it('comes in bursts of their steps, the same whenever a frame is asked for, other ones by another seed', () => {
    const breaks = (bursts: number, seed = 5) =>
      Array.from({ length: 60 }, (_, step) =>
        opsOf({ thrown: 100, bursts, seed }, step * 2).some((op) => op.op === 'open'),
      );
    const some = breaks(0.3);
    expect(breaks(0.3)).toEqual(some);
    expect(breaks(0.3, 6)).not.toEqual(some);
    const part = some.filter(Boolean).length / some.length;
    expect(part).toBeGreaterThan(0.1);
    expect(part).toBeLessThan(0.55);
    expect(breaks(0).some(Boolean)).toBe(false);
    expect(breaks(1).every(Boolean)).toBe(true);
  });

  it('shows the lines of a screen burst or not, at the same rows of the frame, and nothing where nothing is', () => {
    const { at } = painted({ amount: 0, lines: 0.5, pitch: 20 });
    // Ten pixels from one to the next at this size, half of them dark.
    const dark = [0, 4, 5, 9, 10, 14, 15].map((y) => at(480, 200 + y)[0]! < 200);
    expect(dark).toEqual([true, true, false, false, true, true, false]);
    expect(Math.abs(at(480, 200)[0]! - 127.5)).toBeLessThan(1);
    expect(at(300, 202)[3]).toBe(0);
    const moved = painted({ amount: 0, lines: 0.5, pitch: 20 }, 0, '#FFFFFF', { move: [0, 7, 0] });
    expect(moved.at(480, 202)).toEqual(at(480, 202));
  });

  it('is the same at whatever size the content is painted, and combines with turns and fading', () => {
    const turned = painted({ apart: 30, thrown: 100, blocks: 0.5 }, 4, '#FFFFFF', {
      turn: [0, 40, 12],
      opacity: 0.5,
    });
    const alphas = new Set<number>();
    for (let i = 3; i < turned.data.length; i += 4) alphas.add(turned.data[i]!);
    expect(Math.max(...alphas)).toBeLessThanOrEqual(129);
    expect(alphas.has(0)).toBe(true);
  });

  it('refuses amounts that are none', () => {
    for (const part of [
      { amount: 2 },
      { apart: -1 },
      { thrown: 1e6 },
      { blocks: Number.NaN },
      { every: 0 },
      { lines: 2 },
      { pitch: 0 },
    ])
      expect(() => painted(part)).toThrow(/amount|apart|thrown|blocks|every|lines|pitch/);
  });
});
