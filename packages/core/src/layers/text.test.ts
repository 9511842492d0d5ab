import type { NodeStudio } from '@fresh-reel/node-host';
import { type Fill, freshPicture } from '../documents/fill';
import { COMING } from '../edit/comingKinds';
import { STANDING } from '../edit/standingKinds';
import type { GraphicScene } from '../evaluate/graphicScene';
import type { Op } from '../paint/ops';
import { sceneOf, templateOf, testStudio, textLayer, textSlot } from '../testing/studio';

let studio: NodeStudio;
beforeAll(async () => {
  studio = await testStudio();
});

const made = (
  layer: Record<string, unknown>,
  words = 'Kites over Marram',
  rest: Record<string, unknown> = {},
  fill?: Fill,
) => sceneOf(studio, templateOf([textLayer('t', layer)], { slots: [textSlot('t', words)], ...rest }), fill);
const ops = (scene: GraphicScene, time: number) => scene.evaluate(time).ops;
const ink = (scene: GraphicScene, time: number): number => {
  const { context } = studio.paint(scene.evaluate(time), scene.frame, { width: 1920, height: 1080 });
  const { data } = context.getImageData(0, 0, 1920, 1080);
  let sum = 0;
  for (let i = 3; i < data.length; i += 4) sum += data[i]!;
  return sum / 255;
};
const letters = (scene: GraphicScene, time: number) => scene.evaluate(time, 't').letters!.letters;
const paths = (list: readonly Op[]) => list.filter((o) => o.op === 'path');

describe('every way to come and to go', () => {
  const rest = () => made({});
  it.each(COMING.map((k) => [k.id, k] as const))('%s ends at rest, and differs before', (_, kind) => {
    const motion = { ...kind.make(), stagger: 1, length: 30, start: { at: 5, of: 'in' as const } };
    expect(kind.is(motion)).toBe(true);
    const scene = made({ motion: { in: [motion] } });
    // A cursor that waits blinks; the words themselves are at rest.
    const late = ops(scene, 100)
      .filter((o) => o.op === 'path')
      .slice(0, 1);
    expect(late).toEqual(ops(rest(), 100).slice(0, 1));
    expect(JSON.stringify(ops(scene, 12))).not.toBe(JSON.stringify(ops(rest(), 12)));
    for (const t of [0, 5, 6, 20, 40, 59])
      expect(() => studio.paint(scene.evaluate(t), scene.frame, { width: 192, height: 108 })).not.toThrow();
  });

  it.each(COMING.map((k) => [k.id, k] as const))('%s leaves as it came', (_, kind) => {
    const motion = { ...kind.make(), stagger: 1, length: 20, start: { at: 0, of: 'out' as const } };
    const scene = made({ motion: { out: [motion] } });
    expect(ops(scene, 110)).toEqual(ops(rest(), 110));
    expect(JSON.stringify(ops(scene, 135))).not.toBe(JSON.stringify(ops(rest(), 135)));
  });

  it('any two combine', () => {
    for (const a of COMING) {
      for (const b of COMING) {
        const two = [a, b].map((k) => ({ ...k.make(), start: { at: 0, of: 'in' } }));
        const scene = made({ motion: { in: two } });
        for (const t of [0, 8, 20]) {
          expect(() => studio.paint(scene.evaluate(t), scene.frame, { width: 96, height: 54 })).not.toThrow();
        }
      }
    }
  });

  it('works on what it is told, in the order it is told', () => {
    const fade = (part: Record<string, unknown>) => ({
      unit: 'word',
      stagger: 20,
      start: { at: 0 },
      length: 10,
      ease: 'linear',
      away: { opacity: 0 },
      ...part,
    });
    const shown = (part: Record<string, unknown>, time: number) =>
      paths(ops(made({ motion: { in: [fade(part)] } }, 'One two three'), time)).length;
    // After 15 frames the first word is there (3 letters); after 35 the second too.
    expect(shown({}, 15)).toBe(3);
    expect(shown({}, 35)).toBe(6);
    expect(shown({ order: 'backwards' }, 15)).toBe(5);
    expect(shown({ unit: 'whole' }, 15)).toBe(1);
    const first = (order: string) =>
      letters(made({ motion: { in: [fade({ order, unit: 'letter' })] } }), 0).length;
    for (const order of ['from-middle', 'to-middle', 'random']) expect(first(order)).toBeGreaterThan(10);
  });
});

