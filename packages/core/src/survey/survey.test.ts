import { type NodeStudio, nodeLooker } from '@fresh-reel/node-host';
import { goesEvenly } from '../checks/pace';
import type { Reel } from '../documents/reel';
import { mendsOf } from '../edit/mend';
import { newReel } from '../edit/reel';
import { ReelScene } from '../reel/reelScene';
import { SOUND_RATE, type Stereo } from '../sound/sound';
import { templateOf, testStudio, textLayer, textSlot } from '../testing/studio';
import { hearReel, loudnessCheck, type OpenedSound } from './heard';
import { lookAtWords } from './survey';

let studio: NodeStudio;
beforeAll(async () => {
  studio = await testStudio();
});
afterAll(() => studio.close());

/** Words of a colour over a ground, half of which may be another. */
function over(ink: string, ground: string | null, other = ground, part: Record<string, unknown> = {}): Reel {
  const half = (id: string, colour: string, x: number) => ({
    id,
    kind: 'shape',
    outline: { kind: 'rectangle' },
    at: [x, 0],
    size: [960, 1080],
    fill: { colour },
  });
  const template = templateOf(
    [
      ...(ground && other ? [half('l', ground, 0), half('r', other, 0.35)] : []),
      textLayer('t', { at: [0.3, 0.45], size: 90, fill: { colour: ink }, ...part }),
    ],
    { transparent: ground === null, slots: [textSlot('t', 'Kites over Marram hill')] },
  );
  return newReel(template, { id: 'r', name: 'R', now: '', shape: 'wide', rate: { num: 30, den: 1 } });
}
const seen = (reel: Reel) => lookAtWords(new ReelScene(reel, studio), nodeLooker(studio));

describe('words over what lies behind them', () => {
  it('have the contrast that WCAG gives for two colours', async () => {
    // WCAG 2.2, contrast ratio, worked by hand: (1 + 0.05) / (0.2122 + 0.05) and (1 + 0.05) / (0.402 + 0.05).
    expect(await seen(over('#FFFFFF', '#7F7F7F'))).toEqual([]);
    const [found] = await seen(over('#FFFFFF', '#AAAAAA'));
    expect(found).toMatchObject({ kind: 'contrast', slot: 't', wanted: 3, light: true });
    expect((found as { ratio: number }).ratio).toBeCloseTo(2.32, 1);
    expect(await seen(over('#101010', '#AAAAAA'))).toEqual([]);
    // Small letters have to stand out more.
    expect(await seen(over('#FFFFFF', '#7F7F7F', '#7F7F7F', { size: 20 }))).toMatchObject([{ wanted: 4.5 }]);
  });

  it('are told where they stand out from one part of it alone, and not where nothing is known to be behind', async () => {
    expect(await seen(over('#FFFFFF', '#202020', '#E0E0E0'))).toMatchObject([{ kind: 'contrast' }]);
    expect(await seen(over('#FFFFFF', null))).toEqual([]);
  });

  it('stand out after each of the mends', async () => {
    // A shadow is not enough where the ground is nearly as light as the letters.
    const both = ['Add a plate', 'Add an outline'];
    for (const [ink, ground, names] of [
      ['#FFFFFF', '#E8E8E8', both],
      ['#181818', '#303030', both],
      ['#FFFFFF', '#A8A8A8', [...both, 'Add a shadow']],
      ['#181818', '#606060', [...both, 'Add a shadow']],
    ] as const) {
      const reel = over(ink, ground);
      const [found] = await seen(reel);
      const mends = mendsOf(reel, found!.item, found!);
      expect(mends.map((m) => m.name)).toEqual(names);
      for (const { change } of mends) expect(await seen(change(reel))).toEqual([]);
    }
  });
});

it('frames go evenly into a rate that is a whole multiple, or a whole part, and nearly so', () => {
  // Common practice: 23.976 in 59.94 takes turns of two and three frames.
  const even = [
    [30, 60],
    [29.97, 59.94],
    [25, 50],
    [60, 30],
    [30, 29.97],
    [12.5, 25],
  ] as const;
  const uneven = [
    [25, 30],
    [23.976, 59.94],
    [24, 30],
    [50, 59.94],
    [60, 50],
    [25, 24],
  ] as const;
  expect(even.map(([a, b]) => goesEvenly(a, b))).toEqual(even.map(() => true));
  expect(uneven.map(([a, b]) => goesEvenly(a, b))).toEqual(uneven.map(() => false));
});

