import { CEILING } from './limiter';

/** Decibels that a coded peak may be off: what meters of other makes differ by. */
const ROOM = 0.05;
/** dBTP: what peaks lower than this in a mix is below the ceiling after any coder. */
export const NEVER_OVER = -8;
/** How often it is tried, at most. */
const MOST_TRIES = 4;

/**
 * Makes a sound that a coder takes something from, so that its true peaks stay below the ceiling when it is decoded. How
 * much they grow cannot be told from the mix (EBU Tech 3343 says that they do), so it is tried: where they are too high,
 * the mix is limited lower by as much.
 * @param make limits a mix at a ceiling in dBTP, codes it, and tells the peak of what is decoded again
 */
export async function heldBack<T extends { readonly peak: number }>(
  make: (ceiling: number) => Promise<T>,
): Promise<T> {
  for (let ceiling = CEILING, tries = 1; ; tries++) {
    const made = await make(ceiling);
    const over = made.peak - CEILING;
    if (over <= ROOM || tries === MOST_TRIES) return made;
    ceiling -= over;
  }
}
