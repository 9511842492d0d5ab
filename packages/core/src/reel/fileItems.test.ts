import { createNodeSurface, type NodeStudio } from '@fresh-reel/node-host';
import fc from 'fast-check';
import { EMPTY_FILL } from '../documents/fill';
import type { ReelItem, Track } from '../documents/item';
import { type Reel, reelKind } from '../documents/reel';
import { newReel } from '../edit/reel';
import { documentOnly } from '../evaluate/documentOnly';
import type { Region } from '../evaluate/graphicScene';
import { freshPicture } from '../media/pictureFill';
import type { Op } from '../paint/ops';
import { gainOf } from '../sound/play';
import { pictureSlot, templateOf, testStudio } from '../testing/studio';
import { openDocument } from '../values/load';
import { framedAt, framedRegion } from './framing';
import { graphicsOf } from './graphicTime';
import { ReelScene } from './reelScene';

const RATE = { num: 25, den: 1 };
const template = templateOf([
  { id: 'a', kind: 'shape', outline: { kind: 'rectangle' }, fill: { colour: '#FF0000' } },
]);
const resources = {
  ...documentOnly(),
  mediaFacts: (id: string) =>
    ({
      'sha256:clip': { width: 1600, height: 900, duration: 4, sound: true },
      'sha256:tall': { width: 900, height: 1600 },
    })[id],
};
const seconds = { 'sha256:clip': 4, 'sha256:song': 10 } as Record<string, number>;
const heard = (media: string) => (seconds[media] ? { duration: seconds[media]! } : undefined);

function reelOf(items: readonly ReelItem[], track: Partial<Track> = {}): Reel {
  const empty = newReel(template, { id: 'r', name: 'R', now: '', shape: 'wide', rate: RATE });
  return { ...empty, templates: {}, tracks: [{ id: 't', items: [...items], ...track }] };
}
const sceneOf = (...items: ReelItem[]) => new ReelScene(reelOf(items), resources);
const opsAt = (scene: ReelScene, frame: number) => scene.frameAt(frame, RATE).ops;
const pictureAt = (scene: ReelScene, frame: number) =>
  opsAt(scene, frame).find((o): o is Extract<Op, { op: 'picture' }> => o.op === 'picture');

const clip = (part: object = {}): ReelItem => ({
  ...{ kind: 'clip', id: 'c', start: 50, length: 75, media: 'sha256:clip', clip: {} },
  ...part,
});

describe('a clip on a track', () => {
  it('shows from its in point, at its speed, while it is there', () => {
    const scene = sceneOf(clip({ clip: { in: 1, speed: 0.5 } }));
    expect([opsAt(scene, 49), opsAt(scene, 125)]).toEqual([[], []]);
    expect(pictureAt(scene, 50)!.at).toBeCloseTo(1.001, 6);
    expect(pictureAt(scene, 100)!.at).toBeCloseTo(1 + 2 * 0.5 + 0.001, 6);
    expect(scene.frameCount(RATE)).toBe(125);
    expect(scene.transparent).toBe(false);
  });

  it('shows one frame while the shutter is open, alone and in a slot: what was filmed is blurred already', () => {
    const window = templateOf(
      [
        {
          id: 'a',
          kind: 'picture',
          slot: 'one',
          size: [0.5, 0.5],
          opacity: {
            keys: [
              { at: 0, value: 0.2 },
              { at: 60, value: 0.9 },
            ],
          },
        },
      ],
      { slots: [pictureSlot('one')], rate: RATE },
    );
    const fill = { ...EMPTY_FILL, slots: { one: freshPicture('sha256:clip') } };
    const titled = newReel(window, { id: 'r', name: 'R', now: '', shape: 'wide', rate: RATE, fill });
    const blurred = { motionBlur: { samples: 8, shutter: 1 } };
    const rate = fc.constantFrom(RATE, { num: 24, den: 1 }, { num: 60, den: 1 });
    fc.assert(
      fc.property(rate, fc.nat(100), fc.double({ min: 0.1, max: 4, noNaN: true }), (at, frame, speed) => {
        for (const reel of [reelOf([clip({ start: 0, clip: { speed, in: 0.5 } })]), titled]) {
          const shows = (ops: readonly Op[]) => ops.flatMap((op) => (op.op === 'picture' ? [op.at] : []));
          const scene = new ReelScene({ ...reel, ...blurred }, resources);
          const own = shows(scene.frameAt(frame, at).ops);
          for (const { ops } of scene.subFrames(frame, at)) expect(shows(ops)).toEqual(own);
        }
      }),
    );
  });

  it('that is over before its item says for how long its last frame stays, and where; one that loops does not', () => {
    const checks = (part: object) =>
      sceneOf(clip(part))
        .checks()
        .filter((c) => c.kind === 'runs-out');
    // 4 s of file from its second 1 on, in an item of 5 s that begins at frame 50.
    expect(checks({ length: 125, clip: { in: 1 } })).toMatchObject([
      { kind: 'runs-out', seconds: 2, item: 'c', frame: 50 + 75 },
    ]);
    expect(checks({ length: 101, clip: {} })).toEqual([]);
    expect(checks({ length: 125, clip: { end: 'loop' } })).toEqual([]);
    expect(checks({ length: 125, clip: { freeze: 1 } })).toEqual([]);
    expect(checks({ length: 125, clip: { speed: 0.5 } })).toEqual([]);
  });

  it('is heard with it, fades, and is silent when it or its track is', () => {
    const heardOf = (part: object, track: Partial<Track> = {}) =>
      new ReelScene(reelOf([clip(part)], track), resources).plays(heard);
    expect(heardOf({ clip: { in: 1, level: -6 }, soundIn: 25, soundOut: 10 })).toEqual([
      {
        ...{ media: 'sha256:clip', start: 2, length: 3, from: 1, speed: 1, gain: gainOf(-6) },
        ...{ fadeIn: 1, fadeOut: 0.4 },
      },
    ]);
    expect(heardOf({ clip: { silent: true } })).toEqual([]);
    expect(heardOf({}, { silent: true })).toEqual([]);
    expect(heardOf({}, { hidden: true })).toHaveLength(1);
  });

  it('holds its last frame when the file is over, and is silent then', () => {
    const scene = sceneOf(clip({ length: 200 }));
    expect(pictureAt(scene, 50 + 180)!.at).toBeCloseTo(3.999, 6);
    expect(scene.plays(heard)[0]).toMatchObject({ start: 2, length: 4 });
  });

  it('that is missing says so once it is not on its way any more', () => {
    const scene = sceneOf(clip({ media: 'sha256:gone' }));
    expect(scene.frameAt(60, RATE)).toMatchObject({
      ops: [],
      notices: [{ kind: 'missing-picture', item: 'c' }],
    });
    expect(scene.checks()).toMatchObject([
      { kind: 'missing-picture', item: 'c', frame: 87 },
      // Before it there is nothing.
      { kind: 'gap', item: '', frame: 0 },
    ]);
  });
});

