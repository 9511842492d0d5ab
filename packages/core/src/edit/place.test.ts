import fc from 'fast-check';
import type { ReelItem } from '../documents/item';
import { type Reel, reelKind } from '../documents/reel';
import { lengthOf } from '../reel/itemLength';
import { templateOf } from '../testing/studio';
import { OFFERED_RATES } from '../time/rate';
import { openDocument } from '../values/load';
import { itemOf } from './items';
import {
  copyItems,
  cutItem,
  moveItems,
  putItem,
  removeItems,
  slipItem,
  spanOf,
  splitSound,
  trimItem,
  withTemplate,
} from './place';
import { newReel } from './reel';
import { setRate } from './setRate';

const template = templateOf(
  [{ id: 'a', kind: 'shape', outline: { kind: 'rectangle' }, fill: { colour: '#FF0000' } }],
  {
    rate: { num: 50, den: 1 },
    timing: { in: 50, hold: { control: 'hold' }, out: 50 },
    controls: [{ id: 'hold', kind: 'duration', name: 'Hold', min: 0, max: 500, default: 100 }],
  },
);

/** A reel of 25 frames a second, with a title of 100 frames that begins at 0. */
const titled = (): Reel => ({
  ...newReel(template, { id: 'r', name: 'R', now: '', shape: 'wide', rate: { num: 25, den: 1 } }),
});
const clip = (id: string, start: number, length: number, part: object = {}): ReelItem => ({
  ...{ kind: 'clip', id, start, length, media: 'sha256:c', clip: {} },
  ...part,
});
const sound = (id: string, start: number, length: number, part: object = {}): ReelItem => ({
  ...{ kind: 'sound', id, start, length, media: 'sha256:s' },
  ...part,
});
const reelOf = (...items: ReelItem[]): Reel => ({ ...titled(), tracks: [{ id: 'a', items }] });
const spans = (reel: Reel) =>
  reel.tracks.map((t) => t.items.map((i) => `${i.id} ${spanOf(reel, i).join('–')}`).join(', '));
const item = (reel: Reel, id: string) => itemOf(reel, id)!.item;

describe('putting items on tracks', () => {
  it('takes the wanted track where there is room, else the next above, else a new one', () => {
    let reel = reelOf(clip('one', 0, 50));
    reel = putItem(reel, clip('two', 50, 10), 'a');
    reel = putItem(reel, clip('three', 40, 20), 'a');
    reel = putItem(reel, clip('four', 55, 20), 'a');
    expect(spans(reel)).toEqual(['one 0–50, two 50–60', 'three 40–60', 'four 55–75']);
  });

  it('keeps sounds and pictures apart, and off locked tracks', () => {
    let reel = putItem(reelOf(clip('one', 0, 50)), sound('music', 0, 500), 'a');
    expect(spans(reel)).toEqual(['music 0–500', 'one 0–50']);
    reel = putItem(
      { ...reel, tracks: reel.tracks.map((t) => ({ ...t, locked: true })) },
      clip('x', 90, 5),
      'a',
    );
    expect(spans(reel)[2]).toBe('x 90–95');
  });

  it('keeps a template once, however many graphics are of it', () => {
    const { reel, key } = withTemplate(titled(), JSON.parse(JSON.stringify(template)));
    expect([key, reel]).toEqual([template.id, titled()]);
    const other = withTemplate(reel, { ...template, name: 'Another' });
    expect(Object.keys(other.reel.templates)).toEqual([template.id, `${template.id}-2`]);
  });
});

describe('moving', () => {
  it('takes several by as much, none before the beginning, and nothing else moves', () => {
    const reel = moveItems(reelOf(clip('a', 10, 10), clip('b', 30, 10), clip('c', 60, 10)), ['a', 'b'], -20);
    expect(spans(reel)).toEqual(['a 0–10, b 20–30, c 60–70']);
  });

  it('goes on another track where something stands', () => {
    const reel = moveItems(reelOf(clip('a', 0, 10), clip('b', 30, 10)), ['a'], 25);
    expect(spans(reel)).toEqual(['b 30–40', 'a 25–35']);
  });

  it('is refused on a locked track', () => {
    const reel = reelOf(clip('a', 0, 10));
    const locked = { ...reel, tracks: [{ ...reel.tracks[0]!, locked: true, name: 'Footage' }] };
    expect(() => moveItems(locked, ['a'], 5)).toThrow('The track “Footage” is locked');
  });
});

