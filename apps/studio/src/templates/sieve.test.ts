import { listedOf } from '@fresh-reel/core';
import { allTemplates } from '@fresh-reel/templates';
import { offered, picturesOf, type Sieve, setOf, sifted, wordsOf } from './sieve';

const TEMPLATES = allTemplates().map(listedOf);
const ids = (sieve: Sieve, favourites: readonly string[] = [], pictures: readonly number[] = []) =>
  sifted(TEMPLATES, sieve, new Set(favourites), pictures).map((t) => t.id);

describe('templates through a sieve', () => {
  it('an empty one lets all pass in their order, favourites first', () => {
    expect(ids({})).toEqual(TEMPLATES.map((t) => t.id));
    const [first, second] = ids({}, ['vapour', 'crew']);
    expect([first, second].sort()).toEqual(['crew', 'vapour']);
    expect(new Set(ids({}, ['vapour'])).size).toBe(TEMPLATES.length);
  });

  it('each thing takes away what does not answer, and two take away more', () => {
    const periods = ids({ set: 'Five periods' });
    expect(periods.sort()).toEqual(['filament', 'groove', 'sketchbook', 'watching-lens', 'worn-tape']);
    expect(ids({ set: 'Five periods', mood: 'handmade' })).toEqual(['sketchbook']);
    expect(ids({ use: 'lower-third' })).toContain('name-strap');
    expect(ids({ shape: 'tall' })).toContain('tall-hook');
    expect(ids({ shape: 'tall' })).not.toContain('name-strap');
    expect(ids({ pictures: 'many' })).toContain('wet-floor');
    expect(ids({ length: 'long' })).toContain('marbling');
    expect(ids({ favourites: true }, ['dust'])).toEqual(['dust']);
  });

  it('lengths and counts part all templates: each passes exactly one', () => {
    for (const [field, values] of [
      ['length', ['short', 'middle', 'long']],
      ['pictures', ['none', 'one', 'few', 'many']],
      ['words', ['none', 'one', 'few', 'many']],
    ] as const) {
      const all = values.flatMap((value) => ids({ [field]: value }));
      expect(all.sort()).toEqual(TEMPLATES.map((t) => t.id).sort());
    }
  });

  it('what suits the user’s pictures shows some, and needs no more than there are', () => {
    const [wide, tall] = [16 / 9, 9 / 16];
    expect(ids({ suits: true }, [], [])).not.toContain('four-corners');
    expect(ids({ suits: true }, [], [wide, wide])).not.toContain('four-corners');
    expect(ids({ suits: true }, [], [wide, wide, wide])).toContain('four-corners');
    expect(ids({ suits: true }, [], new Array(100).fill(wide))).not.toContain('name-strap');
    // Two stand in tall windows side by side; of a wide picture less than half would be left.
    expect(ids({ suits: true }, [], [wide, wide, wide])).not.toContain('gust-hook');
    expect(ids({ suits: true }, [], [tall, wide, tall])).toContain('gust-hook');
    // One picture fills a window, whatever the others are like; a square one suits most.
    expect(ids({ suits: true }, [], [wide])).toContain('drift-wall');
    expect(ids({ suits: true }, [], [tall])).toContain('poster');
    expect(ids({ suits: true }, [], [wide])).not.toContain('poster');
    expect(ids({ suits: true }, [], [1])).toContain('poster');
    // What takes the picture's own shape takes any.
    expect(ids({ suits: true }, [], [5])).toContain('ticket');
  });

  it('counts what it is set to, and offers what there is', () => {
    expect(setOf({ use: 'title', mood: 'calm', suits: false })).toBe(1);
    expect(offered(TEMPLATES, (t) => (t.set ? [t.set] : []))).toContain('Over a cut');
    const moods = offered(TEMPLATES, (t) => t.moods);
    const often = (mood: string) => TEMPLATES.filter((t) => t.moods.includes(mood)).length;
    expect(moods.map(often)).toEqual(moods.map(often).sort((a, b) => b - a));
    const strap = TEMPLATES.find((t) => t.id === 'name-strap')!;
    expect([picturesOf(strap), wordsOf(strap)]).toEqual([1, 2]);
  });
});
