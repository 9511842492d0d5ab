import type { NodeStudio } from '@fresh-reel/node-host';
import { newReel } from '../edit/reel';
import { opsBounds } from '../paint/bounds';
import { lengthOf } from '../reel/itemLength';
import { pictureSlot, sceneOf, templateOf, testStudio, textLayer, textSlot } from '../testing/studio';

let studio: NodeStudio;
beforeAll(async () => {
  studio = await testStudio();
});

const held = (id: string) => ({
  media: `sha256:${id}`,
  focus: [0.5, 0.5] as [number, number],
  scale: 1,
  turn: 0,
});

/** A title a line, each 30 frames later than the one before, and as long a hold as they need. */
const lines = (words: string, part: Record<string, unknown> = {}) =>
  templateOf(
    [
      {
        id: 'line',
        kind: 'group',
        size: [800, 60],
        repeat: { over: { lines: 'titles' }, after: 30 },
        span: { from: { at: 0 }, to: { at: 20 } },
        move: { parts: [0, { each: 'number', scale: 100 }, 0] },
        layers: [textLayer('word', { words: { slot: 'each' } })],
        ...part,
      },
    ],
    {
      slots: [textSlot('titles', words)],
      timing: { in: 60, hold: { sum: [{ count: { lines: 'titles' }, scale: 30 }, 40] }, out: 60 },
    },
  );

describe('a part that is repeated', () => {
  it('comes once for each line, each in its time and its place, and the length follows', () => {
    const three = sceneOf(studio, lines('One\n\nTwo\nThree'));
    expect(three.length).toBe(60 + 3 * 30 + 40 + 60);
    const tops = [5, 35, 65].map((t) => {
      const { ops } = three.evaluate(t);
      expect(ops).toHaveLength(1);
      return opsBounds(ops).y;
    });
    // Baselines lie 100 apart; what stands above them differs by their letters.
    expect(Math.round((tops[1]! - tops[0]!) / 10)).toBe(10);
    expect(Math.round((tops[2]! - tops[1]!) / 10)).toBe(10);
    expect(three.evaluate(25).ops).toEqual([]);
    expect(sceneOf(studio, lines('')).evaluate(5).ops).toEqual([]);
    const many = sceneOf(studio, lines(Array.from({ length: 30 }, (_, i) => `Line ${i}`).join('\n')));
    expect(many.length).toBe(60 + 30 * 30 + 40 + 60);
    expect(many.evaluate(29 * 30 + 5).ops).toHaveLength(1);
  });

  it('each is there as long as it stays, the last to the end', () => {
    const s = sceneOf(
      studio,
      lines('One\nTwo', { span: undefined, repeat: { over: { lines: 'titles' }, after: 30, stays: 30 } }),
    );
    expect([0, 29, 30, 59, 60, 150].map((t) => s.evaluate(t).ops.length)).toEqual([1, 1, 1, 1, 1, 1]);
    expect(opsBounds(s.evaluate(29).ops).y).toBeLessThan(opsBounds(s.evaluate(30).ops).y - 50);
  });

  it('a reel knows the length that follows from what is filled in', () => {
    const template = lines('One\nTwo');
    const reel = newReel(template, {
      id: 'r',
      name: 'R',
      now: '',
      shape: 'wide',
      fill: { slots: { titles: 'One\nTwo\nThree\nFour' }, controls: {} },
    });
    const [item] = reel.tracks.flatMap((t) => t.items);
    expect(lengthOf(reel, item!)).toBe(60 + 4 * 30 + 40 + 60);
  });

  it('keeps what is marked in its own line', () => {
    const s = sceneOf(studio, lines('', { span: undefined, repeat: { over: { lines: 'titles' } } }), {
      slots: { titles: { text: 'abc\ndef', runs: [{ from: 4, to: 5, colour: '#FF0000' }] } },
      controls: {},
    });
    const colours = s
      .evaluate(0)
      .ops.map((op) => (op.op === 'path' && op.fill?.kind === 'solid' ? op.fill.colour : ''));
    expect(colours).toEqual(['#FFFFFF', '#FF0000', '#FFFFFF']);
  });

  it('comes once for each slot that is filled, in a row as elsewhere, and is touched by its own slot', () => {
    const template = templateOf(
      [
        {
          id: 'row',
          kind: 'group',
          row: { direction: 'row', gap: 20 },
          layers: [
            {
              id: 'frame',
              kind: 'group',
              size: [200, 100],
              repeat: { over: { slots: ['a', 'b', 'c'] } },
              opacity: { each: 'part', scale: -0.5, offset: 1 },
              layers: [{ id: 'pic', kind: 'picture', slot: 'each', size: [200, 100] }],
            },
          ],
        },
      ],
      { slots: ['a', 'b', 'c'].map(pictureSlot) },
    );
    const find = studio.mediaFacts.bind(studio);
    jest
      .spyOn(studio, 'mediaFacts')
      .mockImplementation((id) => (id.length === 8 ? { width: 40, height: 20 } : find(id)));
    const s = sceneOf(studio, template, { slots: { a: held('a'), b: null, c: held('c') }, controls: {} });
    const { ops, regions } = s.evaluate(0);
    expect(ops.flatMap((op) => (op.op === 'picture' ? [op.picture] : []))).toEqual(['sha256:a', 'sha256:c']);
    expect(regions.map((r) => [r.slot, r.quad[0]![0], r.opacity])).toEqual([
      ['a', 0, 1],
      ['c', 220, 0.5],
    ]);
    expect(s.seenSpan('c')[1]).toBeGreaterThan(0);
    jest.restoreAllMocks();
  });

  it('sorted by depth, the nearest is on top, whichever it is', () => {
    const template = templateOf(
      [
        {
          id: 'all',
          kind: 'group',
          order: 'depth',
          layers: [
            {
              id: 'line',
              kind: 'group',
              repeat: { over: { lines: 'titles' } },
              move: { parts: [0, 0, { each: 'number', scale: 300 }] },
              layers: [textLayer('word', { words: { slot: 'each' } })],
            },
          ],
        },
      ],
      { slots: [textSlot('titles', 'A\nB\nC')] },
    );
    const widths = sceneOf(studio, template)
      .evaluate(0)
      .ops.map((op) => opsBounds([op]).height);
    expect(widths).toEqual([...widths].sort((p, q) => p - q));
  });

  it('names what is not there', () => {
    const open =
      (over: unknown, slot = 'each') =>
      () =>
        templateOf(
          [{ id: 'g', kind: 'group', repeat: { over }, layers: [textLayer('word', { words: { slot } })] }],
          {
            slots: [textSlot('titles')],
          },
        );
    expect(open({ lines: 'titles' })).not.toThrow();
    expect(open({ lines: 'gone' })).toThrow(/"gone"/);
    expect(() => templateOf([textLayer('word', { words: { slot: 'each' } })])).toThrow(/"each"/);
    expect(open({ slots: [] })).toThrow();
  });
});
