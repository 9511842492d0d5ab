import type { NodeStudio } from '@fresh-reel/node-host';
import { opsBounds } from '../paint/bounds';
import type { Op } from '../paint/ops';
import { sameOps } from '../paint/ops';
import { pixelAt, sceneOf, templateOf, testStudio, textLayer, textSlot } from '../testing/studio';

let studio: NodeStudio;
beforeAll(async () => {
  studio = await testStudio();
});

const rectangle = (id: string, part: object = {}) => ({
  id,
  kind: 'shape',
  outline: { kind: 'rectangle' },
  fill: { colour: '#FF0000' },
  ...part,
});
const boundsAt = (scene: ReturnType<typeof sceneOf>, time: number) => opsBounds(scene.evaluate(time).ops);

describe('placing', () => {
  it('puts a layer by anchor, offset and origin', () => {
    const scene = sceneOf(
      studio,
      templateOf([rectangle('a', { size: [200, 100], at: [1, 1], offset: [-40, -30], origin: [1, 1] })]),
    );
    expect(boundsAt(scene, 0)).toEqual({ x: 1920 - 240, y: 1080 - 130, width: 200, height: 100 });
  });

  it('hugs words: a plate keeps its margin round them, and their middle', () => {
    const template = templateOf(
      [
        {
          id: 'g',
          kind: 'group',
          at: [0.5, 0.5],
          origin: [0.5, 0.5],
          row: { direction: 'column', gap: 10 },
          layers: [
            rectangle('plate', { hug: { layers: ['title'], margin: [10, 20, 30, 40] } }),
            textLayer('title'),
          ],
        },
      ],
      { slots: [textSlot('title', 'Marit')] },
    );
    for (const title of ['Marit', 'Wilhelmina Featherstonehaugh']) {
      const { ops, regions } = sceneOf(studio, template, { slots: { title }, controls: {} }).evaluate(60);
      const [[left, top], , [right, bottom]] = regions[0]!.quad as [
        [number, number],
        [number, number],
        [number, number],
        [number, number],
      ];
      expect((left + right) / 2).toBeCloseTo(960, 6);
      const plate = opsBounds([ops[0]!]);
      expect(plate.x).toBeCloseTo(left - 40, 6);
      expect(plate.y).toBeCloseTo(top - 10, 6);
      expect(plate.x + plate.width).toBeCloseTo(right + 20, 6);
      expect(plate.y + plate.height).toBeCloseTo(bottom + 30, 6);
    }
  });

  it('closes up where a slot is empty', () => {
    const template = templateOf(
      [
        {
          id: 'g',
          kind: 'group',
          row: { direction: 'column', gap: 50 },
          layers: [textLayer('a'), textLayer('b')],
        },
      ],
      { slots: [textSlot('a', 'One'), textSlot('b', 'Two')] },
    );
    const y = (slots: Record<string, string | null>) =>
      sceneOf(studio, template, { slots, controls: {} }).evaluate(60).regions.at(-1)!.quad[0]![1];
    expect(y({})).toBeGreaterThan(50);
    expect(y({ a: null })).toBe(0);
    expect(y({ a: '' })).toBe(0);
  });

  it('a plate round nothing is not drawn', () => {
    const template = templateOf([rectangle('p', { hug: { layers: ['a'] } }), textLayer('a')], {
      slots: [textSlot('a', 'One')],
    });
    expect(sceneOf(studio, template, { slots: { a: null }, controls: {} }).evaluate(60).ops).toEqual([]);
  });

  it('turns a row round', () => {
    const make = (reverse: boolean) =>
      sceneOf(
        studio,
        templateOf([
          {
            id: 'g',
            kind: 'group',
            row: { direction: 'row', gap: 5, reverse },
            layers: [
              rectangle('a', { size: [10, 10] }),
              rectangle('b', { size: [30, 10], fill: { colour: '#00FF00' } }),
            ],
          },
        ]),
      ).evaluate(0).ops;
    expect(opsBounds([make(false)[0]!]).x).toBe(0);
    // The list's order still says what lies on top.
    expect(opsBounds([make(true)[0]!]).x).toBe(35);
    expect(opsBounds([make(true)[1]!]).x).toBe(0);
  });
});

