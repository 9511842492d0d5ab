import { type Brand, brandKind } from '../documents/brand';
import { EMPTY_FILL } from '../documents/fill';
import type { Reel } from '../documents/reel';
import { addTitle } from '../edit/newItems';
import { spanOf } from '../edit/place';
import { emptyReel, graphicOf } from '../edit/reel';
import { graphicsOf } from '../reel/graphicTime';
import { templateOf, textLayer, textSlot } from '../testing/studio';
import { openDocument } from '../values/load';
import { keyOfUse, matchReel, namingColumn, reelUses, rowReel, timesOfRows } from './reelTable';
import { markRows, placeRows } from './rows';
import { readTable } from './table';

const hold = { id: 'hold', kind: 'duration', name: 'Hold', default: 60, min: 0, max: 600 };
const strap = templateOf([textLayer('name'), textLayer('role')], {
  id: 'strap',
  name: 'Strap',
  slots: [
    { ...textSlot('name', 'Ida'), name: 'Name' },
    { ...textSlot('role', 'Pilot'), name: 'Role' },
  ],
  controls: [hold],
  timing: { in: 30, hold: { control: 'hold' }, out: 30 },
});
const title = templateOf([textLayer('town')], {
  id: 'title',
  name: 'Title',
  slots: [{ ...textSlot('town', 'Marram'), name: 'Town' }],
});
const reel = ((): Reel => {
  const made = emptyReel({
    ...{ id: 'r', name: 'Kites', now: '', frame: { width: 1920, height: 1080 } },
    rate: { num: 60, den: 1 },
  });
  const one = addTitle(made, title, 0).reel;
  return addTitle(one, strap, 300, { ...EMPTY_FILL, slots: { role: 'Rigger' } }).reel;
})();
const media = (file: string) => `file:${file}`;

describe('a table of a reel', () => {
  const table = readTable('At,Name,Town,Hold,Shoe size,Until\n0:02,Åse,Hill,2,41,0:05\n0:06,Bram,,,,\n');
  const uses = matchReel(table.columns, reel);

  it('fills its graphics by the names of columns, each thing once', () => {
    expect(uses).toEqual([
      { of: 'from' },
      { of: 'slot', id: 'name', graphic: 'strap' },
      { of: 'slot', id: 'town', graphic: 'title' },
      { of: 'control', id: 'hold', graphic: 'strap' },
      undefined,
      { of: 'to' },
    ]);
    const offered = reelUses(reel);
    expect(new Set(offered.map((o) => keyOfUse(o.use))).size).toBe(offered.length);
    expect(offered.map((o) => o.name)).toContain('2. Strap: Name');
    for (const use of uses) if (use) expect(offered.map((o) => keyOfUse(o.use))).toContain(keyOfUse(use));
  });

  it('calls its rows by the first column that is no time', () => {
    expect(namingColumn(table, uses)).toBe('Name');
    expect(namingColumn(readTable('At\n0:02\n'), [{ of: 'from' }])).toBe('At');
  });

  it('leaves what no column fills as it is in the reel', () => {
    const { reel: row, faults } = rowReel(reel, uses, table.rows[0]!, media);
    expect(faults).toEqual([]);
    expect(graphicOf(row, 'strap').fill).toMatchObject({
      slots: { name: 'Åse', role: 'Rigger' },
      controls: { hold: 120 },
    });
    expect(graphicOf(row, 'title').fill.slots).toEqual({ town: 'Hill' });
    expect(rowReel(reel, uses, ['', '', '', 'long', '', ''], media).faults).toHaveLength(1);
  });

  it('becomes graphics of the reel at its times, as long as it says', () => {
    const { times } = timesOfRows(uses, table.rows, reel.rate);
    const rows = table.rows.map((row, i) => ({ ...times[i]!, reel: rowReel(reel, uses, row, media).reel }));
    const { reel: placed, unlike } = placeRows(reel, 'strap', rows);
    const made = graphicsOf(placed).filter((g) => g.template.id === 'strap' && g.id !== 'strap');
    expect(made.map((g) => [g.start, g.fill.slots.name, g.fill.slots.role])).toEqual([
      [120, 'Åse', 'Rigger'],
      [360, 'Bram', 'Rigger'],
    ]);
    expect(unlike).toBe(0);
    const items = placed.tracks.flatMap((t) => t.items);
    expect(spanOf(placed, items.find((i) => i.id === made[0]!.id)!)).toEqual([120, 300]);
    // Nothing lies over anything on its track.
    for (const { items: own } of placed.tracks) {
      const spans = own.map((i) => spanOf(placed, i)).sort((a, b) => a[0] - b[0]);
      for (const [i, [from]] of spans.slice(1).entries()) expect(from).toBeGreaterThanOrEqual(spans[i]![1]);
    }
  });

  it('without times stands one after the other, and what cannot last so long is counted', () => {
    const rows = [0, 1, 2].map(() => ({ reel }));
    const placed = placeRows(reel, 'strap', rows).reel;
    const starts = graphicsOf(placed)
      .filter((g) => g.template.id === 'strap')
      .map((g) => g.start);
    expect(starts).toEqual([300, 420, 540, 660]);
    expect(placeRows(reel, 'title', [{ reel, from: 1000, to: 5000 }]).unlike).toBe(1);
  });

  it('becomes markers', () => {
    const { times } = timesOfRows(uses, table.rows, reel.rate);
    const { reel: marked, set } = markRows(
      reel,
      times.map((t, i) => ({ ...t, name: table.rows[i]![1]! })),
    );
    expect([set, marked.markers.map((m) => [m.frame, m.name])]).toEqual([
      2,
      [
        [120, 'Åse'],
        [360, 'Bram'],
      ],
    ]);
  });
});

