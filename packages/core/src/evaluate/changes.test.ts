import type { NodeStudio } from '@fresh-reel/node-host';
import { canBeKeyed } from '../documents/controls';
import { fillSchema } from '../documents/fill';
import { reelKind } from '../documents/reel';
import { templateKind } from '../documents/templateKind';
import { changeText, graphicOf, newReel, setControl } from '../edit/reel';
import { boundsOf } from '../geometry/rect';
import { graphicsOf } from '../reel/graphicTime';
import { sceneOf, templateOf, testStudio, textLayer, textSlot } from '../testing/studio';
import { openDocument } from '../values/load';
import { fontNeeds } from './needs';

let studio: NodeStudio;
beforeAll(async () => {
  studio = await testStudio();
});

const template = templateOf(
  [
    {
      id: 'g',
      kind: 'group',
      layers: [textLayer('t', { at: [0.5, 0.5], origin: [0.5, 0.5], shadow: { angle: 0 } })],
    },
  ],
  {
    slots: [textSlot('t', 'Kites over Marram')],
    controls: [
      { id: 'size', kind: 'number', name: 'Size', min: 0, max: 100, step: 1, default: 10 },
      { id: 'hold', kind: 'duration', name: 'Hold', min: 10, max: 900, default: 60 },
      { id: 'face', kind: 'font', name: 'Font', default: 'Anton' },
    ],
    timing: { in: 60, hold: { control: 'hold' }, out: 60 },
  },
);
const start = newReel(template, { id: 'r', name: 'R', now: '', shape: 'wide' });
const scene = (reel: typeof start) => sceneOf(studio, template, graphicOf(reel, 'r-1').fill);
const box = (reel: typeof start, time = 90) =>
  boundsOf(
    scene(reel)
      .evaluate(time)
      .regions.find((r) => r.slot === 't')!.quad,
  );

describe('changes of a text', () => {
  it('replace what they name, keep the rest, and go back', () => {
    const larger = changeText(start, 'r-1', 't', { size: 90, shadow: null });
    expect(scene(larger).textLayer('t')).toMatchObject({ size: 90, family: 'Figtree' });
    expect(scene(larger).textLayer('t')!.shadow).toBeUndefined();
    expect(scene(start).textLayer('t')!.shadow).toBeDefined();
    expect(box(larger).width).toBeGreaterThan(box(start).width * 1.45);
    const back = changeText(changeText(larger, 'r-1', 't', { size: undefined }), 'r-1', 't', {
      shadow: undefined,
    });
    expect(graphicOf(back, 'r-1').fill).toEqual(graphicOf(start, 'r-1').fill);
    expect(template.layers[0]).toMatchObject({ kind: 'group' });
  });

  it('move, scale and turn about the middle', () => {
    const at = (placing: object) =>
      box(
        changeText(start, 'r-1', 't', {
          placing: { move: [0, 0], scale: 1, turn: 0, tilt: [0, 0], ...placing },
        }),
      );
    const rest = box(start);
    const moved = at({ move: [100, -40] });
    expect([moved.x - rest.x, moved.y - rest.y]).toEqual([expect.closeTo(100, 4), expect.closeTo(-40, 4)]);
    expect(at({ scale: 2 }).width).toBeCloseTo(rest.width * 2, 3);
    expect(at({ scale: 2 }).x + at({ scale: 2 }).width / 2).toBeCloseTo(rest.x + rest.width / 2, 3);
    expect(at({ turn: 90 }).height).toBeCloseTo(rest.width, 3);
    expect(at({ tilt: [0, 60] }).width).toBeLessThan(rest.width * 0.7);
  });

  it('can change over time like anything else', () => {
    const keys = {
      keys: [
        { at: 0, of: 'in' as const, value: 40, ease: 'linear' as const },
        { at: 60, of: 'in' as const, value: 80 },
      ],
    };
    const reel = changeText(start, 'r-1', 't', { size: keys });
    expect(box(reel, 60).width).toBeCloseTo(box(reel, 0.001).width * 2, 0);
    expect(fillSchema.safeParse(graphicOf(reel, 'r-1').fill).success).toBe(true);
  });

  it('ask for the fonts they name', () => {
    const reel = changeText(start, 'r-1', 't', { family: 'Caveat', weight: 700 });
    expect(fontNeeds(template, graphicOf(reel, 'r-1').fill).faces).toContainEqual({
      family: 'Caveat',
      weight: 700,
    });
  });
});

