import type { ReelItemOf } from '../documents/item';
import { framesIn, type Rate, secondsAt } from '../time/rate';

/** The part of a file that an item plays, in seconds of the file, and how fast; further rounds of a loop do not count. */
export interface Played {
  readonly from: number;
  readonly to: number;
  readonly speed: number;
}

/** The part of its file that a clip or a sound plays. */
export function playedOf(item: ReelItemOf<'clip' | 'sound'>, rate: Rate): Played {
  const from = (item.kind === 'clip' ? item.clip.in : item.from) ?? 0;
  const speed = (item.kind === 'clip' ? item.clip.speed : item.speed) ?? 1;
  const begins = from + ((item.kind === 'clip' ? item.clip.begun : item.begun) ?? 0) * speed;
  return { from: begins, speed, to: begins + secondsAt(item.length, rate) * speed };
}

/** The second of the file that plays at a frame of the item. */
export function secondPlayed({ from, speed }: Played, frame: number, rate: Rate): number {
  return from + secondsAt(frame, rate) * speed;
}

/** The frame of the item, fractional, at which a second of the file plays for the first time. */
export function frameOfSecond({ from, speed }: Played, second: number, rate: Rate): number {
  return framesIn((second - from) / speed, rate);
}
