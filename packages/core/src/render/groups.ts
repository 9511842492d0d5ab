import type { Rate } from '../time/rate';

/**
 * Frames of a group of pictures: as many as come nearest to a second. Each group begins with a key frame and is
 * compressed apart from the others, so that a render can go on, be shared and be joined at any of them.
 */
export const groupLength = (rate: Rate): number => Math.max(1, Math.round(rate.num / rate.den));

/** So many frames in groups of a length, in order: the first frame of each and how many it has. */
export const groupsOf = (
  count: number,
  length: number,
): { readonly first: number; readonly count: number }[] =>
  Array.from({ length: Math.ceil(count / length) }, (_, i) => ({
    first: i * length,
    count: Math.min(length, count - i * length),
  }));