it('a still shows whole in the frame, or fills it', () => {
  const still = (fit?: 'fill'): ReelItem => ({
    ...{ kind: 'still', id: 's', start: 0, length: 10, media: 'sha256:tall' },
    ...(fit ? { fit } : {}),
  });
  expect(pictureAt(sceneOf(still()), 0)!.target).toMatchObject({ height: 1080, width: 607.5 });
  expect(pictureAt(sceneOf(still('fill')), 0)!.target).toMatchObject({ height: 1080, width: 1920 });
});

it('a sound plays its stretch, or goes round', () => {
  const sound = (part: object): ReelItem => ({
    ...{ kind: 'sound', id: 'm', start: 25, length: 500, media: 'sha256:song', from: 4 },
    ...part,
  });
  expect(sceneOf(sound({})).plays(heard)).toMatchObject([{ start: 1, from: 4, length: 6 }]);
  const round = sceneOf(sound({ loops: true, speed: 2, soundOut: 50 })).plays(heard);
  expect(round.map((p) => [p.start, p.length])).toEqual(
    [1, 4, 7, 10, 13, 16, 19].map((s) => [s, s < 19 ? 3 : 2]),
  );
  expect(round.map((p) => p.fadeOut > 1)).toEqual([false, false, false, false, false, false, true]);
  expect(sceneOf(sound({})).transparent).toBe(true);
});

