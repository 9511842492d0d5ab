import type { NodeStudio } from '@fresh-reel/node-host';
import fc from 'fast-check';
import { EMPTY_FILL } from '../documents/fill';
import type { Reel } from '../documents/reel';
import type { Op } from '../paint/ops';
import { templateOf, testStudio, textLayer, textSlot } from '../testing/studio';
import { OFFERED_RATES, type Rate } from '../time/rate';
import { GraphicItem } from './graphicItem';
import { ReelScene } from './reelScene';

let studio: NodeStudio;
beforeAll(async () => {
  studio = await testStudio();
});

const SIXTY = { num: 60, den: 1 };

/** A graphic of one colour, so many frames long. */
const colour = (fill: string, frames: number, rate: Rate = { num: 60, den: 1 }, move: object = {}) =>
  templateOf([{ id: 'a', kind: 'shape', outline: { kind: 'rectangle' }, fill: { colour: fill }, ...move }], {
    rate,
    timing: { in: frames, hold: 0, out: 0 },
    scenes: [{ id: 'all', name: 'All', from: { at: 0 }, to: { at: frames }, still: { at: 0 } }],
    still: { at: 0 },
  });

function reelOf(
  rate: Rate,
  graphics: readonly { template: ReturnType<typeof colour>; start: number }[],
): Reel {
  return {
    ...{ format: 'freshreel/reel', version: 5, id: 'r', name: 'R', created: '', changed: '' },
    frame: { width: 1920, height: 1080 },
    rate,
    templates: Object.fromEntries(graphics.map((g, i) => [`t${i}`, g.template])),
    tracks: [
      {
        id: 't',
        items: graphics.map((g, i) => ({
          kind: 'graphic',
          id: `g${i}`,
          fill: EMPTY_FILL,
          template: `t${i}`,
          start: g.start,
        })),
      },
    ],
    motionBlur: { samples: 1, shutter: 0.5 },
    markers: [],
    ways: [],
  } as Reel;
}

const coloursOf = (ops: readonly Op[]) =>
  ops.flatMap((o) => (o.op === 'path' && o.fill?.kind === 'solid' ? [o.fill.colour] : []));

describe('graphics that follow each other', () => {
  const two = (rate: Rate, length = 240) =>
    new ReelScene(
      reelOf(rate, [
        { template: colour('#FF0000', length), start: 0 },
        {
          template: colour('#0000FF', length),
          start: Math.max(1, Math.round((length * rate.num) / rate.den / 60)),
        },
      ]),
      studio,
    );

  it.each(OFFERED_RATES)('never show together, and leave no gap, at $num/$den', (rate) => {
    for (const reelRate of [SIXTY, rate]) {
      const scene = two(reelRate);
      const count = scene.frameCount(rate);
      const shown = Array.from({ length: count }, (_, f) => coloursOf(scene.frameAt(f, rate).ops).join());
      const cut = shown.indexOf('#0000FF');
      expect(shown.slice(0, cut).every((c) => c === '#FF0000')).toBe(true);
      expect(shown.slice(cut).every((c) => c === '#0000FF')).toBe(true);
    }
  });

  it('whatever their lengths and rates', () => {
    const rate = fc.constantFrom(...OFFERED_RATES);
    fc.assert(
      fc.property(rate, rate, fc.integer({ min: 1, max: 90 }), (reelRate, outRate, length) => {
        const scene = two(reelRate, length);
        const count = scene.frameCount(outRate);
        return Array.from({ length: count }, (_, f) => coloursOf(scene.frameAt(f, outRate).ops).length).every(
          (n) => n <= 1,
        );
      }),
      { numRuns: 60 },
    );
  });

  it('are not mixed by motion blur across their cut', () => {
    const scene = two(SIXTY);
    const blurred = new ReelScene({ ...scene.reel, motionBlur: { samples: 8, shutter: 1 } }, studio);
    const around = [239, 240].map((f) => blurred.subFrames(f, SIXTY).map((m) => coloursOf(m.ops).join()));
    expect(around).toEqual([Array(8).fill('#FF0000'), Array(8).fill('#0000FF')]);
  });
});

describe('a hold of no length', () => {
  const SIXTY = { num: 60, den: 1 };
  it('does not make keys of its neighbours cross over', () => {
    const template = templateOf(
      [
        {
          id: 'a',
          kind: 'shape',
          outline: { kind: 'rectangle' },
          fill: { colour: '#FFFFFF' },
          opacity: {
            keys: [
              { at: 0, value: 0, ease: 'linear' },
              { at: 20, of: 'hold', value: 1, ease: 'linear' },
              { at: -20, of: 'out', value: 1, ease: 'linear' },
              { at: 60, of: 'out', value: 0 },
            ],
          },
        },
      ],
      { timing: { in: 60, hold: 0, out: 60 } },
    );
    const scene = new ReelScene(reelOf(SIXTY, [{ template, start: 0 }]), studio);
    const opacity = Array.from({ length: 120 }, (_, f) => {
      const [op] = scene.frameAt(f, SIXTY).ops;
      return op?.op === 'path' ? op.opacity : 0;
    });
    const steps = opacity.slice(1).map((v, i) => Math.abs(v - opacity[i]!));
    expect(Math.max(...steps)).toBeLessThan(0.03);
    expect(Math.max(...opacity)).toBeGreaterThan(0.95);
  });
});

