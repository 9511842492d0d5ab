import type { ClipFill } from '@fresh-reel/core';

/** Seconds that differ by less are told as the same. */
const SAME = 0.05;

const seconds = (s: number) => `${s.toFixed(1)} s`;

/**
 * How a clip and the time it is seen go together, in words.
 * @param shows seconds its slot is in view
 * @param lasts seconds it plays, at its speed
 */
export function clipWords(shows: number, lasts: number, end: ClipFill['end'] = 'hold'): string {
  const seen = `In view for ${seconds(shows)}; `;
  if (end === 'stretch' && lasts >= shows - SAME) return `${seen}the clip plays all the time.`;
  if (lasts > shows + SAME)
    return `${seen}of the clip's ${seconds(lasts)} the first ${seconds(shows)} are seen.`;
  if (lasts >= shows - SAME) return `${seen}the clip plays all the time.`;
  if (end === 'loop') return `${seen}the clip plays for ${seconds(lasts)} and begins again.`;
  return `${seen}the clip plays for ${seconds(lasts)}, then its last frame stays.`;
}
