import type { NodeStudio } from '@fresh-reel/node-host';
import { EMPTY_FILL } from '../documents/fill';
import type { ReelItem } from '../documents/item';
import type { Reel } from '../documents/reel';
import type { Template } from '../documents/template';
import { mendsOf } from '../edit/mend';
import { newReel } from '../edit/reel';
import { ReelScene } from '../reel/reelScene';
import { sceneOf, templateOf, testStudio, textLayer, textSlot } from '../testing/studio';
import { checkGraphic } from './checks';
import { isCovered } from './covered';
import { charactersOf, standsFor } from './reading';

let studio: NodeStudio;
beforeAll(async () => {
  studio = await testStudio();
});

const words = (count: number) =>
  'kite '
    .repeat(count / 5)
    .slice(0, count - 1)
    .padEnd(count, 's');

/** Words in the middle of the frame, which hold for as many frames of 60 a second as a control says. */
const holding = (sample: string, max = 600): Template =>
  templateOf([textLayer('t', { at: [0.3, 0.4] })], {
    slots: [textSlot('t', sample)],
    controls: [{ id: 'hold', kind: 'duration', name: 'Hold', default: 60, min: 0, max }],
    timing: { in: 60, hold: { control: 'hold' }, out: 60 },
  });

const withItems = (template: Template, ...more: ReelItem[]): Reel => {
  const made = newReel(template, { id: 'r', name: 'R', now: '', shape: 'wide', rate: { num: 30, den: 1 } });
  const [track] = made.tracks;
  return { ...made, tracks: [{ ...track!, items: [...track!.items, ...more] }] };
};
const kindsOf = (reel: Reel) => new ReelScene(reel, studio).checks().map((c) => c.kind);

describe('time to read', () => {
  it('counts what is read as one character, and what is blank once', () => {
    expect(charactersOf('  two\n\n lines ')).toBe(9);
    // An emoji joined of four, a flag, a letter with its accent apart.
    expect(charactersOf('👩‍👩‍👧‍👦🇳🇴é')).toBe(3);
  });

  it('is a fifteenth of a second a character, and half of the ways in and out counts', () => {
    expect(standsFor(sceneOf(studio, holding(words(30))))).toBe(2);
    expect(checkGraphic(sceneOf(studio, holding(words(30))))).toEqual([]);
    expect(checkGraphic(sceneOf(studio, holding(words(40))))).toMatchObject([
      { kind: 'read-in-haste', characters: 40, needs: 40 / 15, stands: 2, time: 60 },
    ]);
  });

  it('leaves out words that do not show, and asks nothing of no words', () => {
    const hidden = { ...EMPTY_FILL, hidden: ['t'] };
    expect(checkGraphic(sceneOf(studio, holding(words(80)))).map((c) => c.kind)).toContain('read-in-haste');
    expect(checkGraphic(sceneOf(studio, holding(words(80)), hidden))).toEqual([]);
    expect(checkGraphic(sceneOf(studio, holding('')))).toEqual([]);
  });

  it('is mended by a longer hold, where the template and what comes after it leave room', () => {
    const mend = (reel: Reel) => {
      const found = new ReelScene(reel, studio).checks().find((c) => c.kind === 'read-in-haste')!;
      return mendsOf(reel, found.item, found)[0];
    };
    const reel = withItems(holding(words(60)));
    expect(kindsOf(reel)).toEqual(['read-in-haste']);
    const mended = mend(reel)!.change(reel);
    expect(kindsOf(mended)).toEqual([]);
    // No longer than it has to be: two seconds more.
    expect(mended.tracks[0]!.items[0]).toMatchObject({ fill: { controls: { hold: 60 + 120 } } });
    expect(mend(withItems(holding(words(60), 100)))).toBeUndefined();
    const fixed = holding(words(60));
    expect(mend(withItems({ ...fixed, timing: { ...fixed.timing, hold: 60 } }))).toBeUndefined();
    const next: ReelItem = { kind: 'colour', id: 'next', start: 100, length: 30, colour: '#102030' };
    expect(mend(withItems(holding(words(60)), next))).toBeUndefined();
  });
});

