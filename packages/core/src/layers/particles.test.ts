import type { NodeStudio } from '@fresh-reel/node-host';
import fc from 'fast-check';
import type { Fill } from '../documents/fill';
import { opsBounds } from '../paint/bounds';
import { type Op, sameOps } from '../paint/ops';
import { sceneOf, templateOf, testStudio, textLayer, textSlot } from '../testing/studio';

let studio: NodeStudio;
beforeAll(async () => {
  studio = await testStudio();
});

const particles = (part: Record<string, unknown>) => ({
  id: 'p',
  kind: 'particles',
  from: { point: [0.5, 0.5] },
  born: { every: 2, from: { at: 0 } },
  life: 60,
  vary: { life: 0, speed: 0, size: 0 },
  ...part,
});
type Copies = Extract<Op, { op: 'copies' }>;
const copiesAt = (layers: readonly object[], time: number, rest = {}, fill?: Fill['slots']) =>
  sceneOf(studio, templateOf(layers, rest), fill ? { slots: fill, controls: {} } : undefined)
    .evaluate(time)
    .ops.filter((op): op is Copies => op.op === 'copies');
const placesOf = (ops: readonly Copies[]) =>
  ops.flatMap(({ places }) =>
    Array.from({ length: places.length / 6 }, (_, i) => [places[i * 6 + 4]!, places[i * 6 + 5]!] as const),
  );