it('tells the ways letters take about a moment, and none where they stand', () => {
  const motion = {
    unit: 'letter',
    stagger: 0,
    start: { at: 0 },
    length: 40,
    ease: 'linear',
    away: { move: [2, 0, 0] },
  };
  const scene = made({ motion: { in: [motion] } });
  const [first] = letters(scene, 20);
  const [from, to] = [first!.way!.at(-1)!, first!.way![0]!];
  // From where it comes from to where it goes, through where it is.
  expect(from[0] - to[0]).toBeGreaterThan(60);
  expect(Math.abs(from[1] - to[1])).toBeLessThan(0.01);
  const middle = (first!.quad[0]![0] + first!.quad[1]![0]) / 2;
  expect(middle).toBeLessThan(from[0]);
  expect(middle).toBeGreaterThan(to[0]);
  expect(letters(scene, 110)[0]!.way).toBeUndefined();
  expect(letters(made({}), 20)[0]!.way).toBeUndefined();
});

describe('every way to move while standing', () => {
  it.each(STANDING.map((k) => [k.id, k] as const))('%s moves, the same at the same time', (_, kind) => {
    const motion = kind.make();
    expect(kind.is(motion)).toBe(true);
    const scene = made({ motion: { during: [motion] } });
    const times = [61, 70, 83, 97, 111];
    const seen = times.map((t) => JSON.stringify(ops(scene, t)));
    // What is held stays as it is, other than at rest.
    if (kind.id === 'held') expect(seen[0]).not.toBe(JSON.stringify(ops(made({}), times[0]!)));
    else expect(new Set(seen).size).toBeGreaterThan(1);
    expect(
      [...times]
        .reverse()
        .map((t) => JSON.stringify(ops(scene, t)))
        .reverse(),
    ).toEqual(seen);
  });
});

describe('fields of a motion', () => {
  it('read back what they wrote, for every kind', () => {
    for (const kind of [...COMING, ...STANDING]) {
      for (const field of kind.fields as readonly (typeof kind.fields)[number][]) {
        const motion = kind.make() as never;
        if (field.kind === 'number') {
          const value = field.min + (field.max - field.min) * 0.75;
          const snapped = Math.round(value / field.step) * field.step;
          expect(field.read(field.write(motion, snapped) as never)).toBeCloseTo(snapped, 1);
        } else if (field.kind === 'choice') {
          for (const { id } of field.options) expect(field.read(field.write(motion, id) as never)).toBe(id);
        } else for (const on of [true, false]) expect(field.read(field.write(motion, on) as never)).toBe(on);
      }
    }
  });
});

describe('bad timing', () => {
  const motion = (part: Record<string, unknown>) => ({
    unit: 'letter',
    stagger: 2,
    start: { at: 0 },
    length: 20,
    away: { opacity: 0 },
    ...part,
  });

  it('an in or out without length shows its end at once', () => {
    const timing = {
      timing: { in: 0, hold: 60, out: 0 },
      scenes: [
        { id: 'all', name: 'All', from: { at: 0 }, to: { at: 0, of: 'out' }, still: { at: 0, of: 'hold' } },
      ],
    };
    const scene = made(
      { motion: { in: [motion({})], out: [motion({ start: { at: 0, of: 'out' } })] } },
      'Wind',
      timing,
    );
    expect(ops(scene, 0)).toEqual(ops(made({}, 'Wind', timing), 0));
    expect(ops(scene, 30).length).toBeGreaterThan(0);
  });

  it('a stagger longer than the title gives way, and all letters are there when the in ends', () => {
    const scene = made({ motion: { in: [motion({ stagger: 5000 })] } });
    expect(ops(scene, 60)).toEqual(ops(made({}), 60));
  });

  it('typing that would take too long is typed faster', () => {
    const typed = motion({ stagger: 90, length: 1, away: { typing: { cursor: false, slips: 0.4 } } });
    expect(ops(made({ motion: { in: [typed] } }), 60)).toEqual(ops(made({}), 60));
  });
});

