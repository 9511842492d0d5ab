import type { NodeStudio } from '@fresh-reel/node-host';
import { testStudio } from '../testing/studio';
import { inkBounds, layoutText } from './layout';
import { itemise, shapeLine } from './shaping';
import type { FitRule, TextStyle } from './textLayout';

let studio: NodeStudio;
beforeAll(async () => {
  studio = await testStudio();
});

const style: TextStyle = {
  family: 'Figtree',
  weight: 500,
  size: 60,
  tracking: 0,
  leading: 1.2,
  align: 'start',
  case: 'as-typed',
};
const fit: FitRule = { width: 800, lines: 2, least: 0.5 };
const set = (words: string, s: Partial<TextStyle> = {}, f: Partial<FitRule> = {}) =>
  layoutText(words, { ...style, ...s }, { ...fit, ...f }, studio.layouts.fonts);

describe('setting words', () => {
  it('short ones stay as they are', () => {
    const l = set('Marit Oyelaran');
    expect(l.fit).toEqual({ scale: 1, cut: '' });
    expect(l.lines).toHaveLength(1);
    expect(l.units.letter).toHaveLength(13 + 1);
    expect(l.units.word).toHaveLength(2);
    expect(l.width).toBeGreaterThan(300);
    expect(l.height).toBeCloseTo(l.lines[0]!.baseline, 6);
  });

  it('a line is as tall as its capitals, whatever letters it has', () => {
    expect(set('aaa').height).toBeCloseTo(set('Ágy').height, 6);
  });

  it('kerns: a pair is narrower than its letters', () => {
    expect(set('AV').width).toBeLessThan(set('A').width + set('V').width - 0.5);
  });

  it('tracking stands between letters alone', () => {
    const plain = set('kite').width;
    expect(set('kite', { tracking: 100 }).width).toBeCloseTo(plain + 3 * 6, 4);
    expect(set('k', { tracking: 100 }).width).toBeCloseTo(set('k').width, 6);
  });

  it('aligns lines, and turns start round for right-to-left words', () => {
    const lines = set('a much longer line\nshort', { align: 'end' }).lines;
    expect(lines[1]!.x + lines[1]!.width).toBeCloseTo(lines[0]!.width, 6);
    const hebrew = set('שלום לכולם היום\nעפיפון').lines;
    expect(hebrew[1]!.x).toBeGreaterThan(0);
  });

  it('words without a size give nothing, also where they have no room', () => {
    expect(set('kite', { size: 0 }).glyphs).toEqual([]);
    expect(set('kite', { size: 0 }, { width: 0 }).glyphs).toEqual([]);
  });

  it('empty and blank words give nothing', () => {
    for (const words of ['', '   ', '\n\n']) expect(set(words).glyphs).toHaveLength(0);
  });
});

describe('words longer than their place', () => {
  it('wrap first', () => {
    const l = set('Chair of the Marram and District Flyers');
    expect(l.lines).toHaveLength(2);
    expect(l.fit.scale).toBe(1);
    expect(l.width).toBeLessThanOrEqual(800);
  });

  it('then shrink, no further than needed', () => {
    const l = set('Chair of the Marram and District Kite Flyers’ Association and keeper of the line');
    expect(l.fit.scale).toBeLessThan(1);
    expect(l.fit.scale).toBeGreaterThan(0.5);
    expect(l.lines.length).toBeLessThanOrEqual(2);
    expect(l.width).toBeLessThanOrEqual(800 + 1e-6);
  });

  it('then are cut, and say which words', () => {
    const words = 'wind '.repeat(80).trim();
    const l = set(words);
    expect(l.fit.cut).not.toBe('');
    expect(words.endsWith(l.fit.cut)).toBe(true);
    expect(l.lines.length).toBeLessThanOrEqual(2);
    expect(inkBounds(l).width).toBeLessThanOrEqual(800 + 4);
  });

  it('500 letters without a space stay inside', () => {
    const l = set('x'.repeat(500), {}, { lines: 3, least: 0.4 });
    expect(l.width).toBeLessThanOrEqual(800 + 1e-6);
    expect(l.lines.length).toBeLessThanOrEqual(3);
    expect(l.fit.cut.length).toBeGreaterThan(0);
  });

  it('keep to a height as well', () => {
    const l = set(
      'one two three four five six seven eight nine ten',
      {},
      { width: 300, height: 150, lines: 9, least: 0.2 },
    );
    expect(l.height).toBeLessThanOrEqual(150);
    expect(l.fit.cut).toBe('');
  });

  it('10,000 letters do not take long enough to notice a hang', () => {
    const l = set('kite '.repeat(2000));
    expect(l.fit.cut.length).toBeGreaterThan(9000);
  });
});

