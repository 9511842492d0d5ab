import { breakLines, lineBreaks, wordStarts } from './breaking';
import { graphemes, isEmoji, scriptsIn } from './scripts';

/** Marks every place where a line may end with ÷, as Unicode's own test file does. */
const marked = (text: string) => {
  const breaks = new Set(lineBreaks(text).map((b) => b.at));
  return [...text].reduce((out, c, i) => out + (breaks.has(i) && i > 0 ? '÷' : '') + c, '');
};

describe('line breaking (cases of UAX #14 and its LineBreakTest.txt, from memory)', () => {
  it.each([
    ['after spaces and hyphens', 'can not re-do', 'can ÷not ÷re-÷do'],
    ['not before closing or after opening marks', 'say (this), ok!', 'say ÷(this), ÷ok!'],
    ['not inside numbers with signs', 'pay $12,345.60 now', 'pay ÷$12,345.60 ÷now'],
    ['not at a no-break space', 'Dr\u00A0Oye spoke', 'Dr\u00A0Oye ÷spoke'],
    ['at a zero-width space', 'sea\u200Bwall', 'sea\u200B÷wall'],
    ['between ideographs, not before a full stop', '風が吹く。', '風÷が÷吹÷く。'],
    ['not inside a family joined by zero-width joiners', 'a 👨‍👩‍👧 b', 'a ÷👨‍👩‍👧 ÷b'],
  ])('%s', (_, text, expected) => {
    const breaks = new Set(lineBreaks(text).map((b) => b.at));
    let out = '';
    for (let i = 0; i < text.length; i++) out += (breaks.has(i) && i > 0 ? '÷' : '') + text[i];
    expect(out).toBe(expected);
  });

  it('must break at a line feed', () => {
    expect(lineBreaks('a\nb')).toContainEqual({ at: 2, must: true });
  });

  it('breaks Thai between words, which have no spaces', () => {
    // "Kite festival": วาว (kite) after เทศกาล (festival).
    expect(marked('เทศกาลว่าว')).toBe('เทศกาล÷ว่าว');
  });
});

describe('letters and words (UAX #29)', () => {
  it.each([
    ['a family emoji is one', '👨‍👩‍👧‍👦', 1],
    ['a letter and its marks are one', 'e\u0301\u0323', 1],
    ['a flag is one, two flags are two', '🇳🇴🇸🇪', 2],
    ['a Hangul syllable of three jamo is one', '\u1112\u1161\u11ab', 1],
    ['a Devanagari conjunct is one', 'क्षि', 1],
    ['CR LF is one', '\r\n', 1],
  ])('%s', (_, text, count) => {
    expect(graphemes(text)).toHaveLength(count);
  });

  it('words keep their punctuation and the spaces after them', () => {
    const text = 'Hold on, it’s a “well-known” gust!';
    const starts = wordStarts(text);
    const words = starts.map((s, i) => text.slice(s, starts[i + 1] ?? text.length));
    expect(words).toEqual(['Hold ', 'on, ', 'it’s ', 'a ', '“well-known” ', 'gust!']);
  });

  it('knows scripts and pictures', () => {
    expect([...scriptsIn('Kite طائرة 12 पतंग ว่าว עפיפון 🪁')].sort()).toEqual([
      'Arab',
      'Deva',
      'Emoji',
      'Hebr',
      'Latn',
      'Thai',
    ]);
    expect(isEmoji('3')).toBe(false);
    expect(isEmoji('☀️')).toBe(true);
  });
});

describe('filling lines', () => {
  const measure = (from: number, to: number) => to - from;

  it('takes as much as fits, and lets spaces hang', () => {
    const { lines, broken } = breakLines('one two three four', 9, measure);
    expect(lines.map((l) => 'one two three four'.slice(l.from, l.to))).toEqual(['one two', 'three', 'four']);
    expect(broken).toBe(false);
  });

  it('breaks a word that is wider than the line, between letters', () => {
    const text = `ab ${'x'.repeat(20)} c`;
    const { lines, broken } = breakLines(text, 8, measure);
    expect(broken).toBe(true);
    expect(Math.max(...lines.map((l) => l.to - l.from))).toBeLessThanOrEqual(8);
    expect(
      lines
        .map((l) => text.slice(l.from, l.to))
        .join('')
        .replaceAll(' ', ''),
    ).toBe(text.replaceAll(' ', ''));
  });

  it('ends even where not one letter fits', () => {
    expect(breakLines('abc', 0.5, measure).lines).toHaveLength(3);
  });

  it('keeps empty lines', () => {
    expect(breakLines('', 5, measure).lines).toEqual([{ from: 0, to: 0 }]);
  });
});
