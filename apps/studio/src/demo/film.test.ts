import { lengthOf, openDocument, type Reel, reelKind, spanOf } from '@fresh-reel/core';
import { SHIPPED } from '@fresh-reel/templates/files';
import { demoFilm, demoHook } from './film';

const items = (reel: Reel) => reel.tracks.flatMap((t) => t.items);

/** Titles that fill the frame, and so may stand without a shot below them. */
const OPAQUE = ['freeze-print', 'sign-off', 'torn-hook'];

describe.each([
  ['the film', demoFilm('2026-01-01T00:00:00.000Z'), 120],
  ['the hook', demoHook('2026-01-01T00:00:00.000Z'), 10],
] as const)('%s of the demo', (_, reel, seconds) => {
  it('opens as it is', () => {
    expect(openDocument(reelKind, JSON.parse(JSON.stringify(reel)))).toEqual(reel);
  });

  it('has no two items in one place, and lasts as long as it is said to', () => {
    const over = reel.tracks.flatMap((track) =>
      track.items.flatMap((item, i) => {
        const before = track.items[i - 1];
        return before && item.start < spanOf(reel, before)[1] ? [`${item.id} begins in ${before.id}`] : [];
      }),
    );
    expect(over).toEqual([]);
    const ends = items(reel).map((i) => i.start + lengthOf(reel, i));
    expect(Math.max(...ends)).toBe(seconds * reel.rate.num);
  });

  it('shows something at every frame', () => {
    const shown = items(reel)
      .filter((i) => i.kind === 'clip' || (i.kind === 'graphic' && OPAQUE.includes(i.template)))
      .map((i) => spanOf(reel, i))
      .sort(([a], [b]) => a - b);
    const holes: number[] = [];
    let end = 0;
    for (const [from, to] of shown) {
      if (from > end) holes.push(end);
      end = Math.max(end, to);
    }
    expect(holes).toEqual([]);
  });

  it('holds what ships with the app, and controls and looks that its templates have', () => {
    for (const item of items(reel)) {
      if ('media' in item) expect(SHIPPED.find(item.media)).toBeDefined();
      if (item.kind !== 'graphic') continue;
      const { controls, slots, looks } = reel.templates[item.template]!;
      const { fill } = item;
      expect(looks.map((l) => l.id)).toContain(fill.look);
      expect(slots.map((x) => x.id)).toEqual(expect.arrayContaining(Object.keys(fill.slots)));
      expect(controls.map((c) => c.id)).toEqual(expect.arrayContaining(Object.keys(fill.controls)));
    }
  });
});
