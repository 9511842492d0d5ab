import type { Reel } from '@fresh-reel/core';

/** The reels of the demo that are cut from clips; what makes them is loaded when it is needed. */
export async function loadFilms(now: string): Promise<readonly Reel[]> {
  const { demoFilm, demoHook } = await import('./demoFilm');
  return [demoHook(now), demoFilm(now)];
}