describe('where players of tall video put their own', () => {
  const box = (x: number, y: number, width = 100, height = 40) => ({
    quad: [
      [x, y],
      [x + width, y],
      [x + width, y + height],
      [x, y + height],
    ] as const,
  });

  it('is below, and at the right from the middle down, of tall frames alone', () => {
    const tall = { width: 1080, height: 1920 };
    const covered = (...at: [number, number]) => isCovered(box(...at), tall);
    expect([covered(100, 1700), covered(100, 1500), covered(960, 1200), covered(960, 500)]).toEqual([
      true,
      false,
      true,
      false,
    ]);
    expect(isCovered(box(100, 1000), { width: 1920, height: 1080 })).toBe(false);
    expect(isCovered(box(100, 1300), { width: 1080, height: 1350 })).toBe(false);
  });
});

describe('black that is not meant', () => {
  const colour = (id: string, start: number, length: number): ReelItem => ({
    ...{ kind: 'colour', id, start, length, colour: '#102030' },
  });
  const gapsOf = (...items: ReelItem[]) => {
    const made = withItems(holding('Kites'));
    const reel = {
      ...made,
      tracks: [
        { id: 'a', items: items.slice(0, 2) },
        { id: 'b', items: items.slice(2) },
      ],
    };
    return new ReelScene(reel, studio)
      .checks()
      .filter((c) => c.kind === 'gap')
      .map((c) => [c.frame, c.kind === 'gap' && c.seconds]);
  };

  it('is told with its time, where no track shows anything', () => {
    expect(gapsOf(colour('a', 0, 30), colour('b', 31, 30))).toEqual([[30, 1 / 30]]);
    expect(gapsOf(colour('a', 15, 15), colour('b', 60, 30))).toEqual([
      [0, 0.5],
      [30, 1],
    ]);
    expect(gapsOf(colour('a', 0, 30), colour('b', 60, 30), colour('c', 10, 50))).toEqual([]);
  });

  it('is told where a sound goes on after the last picture', () => {
    const music = { kind: 'sound', id: 'm', start: 0, length: 75, media: 'x' } as const;
    expect(gapsOf(colour('a', 0, 30), colour('b', 30, 30), music)).toEqual([[60, 0.5]]);
    expect(gapsOf(colour('a', 0, 30), colour('b', 30, 60), music)).toEqual([]);
  });

  it('is meant in a reel that is transparent', () => {
    expect(kindsOf(withItems(holding('Kites')))).toEqual([]);
    const { tracks, ...rest } = withItems(holding('Kites'));
    const later = {
      ...rest,
      tracks: tracks.map((t) => ({ ...t, items: t.items.map((i) => ({ ...i, start: 90 })) })),
    };
    expect(kindsOf(later)).toEqual([]);
  });
});

describe('pictures larger than they are', () => {
  const facts = { width: 960, height: 540 };
  const still = (part: object = {}): ReelItem =>
    ({ kind: 'still', id: 's', start: 0, length: 60, media: 'sha256:small', ...part }) as ReelItem;
  const percentOf = (part: object, frame = { width: 1920, height: 1080 }, density?: number) => {
    const reel = { ...withItems(holding('Kites')), frame, tracks: [{ id: 't', items: [still(part)] }] };
    const resources = {
      ...studio,
      mediaFacts: () => ({ ...facts, ...(density ? { density } : {}) }),
    } as unknown as NodeStudio;
    return new ReelScene(reel, resources).checks().flatMap((c) => (c.kind === 'enlarged' ? [c.percent] : []));
  };

  it('are told by how much, in pixels of the reel, as they are framed', () => {
    expect(percentOf({})).toEqual([200]);
    expect(percentOf({}, { width: 960, height: 540 })).toEqual([]);
    expect(percentOf({ framing: { scale: 0.5 } })).toEqual([]);
    expect(percentOf({ framing: { scale: 2 } }, { width: 960, height: 540 })).toEqual([200]);
    // A vector picture has as many as it is drawn with.
    expect(percentOf({}, { width: 1920, height: 1080 }, 2)).toEqual([]);
    expect(percentOf({}, { width: 1920, height: 1080 }, Number.POSITIVE_INFINITY)).toEqual([]);
  });
});