describe('a table whose rows wear brands', () => {
  const branded = templateOf([textLayer('line')], {
    id: 'branded',
    name: 'Branded',
    slots: [{ ...textSlot('line', 'Sample'), name: 'Line', brand: 'line' }],
    controls: [{ id: 'ink', kind: 'colour', name: 'Ink', brand: 'main', default: '#111111' }],
  });
  const made = emptyReel({
    ...{ id: 'r', name: 'Kites', now: '', frame: { width: 1920, height: 1080 } },
    rate: { num: 60, den: 1 },
  });
  const own = addTitle(made, branded, 0).reel;
  const brand = (name: string, main: string, line: string): Brand =>
    openDocument(brandKind, {
      ...{ format: 'freshreel/brand', version: 1, id: name, name, logo: null, line },
      colours: { main, second: '#00AA00', dark: '#000000', light: '#FFFFFF' },
    });
  const brands = [
    brand('Hill Crew', '#AA0000', 'From the hill'),
    brand('Shore', '#0000AA', 'From the shore'),
  ];
  const read = readTable('Client,Ink,Line\nhill crew,,\nShore,#00FF00,Typed\nNobody,,\n,,Typed\n');
  const uses = matchReel(read.columns, own, brands);
  const [graphic] = graphicsOf(own);
  const filled = read.rows.map((row) => rowReel(own, uses, row, media, brands));
  const fillOf = (i: number) => graphicOf(filled[i]!.reel, graphic!.id).fill;

  it('finds the column, where there are brands', () => {
    expect(uses[0]).toEqual({ of: 'brand' });
    expect(matchReel(read.columns, own)[0]).toBeUndefined();
    expect(reelUses(own, brands).some(({ use }) => use.of === 'brand')).toBe(true);
    expect(reelUses(own).some(({ use }) => use.of === 'brand')).toBe(false);
  });

  it('wears it by name, and what a row says lies over it', () => {
    expect(fillOf(0).controls).toEqual({ ink: '#AA0000' });
    expect(fillOf(1)).toMatchObject({ controls: { ink: '#00FF00' }, slots: { line: 'Typed' } });
    expect(fillOf(3).controls).toEqual({});
  });

  it('tells one that is not there, with those that are', () => {
    expect(filled.map((f) => f.faults)).toEqual([
      [],
      [],
      ['there is no brand "Nobody"; the brands are Hill Crew, Shore'],
      [],
    ]);
  });
});
