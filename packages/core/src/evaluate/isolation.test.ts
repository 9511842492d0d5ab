import type { NodeStudio } from '@fresh-reel/node-host';
import type { Op } from '../paint/ops';
import { sceneOf, templateOf, testStudio, textLayer, textSlot } from '../testing/studio';

let studio: NodeStudio;
beforeAll(async () => {
  studio = await testStudio();
});

const box = (id: string, colour: string, part: object = {}) => ({
  id,
  kind: 'shape',
  outline: { kind: 'rectangle' },
  size: [400, 400],
  at: [0.5, 0.5],
  origin: [0.5, 0.5],
  fill: { colour },
  ...part,
});

/** The pixel in the middle of the frame, at a moment. */
function middle(layers: readonly object[], time = 60, at: readonly [number, number] = [960, 540]): number[] {
  return pixels(layers, time)(...at);
}

function pixels(layers: readonly object[], time = 60, slots: object[] = []) {
  const scene = sceneOf(studio, templateOf(layers, { slots }));
  const { context } = studio.paint(scene.evaluate(time), scene.frame, { width: 1920, height: 1080 });
  return (x: number, y: number) => [...context.getImageData(x, y, 1, 1).data];
}

const farthest = (a: readonly number[], b: readonly number[]) =>
  Math.max(...a.map((v, i) => Math.abs(v - b[i]!)));

describe('whether a group is a whole is said by the document, not by a value', () => {
  const ground = { ...box('ground', '#808080'), size: [1920, 1080] };
  const child = box('child', '#804020', { blend: 'multiply' });
  const keys = (from: number, to: number) => ({
    keys: [
      { at: 59, value: from, ease: 'linear' },
      { at: 61, value: to },
    ],
  });
  const group = (part: object) => ({ id: 'g', kind: 'group', layers: [child], ...part });
  it.each([
    ['opacity', group({ opacity: keys(0.99, 1) }), group({ opacity: keys(0.999, 1) })],
    [
      'blur',
      group({ effects: [{ effect: 'blur', radius: keys(0.06, 0.04) }] }),
      group({ effects: [{ effect: 'blur', radius: keys(0.06, 0) }] }),
    ],
    [
      'feather',
      group({ mask: { outline: { kind: 'rectangle' }, feather: keys(0.1, 0) } }),
      group({ mask: { outline: { kind: 'rectangle' }, feather: keys(0.02, 0) } }),
    ],
  ])('children that blend do not jump with %s', (_, one, two) => {
    for (const layer of [one, two]) {
      const [before, at, after] = [59, 60, 61].map((t) => middle([ground, layer], t));
      expect(farthest(before!, at!)).toBeLessThanOrEqual(3);
      expect(farthest(at!, after!)).toBeLessThanOrEqual(3);
    }
  });

  it('a group that the document says nothing of lets its children blend with what lies below', () => {
    const [r] = middle([ground, group({})]);
    expect(Math.abs(r! - (0x80 * 0x80) / 255)).toBeLessThanOrEqual(2);
    const [isolated] = middle([ground, group({ opacity: keys(1, 1) })]);
    expect(Math.abs(isolated! - 0x80)).toBeLessThanOrEqual(2);
  });
});

describe('words fade as one', () => {
  const slots = [textSlot('t', 'ooooo')];
  const words = (part: object) =>
    textLayer('t', {
      family: 'Pacifico',
      weight: 400,
      size: 260,
      tracking: -160,
      at: [0.5, 0.5],
      origin: [0.5, 0.5],
      fit: { width: 1800, lines: 1 },
      ...part,
    });
  /** Highest alpha anywhere. */
  const highest = (layer: object, time = 60) => {
    const scene = sceneOf(studio, templateOf([layer], { slots }));
    const { context } = studio.paint(scene.evaluate(time), scene.frame, { width: 960, height: 540 });
    return context
      .getImageData(0, 0, 960, 540)
      .data.reduce((most, v, i) => (i % 4 === 3 ? Math.max(most, v) : most), 0);
  };
  const fading = (unit: string) => ({
    in: [{ unit, start: { at: 0 }, length: 60, ease: 'linear', away: { opacity: 0 } }],
  });

  it('letters that lie over each other, at rest and while they move', () => {
    expect(highest(words({ opacity: 0.5 }))).toBe(128);
    const moving = {
      during: [{ unit: 'letter', course: 'held', move: [0, 0.1, 0], stagger: 1 }],
    };
    expect(highest(words({ opacity: 0.5, motion: moving }))).toBe(128);
    expect(highest(words({ motion: fading('word') }), 30)).toBe(128);
  });

  it('letters with an outline, each by itself: nothing of the outline shows through the fill', () => {
    const outlined = words({
      tracking: 200,
      fill: { colour: '#FFFFFF' },
      outlines: [{ paint: { colour: '#000000' }, width: 30 }],
      motion: fading('letter'),
    });
    const scene = sceneOf(studio, templateOf([outlined], { slots }));
    const { context } = studio.paint(scene.evaluate(30), scene.frame, { width: 960, height: 540 });
    const { data } = context.getImageData(0, 0, 960, 540);
    const alphas = new Map<number, number>();
    for (let i = 3; i < data.length; i += 4) alphas.set(data[i]!, (alphas.get(data[i]!) ?? 0) + 1);
    // All that is inked has one alpha; what differs is edges.
    expect(Math.max(...alphas.keys())).toBeLessThanOrEqual(130);
    expect((alphas.get(128) ?? 0) + (alphas.get(127) ?? 0)).toBeGreaterThan(10_000);
  });

  it('and come to rest without a jump', () => {
    const layer = words({
      family: 'Anton',
      tracking: 400,
      outlines: [{ paint: { colour: '#000000' }, width: 24 }],
      motion: fading('letter'),
    });
    const at = (time: number) => {
      const scene = sceneOf(studio, templateOf([layer], { slots }));
      const { context } = studio.paint(scene.evaluate(time), scene.frame, { width: 480, height: 270 });
      const { data } = context.getImageData(0, 0, 480, 270);
      // Premultiplied: the colour of what is hardly there says nothing.
      return data.map((v, i) => (i % 4 === 3 ? v : (v * data[i - (i % 4) + 3]!) / 255));
    };
    const [before, after] = [at(59.8), at(60)];
    expect(before.reduce((most, v, i) => Math.max(most, Math.abs(v - after[i]!)), 0)).toBeLessThanOrEqual(4);
  });
});

