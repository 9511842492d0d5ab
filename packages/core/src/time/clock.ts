/**
 * The time of one graphic, in frames of the template's rate.
 *
 * *Actual* time is what the viewer sees. *Local* time is what the maker wrote: the same, but for the `in` stretch,
 * which `pace` may run faster or slower. The hold runs one to one and is the only stretch whose length changes.
 */
export interface Clock {
  /** Length of the in stretch as written. */
  readonly in: number;
  readonly hold: number;
  readonly out: number;
  /** Speed of the in stretch: 2 plays it in half the time. */
  readonly pace: number;
}

/** Which stretch a moment is counted from, so that a longer hold moves the exit and leaves the entrance. */
export type Stretch = 'in' | 'hold' | 'out';

/** A moment: so many frames after the start of a stretch (negative: before it). */
export interface Mark {
  readonly at: number;
  readonly of: Stretch;
}

/** Where in, hold and out begin and end, in actual frames. */
export function stretches(clock: Clock): { holdStart: number; outStart: number; end: number } {
  const holdStart = clock.in / clock.pace;
  const outStart = holdStart + clock.hold;
  return { holdStart, outStart, end: outStart + clock.out };
}

/** Local time of an actual time; both may be fractional, and lie before 0 or past the end. */
export function localTime(clock: Clock, actual: number): number {
  const { holdStart } = stretches(clock);
  return actual < holdStart ? actual * clock.pace : clock.in + (actual - holdStart);
}

/** Actual time of a local time: the inverse of {@link localTime}. */
export function actualTime(clock: Clock, local: number): number {
  return local < clock.in ? local / clock.pace : clock.in / clock.pace + (local - clock.in);
}

/**
 * Local time of a mark. What is counted forwards from before the out stretch ends with the hold at the latest, and what
 * is counted backwards from the out stretch begins with the hold at the earliest: in a hold that is too short for both,
 * neighbouring stretches do not cross over.
 */
export function markTime(clock: Clock, mark: Mark): number {
  const outStart = clock.in + clock.hold;
  if (mark.of === 'out') return Math.max(outStart + mark.at, Math.min(clock.in, outStart));
  return Math.min(mark.of === 'in' ? mark.at : clock.in + mark.at, outStart);
}
