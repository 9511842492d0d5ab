import { TEMPLATES } from '@fresh-reel/templates';
import { offered, picturesOf, type Sieve, setOf, sifted, wordsOf } from './sieve';

const ids = (sieve: Sieve, favourites: readonly string[] = [], pictures = 0) =>
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
    expect(ids({ suits: true }, [], 0)).not.toContain('four-corners');
    expect(ids({ suits: true }, [], 4)).toContain('four-corners');
    expect(ids({ suits: true }, [], 100)).not.toContain('name-strap');
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