describe('effects reach in from outside the frame', () => {
  it('a blurred shape that goes on beyond the frame is as dense at its edge as inside', () => {
    const wide = box('wide', '#FFFFFF', {
      size: [2920, 2080],
      effects: [{ effect: 'blur', radius: 60 }],
    });
    const at = pixels([wide]);
    for (const [x, y] of [
      [0, 540],
      [0, 0],
      [1919, 1079],
    ] as const)
      expect(at(x, y)[3]).toBeGreaterThanOrEqual(253);
  });

  it('what lies outside throws its shadow in, alone and within a group with an effect', () => {
    const outside = box('o', '#FFFFFF', {
      at: [0, 0.5],
      origin: [1, 0.5],
      offset: [-60, 0],
      effects: [{ effect: 'shadow', offset: [400, 0], radius: 10, colour: '#000000', opacity: 1 }],
    });
    expect(pixels([outside])(100, 540)[3]).toBeGreaterThan(250);
    const held = { id: 'g', kind: 'group', layers: [outside], effects: [{ effect: 'blur', radius: 3 }] };
    expect(pixels([held])(100, 540)[3]).toBeGreaterThan(240);
    const thrown = {
      id: 'h',
      kind: 'group',
      layers: [{ ...outside, effects: [] }],
      effects: [{ effect: 'shadow', offset: [400, 0], radius: 10, colour: '#000000', opacity: 1 }],
    };
    expect(pixels([thrown])(100, 540)[3]).toBeGreaterThan(250);
  });
});

describe('effects go with the size of their layer', () => {
  const open = (ops: readonly Op[]) => ops.flatMap((o) => (o.op === 'open' ? o.effects : []));
  const effectsOf = (part: object, camera = {}) => {
    const template = templateOf(
      [
        box('a', '#FFFFFF', {
          effects: [
            { effect: 'shadow', offset: [40, 0], radius: 20, colour: '#000000', opacity: 1 },
            { effect: 'blur', radius: 10 },
          ],
          ...part,
        }),
      ],
      { camera },
    );
    return open(sceneOf(studio, template).evaluate(60).ops);
  };
  it('by its scale, its distance, and not by its turn', () => {
    const [shadow, blur] = effectsOf({ scale: [0.25, 0.25] });
    expect(shadow).toMatchObject({ offset: [10, 0], radius: 5 });
    expect(blur).toMatchObject({ radius: 2.5 });
    const far = effectsOf({ move: [0, 0, 2000] }, { distance: 2000 });
    expect((far[1] as { radius: number }).radius).toBeCloseTo(5, 6);
    const turned = effectsOf({ turn: [0, 80, 0] });
    expect((turned[1] as { radius: number }).radius).toBeCloseTo(10, 0);
  });

  it('so does the blur of words on their way, and a feather', () => {
    const text = textLayer('t', {
      scale: [0.5, 0.5],
      motion: { in: [{ unit: 'whole', start: { at: 0 }, length: 60, ease: 'linear', away: { blur: 40 } }] },
    });
    const template = templateOf([text], { slots: [textSlot('t', 'Word')] });
    const [blur] = open(sceneOf(studio, template).evaluate(30).ops) as { radius: number }[];
    expect(blur!.radius).toBeGreaterThan(8);
    expect(blur!.radius).toBeLessThan(12);
    const mask = { outline: { kind: 'rectangle' }, feather: 30 };
    const feathered = sceneOf(studio, templateOf([box('a', '#FFFFFF', { scale: [0.5, 0.5], mask })]));
    expect((open(feathered.evaluate(0).ops)[0] as { radius: number }).radius).toBeCloseTo(15, 6);
  });
});