describe('how an item lies in the frame', () => {
  const colour = (part: object = {}): ReelItem => ({
    ...{ kind: 'colour', id: 'c', start: 0, length: 100, colour: '#0000FF' },
    ...part,
  });
  const pathAt = (item: ReelItem, frame: number) => {
    const op = opsAt(sceneOf(item), frame).find((o) => o.op === 'path');
    return op?.op === 'path' ? op : undefined;
  };

  it('comes and goes over its fades, a frame as its middle has it', () => {
    const at = (frame: number) => pathAt(colour({ fadeIn: 10, fadeOut: 4 }), frame)!.opacity;
    expect([0, 9, 10, 50, 95].map(at)).toEqual([0.05, 0.95, 1, 1, 1]);
    expect([96, 97, 98, 99].map(at)).toEqual([0.875, 0.625, 0.375, 0.125]);
  });

  it('is moved, scaled and turned about the middle of the frame, with keys over time', () => {
    const framing = {
      move: {
        keys: [
          { at: 0, of: 'in', value: [0, 0], ease: 'linear' },
          { at: 10, of: 'in', value: [100, -50] },
        ],
      },
      scale: 0.5,
      turn: 90,
    };
    // By hand: the middle goes to (960 + 50, 540 − 25); a unit to the right becomes half a one down.
    const { plane } = pathAt(colour({ framing }), 5)!;
    const to = (x: number, y: number) => [
      plane[0] * x + plane[1] * y + plane[2],
      plane[3] * x + plane[4] * y + plane[5],
    ];
    expect(to(960, 540).map(Math.round)).toEqual([1010, 515]);
    expect(to(970, 540).map(Math.round)).toEqual([1010, 520]);
  });

  it('blends as a whole with what lies below, and is cropped', () => {
    const ops = opsAt(
      sceneOf(colour({ framing: { blend: 'screen', opacity: 0.5, crop: [0.25, 0, 0, 0] } })),
      0,
    );
    expect(ops.map((o) => o.op)).toEqual(['open', 'clip', 'path', 'unclip', 'close']);
    expect(ops[0]).toMatchObject({ composite: 'screen', opacity: 0.5 });
    expect(opsAt(sceneOf(colour({ framing: { crop: [0.5, 0, 0.5, 0] } })), 0)).toEqual([]);
  });

  it('is the same for titles: regions go with them, hidden tracks show nothing', () => {
    const title = newReel(template, { id: 'r', name: 'R', now: '', shape: 'wide', rate: RATE });
    const [item] = title.tracks[0]!.items;
    const framed = { ...item!, framing: { move: [100, 50] as [number, number] } };
    const reel = { ...title, tracks: [{ id: 't', items: [framed] }] };
    const path = new ReelScene(reel, resources).frameAt(30, RATE).ops.find((o) => o.op === 'path');
    expect(path?.op === 'path' && path.plane).toEqual([1, 0, 100, 0, 1, 50, 0, 0, 1]);
    const region: Region = {
      ...{ slot: 's', layer: 'l', kind: 'text', box: { width: 10, height: 10 }, opacity: 0.5 },
      ...{
        quad: [
          [960, 540],
          [970, 540],
        ],
        unit: [1, 0, 0, 1],
      },
    } as const;
    const framedNow = framedAt({ move: [100, 50], scale: 2 }, 0, { width: 1920, height: 1080 });
    expect(framedRegion(region, framedNow, 0.5)).toMatchObject({
      ...{
        quad: [
          [1060, 590],
          [1080, 590],
        ],
        unit: [2, 0, 0, 2],
        opacity: 0.25,
      },
    });
    const hidden = { ...reel, tracks: [{ id: 't', items: [framed], hidden: true }] };
    expect(new ReelScene(hidden, resources).frameAt(30, RATE).ops).toEqual([]);
  });
});

describe('painted', () => {
  let studio: NodeStudio;
  beforeAll(async () => {
    studio = await testStudio();
  });

  it('a colour over another mixes as W3C Compositing says: screen is one less the product of what is left', () => {
    const base = (id: string, colour: string, part: object = {}): ReelItem => ({
      ...{ kind: 'colour', id, start: 0, length: 10, colour },
      ...part,
    });
    const reel = {
      ...reelOf([]),
      tracks: [
        { id: 'a', items: [base('low', '#804000')] },
        { id: 'b', items: [base('high', '#4080FF', { framing: { blend: 'screen' } })] },
      ],
    };
    const scene = new ReelScene(reel, studio);
    const surface = createNodeSurface(32, 18);
    studio.painter.paintMoments([scene.frameAt(0, RATE).ops], surface, scene.frame);
    const [r, g, b] = surface.context.getImageData(16, 9, 1, 1).data;
    // 1 − (1 − 128/255)(1 − 64/255), and so on.
    expect([r, g, b]).toEqual([160, 160, 255]);
  });
});

describe('older reels', () => {
  it('open with their templates once each', () => {
    const graphic = (id: string, start: number, held: object) => ({ id, start, fill: {}, template: held });
    const other = { ...template, name: 'Another' };
    const old = {
      ...{ format: 'freshreel/reel', version: 2, id: 'r', name: 'R', created: '', changed: '' },
      ...{ frame: { width: 1920, height: 1080 }, rate: RATE },
      tracks: [
        { id: 't', graphics: [graphic('a', 0, template), graphic('b', 9, other)] },
        { id: 'u', graphics: [graphic('c', 5, template)] },
      ],
    };
    const reel = openDocument(reelKind, JSON.parse(JSON.stringify(old)));
    expect(Object.keys(reel.templates)).toEqual([template.id, `${template.id}-2`]);
    expect(graphicsOf(reel).map((g) => [g.id, g.start, g.template.name])).toEqual([
      ['a', 0, template.name],
      ['c', 5, template.name],
      ['b', 9, 'Another'],
    ]);
  });

  it('that name a template they do not hold, or two items alike, are told as damaged', () => {
    const reel = newReel(template, { id: 'r', name: 'R', now: '', shape: 'wide' });
    expect(() => openDocument(reelKind, { ...reel, templates: {} })).toThrow(
      /the template "[^"]+" is not in it/,
    );
    const twice = { ...reel, tracks: [...reel.tracks, { ...reel.tracks[0]!, id: 'again' }] };
    expect(() => openDocument(reelKind, twice)).toThrow('two items are called "r-1"');
  });
});
