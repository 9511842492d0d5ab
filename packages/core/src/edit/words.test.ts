import fc from 'fast-check';
import { lookOf, markWords, plainText, retype, runsOf, type SlotWords } from './words';

const marked: SlotWords = { text: 'You let the wind read it', runs: [{ from: 4, to: 16, marked: true }] };
const shown = (words: SlotWords) => runsOf(words).map((r) => plainText(words).slice(r.from, r.to));

describe('typing over marked words', () => {
  it.each([
    ['before them', 'Now you let the wind read it', ['let the wind']],
    ['after them', 'You let the wind read it aloud', ['let the wind']],
    ['inside them', 'You let the cold wind read it', ['let the cold wind']],
    ['right after the last letter', 'You let the winds read it', ['let the winds']],
    ['at their first letter', 'You xlet the wind read it', ['let the wind']],
    ['over their end', 'You let the read it', ['let the']],
    ['all of them gone', 'You read it', []],
    ['everything gone', '', []],
  ])('%s', (_, text, kept) => {
    const words = retype(marked, text);
    expect(plainText(words)).toBe(text);
    expect(shown(words).map((s) => s.trim())).toEqual(kept);
  });

  it('words without marks stay plain', () => {
    expect(retype('Kite', 'Kites')).toBe('Kites');
  });
});

describe('marking', () => {
  it('marks, joins and takes away', () => {
    let words = markWords('three days of wind', 0, 5, { marked: true });
    words = markWords(words, 5, 10, { marked: true });
    expect(shown(words)).toEqual(['three days']);
    words = markWords(words, 6, 10, { weight: 800 });
    expect(shown(words)).toEqual(['three ', 'days']);
    expect(lookOf(words, 6, 10)).toEqual({ marked: true, weight: 800 });
    expect(lookOf(words, 0, 10)).toEqual({ marked: true });
    words = markWords(words, 0, 18, { marked: undefined, weight: undefined });
    expect(words).toBe('three days of wind');
  });

  it('keeps runs in order, apart and inside the words, whatever is done', () => {
    const step = fc.oneof(
      fc.record({ from: fc.nat(40), to: fc.nat(40), marked: fc.boolean(), underline: fc.boolean() }),
      fc.string({ maxLength: 40 }),
    );
    fc.assert(
      fc.property(fc.string({ maxLength: 40 }), fc.array(step, { maxLength: 12 }), (first, steps) => {
        let words: SlotWords = first;
        for (const s of steps) {
          if (typeof s === 'string') words = retype(words, s);
          else {
            const { from, to, ...look } = s;
            words = markWords(words, from, to, look);
          }
          let last = 0;
          for (const run of runsOf(words)) {
            expect(run.from).toBeGreaterThanOrEqual(last);
            expect(run.to).toBeGreaterThan(run.from);
            expect(run.to).toBeLessThanOrEqual(plainText(words).length);
            last = run.to;
          }
        }
      }),
    );
  });
});
