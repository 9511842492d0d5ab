import type { NodeStudio } from '@fresh-reel/node-host';
import type { Op } from '../paint/ops';
import { pictureSlot, sceneOf, templateOf, testStudio } from '../testing/studio';

let studio: NodeStudio;
beforeAll(async () => {
  studio = await testStudio();
});
afterEach(() => jest.restoreAllMocks());

const shape = (id: string, part: Record<string, unknown> = {}) => ({
  id,
  kind: 'shape',
  outline: { kind: 'rectangle' },
  size: [300, 200],
  fill: { colour: '#336699' },
  texture: { slot: 'cloth' },
  ...part,
});
const scene = (layers: readonly object[], filled = true) => {
  const find = studio.mediaFacts.bind(studio);
  jest
    .spyOn(studio, 'mediaFacts')
    .mockImplementation((id) => (id === 'sha256:c' ? { width: 1600, height: 900 } : find(id)));
  const held = { media: 'sha256:c', focus: [0.5, 0.5] as [number, number], scale: 1, turn: 0 };
  return sceneOf(studio, templateOf(layers, { slots: [pictureSlot('cloth')] }), {
    slots: filled ? { cloth: held } : {},
    controls: {},
  });
};
const pictures = (ops: readonly Op[]) =>
  ops.filter((op): op is Extract<Op, { op: 'picture' }> => op.op === 'picture');

describe('one texture for many shapes', () => {
  it('is one picture over all of the frame, of which each shows its part, wherever it goes', () => {
    const layers = [shape('a'), shape('b', { at: [0.7, 0.6], turn: [0, 0, 30], move: [40, -20, 0] })];
    const shown = pictures(scene(layers).evaluate(0).ops);
    expect(shown).toHaveLength(2);
    expect(shown[0]!.plane).toEqual(shown[1]!.plane);
    expect(shown[0]!.target).toEqual({ x: 0, y: 0, width: 1920, height: 1080 });
    const { ops } = scene(layers).evaluate(0);
    expect(ops.filter((op) => op.op === 'clip')).toHaveLength(2);
  });

  it('without it the shape has its own fill, and its line lies on top', () => {
    const stroke = { paint: { colour: '#FFFFFF' }, width: 4 };
    expect(scene([shape('a', { stroke })], false).evaluate(0).ops).toHaveLength(1);
    const { ops } = scene([shape('a', { stroke })]).evaluate(0);
    expect(ops.map((op) => op.op)).toEqual(['path', 'clip', 'picture', 'unclip', 'path']);
    const last = ops.at(-1)!;
    expect(last.op === 'path' && last.stroke?.width).toBe(4);
  });

  it('fades and blends as one', () => {
    const [half] = pictures(
      scene([shape('a', { texture: { slot: 'cloth', opacity: 0.5 } })]).evaluate(0).ops,
    );
    expect(half!.opacity).toBe(0.5);
    const { ops } = scene([shape('a', { texture: { slot: 'cloth', blend: 'multiply' } })]).evaluate(0);
    expect(ops.find((op) => op.op === 'open')).toMatchObject({ composite: 'multiply' });
  });
});

describe('dropped frames', () => {
  const at = (amount: number) => {
    const s = scene([
      shape('a', {
        texture: undefined,
        move: {
          keys: [
            { at: 0, value: [0, 0, 0], ease: 'linear' },
            { at: 60, value: [600, 0, 0] },
          ],
        },
        stutter: { amount, every: 5, seed: 3 },
      }),
    ]);
    return Array.from({ length: 60 }, (_, t) => {
      const [op] = s.evaluate(t).ops;
      return op?.op === 'path' ? Math.round(op.plane[2]) : -1;
    });
  };

  it('stand for their step, and what comes next is where it would be', () => {
    expect(at(0)).toEqual(Array.from({ length: 60 }, (_, t) => t * 10));
    expect(at(1)).toEqual(Array.from({ length: 60 }, (_, t) => Math.floor(t / 5) * 50));
    const half = at(0.5);
    const still = half.filter((x, t) => x !== t * 10).length;
    expect(still).toBeGreaterThan(8);
    expect(still).toBeLessThan(40);
    // At the beginning of each step it is in its place.
    for (let t = 0; t < 60; t += 5) expect(half[t]).toBe(t * 10);
  });
});

describe('what a layer leaves behind', () => {
  const moving = (afterimage: object) =>
    scene([
      shape('a', {
        texture: undefined,
        move: {
          keys: [
            { at: 0, value: [0, 0, 0], ease: 'linear' },
            { at: 60, value: [600, 0, 0] },
          ],
        },
        afterimage,
      }),
    ]);
  const lefts = (ops: readonly Op[]) => ops.flatMap((op) => (op.op === 'path' ? [op.plane[2]] : []));

  it('is itself as it was, the oldest lowest and faintest', () => {
    const { ops } = moving({ length: 20, copies: 4, opacity: 0.8, fade: 1 }).evaluate(40);
    expect(lefts(ops).map(Math.round)).toEqual([250, 300, 350, 400]);
    const opacities = ops.map((op) => (op.op === 'path' ? op.opacity : 0));
    // The oldest has faded away altogether; the others by their age.
    expect(opacities.slice(0, -1).map((v) => Number(v.toFixed(2)))).toEqual([0.2, 0.4, 0.6]);
    expect(opacities.at(-1)).toBe(1);
  });

  it('gets smaller towards its end, is nothing to take hold of, and nothing where nothing moves on', () => {
    const s = moving({ length: 20, copies: 2, opacity: 1, fade: 0, taper: 0.5 });
    const [oldest, , newest] = s.evaluate(40).ops.map((op) => (op.op === 'path' ? op.plane[0] : 0));
    expect(oldest).toBeCloseTo(0.5, 9);
    expect(newest).toBe(1);
    expect(moving({ length: 0 }).evaluate(40).ops).toHaveLength(1);
    // Any frame first.
    const [one, other] = [s, moving({ length: 20, copies: 2, opacity: 1, fade: 0, taper: 0.5 })];
    expect([10, 50].map((t) => one.evaluate(t).ops)).toEqual(
      [50, 10].map((t) => other.evaluate(t).ops).reverse(),
    );
  });
});
