import type { Reel } from '../documents/reel';
import { timecodeAt } from '../time/timecode';
import { type ExchangeTerms, titlesOf } from './titles';

/** Events at most: their numbers have three digits. */
const MOST_EVENTS = 999;
/** Characters of a list's title at most. */
const TITLE = 70;

/**
 * The titles of a reel as an edit decision list, in the common 3600 form: an event for each, all of its file cut in at
 * its place, with its name and file in comments. The lowest track with titles is V, those above V2, V3, as editing
 * programs write them (common practice; the form itself knows one).
 * @throws {Error} when there are more events than their numbers can count
 */
export function editList(reel: Reel, terms: ExchangeTerms = {}): string {
  const { rate } = reel;
  const { start = 0 } = terms;
  const titles = titlesOf(reel, terms);
  if (titles.length > MOST_EVENTS)
    throw new Error(
      `An edit list has ${MOST_EVENTS} events at most, and this reel ${titles.length} titles. Cut it into several reels.`,
    );
  const tracks = [...new Set(titles.map((t) => t.track))].sort((a, b) => a - b);
  const at = (frame: number) => timecodeAt(frame, rate);
  const lines = titles.flatMap(({ name, file, track, from, count }, i) => {
    const over = tracks.indexOf(track);
    const channel = over === 0 ? 'V' : `V${over + 1}`;
    const times = [at(0), at(count), at(start + from), at(start + from + count)];
    return [
      `${String(i + 1).padStart(3, '0')}  AX       ${channel.padEnd(5)} C        ${times.join(' ')}`,
      `* FROM CLIP NAME: ${oneLine(name)}`,
      `* SOURCE FILE: ${oneLine(file)}`,
      '',
    ];
  });
  const counting = at(0).includes(';') ? 'DROP FRAME' : 'NON-DROP FRAME';
  const head = [`TITLE: ${oneLine(reel.name).slice(0, TITLE)}`, `FCM: ${counting}`, ''];
  // Lines end as they did on the machines that first read them.
  return [...head, ...lines].map((line) => `${line}\r\n`).join('');
}

const oneLine = (text: string) => text.replace(/\s+/g, ' ').trim();