describe('trimming', () => {
  const reel = reelOf(clip('a', 0, 20), clip('b', 20, 50, { clip: { in: 1, speed: 2 } }), clip('c', 90, 10));
  it('stops at neighbours, at the beginning of the file, and at one frame', () => {
    expect(spans(trimItem(reel, 'b', 'end', 200))).toEqual(['a 0–20, b 20–90, c 90–100']);
    expect(spans(trimItem(reel, 'b', 'end', 200, 55))).toEqual(['a 0–20, b 20–75, c 90–100']);
    expect(spans(trimItem(reel, 'b', 'end', 0))).toEqual(['a 0–20, b 20–21, c 90–100']);
    expect(spans(trimItem(reel, 'b', 'start', 500))).toEqual(['a 0–20, b 69–70, c 90–100']);
    // A second of the file at twice the speed is 12 frames of the reel.
    const alone = { ...reel, tracks: [{ id: 'a', items: [reel.tracks[0]!.items[1]!] }] };
    expect(spans(trimItem(alone, 'b', 'start', 0))).toEqual(['b 8–70']);
  });

  it('leaves what shows where it is in time', () => {
    const trimmed = item(trimItem(reel, 'b', 'start', 30), 'b');
    // Ten frames of 25 a second at twice the speed: 0.8 s of the file.
    expect(trimmed).toMatchObject({ start: 30, length: 40, clip: { in: 1.8, speed: 2 } });
  });

  it('changes the hold of a title, at either end', () => {
    const longer = trimItem(titled(), 'r-1', 'end', 130);
    expect(spans(longer)).toEqual(['r-1 0–130']);
    expect(item(longer, 'r-1')).toMatchObject({ fill: { controls: { hold: 160 } } });
    expect(spans(trimItem(longer, 'r-1', 'start', 20))).toEqual(['r-1 20–130']);
    // In and out stay.
    expect(spans(trimItem(longer, 'r-1', 'end', 1))).toEqual(['r-1 0–50']);
    const fixed = {
      ...titled(),
      templates: { [template.id]: { ...template, timing: { ...template.timing, hold: 9 } } },
    };
    expect(() => trimItem(fixed, 'r-1', 'end', 90)).toThrow('one length');
  });
});

describe('cutting', () => {
  it('makes two that go on from each other, and fade only at the outer ends', () => {
    const whole = clip('a', 10, 50, { fadeIn: 5, fadeOut: 6, soundIn: 7, soundOut: 8, clip: { in: 2 } });
    const reel = cutItem(reelOf(whole), 'a', 35);
    expect(spans(reel)).toEqual(['a 10–35, a-2 35–60']);
    expect(item(reel, 'a')).toMatchObject({ fadeIn: 5, soundIn: 7, clip: { in: 2 } });
    expect(item(reel, 'a-2')).toMatchObject({ fadeOut: 6, soundOut: 8, clip: { in: 3 } });
    for (const [id, gone] of [
      ['a', 'fadeOut'],
      ['a', 'soundOut'],
      ['a-2', 'fadeIn'],
      ['a-2', 'soundIn'],
    ] as const)
      expect(item(reel, id)).not.toHaveProperty(gone);
  });

  it('is refused for titles and outside of the item', () => {
    expect(() => cutItem(titled(), 'r-1', 50)).toThrow('A title is one whole');
    for (const at of [0, 10, 60])
      expect(() => cutItem(reelOf(clip('a', 10, 50)), 'a', at)).toThrow('playhead');
  });
});

it('slipping shows another part of the file in the same place, from its beginning at the earliest', () => {
  const reel = reelOf(clip('a', 10, 50, { clip: { in: 1, speed: 0.5 } }));
  expect(item(slipItem(reel, 'a', 1), 'a')).toMatchObject({ start: 10, length: 50, clip: { in: 1.5 } });
  expect(item(slipItem(reel, 'a', -9), 'a')).toMatchObject({ clip: { in: 0 } });
});

describe('taking out', () => {
  const reel = reelOf(clip('a', 0, 10), clip('b', 10, 20), clip('c', 40, 10));
  it('leaves a gap, or closes it', () => {
    expect(spans(removeItems(reel, ['b'], false))).toEqual(['a 0–10, c 40–50']);
    expect(spans(removeItems(reel, ['b'], true))).toEqual(['a 0–10, c 20–30']);
    expect(spans(removeItems(reel, ['a', 'b'], true))).toEqual(['c 10–20']);
  });
  it('lets go of templates nobody shows any more', () => {
    expect(removeItems(titled(), ['r-1'], false).templates).toEqual({});
  });
});