describe('time', () => {
  const moving = templateOf(
    [
      textLayer('t', {
        motion: {
          in: [
            {
              unit: 'letter',
              order: 'random',
              stagger: 3,
              start: { at: 0 },
              length: 20,
              away: { opacity: 0, move: [0, 1, 0], turn: [20, 30, 40] },
            },
          ],
          out: [{ unit: 'word', stagger: 2, start: { at: 10, of: 'out' }, length: 20, away: { opacity: 0 } }],
        },
      }),
      rectangle('a', {
        move: {
          keys: [
            { at: 0, value: [0, 0, 0] },
            { at: 40, value: [300, 0, -50] },
          ],
        },
        turn: { wave: { size: [0, 10, 5], every: 90 } },
      }),
      { id: 'n', kind: 'grain', amount: 0.2 },
    ],
    { slots: [textSlot('t', 'Hold the line')] },
  );

  it('a frame depends on time alone: any order, any scene object', () => {
    const one = sceneOf(studio, moving);
    const times = [130, 0, 61.5, 12, 175, 12];
    const first = times.map((t) => one.evaluate(t).ops);
    const again = [...times]
      .reverse()
      .map((t) => sceneOf(studio, moving).evaluate(t).ops)
      .reverse();
    times.forEach((_, i) => {
      expect(JSON.stringify(first[i])).toBe(JSON.stringify(again[i]));
    });
  });

  it('the same moment paints the same picture from JSON', () => {
    const { ops } = sceneOf(studio, moving).evaluate(30);
    expect(sameOps(ops, JSON.parse(JSON.stringify(ops)) as Op[])).toBe(true);
  });

  it('a longer hold moves the exit and leaves the entrance', () => {
    const longer = { ...moving, timing: { ...moving.timing, hold: 400 } };
    const [short, long] = [sceneOf(studio, moving), sceneOf(studio, longer)];
    const words = (ops: readonly Op[]) => JSON.stringify(ops.filter((o) => o.op === 'path').slice(0, -1));
    expect(words(long.evaluate(25).ops) === words(short.evaluate(25).ops)).toBe(true);
    expect(words(long.evaluate(400 - 60 + 145).ops) === words(short.evaluate(145).ops)).toBe(true);
    expect(words(long.evaluate(145).ops) === words(short.evaluate(145).ops)).toBe(false);
  });

  it('spans show and hide', () => {
    const scene = sceneOf(
      studio,
      templateOf([rectangle('a', { span: { from: { at: 10 }, to: { at: 0, of: 'out' } } })]),
    );
    expect([9, 10, 119, 120].map((t) => scene.evaluate(t).ops.length)).toEqual([0, 1, 1, 0]);
  });
});

describe('words in motion', () => {
  const withIn = (motion: object) =>
    templateOf(
      [
        textLayer('t', {
          at: [0.5, 0.5],
          motion: {
            in: [
              {
                start: { at: 0 },
                length: 20,
                ease: 'linear',
                away: { opacity: 0 },
                unit: 'letter',
                ...motion,
              },
            ],
          },
        }),
      ],
      { slots: [textSlot('t', 'abcd')] },
    );
  const opacities = (template: ReturnType<typeof withIn>, time: number) =>
    sceneOf(studio, template)
      .evaluate(time)
      .ops.map((o) => (o.op === 'path' ? Number(o.opacity.toFixed(3)) : 0));

  it('come letter by letter, and at rest are one outline', () => {
    expect(opacities(withIn({ stagger: 10 }), 15)).toEqual([0.75, 0.25]);
    expect(opacities(withIn({ stagger: 10 }), 55)).toEqual([1]);
  });

  it('always arrive within the in stretch', () => {
    const template = withIn({ stagger: 500 });
    expect(opacities(template, 59.9).length).toBe(4);
    expect(opacities(template, 60)).toEqual([1]);
  });

  it('appear at once where the in stretch has no length', () => {
    const template = { ...withIn({ stagger: 5 }), timing: { in: 0, hold: 10, out: 0, pace: 1 } };
    expect(opacities(template, 0)).toEqual([1]);
  });

  it('behind an edge never show outside their line', () => {
    const template = withIn({ away: { move: [0, 1.5, 0] }, behind: true, unit: 'line' });
    const scene = sceneOf(studio, template);
    const at = scene.evaluate(15);
    const box = opsBounds(at.ops);
    const [[, top], , [, bottom]] = at.regions[0]!.quad as [
      [number, number],
      [number, number],
      [number, number],
      [number, number],
    ];
    expect(box.y).toBeGreaterThan(top - 40);
    expect(box.y + box.height).toBeLessThan(bottom + 30);
  });
});

