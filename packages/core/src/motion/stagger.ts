import { shuffled } from './random';

/** The order in which units start. */
export type Order = 'forwards' | 'backwards' | 'from-middle' | 'to-middle' | 'random';

/**
 * The rank (0 first) at which each of `count` units starts, in reading order of the units.
 * Ranks of `from-middle` and `to-middle` go in pairs, so both sides move together.
 */
export function startRanks(count: number, order: Order, seed: number): number[] {
  switch (order) {
    case 'forwards':
      return Array.from({ length: count }, (_, i) => i);
    case 'backwards':
      return Array.from({ length: count }, (_, i) => count - 1 - i);
    case 'from-middle':
      return Array.from({ length: count }, (_, i) => Math.floor(Math.abs(i - (count - 1) / 2)));
    case 'to-middle':
      return Array.from({ length: count }, (_, i) => Math.min(i, count - 1 - i));
    case 'random':
      return shuffled(count, seed);
  }
}

/**
 * The stagger that lets every unit finish: as asked, or less when the last unit would end after `available` frames.
 * @param length frames one unit moves for
 * @param available frames from the first unit's start to the latest end
 */
export function fittingStagger(
  stagger: number,
  ranks: readonly number[],
  length: number,
  available: number,
): number {
  const last = ranks.reduce((most, rank) => Math.max(most, rank), 0);
  if (last === 0) return stagger;
  return Math.max(0, Math.min(stagger, (available - length) / last));
}
