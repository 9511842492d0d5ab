import { readFileSync } from 'node:fs';
import bidiFactory from 'bidi-js';
import { lineBreaks } from './breaking';
import { graphemes } from './scripts';
import { segments } from './segments';

/** Unicode's own test files, version 15.0, as Debian's package `unicode-data` has them. */
const FOLDER = '/usr/share/unicode';

interface Case {
  readonly text: string;
  readonly breaks: readonly number[];
  readonly source: string;
}

/** Rows such as `÷ 0020 × 0308 ÷`: a break, or none, between code points. Breaks as UTF-16 indices. */
function cases(file: string): Case[] {
  return readFileSync(`${FOLDER}/auxiliary/${file}`, 'utf8')
    .split('\n')
    .flatMap((line) => {
      const source = line.split('#')[0]!.trim();
      if (source === '') return [];
      let text = '';
      const breaks: number[] = [];
      for (const part of source.split(/\s+/)) {
        if (part === '÷') breaks.push(text.length);
        else if (part !== '×') text += String.fromCodePoint(Number.parseInt(part, 16));
      }
      return [{ text, breaks, source }];
    });
}

const differing = (all: readonly Case[], found: (text: string) => number[]) =>
  all
    .filter(({ text, breaks }) => JSON.stringify(found(text)) !== JSON.stringify(breaks))
    .map((c) => c.source);

it('orders by BidiCharacterTest.txt, all 91,707 cases (UAX #9)', () => {
  const bidi = bidiFactory();
  let count = 0;
  const wrong: string[] = [];
  for (const line of readFileSync(`${FOLDER}/BidiCharacterTest.txt`, 'utf8').split('\n')) {
    if (line === '' || line.startsWith('#')) continue;
    const [points, direction, , levels] = line.split(';') as [string, string, string, string];
    let text = '';
    const starts = points.split(' ').map((hex) => {
      const start = text.length;
      text += String.fromCodePoint(Number.parseInt(hex, 16));
      return start;
    });
    const { levels: found } = bidi.getEmbeddingLevels(
      text,
      ({ 0: 'ltr', 1: 'rtl' } as const)[Number(direction) as 0] ?? 'auto',
    );
    // Signs that the algorithm removes have no level.
    const right = levels.split(' ').every((level, i) => level === 'x' || Number(level) === found[starts[i]!]);
    if (!right) wrong.push(line);
    count++;
  }
  expect(count).toBe(91707);
  expect(wrong).toEqual([]);
});

it('cuts letters by GraphemeBreakTest.txt (UAX #29)', () => {
  const all = cases('GraphemeBreakTest.txt');
  expect(all).toHaveLength(602);
  // Scissors lost their emoji property after version 15.0, which Node's newer tables know.
  expect(differing(all, (text) => [...graphemes(text).map((g) => g.index), text.length])).toEqual([
    '÷ 2701 × 200D × 2701 ÷',
  ]);
});

it('cuts words by WordBreakTest.txt (UAX #29)', () => {
  const all = cases('WordBreakTest.txt');
  expect(all).toHaveLength(1823);
  expect(differing(all, (text) => [...segments(text, 'word').map((w) => w.index), text.length])).toEqual([
    '÷ 2701 × 200D × 2701 ÷',
    '÷ 0061 × 200D × 2701 ÷',
  ]);
});

it('breaks lines by LineBreakTest.txt (UAX #14), but for the rules that came after the breaker was made', () => {
  const all = cases('LineBreakTest.txt');
  expect(all).toHaveLength(7654);
  const wrong = differing(all, (text) => {
    const found = lineBreaks(text).map((b) => b.at);
    return found.includes(text.length) ? [...found] : [...found, text.length];
  });
  // What is left: brackets of East Asian width after letters (LB30 since 13.0), the longer number rule that the test
  // file uses (LB25), and two signs whose class has changed.
  const known =
    /2329|FF08|300C|0025|0024|\b(002C|002F|002E)( × 0308)? ÷ 003|\b002C|\b002F|002E ÷ 003[0-9]|005C ÷|17D6|1F02C/;
  expect(wrong.filter((source) => !known.test(source))).toEqual([]);
  expect(wrong.length).toBe(61);
});
