/** A part of a text. `index` is its start, in UTF-16 units. */
export interface Segment {
  readonly index: number;
  readonly segment: string;
  readonly isWordLike?: boolean;
}

/** Letters or words that a window is cut into at once. */
const WINDOW = 1024;

const ASCII = /^[ -~\n\t]*$/;

const segmenters = new Map<string, Intl.Segmenter>();

/** Making a segmenter costs more than cutting a line with it. */
function segmenterOf(locale: string, granularity: 'grapheme' | 'word'): Intl.Segmenter {
  const key = `${locale}/${granularity}`;
  const kept = segmenters.get(key) ?? new Intl.Segmenter(locale, { granularity });
  segmenters.set(key, kept);
  return kept;
}

/**
 * Cuts a text into letters or words (Unicode UAX #29) by the host's segmenter, in windows: the host copies the whole
 * text along with every segment it gives, which makes long texts cost the square of their length.
 *
 * A window starts where a segment starts, and its last two segments are left to the next one, since what follows them
 * may join on: the rules look back no farther than the segment itself, and forward past one sign at most.
 */
export function segments(text: string, granularity: 'grapheme' | 'word', locale = 'en'): Segment[] {
  // Nothing in ASCII joins the sign before it, but for the line feed.
  if (granularity === 'grapheme' && ASCII.test(text))
    return Array.from(text, (segment, index) => ({ index, segment }));
  const segmenter = segmenterOf(locale, granularity);
  const found: Segment[] = [];
  let start = 0;
  let size = WINDOW;
  while (start < text.length) {
    const end = start + size;
    const last = end >= text.length;
    const cut = [...segmenter.segment(text.slice(start, end))];
    const sure = last ? cut.length : cut.length - 2;
    if (sure <= 0) {
      // A segment longer than the window.
      size *= 2;
      continue;
    }
    for (const { index, segment, isWordLike } of cut.slice(0, sure))
      found.push({ index: start + index, segment, ...(isWordLike === undefined ? {} : { isWordLike }) });
    if (last) break;
    start += cut[sure]!.index;
    size = WINDOW;
  }
  return found;
}