describe('controls over time', () => {
  it('give the value at the playhead, and follow the stretches', () => {
    const keys = [
      { at: 0, of: 'in' as const, value: 0, ease: 'linear' as const },
      { at: 0, of: 'out' as const, value: 100 },
    ];
    const reel = setControl(start, 'r-1', 'size', { keys });
    expect(scene(reel).controlAt('size', 60)).toBeCloseTo(50, 9);
    const longer = setControl(reel, 'r-1', 'hold', 180);
    expect(scene(longer).controlAt('size', 120)).toBeCloseTo(50, 9);
    expect(scene(longer).controlAt('size', 240)).toBe(100);
  });

  it('are not for what says how long things take', () => {
    const able = template.controls.filter((c) => canBeKeyed(template, c)).map((c) => c.id);
    expect(able).toEqual(['size']);
  });

  it('with a key that does not suit are passed over', () => {
    const reel = setControl(start, 'r-1', 'size', { keys: [{ at: 0, of: 'in', value: 5000 }] });
    expect(scene(reel).controlAt('size', 0)).toBe(10);
  });
});

describe('documents of version 1', () => {
  const old = {
    format: 'freshreel/template',
    version: 1,
    id: 'old',
    name: 'Old',
    about: 'From before.',
    use: 'title',
    transparent: true,
    rate: { num: 60, den: 1 },
    timing: { in: 60, hold: 60, out: 60 },
    still: { at: 0, of: 'hold' },
    scenes: [{ id: 'all', name: 'All', from: { at: 0 }, to: { at: 60, of: 'out' }, still: { at: 0 } }],
    slots: [textSlot('t', 'Hello')],
    controls: [],
    looks: [],
    guide: ['Test.'],
    layers: [
      {
        id: 'g',
        kind: 'group',
        layers: [
          {
            id: 't',
            kind: 'text',
            words: { slot: 't' },
            family: 'Figtree',
            size: 60,
            fill: { colour: '#FFFFFF' },
            stroke: { paint: { colour: '#000000' }, width: 8 },
            fit: { width: 800 },
            motion: { in: { unit: 'letter', start: { at: 0 }, length: 20, away: { opacity: 0 } } },
          },
        ],
      },
    ],
  };

  it('open: one outline and one motion become lists', () => {
    const opened = openDocument(templateKind, old);
    const text = sceneOf(studio, opened).textLayer('t')!;
    expect(opened.version).toBe(templateKind.version);
    expect(text.outlines).toEqual([
      { paint: { colour: '#000000' }, width: { product: [8, 0.5] }, side: 'outside' },
    ]);
    expect(text.motion.in).toHaveLength(1);
    expect(text.motion.out).toEqual([]);
  });

  it('open inside a reel too', () => {
    const {
      motionBlur: _,
      templates: __,
      ...reel
    } = newReel(template, { id: 'r', name: 'R', now: '', shape: 'wide' });
    const before = {
      ...reel,
      version: 1,
      tracks: [{ id: 'x', graphics: [{ id: 'g', template: old, fill: {}, start: 0 }] }],
    };
    const opened = openDocument(reelKind, JSON.parse(JSON.stringify(before)));
    expect(graphicsOf(opened)[0]!.template.version).toBe(templateKind.version);
    expect(opened.motionBlur.samples).toBe(1);
  });
});