describe('a clip whose frames do not go evenly into the reel’s', () => {
  const clip = (rate: number): Reel => ({
    ...over('#FFFFFF', '#000000'),
    tracks: [
      { id: 'k', items: [{ kind: 'clip', id: 'c', start: 0, length: 60, media: 'asset:c', clip: {} }] },
    ],
    rate: { num: rate, den: 1 },
  });
  const scene = (reel: Reel) =>
    new ReelScene(reel, {
      layouts: studio.layouts,
      memo: studio.memo,
      mediaFacts: () => ({ width: 1920, height: 1080, duration: 10, rate: 25 }),
    });

  it('is told with both rates, and mended by the nearest rate that they go into', () => {
    expect(scene(clip(50)).checks()).toEqual([]);
    const reel = clip(30);
    const found = scene(reel).checks();
    expect(found).toMatchObject([{ kind: 'uneven', plays: 25, reel: 30, item: 'c' }]);
    const [mend] = mendsOf(reel, 'c', found[0]!);
    expect(mend!.name).toBe('Make it 25 a second');
    expect(scene(mend!.change(reel)).checks()).toEqual([]);
  });
});

describe('what is heard', () => {
  /** Two seconds of a tone of 1 kHz at a level, in decibels of full scale. */
  const tone = (level: number): OpenedSound => ({
    facts: { duration: 2 },
    read: async (from, frames): Promise<Stereo> => {
      const at = (i: number) =>
        from + i < 0 || from + i >= 2 * SOUND_RATE
          ? 0
          : 10 ** (level / 20) * Math.sin((2 * Math.PI * 1000 * (from + i)) / SOUND_RATE);
      return [
        Float32Array.from({ length: frames }, (_, i) => at(i)),
        new Float32Array(frames).map((_, i) => at(i)),
      ];
    },
  });
  const line = (length: number, soundOut?: number): Reel => ({
    ...over('#FFFFFF', null),
    tracks: [
      {
        id: 'k',
        items: [{ kind: 'sound', id: 's', start: 0, length, media: 'm', ...(soundOut ? { soundOut } : {}) }],
      },
    ],
  });
  const hear = (reel: Reel, level: number) => hearReel(new ReelScene(reel, studio), () => tone(level));

  it('is brought to the loudness that is wanted, by one level of the whole', async () => {
    // EBU Tech 3341, case 1: a stereo tone of 1 kHz at -23 dBFS is -23 LUFS.
    const reel = line(60);
    const { facts, checks } = (await hear(reel, -23))!;
    expect(facts.loudness).toBeCloseTo(-23, 1);
    expect(checks).toEqual([]);
    expect([loudnessCheck(facts, undefined), loudnessCheck(facts, -23.5)]).toEqual([[], []]);
    const [found] = loudnessCheck(facts, -14);
    expect(found).toMatchObject({ kind: 'loudness', wanted: -14 });
    const mended = mendsOf(reel, '', found!)[0]!.change(reel);
    expect(mended.level).toBeCloseTo(9, 1);
    expect(loudnessCheck((await hear(mended, -23))!.facts, -14)).toEqual([]);
  });

  it('is told where it breaks off, and fades after the mend', async () => {
    const reel = line(30);
    const { checks } = (await hear(reel, -23))!;
    expect(checks).toMatchObject([{ kind: 'cut-sound', item: 's', slot: '', frame: 29 }]);
    const mended = mendsOf(reel, 's', checks[0]!)[0]!.change(reel);
    expect((await hear(mended, -23))!.checks).toEqual([]);
    // Whole, faded already, or too quiet to be missed.
    expect((await hear(line(60), -23))!.checks).toEqual([]);
    expect((await hear(line(30, 10), -23))!.checks).toEqual([]);
    expect((await hear(line(30), -70))!.checks).toEqual([]);
  });

  it('goes with its graphic, and does not break off where it outlasts it', async () => {
    const hit = { id: 'hit', kind: 'sound', name: 'Hit', scenes: ['all'], moment: { at: 0 }, cue: 'go' };
    const made = (part: object) =>
      newReel(
        templateOf([textLayer('t')], {
          slots: [textSlot('t', 'Words'), { ...hit, sample: 'noise', ...part }],
          assets: { noise: 'shared/whoosh.ogg' },
          cues: [{ id: 'go', name: 'It goes', at: { at: 0, of: 'out' } }],
        }),
        { id: 'r', name: 'R', now: '', shape: 'wide' },
      );
    for (const part of [{}, { loops: true }, { fadeOut: 0.6 }]) {
      const scene = new ReelScene(made(part), studio);
      const last = scene.plays(() => ({ duration: 4 })).at(-1)!;
      // The graphic is over after three seconds, and the cue is at two.
      expect([last.start, last.length]).toEqual([2, 1]);
      expect(last.fadeOut).toBe('fadeOut' in part ? 0.6 : 0.1);
      expect((await hear(scene.reel, -23))!.checks).toEqual([]);
    }
  });
});
