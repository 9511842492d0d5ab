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
/**
 * Living scripts of which no font ships: those whose letters change or move in company, which a font of the user's sets
 * right only where they are called by their name.
 */
export const OTHER_SCRIPTS = [
  'Armn',
  'Beng',
  'Ethi',
  'Geor',
  'Gujr',
  'Guru',
  'Khmr',
  'Knda',
  'Laoo',
  'Mlym',
  'Mong',
  'Mymr',
  'Nkoo',
  'Orya',
  'Sinh',
  'Syrc',
  'Taml',
  'Telu',
  'Thaa',
  'Tibt',
] as const;
/** Besides those: Latin letters that fonts for western languages lack (Vietnamese), symbols, and colour signs. */
export type Script = (typeof SCRIPTS)[number] | 'Latx' | 'Zsym' | 'Emoji';
/** Any script that letters are shaped by. */
export type AnyScript = Script | (typeof OTHER_SCRIPTS)[number];

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

const OTHERS = OTHER_SCRIPTS.map((code) => [code, new RegExp(`\\p{Script=${code}}`, 'u')] as const);

/** Latin Extended-B and Extended Additional; Vietnamese is written with them. */
const BEYOND_WESTERN = /[\u0180-\u024f\u1e00-\u1eff]/;

/** Signs that stand for themselves: stars, ticks, arrows, shapes; not those that text fonts have. */
const SYMBOL = /(?![\u00a0-\u00ff])[\p{So}\p{Sm}\u2190-\u21ff\u2600-\u27bf]/u;

const EMOJI = /\p{Emoji_Presentation}|\p{Emoji}\uFE0F|\p{Regional_Indicator}/u;

const ALL_EMOJI = new RegExp(`(${EMOJI.source})\\p{M}*`, 'gu');

/** Whether a grapheme shows as a colour picture rather than as a letter. */
export function isEmoji(grapheme: string): boolean {
  return EMOJI.test(grapheme);
}

const LETTER = /\p{L}/u;

/** The script of a grapheme, or nothing for signs that every script shares (digits, spaces, points). */
export function scriptOf(grapheme: string): AnyScript | undefined {
  if (isEmoji(grapheme)) return 'Emoji';
  const first = String.fromCodePoint(grapheme.codePointAt(0) ?? 32);
  const known = TESTS.find(([, test]) => test.test(first))?.[0];
  if (known || !LETTER.test(first)) return known;
  return OTHERS.find(([, test]) => test.test(first))?.[0];
}

/** Letters as people see them (Unicode UAX #29 extended grapheme clusters). */
export function graphemes(text: string): Segment[] {
  return segments(text, 'grapheme');
}

/** Every script that stands in a text. */
export function scriptsIn(text: string): Set<Script> {
  const found = new Set<Script>(TESTS.filter(([, test]) => test.test(text)).map(([script]) => script));
  if (isEmoji(text)) found.add('Emoji');
  if (BEYOND_WESTERN.test(text.normalize('NFC'))) found.add('Latx');
  if (SYMBOL.test(text.replace(ALL_EMOJI, ''))) found.add('Zsym');
  // Chinese characters among kana are Japanese: the Japanese font has them.
  if (found.has('Kana')) found.delete('Hani');
  return found;
}

const RIGHT_TO_LEFT = /[\p{Script=Arabic}\p{Script=Hebrew}\p{Script=Syriac}\p{Script=Thaana}\p{Script=Nko}]/u;

/** Whether a text reads from right to left: its first letter does (UAX #9, rules P2 and P3). */
export function readsRightToLeft(text: string): boolean {
  const first = LETTER.exec(text)?.[0];
  return first !== undefined && RIGHT_TO_LEFT.test(first);
}
