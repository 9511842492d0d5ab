/** How far a number of frames may be off a whole one: 30 in 29.97 a second is one frame in half a minute. */
const ROOM = 0.002;

/**
 * Whether frames stand for the same time each, or are left out evenly: one rate is a whole multiple of the other.
 * @param plays frames a second of a clip, at the speed it plays at
 * @param shown frames a second of what shows it
 */
export function goesEvenly(plays: number, shown: number): boolean {
  const times = shown >= plays ? shown / plays : plays / shown;
  return Math.abs(times / Math.round(times) - 1) <= ROOM;
}