describe('masks, mattes and groups', () => {
  it('a mask crops, inverted it cuts out, feathered it fades', () => {
    const make = (mask: object) =>
      sceneOf(
        studio,
        templateOf([
          rectangle('a', { mask: { outline: { kind: 'rectangle' }, box: [0, 0, 0.5, 1], ...mask } }),
        ]),
      );
    expect(pixelAt(studio, make({}), 0, 400, 500)[3]).toBe(255);
    expect(pixelAt(studio, make({}), 0, 1500, 500)[3]).toBe(0);
    expect(pixelAt(studio, make({ invert: true }), 0, 400, 500)[3]).toBe(0);
    expect(pixelAt(studio, make({ invert: true }), 0, 1500, 500)[3]).toBe(255);
    expect(Math.abs(pixelAt(studio, make({ feather: 40 }), 0, 960, 500)[3]! - 128)).toBeLessThan(12);
  });

  it('a matte shows a layer only where its sibling is, and the sibling not at all', () => {
    const scene = sceneOf(
      studio,
      templateOf([
        rectangle('hole', { size: [100, 100], fill: { colour: '#0000FF' } }),
        rectangle('a', { matte: { layer: 'hole' } }),
      ]),
    );
    expect(pixelAt(studio, scene, 0, 50, 50)).toEqual([255, 0, 0, 255]);
    expect(pixelAt(studio, scene, 0, 500, 500)[3]).toBe(0);
  });

  it('depth order puts the nearest on top, whatever the list says', () => {
    const layers = [
      rectangle('near', { move: [0, 0, -100] }),
      rectangle('far', { move: [0, 0, 300], fill: { colour: '#00FF00' } }),
    ];
    const make = (order: string) => sceneOf(studio, templateOf([{ id: 'g', kind: 'group', order, layers }]));
    expect(pixelAt(studio, make('listed'), 0, 960, 540)).toEqual([0, 255, 0, 255]);
    expect(pixelAt(studio, make('depth'), 0, 960, 540)).toEqual([255, 0, 0, 255]);
  });

  it('the camera moves the picture the other way', () => {
    const scene = sceneOf(
      studio,
      templateOf([rectangle('a', { size: [100, 100] })], { camera: { position: [50, 20, 0] } }),
    );
    expect(boundsAt(scene, 0)).toEqual({ x: -50, y: -20, width: 100, height: 100 });
  });
});

describe('what the user hears', () => {
  const template = templateOf([textLayer('t')], { slots: [textSlot('t', 'One')] });
  it('shrunk, cut, and letters no font has', () => {
    const notices = (t: string) =>
      sceneOf(studio, template, { slots: { t }, controls: {} }).evaluate(60).notices;
    expect(notices('Short')).toEqual([]);
    expect(
      notices('Chair of the Marram and District Kite Flyers’ Association and keeper of the line'),
    ).toEqual([{ kind: 'shrunk', slot: 't', percent: expect.any(Number) }]);
    expect(notices('wind '.repeat(80))[0]).toMatchObject({ kind: 'cut', slot: 't' });
    expect(notices('凧')).toEqual([{ kind: 'missing-letters', slot: 't', letters: '凧' }]);
  });

  it('a picture that is missing', () => {
    const logo = { ...textSlot('logo'), kind: 'logo', sample: null };
    const withLogo = templateOf([{ id: 'l', kind: 'picture', slot: 'logo', size: [10, 10], fit: 'fit' }], {
      slots: [logo],
    });
    const fill = {
      slots: { logo: { media: 'sha256:gone', focus: [0.5, 0.5] as [number, number], scale: 1, turn: 0 } },
      controls: {},
    };
    expect(sceneOf(studio, withLogo, fill).evaluate(0).notices).toEqual([
      { kind: 'missing-picture', slot: 'logo' },
    ]);
    expect(sceneOf(studio, withLogo).evaluate(0).notices).toEqual([]);
  });
});
