import type { ReelItemOf } from '../documents/item';
import { clipStretch } from '../media/clipTime';
import { framesIn, type Rate, secondsAt } from '../time/rate';

/**
 * The part of a file that an item plays, and how fast: seconds of the file, counted on over the end of a round by what
 * goes round.
 */
export interface Played {
  readonly from: number;
  readonly to: number;
  readonly speed: number;
  /** Where what goes round begins again, and how many seconds a round is. */
  readonly round?: { readonly from: number; readonly length: number } | undefined;
}

/**
 * The part of its file that a clip or a sound plays.
 * @param duration seconds of the file: one that is stretched plays as fast as that asks for
 */
export function playedOf(item: ReelItemOf<'clip' | 'sound'>, rate: Rate, duration: number): Played {
  const shown = secondsAt(item.length, rate);
  const clip = item.kind === 'clip' ? item.clip : { in: item.from, speed: item.speed, begun: item.begun };
  const { from, length, speed } = clipStretch(clip, duration, shown);
  const begins = from + (clip.begun ?? 0) * speed;
  const loops = item.kind === 'clip' ? item.clip.end === 'loop' : item.loops === true;
  const round = loops && length > 0 && Number.isFinite(length) ? { from, length } : undefined;
  return { from: begins, speed, to: begins + shown * speed, round };
}

/** How many seconds each round between two seconds of the playing lies after the first; 0 of what does not go round. */
export function roundsBetween({ round }: Played, from: number, to: number, most: number): number[] {
  if (!round) return [0];
  const first = Math.floor((from - round.from) / round.length);
  const last = Math.floor((to - round.from) / round.length);
  return Array.from({ length: Math.min(most, last - first + 1) }, (_, i) => (first + i) * round.length);
}

/** The seconds of the file among which all that plays lies. */
export function partPlayed(
  { from, to, round }: Played,
  duration: number,
): readonly [from: number, to: number] {
  return round
    ? [round.from, round.from + round.length]
    : [Math.min(Math.max(0, from), duration), Math.min(to, duration)];
}

/** The second of the file that plays at a frame of the item, counted on over the rounds. */
export function secondPlayed({ from, speed }: Played, frame: number, rate: Rate): number {
  return from + secondsAt(frame, rate) * speed;
}

/** The frame of the item, fractional, at which a second of the playing comes; of a round, counted on over the rounds. */
export function frameOfSecond({ from, speed }: Played, second: number, rate: Rate): number {
  return framesIn((second - from) / speed, rate);
}

/** The frames of the item, fractional, at which a second of the file plays: once a round. */
export function framesOfSecond(played: Played, second: number, rate: Rate, most: number): number[] {
  const { round } = played;
  if (round && (second < round.from || second >= round.from + round.length)) return [];
  return roundsBetween(played, played.from, played.to, most).flatMap((later) => {
    const at = second + later;
    return at >= played.from && at < played.to ? [frameOfSecond(played, at, rate)] : [];
  });
}
