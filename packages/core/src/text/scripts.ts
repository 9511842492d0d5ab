import { type Segment, segments } from './segments';

/** Writing systems that shipped fonts cover beyond the template's own, by their ISO 15924 codes. */
export const SCRIPTS = [
  'Latn',
  'Grek',
  'Cyrl',
  'Arab',
  'Hebr',
  'Deva',
  'Thai',
  'Hani',
  'Kana',
  'Hang',
] as const;
export type Script = (typeof SCRIPTS)[number] | 'Emoji';

const TESTS: readonly (readonly [Script, RegExp])[] = [
  ['Latn', /\p{Script=Latin}/u],
  ['Grek', /\p{Script=Greek}/u],
  ['Cyrl', /\p{Script=Cyrillic}/u],
  ['Arab', /\p{Script=Arabic}/u],
  ['Hebr', /\p{Script=Hebrew}/u],
  ['Deva', /\p{Script=Devanagari}/u],
  ['Thai', /\p{Script=Thai}/u],
  ['Hani', /\p{Script=Han}/u],
  ['Kana', /[\p{Script=Hiragana}\p{Script=Katakana}]/u],
  ['Hang', /\p{Script=Hangul}/u],
];

const EMOJI = /\p{Emoji_Presentation}|\p{Emoji}\uFE0F|\p{Regional_Indicator}/u;

/** Whether a grapheme shows as a colour picture rather than as a letter. */
export function isEmoji(grapheme: string): boolean {
  return EMOJI.test(grapheme);
}

/** The script of a grapheme, or nothing for signs that every script shares (digits, spaces, points). */
export function scriptOf(grapheme: string): Script | undefined {
  if (isEmoji(grapheme)) return 'Emoji';
  const first = String.fromCodePoint(grapheme.codePointAt(0) ?? 32);
  return TESTS.find(([, test]) => test.test(first))?.[0];
}

/** Letters as people see them (Unicode UAX #29 extended grapheme clusters). */
export function graphemes(text: string): Segment[] {
  return segments(text, 'grapheme');
}

/** Every script that stands in a text. */
export function scriptsIn(text: string): Set<Script> {
  const found = new Set<Script>(TESTS.filter(([, test]) => test.test(text)).map(([script]) => script));
  if (isEmoji(text)) found.add('Emoji');
  // Chinese characters among kana are Japanese: the Japanese font has them.
  if (found.has('Kana')) found.delete('Hani');
  return found;
}