describe('typing', () => {
  const scene = (slips: number, cursor = true) =>
    made({
      motion: {
        in: [
          { unit: 'letter', stagger: 3, start: { at: 0 }, length: 1, away: { typing: { slips, cursor } } },
        ],
      },
    });

  it('has a cursor after the last letter, which blinks while it waits', () => {
    const bars = [...Array(60).keys()].map((t) => paths(ops(scene(0), 60 + t)).length);
    expect(new Set(bars)).toEqual(new Set([1, 2]));
  });

  it('slips show a wrong letter that goes again', () => {
    const counts = [...Array(58).keys()].map((t) => paths(ops(scene(0.5, false), t)).length);
    expect(counts.some((c, i) => i > 0 && c < counts[i - 1]!)).toBe(true);
    const steady = [...Array(58).keys()].map((t) => paths(ops(scene(0, false), t)).length);
    // All there, they are painted as one.
    const until = steady.slice(0, steady.indexOf(Math.max(...steady)));
    expect(until.every((c, i) => i === 0 || c >= until[i - 1]!)).toBe(true);
  });
});

describe('marked words', () => {
  const words = { text: 'Mind the gust', runs: [{ from: 9, to: 13, marked: true }] };
  const fill: Fill = { slots: { t: words }, controls: {} };

  it('take the template’s weight and colour, or their own', () => {
    const scene = made({ marked: { weight: 900, fill: { colour: '#FF0000' } } }, '', {}, fill);
    const colours = new Set(paths(ops(scene, 80)).map((o) => JSON.stringify(o.fill)));
    expect([...colours].sort()).toEqual(
      ['{"kind":"solid","colour":"#FF0000"}', '{"kind":"solid","colour":"#FFFFFF"}'].sort(),
    );
    const own: Fill = {
      slots: {
        t: { text: words.text, runs: [{ from: 0, to: 4, colour: '#00FF00', underline: true, weight: 800 }] },
      },
      controls: {},
    };
    expect(JSON.stringify(ops(made({}, '', {}, own), 80))).toContain('#00FF00');
    expect(paths(ops(made({}, '', {}, own), 80)).length).toBe(3);
  });

  it('motion and plates can be limited to them', () => {
    const fade = { unit: 'word', start: { at: 0 }, length: 40, away: { opacity: 0 }, only: 'marked' };
    // At the start all other words are there: seven letters.
    expect(paths(ops(made({ motion: { in: [fade] } }, '', {}, fill), 0)).length).toBe(7);
    const plated = made(
      { plates: [{ behind: 'marked', margin: 4, fill: { colour: '#FFCC00' } }] },
      '',
      {},
      fill,
    );
    expect(JSON.stringify(ops(plated, 80)[0])).toContain('#FFCC00');
    expect(paths(ops(plated, 80)).filter((o) => JSON.stringify(o.fill).includes('FFCC00'))).toHaveLength(1);
  });

  it('effects and shadows can be limited to them, or to the others', () => {
    const blurred = (only: string) =>
      ops(made({ effects: [{ effect: 'blur', radius: 5, only }] }, '', {}, fill), 80);
    const inGroup = (all: readonly Op[]) => {
      const from = all.findIndex((o) => o.op === 'open');
      const to = all.findIndex((o) => o.op === 'close');
      return [paths(all.slice(from, to)).length, paths(all).length];
    };
    // At rest each half is one outline.
    expect(inGroup(blurred('marked'))).toEqual([1, 2]);
    expect(blurred('marked').findIndex((o) => o.op === 'open')).toBe(1);
    expect(blurred('unmarked').findIndex((o) => o.op === 'open')).toBe(0);
    const shadow = { strength: 0.5, only: 'marked' };
    const open = ops(made({ shadow }, '', {}, fill), 80).filter((o) => o.op === 'open');
    expect(open.map((o) => o.effects.map((e) => e.effect))).toEqual([['shadow']]);
    expect(open[0]!.bounds.x).toBeGreaterThan(100);
  });
});

