import LineBreaker from 'linebreak';
import { graphemes } from './scripts';
import { segments } from './segments';

/** A place where a line may end: before index `at`; `must` where a line break stands in the text. */
export interface Break {
  readonly at: number;
  readonly must: boolean;
}

const DICTIONARY_SCRIPT = /[\p{Script=Thai}\p{Script=Lao}\p{Script=Khmer}\p{Script=Myanmar}]/u;

/**
 * Where lines may end, by the Unicode line breaking algorithm (UAX #14). Scripts that write no spaces between words
 * (class SA) get the word boundaries of the host's dictionary, as the algorithm asks.
 */
export function lineBreaks(text: string): Break[] {
  const found = new Map<number, boolean>();
  const breaker = new LineBreaker(text);
  for (let next = breaker.nextBreak(); next; next = breaker.nextBreak())
    found.set(next.position, next.required);
  if (DICTIONARY_SCRIPT.test(text)) {
    for (const { index, segment } of segments(text, 'word', 'th')) {
      if (index > 0 && DICTIONARY_SCRIPT.test(segment) && DICTIONARY_SCRIPT.test(text[index - 1]!)) {
        if (!found.has(index)) found.set(index, false);
      }
    }
  }
  return [...found].map(([at, must]) => ({ at, must })).sort((a, b) => a.at - b.at);
}

/**
 * Words for motion: each runs to the start of the next and so takes its spaces and punctuation along
 * (UAX #29 word boundaries, kept only before word-like parts).
 * @returns start index of every word, the first always 0
 */
export function wordStarts(text: string): number[] {
  const starts: number[] = [];
  let afterSpace = true;
  for (const { index, segment, isWordLike } of segments(text, 'word')) {
    const blank = segment.trim() === '';
    const joined = !afterSpace && !DICTIONARY_SCRIPT.test(segment) && !/\p{Script=Han}/u.test(segment);
    if (!blank && !joined && (isWordLike || afterSpace)) starts.push(index);
    afterSpace = blank;
  }
  if (starts[0] !== 0) starts[0] = 0;
  return starts;
}

/** How wide a range is when it stands alone on a line. */
export type Measure = (from: number, to: number) => number;

export interface BrokenLine {
  readonly from: number;
  /** End of what shows; trailing spaces hang past it and are not set. */
  readonly to: number;
}

/**
 * Breaks a paragraph into lines no wider than `width`, taking as much as fits on each (greedy).
 * A word wider than the line is broken between letters; `broken` tells that this happened.
 * @param breaks where lines may end, when the caller has found that out before
 */
export function breakLines(
  text: string,
  width: number,
  measure: Measure,
  breaks: readonly Break[] = lineBreaks(text),
): { lines: BrokenLine[]; broken: boolean } {
  const lines: BrokenLine[] = [];
  let broken = false;
  let start = 0;
  let fits = 0;
  const trimmed = (from: number, to: number) => from + text.slice(from, to).trimEnd().length;
  const push = (to: number) => {
    lines.push({ from: start, to: trimmed(start, to) });
    start = to;
    fits = to;
  };
  for (const { at, must } of breaks) {
    if (measure(start, trimmed(start, at)) > width) {
      if (fits > start) push(fits);
      while (measure(start, trimmed(start, at)) > width) {
        const cut = longestPart(text, start, at, width, measure);
        if (cut >= at) break;
        broken = true;
        push(cut);
      }
    }
    fits = at;
    if (must) push(at);
  }
  if (start < text.length || lines.length === 0) push(text.length);
  return { lines, broken };
}

/** End of the longest whole-grapheme prefix that fits; at least one grapheme. Widths grow with length: bisection. */
function longestPart(text: string, from: number, to: number, width: number, measure: Measure): number {
  const ends = graphemes(text.slice(from, to)).map((g) => from + g.index + g.segment.length);
  let low = 0;
  let high = ends.length - 1;
  while (low < high) {
    const middle = Math.ceil((low + high) / 2);
    if (measure(from, ends[middle]!) <= width) low = middle;
    else high = middle - 1;
  }
  return ends[low]!;
}
