import type { AnyScript } from './scripts';

/** Scripts whose letters are written joined to each other: by strokes, or by a headline as Devanagari's. */
const JOINED: ReadonlySet<AnyScript> = new Set<AnyScript>([
  'Arab',
  'Syrc',
  'Nkoo',
  'Mong',
  'Deva',
  'Beng',
  'Guru',
]);

/** Whether a script's letters are written joined to each other. */
export function joinsLetters(script: AnyScript | undefined): boolean {
  return script !== undefined && JOINED.has(script);
}

const ARABIC = /\p{Script=Arabic}/u;
/** Written under one headline. */
const HEADLINED = /[\p{Script=Devanagari}\p{Script=Bengali}\p{Script=Gurmukhi}]/u;
const MARK = /\p{M}|\u200d/u;

/**
 * Arabic letters that do not join to the one after them: Joining_Type R and U in Unicode's ArabicShaping.txt, of the
 * blocks Arabic and Arabic Supplement.
 */
const ENDS_PIECE =
  /[\u0621-\u0625\u0627\u0629\u062f-\u0632\u0648\u0671-\u0677\u0688-\u0699\u06c0\u06c3-\u06cb\u06cd\u06cf\u06d2\u06d3\u06d5\u06ee\u06ef\u0759-\u075b\u076b\u076c\u0771\u0773\u0774\u0778\u0779\u060c\u061b\u061f\u0640\u066a-\u066d\u06d4\u0660-\u0669\u06f0-\u06f9]/;

/**
 * Where the joined piece begins that the letter at an index belongs to; the index itself outside of joined scripts.
 * Motion by letters moves such pieces whole, since their letters have no edge between them.
 */
export function pieceStart(text: string, index: number): number {
  let at = index;
  while (at > 0) {
    const before = previousLetter(text, at);
    if (before === undefined) return at;
    const [own, last] = [text[at]!, text[before]!];
    const joined =
      (HEADLINED.test(own) && HEADLINED.test(last)) ||
      (ARABIC.test(own) && ARABIC.test(last) && !ENDS_PIECE.test(last) && own !== '\u0621');
    if (!joined) return at;
    at = before;
  }
  return at;
}

/** Index of the letter before, marks passed over. */
function previousLetter(text: string, index: number): number | undefined {
  let at = index - 1;
  while (at >= 0 && MARK.test(text[at]!)) at--;
  return at >= 0 ? at : undefined;
}
