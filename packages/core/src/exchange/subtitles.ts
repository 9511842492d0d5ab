import type { Reel } from '../documents/reel';
import { secondsAt } from '../time/rate';
import { titlesOf } from './titles';

interface Cue {
  readonly from: number;
  readonly to: number;
  readonly text: string;
}

/** What a reel's titles say, and when: seconds. Titles without words have no cue. */
function cuesOf(reel: Reel): Cue[] {
  return titlesOf(reel).flatMap(({ words, from, count }) =>
    words === ''
      ? []
      : [{ from: secondsAt(from, reel.rate), to: secondsAt(from + count, reel.rate), text: words }],
  );
}

/** `hh:mm:ss`, a sign, and milliseconds. */
function stamp(seconds: number, sign: '.' | ','): string {
  const all = Math.round(seconds * 1000);
  const two = (n: number) => String(Math.floor(n)).padStart(2, '0');
  return `${two(all / 3_600_000)}:${two((all / 60_000) % 60)}:${two((all / 1000) % 60)}${sign}${String(all % 1000).padStart(3, '0')}`;
}

/** The words of a reel's titles as WebVTT (W3C): a cue for each title. */
export function webVttOf(reel: Reel): string {
  const escaped = (text: string) =>
    text.replaceAll('&', '&amp;').replaceAll('<', '&lt;').replaceAll('>', '&gt;');
  const cues = cuesOf(reel).map(
    ({ from, to, text }) => `${stamp(from, '.')} --> ${stamp(to, '.')}\n${escaped(text)}\n`,
  );
  return ['WEBVTT\n', ...cues].join('\n');
}

/** The same as SubRip: numbered from 1, commas before the milliseconds (common practice; there is no standard). */
export function subRipOf(reel: Reel): string {
  return cuesOf(reel)
    .map(({ from, to, text }, i) => `${i + 1}\n${stamp(from, ',')} --> ${stamp(to, ',')}\n${text}\n`)
    .join('\n');
}