describe('a clip in a slot', () => {
  const SIXTY = { num: 60, den: 1 };
  beforeAll(() => {
    // Facts alone: nothing is decoded here.
    const facts = studio.mediaFacts.bind(studio);
    jest
      .spyOn(studio, 'mediaFacts')
      .mockImplementation((id) =>
        id === 'sha256:clip' ? { width: 1600, height: 900, duration: 4, sound: true } : facts(id),
      );
  });
  /** A picture that comes in from the right, and is in view from frame 90 to frame 150 of 180. */
  const template = templateOf(
    [
      {
        id: 'wall',
        kind: 'group',
        move: {
          keys: [
            { at: 0, value: [1980, 0, 0], ease: 'linear' },
            { at: 180, value: [0, 0, 0] },
          ],
        },
        layers: [
          {
            id: 'p',
            kind: 'picture',
            slot: 'p',
            size: [300, 300],
            span: { from: { at: 6 }, to: { at: 150 } },
          },
          {
            id: 'card',
            kind: 'shape',
            outline: { kind: 'rectangle' },
            fill: { colour: '#FF0000' },
            needs: ['p'],
          },
        ],
      },
    ],
    {
      timing: { in: 180, hold: 0, out: 0 },
      slots: [
        {
          id: 'p',
          kind: 'picture',
          name: 'P',
          scenes: ['all'],
          moment: { at: 120 },
          sample: null,
          optional: true,
        },
      ],
      scenes: [{ id: 'all', name: 'All', from: { at: 0 }, to: { at: 180 }, still: { at: 0 } }],
    },
  );
  const fill = {
    ...EMPTY_FILL,
    slots: { p: { media: 'sha256:clip', focus: [0.5, 0.5] as [number, number], scale: 1, turn: 0 } },
  };
  const scene = (f: object = fill) =>
    new ReelScene(
      {
        ...reelOf(SIXTY, []),
        templates: { t: template },
        tracks: [{ id: 't', items: [{ kind: 'graphic', id: 'g', template: 't', fill: f, start: 0 }] }],
      } as Reel,
      studio,
    );

  it('begins when its layer first shows, and its span says when that is', () => {
    const { scene: graphic } = new GraphicItem({ id: 'g', template, fill }, scene().frame, studio);
    const [from, to] = graphic.seenSpan('p');
    // By hand: 1980·(1 − t/180) = 1920 at t = 5.45, and its layer's time begins at 6 and ends at 150.
    expect([from, to]).toEqual([6, 150]);
    const at = (frame: number) => {
      const op = scene()
        .frameAt(frame, SIXTY)
        .ops.find((o) => o.op === 'picture');
      return op?.op === 'picture' ? op.at : undefined;
    };
    expect(at(6)).toBeCloseTo(0.001, 6);
    expect(at(66)).toBeCloseTo(1.001, 6);
  });

  it('takes its whole part away when it is hidden or emptied', () => {
    const cards = (f: object) => coloursOf(scene(f).frameAt(100, SIXTY).ops);
    expect(cards(fill)).toEqual(['#FF0000']);
    expect(cards({ ...fill, hidden: ['p'] })).toEqual([]);
    expect(cards({ ...fill, slots: { p: null } })).toEqual([]);
    // What is missing is still meant to be there.
    expect(cards({ ...fill, slots: { p: { ...fill.slots.p, media: 'sha256:gone' } } })).toEqual(['#FF0000']);
  });
});

describe('items that share a template', () => {
  const words = 'A line that is far too long for the place it has and is shrunk until it fits into it';
  const narrow = templateOf([textLayer('t', { fit: { width: 500, lines: 1, least: 0.2 } })], {
    slots: [textSlot('t', 'Short')],
  });
  const graphic = (id: string, start: number, said: string) => ({
    kind: 'graphic',
    id,
    template: 'narrow',
    fill: { ...EMPTY_FILL, slots: { t: said } },
    start,
  });
  const scene = () =>
    new ReelScene(
      {
        ...reelOf(SIXTY, []),
        templates: { narrow },
        tracks: [
          { id: 'a', items: [graphic('one', 0, 'Short')] },
          { id: 'b', items: [graphic('two', 30, words)] },
        ],
      } as Reel,
      studio,
    );

  it('are told apart in regions, notices and letters', () => {
    const frame = scene().frameAt(90, SIXTY, { item: 'two', layer: 't' });
    expect(frame.regions.map((r) => [r.item, r.slot])).toEqual([
      ['one', 't'],
      ['two', 't'],
    ]);
    expect(frame.notices.map((n) => [n.item, n.kind])).toEqual([['two', 'shrunk']]);
    expect(frame.letters?.item).toBe('two');
    expect(frame.letters?.letters).toHaveLength(words.length);
  });

  it('are told apart in checks, each with the frame it is seen in', () => {
    const found = scene().checks();
    // The slot is best seen as its hold begins, 60 frames on; both stand in the corner, outside the safe area.
    expect(found.map((c) => [c.item, c.kind, c.slot, c.frame])).toEqual([
      ['one', 'outside-safe', 't', 60],
      ['two', 'shrunk', 't', 90],
      ['two', 'outside-safe', 't', 90],
      ['two', 'read-in-haste', '', 90],
    ]);
  });
});