describe('particles', () => {
  it('are born in their time, live as long as they do, and are none before and after', () => {
    const layer = particles({ born: { every: 2, from: { at: 10 }, to: { at: 30 } }, life: 20, show: [1] });
    const count = (time: number) => placesOf(copiesAt([layer], time)).length;
    expect([count(9), count(51)]).toEqual([0, 0]);
    // One for each two frames, at some moment of those.
    expect(count(30)).toBeGreaterThanOrEqual(9);
    expect(count(30)).toBeLessThanOrEqual(10);
    const burst = particles({ born: { count: 40, at: { at: 5 } }, life: 20, show: [1] });
    expect([4, 5, 24, 25].map((t) => placesOf(copiesAt([burst], t)).length)).toEqual([0, 40, 40, 0]);
  });

  it('fly as they are pushed: thrown up they come down again, and each moment is known without the others', () => {
    const layer = particles({
      born: { count: 1, at: { at: 0 } },
      life: 200,
      show: [1],
      speed: 20,
      direction: -60,
      gravity: [0, 0.5],
    });
    const [x, y] = placesOf(copiesAt([layer], 80))[0]!;
    // x = v cos θ t; y = v sin θ t + g t²/2 (uniform acceleration).
    expect(x).toBeCloseTo(960 + 20 * 0.5 * 80, 2);
    expect(y).toBeCloseTo(540 - 20 * Math.sin(Math.PI / 3) * 80 + (0.5 * 80 * 80) / 2, 1);
    const template = templateOf([particles({ speed: 3, turbulence: { reach: 40 } })]);
    const forwards = sceneOf(studio, template);
    const seen = [20, 55, 90].map((t) => forwards.evaluate(t).ops);
    const backwards = sceneOf(studio, template);
    for (const [i, t] of [...[20, 55, 90].entries()].reverse())
      expect(sameOps(backwards.evaluate(t).ops, seen[i]!)).toBe(true);
  });

  it('come from an outline where it lies, wherever their layer is put', () => {
    for (const where of ['inside', 'edge'] as const) {
      const layer = particles({
        from: { outline: { kind: 'rectangle' }, where },
        size: [300, 200],
        at: [0.5, 0.5],
        origin: [0.5, 0.5],
        born: { count: 60, at: { at: 0 } },
        show: [1],
      });
      const [op] = copiesAt([layer], 1);
      const { x, y, width, height } = opsBounds([op!]);
      expect(Math.abs(x + width / 2 - 960)).toBeLessThan(30);
      expect(Math.abs(y + height / 2 - 540)).toBeLessThan(30);
    }
  });

  it('come in so far as they are wanted at their birth, and stay then', () => {
    const amount = {
      keys: [
        { at: 0, value: 1, ease: 'linear' },
        { at: 30, value: 0 },
      ],
    };
    const layer = particles({ amount, life: 100, show: [1], born: { every: 0.1, from: { at: 0 } } });
    const at = (t: number) => placesOf(copiesAt([layer], t)).length;
    // The mean of 1..0 over 300 births is half of them; four standard deviations of the sum of such trials.
    expect(Math.abs(at(30) - 150)).toBeLessThan(4 * Math.sqrt(300 / 6));
    expect(at(60)).toBe(at(31));
  });

  it('come from marked letters alone, wherever those stand, and from none when none is marked', () => {
    const text = textLayer('words', { at: [0.5, 0.5], origin: [0.5, 0.5], size: 120 });
    const layer = particles({
      from: { text: 'words', only: 'marked', where: 'inside' },
      born: { count: 300, at: { at: 0 } },
      show: [1],
      looks: { letter: true },
    });
    const rest = { slots: [textSlot('words', 'mix')] };
    const filled = { words: { text: 'mix', runs: [{ from: 2, to: 3, marked: true }] } };
    const scene = sceneOf(studio, templateOf([text, layer], rest), { slots: filled, controls: {} });
    const { ops } = scene.evaluate(0);
    const made = ops.filter((op): op is Copies => op.op === 'copies');
    const whole = opsBounds(ops.filter((op) => op.op === 'path'));
    const places = placesOf(made);
    expect(places).toHaveLength(300);
    expect(places.every(([x]) => x > whole.x + whole.width * 0.6 && x <= whole.x + whole.width + 1)).toBe(
      true,
    );
    expect(places.every(([, y]) => y >= whole.y - 1 && y <= whole.y + whole.height + 1)).toBe(true);
    expect(copiesAt([text, layer], 0, rest)).toEqual([]);
    // Moved by the user's hand, they go along.
    const moved = { ...text, placing: { move: [200, -100] } };
    const there = placesOf(
      sceneOf(studio, templateOf([moved, layer], rest), { slots: filled, controls: {} })
        .evaluate(0)
        .ops.filter((op): op is Copies => op.op === 'copies'),
    );
    expect(there[0]![0] - places[0]![0]).toBeCloseTo(200, 2);
    expect(there[0]![1] - places[0]![1]).toBeCloseTo(-100, 2);
  });

  it('may be a colour glyph, in any script, and pictures of a slot are missed quietly', () => {
    const text = textLayer('words');
    const looks = [{ letter: true }, { picture: 'photo' }];
    const rest = {
      slots: [
        textSlot('words', '🪁'),
        {
          id: 'photo',
          kind: 'picture',
          name: 'Photo',
          scenes: ['all'],
          moment: { at: 0, of: 'hold' },
          sample: null,
        },
      ],
    };
    const [signs, none] = looks.map((l) => {
      const layer = particles({ from: { text: 'words' }, looks: l, show: [1] });
      return sceneOf(studio, templateOf([text, layer], rest))
        .evaluate(40)
        .ops.filter((op) => op.op === 'glyph' || op.op === 'picture').length;
    });
    // The sign itself, and its particles.
    expect([signs, none]).toEqual([expect.any(Number), 1]);
    expect(signs).toBeGreaterThan(10);
    for (const words of ['عيد', 'ครีบ', '風箏']) {
      const layer = particles({ from: { text: 'words' }, show: [1], looks: { letter: true } });
      expect(copiesAt([text, layer], 50, rest, { words }).length).toBeGreaterThan(0);
    }
  });

  it('are no more than a frame can hold, and say so', () => {
    const layer = particles({ born: { every: 0.05, from: { at: 0 } }, life: 3600, show: [1] });
    const scene = sceneOf(studio, templateOf([layer], { timing: { in: 600, hold: 60, out: 60 } }));
    const frame = scene.evaluate(500);
    expect(placesOf(frame.ops.filter((op): op is Copies => op.op === 'copies'))).toHaveLength(4000);
    expect(frame.notices).toContainEqual({ kind: 'too-much', slot: '' });
  });

  it('stay numbers whatever the amounts, and hostile ones are refused with a word', () => {
    const wild = fc.oneof(fc.double({ min: -1e5, max: 1e5, noNaN: true }), fc.constant(0));
    fc.assert(
      fc.property(
        wild,
        wild,
        fc.double({ min: 0, max: 1, noNaN: true }),
        wild,
        (speed, gravity, drag, wind) => {
          const layer = particles({
            speed,
            drag,
            gravity: [gravity, -gravity],
            wind: [wind, 0],
            born: { every: 7, from: { at: -20 } },
            angle: { along: true },
          });
          for (const op of copiesAt([layer], 50)) expect(op.places.every(Number.isFinite)).toBe(true);
        },
      ),
      { numRuns: 40 },
    );
    for (const part of [
      { life: 0 },
      { life: Number.NaN },
      { born: { every: 0, from: { at: 0 } } },
      { born: { count: 1_000_000, at: { at: 0 } } },
      { drag: 2 },
      { from: { text: 'nobody' } },
    ])
      expect(() => templateOf([particles(part)])).toThrow(/particles|life|born|drag|count|every|nobody/);
  });
});
