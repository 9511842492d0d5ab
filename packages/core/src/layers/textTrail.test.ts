import type { NodeStudio } from '@fresh-reel/node-host';
import fc from 'fast-check';
import type { Fill } from '../documents/fill';
import { pathBounds } from '../geometry/path';
import { type Op, sameOps } from '../paint/ops';
import { sceneOf, templateOf, testStudio, textLayer, textSlot } from '../testing/studio';

let studio: NodeStudio;
beforeAll(async () => {
  studio = await testStudio();
});

/** Words that come from the left, a letter after the other, each in 30 frames at an even pace. */
const words = (trail: object, away: object = { move: [-8, 0, 0] }) =>
  textLayer('t', {
    at: [0.5, 0.5],
    origin: [0.5, 0.5],
    size: 100,
    trail: { length: 20, width: 0.5, ...trail },
    motion: {
      in: [{ unit: 'letter', stagger: 4, start: { at: 0 }, length: 30, ease: 'linear', away }],
      out: [],
    },
  });
type PathOp = Extract<Op, { op: 'path' }>;
const RED = '#ff0000';
const scene = (layer: object, title: Fill['slots'][string] = 'kite') =>
  sceneOf(studio, templateOf([layer], { slots: [textSlot('t', 'kite')] }), {
    slots: { t: title },
    controls: {},
  });
const trailsOf = (ops: readonly Op[]) =>
  ops.filter((op): op is PathOp => op.op === 'path' && op.fill?.kind === 'solid' && op.fill.colour === RED);
const trails = (trail: object, time: number, title?: Fill['slots'][string]) =>
  trailsOf(scene(words({ colour: RED, ...trail }), title).evaluate(time).ops);

describe('trails of letters', () => {
  it('lie behind what moves, as long as it took, and are gone when all is at rest', () => {
    const [first] = trails({ fade: 0 }, 20);
    // A letter goes eight ems in 30 frames: in 20 frames, two thirds of that.
    expect(pathBounds(first!.path).width).toBeCloseTo((800 * 20) / 30, 0);
    expect(pathBounds(first!.path).height).toBeCloseTo(50, 0);
    // Those that have not begun leave none.
    expect(trails({ fade: 0 }, 2)).toHaveLength(1);
    expect(trails({ fade: 0 }, 10)).toHaveLength(3);
    expect(trails({}, 80)).toEqual([]);
    expect(trails({ length: 0 }, 20)).toEqual([]);
    // After the letter has come, the rest of its way draws in.
    expect(pathBounds(trails({ fade: 0 }, 40)[0]!.path).width).toBeLessThan(300);
  });

  it('taper and fade towards their end', () => {
    const widthAt = (taper: number) => {
      const { commands } = trails({ fade: 0, taper }, 20)[0]!.path;
      // Ends of the commands' pieces.
      const points = commands.flatMap((c) =>
        c[0] === 'Z' ? [] : [c.slice(-2) as unknown as [number, number]],
      );
      const half = points.length / 2;
      const across = (k: number) => Math.abs(points[k]![1] - points[points.length - 1 - k]![1]);
      return [across(0), across(half - 1)].map((v) => Math.round(v));
    };
    expect(widthAt(0)).toEqual([50, 50]);
    expect(widthAt(1)).toEqual([50, 0]);
    const shades = trails({ fade: 1, opacity: 0.7 }, 20).slice(0, 4);
    const lengths = shades.map((op) => pathBounds(op.path).width);
    expect([...lengths].sort((a, b) => b - a)).toEqual(lengths);
    // All of them over each other let through what one of 0.7 does.
    expect(shades.reduce((left, { opacity }) => left * (1 - opacity), 1)).toBeCloseTo(0.3, 6);
  });

  it('have more places where the way is fast or bends, so that it stays smooth', () => {
    const places = (away: object) => {
      const layer = words({ colour: RED, fade: 0 }, away);
      return trailsOf(scene(layer).evaluate(20).ops)[0]!.path.commands.length;
    };
    expect(places({ move: [-60, 0, 0] })).toBeGreaterThan(places({ move: [-2, 0, 0] }));
  });

  it('are of the marked words alone where that is said, in the colour of each letter', () => {
    const title = { text: 'a kite', runs: [{ from: 2, to: 6, colour: RED, marked: true }] };
    const own = trailsOf(scene(words({ fade: 0, only: 'marked' }), title).evaluate(34).ops);
    const all = scene(words({ fade: 0 }), title)
      .evaluate(34)
      .ops.filter((op) => op.op === 'path');
    // The four letters of it, and the letters themselves: nothing of the first word.
    expect(own.filter((op) => pathBounds(op.path).height < 51).length).toBeGreaterThanOrEqual(4);
    expect(all.length).toBeGreaterThan(
      scene(words({ fade: 0, only: 'marked' }), title)
        .evaluate(34)
        .ops.filter((op) => op.op === 'path').length,
    );
  });

  it('are the same whichever frame is asked for first; strands and straying too', () => {
    const layer = words({ strands: 3, stray: { amount: 1, often: 3 }, colour: RED });
    const times = [12, 26, 40];
    const forwards = scene(layer);
    const seen = times.map((t) => forwards.evaluate(t).ops);
    const backwards = scene(layer);
    for (const i of [2, 1, 0]) expect(sameOps(backwards.evaluate(times[i]!).ops, seen[i]!)).toBe(true);
    const straight = trails({ fade: 0 }, 20)[0]!;
    const wild = trails({ fade: 0, stray: { amount: 1 } }, 20)[0]!;
    expect(pathBounds(wild.path).height).toBeGreaterThan(pathBounds(straight.path).height);
  });

  it('hold numbers alone, in perspective too, and refuse what is none', () => {
    const turn = fc.double({ min: -360, max: 360, noNaN: true });
    fc.assert(
      fc.property(turn, turn, fc.double({ min: -40, max: 40, noNaN: true }), (x, y, depth) => {
        const layer = words({ colour: RED, strands: 2 }, { turn: [x, y, 0], move: [0, 0, depth] });
        for (const op of trailsOf(scene({ ...layer, turn: [y, x, 0] }).evaluate(18).ops))
          expect(op.path.commands.flat().some((v) => Number.isNaN(v))).toBe(false);
      }),
      { numRuns: 40 },
    );
    for (const part of [{ length: 1e6 }, { width: -1 }, { opacity: Number.NaN }, { strands: 1000 }])
      expect(() => templateOf([words(part)], { slots: [textSlot('t')] })).toThrow(
        /length|width|opacity|strands/,
      );
  });
});
