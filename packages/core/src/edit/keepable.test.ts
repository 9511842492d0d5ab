import { templateById } from '@fresh-reel/templates';
import type { ReelItem } from '../documents/item';
import { type Reel, reelKind } from '../documents/reel';
import { benchOf, changeMade } from '../make/bench';
import { MOST } from '../values/limits';
import { openDocument } from '../values/load';
import { changeItem } from './items';
import { keepable } from './keepable';
import { addMarker } from './markers';
import { addTitle } from './newItems';
import { moveItems, putItem, putOnNew } from './place';
import { changeText, emptyReel } from './reel';

const blank = emptyReel({
  ...{ id: 'r', name: 'R', now: '2026-06-20T09:00:00Z' },
  ...{ frame: { width: 1920, height: 1080 }, rate: { num: 25, den: 1 } },
});
const colour = (id: string, start: number): ReelItem => ({
  kind: 'colour',
  id,
  start,
  length: 1,
  colour: '#FF0000',
});
const strap = templateById('name-strap');
const { reel: titled, id } = addTitle(blank, strap, 0);
const opensAgain = (reel: Reel) =>
  expect(openDocument(reelKind, JSON.parse(JSON.stringify(reel)))).toEqual(reel);

describe('as many as a reel holds are kept, and one more is told in words', () => {
  const of = (count: number, add: (reel: Reel, i: number) => Reel) =>
    Array.from({ length: count }, (_, i) => i).reduce(add, blank);

  it.each([
    ['tracks', MOST.tracks, (r: Reel, i: number) => putOnNew(r, colour(`c${i}`, 0), r.tracks.length)],
    [
      'markers',
      MOST.markers,
      (r: Reel, i: number) => ({ ...r, markers: [...r.markers, { id: `m${i}`, frame: i, name: '' }] }),
    ],
    [
      'things on one track',
      MOST.items,
      (r: Reel, i: number) => ({
        ...r,
        tracks: [{ id: 't', items: [...(r.tracks[0]?.items ?? []), colour(`c${i}`, i)] }],
      }),
    ],
  ])('%s', (what, most, add) => {
    const full = of(most, add);
    expect(keepable(full, blank)).toBe(full);
    opensAgain(full);
    expect(() => keepable(add(full, most), full)).toThrow(
      `That would be ${(most + 1).toLocaleString('en')} ${what}`,
    );
  });
});

describe('what could not be opened again is not kept, and what was there stays', () => {
  const size = (value: unknown) => (r: Reel) => changeText(r, id, 'name', { size: value } as never);
  it.each<[string, (reel: Reel) => Reel, RegExp]>([
    ['a number that is none', (r) => changeItem(r, id, (i) => ({ ...i, start: Number.NaN })), /start/],
    ['a place between frames', (r) => changeItem(r, id, (i) => ({ ...i, start: 1.5 })), /start/],
    ['words without an end', (r) => ({ ...r, name: 'x'.repeat(121) }), /name/],
    ['a field nobody knows', (r) => ({ ...r, more: 1 }) as Reel, /more/],
    ['a rate of nothing', (r) => ({ ...r, rate: { num: 0, den: 1 } }), /rate/],
    ['a size below nought', size(-3), /size/],
    ['a link to a control of another template', size({ control: 'elsewhere' }), /elsewhere.* is not there/],
    ['two of one name', (r) => putOnNew(r, { ...colour(id, 500) }, 1), /two items/],
    ['a title without its template', (r) => ({ ...r, templates: {} }), /is not in the reel/],
    [
      'a marker before the beginning',
      (r) => ({ ...r, markers: [{ id: 'm', frame: -1, name: '' }] }),
      /markers/,
    ],
    [
      'a way with a hole',
      (r) => ({
        ...r,
        ways: [
          {
            id: 'w',
            name: '',
            of: 'c',
            media: 'm',
            half: 8,
            samples: [[0, Number.NaN, 0, 0, 0, 1]],
            marks: [],
          },
        ],
      }),
      /nowhere/,
    ],
  ])('%s', (_, edit, told) => {
    expect(() => keepable(edit(titled), titled)).toThrow(told);
    expect(() => keepable(edit(titled), titled)).toThrow(expect.objectContaining({ name: 'EditError' }));
    expect(() => opensAgain(edit(titled))).toThrow();
    expect(keepable(titled, blank)).toBe(titled);
  });

  it('of a template on the bench: what is changed is looked through, alone or with its controls', () => {
    const bench = benchOf(strap, { id: 'b', name: 'B', now: '2026-06-20T09:00:00Z' });
    expect(keepable(bench, blank)).toBe(bench);
    const named = changeMade(bench, (t) => ({ ...t, name: 'Another' }));
    expect(keepable(named, bench)).toBe(named);
    const wrong = (change: (t: typeof strap) => typeof strap) => () =>
      keepable(changeMade(bench, change), bench);
    expect(wrong((t) => ({ ...t, name: '' }))).toThrow(/name/);
    expect(wrong((t) => ({ ...t, layers: t.layers.map((l, i) => (i ? l : { ...l, opacity: 2 })) }))).toThrow(
      /opacity/,
    );
    expect(wrong((t) => ({ ...t, controls: t.controls.map((c) => ({ ...c, name: '' })) }))).toThrow(
      /controls/,
    );
  });
});

it('what is the same as before is not looked through again, wherever it goes', () => {
  // Known by what it is: an item that would not open, and is not new, is none of this edit's doing.
  const old = {
    ...titled,
    tracks: titled.tracks.map((t) => ({ ...t, items: [...t.items, colour('#', -1)] })),
  };
  const moved = moveItems(putItem(old, colour('next', 900)), ['next'], 10);
  expect(keepable(moved, old)).toBe(moved);
  expect(keepable(addMarker(old, 3).reel, old).markers).toHaveLength(1);
});