describe('setting', () => {
  it('outlines stand outside, on the edge or inside, several at once', () => {
    const outline = (side: string, width: number) => ({ paint: { colour: '#FF0000' }, width, side });
    const plain = ink(made({ size: 160, fit: { width: 1800 } }, 'Wind'), 80);
    const with_ = (...outlines: object[]) =>
      ink(made({ size: 160, fit: { width: 1800 }, outlines }, 'Wind'), 80);
    expect(with_(outline('outside', 12))).toBeGreaterThan(plain * 1.2);
    expect(Math.abs(with_(outline('inside', 6)) / plain - 1)).toBeLessThan(0.04);
    expect(with_(outline('centre', 12))).toBeLessThan(with_(outline('outside', 12)));
    expect(with_(outline('outside', 6), outline('outside', 16))).toBeGreaterThan(
      with_(outline('outside', 6)),
    );
  });

  it('hollow letters show what is behind them', () => {
    const solid = ink(made({ size: 160, fit: { width: 1800 } }, 'O'), 80);
    const hollow = ink(
      made(
        {
          size: 160,
          fit: { width: 1800 },
          fill: 'none',
          outlines: [{ paint: { colour: '#FF0000' }, width: 4 }],
        },
        'O',
      ),
      80,
    );
    expect(hollow).toBeGreaterThan(0);
    expect(hollow).toBeLessThan(solid * 0.8);
  });

  it('an underline runs below its words, a baseline shift lifts them', () => {
    const box = (layer: Record<string, unknown>) => {
      const scene = made({ size: 100, fit: { width: 1800 }, ...layer }, 'Wind');
      const { context } = studio.paint(scene.evaluate(80), scene.frame, { width: 1920, height: 1080 });
      const { data } = context.getImageData(0, 0, 1920, 1080);
      let [top, bottom] = [1080, 0];
      for (let i = 3; i < data.length; i += 4) {
        if (data[i]! < 128) continue;
        const y = Math.floor((i - 3) / 4 / 1920);
        [top, bottom] = [Math.min(top, y), Math.max(bottom, y)];
      }
      return { top, bottom };
    };
    expect(box({ underline: true }).bottom).toBeGreaterThan(box({}).bottom + 8);
    const down = box({ shift: -300 });
    expect(down.bottom - box({}).bottom).toBeGreaterThanOrEqual(29);
    expect(down.bottom - box({}).bottom).toBeLessThanOrEqual(31);
  });

  it('a shadow falls where it is told', () => {
    const scene = made({ shadow: { angle: 0, distance: 40, blur: 0, strength: 1, colour: '#0000FF' } });
    const open = ops(scene, 80).find((o) => o.op === 'open')!;
    expect(JSON.stringify(open)).toContain('"offset":[40,0]');
  });

  it('a picture shows through the letters', async () => {
    const red = studio.paint(
      {
        ops: [
          {
            op: 'path',
            path: { commands: [['M', 0, 0], ['L', 64, 0], ['L', 64, 64], ['L', 0, 64], ['Z']] },
            plane: [1, 0, 0, 0, 1, 0, 0, 0, 1],
            fill: { kind: 'solid', colour: '#FF0000' },
            opacity: 1,
          },
        ],
      },
      { width: 64, height: 64 },
      { width: 64, height: 64 },
    );
    const { pngOf } = await import('@fresh-reel/node-host');
    await studio.addPicture('sha256:red', await pngOf(red));
    const media = freshPicture('sha256:red');
    const scene = made({ size: 300, fit: { width: 1800 }, fill: { media } }, 'IIII');
    const { context } = studio.paint(scene.evaluate(80), scene.frame, { width: 480, height: 270 });
    const { data } = context.getImageData(0, 0, 480, 270);
    let [reds, others] = [0, 0];
    for (let i = 0; i < data.length; i += 4) {
      if (data[i + 3]! < 250) continue;
      if (data[i]! > 240 && data[i + 1]! < 15) reds++;
      else others++;
    }
    expect(reds).toBeGreaterThan(200);
    expect(others).toBe(0);
  });

  it('a list shows the lines and the column it is told', () => {
    const list = 'Camera | Ines\n\nSound | Tobias\nEdit | Pell';
    const shown = (words: object) => {
      const scene = sceneOf(
        studio,
        templateOf([textLayer('t', { words: { slot: 't', ...words }, fit: { width: 1800, lines: 9 } })], {
          slots: [{ ...textSlot('t', list), kind: 'list' }],
        }),
      );
      return letters(scene, 80).length;
    };
    // Letters and spaces that are set: "Ines", "Tobias", "Pell".
    expect(shown({ column: 2 })).toBe(14);
    expect(shown({ column: 1, first: 2, count: 1 })).toBe('Sound'.length);
    expect(shown({ column: 2, first: 3 })).toBe(4);
  });
});