describe('scripts', () => {
  const line = (text: string) => {
    const p = itemise(text, studio.layouts.fonts, {
      family: 'Figtree',
      weightAt: () => 500,
      borders: new Set(),
    });
    return { p, ...shapeLine(p, 0, text.length, 0) };
  };

  it('Arabic joins, runs right to left, and its digits run left to right (UAX #9)', () => {
    const text = 'طائرة 2026';
    const { p, glyphs } = line(text);
    expect(p.rightToLeft).toBe(true);
    expect(p.missing).toEqual([]);
    const digits = glyphs.filter((g) => /\d/.test(text[g.from]!)).sort((a, b) => a.x - b.x);
    expect(digits.map((g) => text[g.from]).join('')).toBe('2026');
    const letters = glyphs.filter((g) => /\p{L}/u.test(text[g.from]!));
    // The number is read after the word, so it stands to its left.
    expect(Math.max(...digits.map((g) => g.x))).toBeLessThan(Math.min(...letters.map((g) => g.x)));
    // A letter between two others takes another form than alone.
    const [alone, joined] = ['ت', 'كتب'].map((t) =>
      line(t)
        .glyphs.filter((g) => t[g.from] === 'ت')
        .map((g) => g.glyph),
    );
    expect(joined).not.toEqual(alone);
  });

  it('shapes each script by its own rules, also one of which no font ships', () => {
    const runs = (text: string) => line(text).p.runs.map((r) => [text.slice(r.from, r.to), r.script]);
    // Whatever comes after Latin is not Latin, and signs that all share go with what is before them.
    expect(runs('Kite பட்டம்')).toEqual([
      ['Kite ', 'Latn'],
      ['பட்டம்', 'Taml'],
    ]);
    expect(runs('ঘুড়ি 5 Kite')).toEqual([
      ['ঘুড়ি 5 ', 'Beng'],
      ['Kite', 'Latn'],
    ]);
    expect(runs('Kite, 12')).toEqual([['Kite, 12', 'Latn']]);
  });

  it('puts Hebrew inside an English sentence in its own direction', () => {
    const text = 'the עפיפון flies';
    const { glyphs } = line(text);
    const seen = [...glyphs]
      .sort((a, b) => a.x - b.x)
      .map((g) => text[g.from])
      .join('');
    expect(seen).toBe('the ןופיפע flies');
  });

  it('nests levels: numbers in Arabic inside English (UAX #9, example of rule L2)', () => {
    const text = 'car is אבג 123 דהו';
    const { glyphs } = line(text);
    const seen = [...glyphs]
      .sort((a, b) => a.x - b.x)
      .map((g) => text[g.from])
      .join('');
    expect(seen).toBe('car is והד 123 גבא');
  });

  it('Hindi makes its clusters, Thai stacks its marks, and neither lacks letters', () => {
    const hindi = line('क्षितिज');
    expect(hindi.p.missing).toEqual([]);
    expect(hindi.glyphs.length).toBeLessThan('क्षितिज'.length);
    const thai = line('ว่าว');
    expect(thai.p.missing).toEqual([]);
    expect(thai.glyphs.some((g) => g.advance === 0)).toBe(true);
  });

  it('a family emoji is one glyph of the colour font and one letter', () => {
    const l = set('Fly 👨‍👩‍👧‍👦 high');
    const pictures = l.glyphs.filter((g) => g.picture !== undefined);
    expect(pictures).toHaveLength(1);
    expect(pictures[0]!.picture).toBe('👨‍👩‍👧‍👦');
    expect(pictures[0]!.advance).toBeGreaterThan(40);
  });

  it('tells which letters no font has', () => {
    expect(set('Kite 凧').missing).toEqual(['凧']);
  });
});