it('copies stand as far apart as what they are copies of', () => {
  const { reel, ids } = copyItems(reelOf(clip('a', 0, 10), clip('b', 20, 10)), ['a', 'b'], 100);
  expect(ids).toEqual(['a-2', 'b-2']);
  expect(spans(reel)).toEqual(['a 0–10, b 20–30, a-2 100–110, b-2 120–130']);
});

it('the sound of a clip becomes an item of its own', () => {
  const reel = splitSound(
    reelOf(clip('a', 5, 20, { soundIn: 3, clip: { in: 2, level: -6, speed: 2 } })),
    'a',
    60,
  );
  expect(item(reel, 'a')).toMatchObject({ clip: { silent: true } });
  expect(reel.tracks[0]!.items[0]).toEqual({
    ...{ kind: 'sound', id: 'a-sound', media: 'sha256:c', start: 5, length: 20 },
    ...{ soundIn: 3, from: 2, level: -6, speed: 2 },
  });
});

const rateOf = fc.constantFrom(...OFFERED_RATES);
const edit = fc.oneof(
  fc.record({ do: fc.constant('move'), by: fc.integer({ min: -80, max: 80 }) }),
  fc.record({ do: fc.constant('start'), by: fc.integer({ min: 0, max: 200 }) }),
  fc.record({ do: fc.constant('end'), by: fc.integer({ min: 0, max: 200 }) }),
  fc.record({ do: fc.constant('cut'), by: fc.integer({ min: 0, max: 200 }) }),
  fc.record({ do: fc.constant('copy'), by: fc.integer({ min: 0, max: 200 }) }),
  fc.record({ do: fc.constant('remove'), by: fc.integer({ min: 0, max: 1 }) }),
);

it('whatever is done, no two items of a track claim one place, and the reel opens', () => {
  fc.assert(
    fc.property(rateOf, fc.array(fc.tuple(fc.nat(30), edit), { maxLength: 12 }), (rate, edits) => {
      let reel = putItem(
        putItem({ ...titled(), rate }, clip('a', 30, 40, { clip: { in: 0.5 } }), 'graphics'),
        sound('s', 12, 90, { from: 2 }),
      );
      for (const [which, { do: what, by }] of edits) {
        const all = reel.tracks.flatMap((t) => t.items);
        if (all.length === 0) break;
        const { id } = all[which % all.length]!;
        try {
          if (what === 'move') reel = moveItems(reel, [id], by);
          if (what === 'start' || what === 'end') reel = trimItem(reel, id, what, by);
          if (what === 'cut') reel = cutItem(reel, id, by);
          if (what === 'copy') ({ reel } = copyItems(reel, [id], by));
          if (what === 'remove') reel = removeItems(reel, [id], by === 1);
        } catch (error) {
          if ((error as Error).name !== 'EditError') throw error;
        }
      }
      for (const { items } of reel.tracks) {
        const taken = items.map((i) => spanOf(reel, i)).sort((a, b) => a[0] - b[0]);
        taken.slice(1).forEach(([start], i) => {
          expect(start).toBeGreaterThanOrEqual(taken[i]![1]);
        });
      }
      openDocument(reelKind, JSON.parse(JSON.stringify(reel)));
    }),
    { numRuns: 150 },
  );
});

it('another rate leaves what touches touching, and lasts as long', () => {
  fc.assert(
    fc.property(
      rateOf,
      rateOf,
      fc.array(fc.integer({ min: 1, max: 300 }), { minLength: 1, maxLength: 6 }),
      (from, to, lengths) => {
        let start = 0;
        const items = lengths.map((length, i) => {
          const made = clip(`c${i}`, start, length);
          start += length;
          return made;
        });
        const reel = setRate({ ...reelOf(...items), rate: from }, to);
        const all = reel.tracks.flatMap((t) => t.items);
        expect(all).toHaveLength(lengths.length);
        for (const { items: on } of reel.tracks)
          on.slice(1).forEach((next, i) => {
            expect(spanOf(reel, on[i]!)[1]).toBeLessThanOrEqual(next.start);
          });
        // What touched touches; but where a frame of the new rate is longer than an item, that one frame lies beside.
        const moved = lengths.map((_, i) => all.find((item) => item.id === `c${i}`)!);
        moved.slice(1).forEach((next, i) => {
          const end = moved[i]!.start + lengthOf(reel, moved[i]!);
          expect([0, 1]).toContain(end - next.start);
        });
      },
    ),
  );
});