describe('words along a line that is not straight', () => {
  const centre = (quad: readonly (readonly [number, number])[]) =>
    [(quad[3]![0] + quad[2]![0]) / 2, (quad[3]![1] + quad[2]![1]) / 2] as const;

  it('round a circle: the feet of the letters lie on it, outside or inside', () => {
    for (const side of ['outside', 'inside']) {
      const scene = made({
        align: 'middle',
        at: [0.5, 0.5],
        origin: [0.5, 0.5],
        along: { circle: { radius: 300, side } },
      });
      const found = letters(scene, 80);
      const reach = found.map(({ quad }) => {
        const [x, y] = centre(quad);
        return Math.hypot(x - 960, y - 540);
      });
      // The box of a letter reaches below its baseline: its foot is a little nearer to the middle, or farther.
      for (const r of reach) expect(Math.abs(r - 300)).toBeLessThan(30);
      for (const { quad } of found) {
        const top = [(quad[0]![0] + quad[1]![0]) / 2, (quad[0]![1] + quad[1]![1]) / 2] as const;
        const outward =
          Math.hypot(top[0] - 960, top[1] - 540) > Math.hypot(centre(quad)[0] - 960, centre(quad)[1] - 540);
        expect(outward).toBe(side === 'outside');
      }
      // Aligned to the top (or, inside, read from the left there), evenly to both sides.
      const xs = found.map(({ quad }) => centre(quad)[0]);
      expect(Math.abs((Math.min(...xs) + Math.max(...xs)) / 2 - 960)).toBeLessThan(20);
    }
  });

  it('along a drawn path, and they travel with their position', () => {
    const scene = (position: unknown) =>
      made({ align: 'middle', along: { path: 'M 0.1 0.5 L 0.9 0.5', position } });
    const middle = (s: GraphicScene, t: number) => {
      const xs = letters(s, t).flatMap(({ quad }) => quad.map(([x]) => x));
      return (Math.min(...xs) + Math.max(...xs)) / 2;
    };
    expect(Math.abs(middle(scene(0.5), 80) - 960)).toBeLessThan(2);
    expect(Math.abs(middle(scene(0.25), 80) - (192 + 0.25 * 1536))).toBeLessThan(2);
    const moving = scene({
      keys: [
        { at: 0, of: 'in', value: 0, ease: 'linear' },
        { at: 60, of: 'in', value: 1 },
      ],
    });
    expect(Math.abs(middle(moving, 30) - 960)).toBeLessThan(2);
    expect(middle(moving, 50)).toBeGreaterThan(middle(moving, 20));
  });

  it('longer words than the path shrink; a path of one point is told, and nothing breaks', () => {
    const short = made({ along: { path: 'M 0.4 0.5 L 0.5 0.5' } }, 'A rather long headline').evaluate(80);
    expect(short.notices.map((n) => n.kind)).toEqual(['shrunk']);
    const long = made(
      { along: { path: 'M 0.4 0.5 L 0.5 0.5' } },
      'A headline much longer than any path '.repeat(4),
    );
    expect(long.evaluate(80).notices.map((n) => n.kind)).toEqual(['cut']);
    const one = made({ along: { path: 'M 0.5 0.5' } }).evaluate(80);
    expect(one.notices).toEqual([{ kind: 'short-path', slot: 't' }]);
    expect(one.ops.length).toBeGreaterThan(0);
    expect(made({ along: { path: 'not a path' } }).evaluate(80).notices[0]!.kind).toBe('short-path');
  });
});

describe('very much text', () => {
  it('10,000 letters are set, told and painted', () => {
    const { notices, ops: list } = made({}, 'wind '.repeat(2000)).evaluate(80);
    expect(notices[0]).toMatchObject({ kind: 'cut', slot: 't' });
    expect(list.length).toBeGreaterThan(0);
  });

  it('of a list of 5,000 lines only what is in view is painted, and it is set once', () => {
    const list = Array.from({ length: 5000 }, (_, i) => `Kite maker ${i}`).join('\n');
    const scene = sceneOf(
      studio,
      templateOf(
        [
          textLayer('t', {
            fit: { width: 1800, lines: 10000 },
            offset: {
              keys: [
                { at: 0, value: [0, 1000] },
                { at: 60, of: 'out', value: [0, -90000] },
              ],
            },
          }),
        ],
        { slots: [{ ...textSlot('t', list), kind: 'list' }] },
      ),
    );
    const before = studio.layouts.made;
    for (const t of [30, 60, 90, 120, 150]) {
      const { ops: painted } = scene.evaluate(t);
      expect(painted.length).toBeGreaterThan(0);
      expect(painted.length).toBeLessThan(8);
    }
    expect(studio.layouts.made - before).toBe(1);
  });

  it('words are set once, however they move', () => {
    const scene = made(
      { motion: { in: [COMING[0]!.make()], during: [STANDING[1]!.make()] } },
      'Set only once',
    );
    const before = studio.layouts.made;
    for (let t = 0; t < 180; t++) scene.evaluate(t);
    expect(studio.layouts.made - before).toBe(1);
  });
});
