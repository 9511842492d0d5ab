import type { NodeStudio } from '@fresh-reel/node-host';
import { testStudio } from '../testing/studio';
import { pieceStart } from './joining';
import { layoutText } from './layout';
import { scriptsIn } from './scripts';
import type { TextStyle, WeightRun } from './textLayout';

let studio: NodeStudio;
beforeAll(async () => {
  studio = await testStudio();
  await studio.loadFonts({ faces: [], scripts: ['Grek', 'Cyrl', 'Latx', 'Zsym'] });
});

const STYLE: TextStyle = {
  ...{ family: 'Figtree', weight: 500, size: 100, tracking: 0, leading: 1.2 },
  ...{ align: 'start', case: 'as-typed' },
};
const FIT = { width: 4000, lines: 4, least: 0.5 };
const set = (words: string, style: Partial<TextStyle> = {}, runs: WeightRun[] = []) =>
  layoutText(words, { ...STYLE, ...style }, FIT, studio.layouts.fonts, runs);

describe('a part with a look of its own is shaped with what stands around it', () => {
  it('Arabic letters keep their joined forms', () => {
    // سلام, its second letter in another colour: the same glyphs as without.
    const plain = set('سلام').glyphs.map((g) => g.glyph);
    expect(set('سلام', {}, [{ from: 1, to: 2 }]).glyphs.map((g) => g.glyph)).toEqual(plain);
  });

  it('kerning goes across', () => {
    expect(set('AVATAR', {}, [{ from: 1, to: 3 }]).width).toBeCloseTo(set('AVATAR').width, 6);
  });

  it('ligatures do not', () => {
    const serif = { family: 'Source Serif 4' };
    const [whole, split] = [set('office', serif), set('office', serif, [{ from: 0, to: 2 }])];
    expect(split.glyphs).toHaveLength(6);
    expect(whole.glyphs.length).toBeLessThanOrEqual(6);
    expect(split.glyphs.map((g) => g.run)).toEqual([0, 0, -1, -1, -1, -1]);
  });
});

describe('letters that are joined', () => {
  it('are not spaced, and Latin ones beside them are', () => {
    expect(set('سلام', { tracking: 200 }).width).toBeCloseTo(set('سلام').width, 6);
    expect(set('पतंग', { tracking: 200 }).width).toBeCloseTo(set('पतंग').width, 6);
    expect(set('kite', { tracking: 200 }).width).toBeCloseTo(set('kite').width + 60, 6);
  });

  it('spaced Latin letters have no ligatures (CSS Text 3, 8.2)', () => {
    expect(set('office', { family: 'Source Serif 4', tracking: 50 }).glyphs).toHaveLength(6);
  });

  it('move by joined pieces', () => {
    // Waw and alef do not join to what follows: بو, ا, سلا… (Unicode, ArabicShaping.txt).
    const starts = [...'السلام'].map((_, i) => pieceStart('السلام', i));
    expect(starts).toEqual([0, 1, 1, 1, 1, 5]);
    expect(new Set(set('السلام').glyphs.map((g) => g.letter)).size).toBe(3);
    expect(new Set(set('पतंग ऊँची').glyphs.map((g) => g.letter)).size).toBe(3);
    expect(new Set(set('kite').glyphs.map((g) => g.letter)).size).toBe(4);
  });
});

describe('what a template’s own font lacks', () => {
  it.each(['Привет Ελλάδα', 'Tiếng Việt', 'Five ★ and ✓ → done', 'Čeština, Türkçe, Íslenska'])(
    'is set whole: %s',
    (words) => {
      for (const family of ['Anton', 'Bebas Neue', 'Figtree', 'Pacifico', 'Playfair Display']) {
        const layout = set(words, { family });
        expect(layout.missing).toEqual([]);
        expect(layout.glyphs.every((g) => g.glyph !== 0)).toBe(true);
      }
    },
  );

  it('is known from the words', () => {
    const of = (t: string) => [...scriptsIn(t)].sort();
    expect(of('Привет')).toEqual(['Cyrl']);
    expect(of('Ελλάδα')).toEqual(['Grek']);
    expect(of('Tiếng Việt')).toEqual(['Latn', 'Latx']);
    expect(of('→ ★')).toEqual(['Zsym']);
    expect(of('Kite 🪁 café ©')).toEqual(['Emoji', 'Latn']);
  });

  it('marks of Thai and Vietnamese are part of their line', () => {
    for (const words of ['ที่นี่', 'Ế Ợ']) {
      const { lines, glyphs, size } = set(words);
      for (const g of glyphs) {
        const ink = g.face.ink(g.glyph);
        expect(g.y + ink.top * size).toBeGreaterThanOrEqual(lines[0]!.top - 0.01);
        expect(g.y + ink.bottom * size).toBeLessThanOrEqual(lines[0]!.bottom + 0.01);
      }
    }
  });
});

describe('the letters of the words as they were given', () => {
  const spans = (layout: ReturnType<typeof set>) => layout.glyphs.map((g) => [g.from, g.to, g.run]);
  it('do not drift after CR LF', () => {
    const run = [{ from: 4, to: 6 }];
    expect(spans(set('ab\r\ncd', {}, run))).toEqual([
      [0, 1, -1],
      [1, 2, -1],
      [4, 5, 0],
      [5, 6, 0],
    ]);
  });

  it('stay in their runs where one becomes two, and are not doubled where runs overlap', () => {
    const upper = set('Straße ab', { case: 'upper' }, [
      { from: 4, to: 6 },
      { from: 5, to: 9 },
    ]);
    expect(upper.glyphs.map((g) => g.run)).toEqual([-1, -1, -1, -1, 0, 0, 0, 1, 1, 1]);
    expect(upper.glyphs.at(-1)).toMatchObject({ from: 8, to: 9 });
    expect(upper.width).toBeCloseTo(set('STRASSE AB').width, 6);
  });

  it('are the capital and the small ones of Unicode, not those of the machine’s language', () => {
    const text = (words: string, how: 'upper' | 'lower') => {
      const letters = set(words, { case: how }).glyphs.map((g) => g.glyph);
      return (other: string) => expect(letters).toEqual(set(other).glyphs.map((g) => g.glyph));
    };
    // The last sigma of a word is another (Unicode 16, 3.13, Final_Sigma; SpecialCasing.txt).
    text('ΟΔΥΣΣΕΥΣ ΣΑΣ', 'lower')('οδυσσευς σας');
    text('ΑΣ ΣΑ', 'lower')('ας σα');
    text('istanbul', 'upper')('ISTANBUL');
    text('straße', 'upper')('STRASSE');
  });
});
