import type { ListedReel } from '../storage/reels';

/** Names of the reels that show each media id. */
export function whereUsed(reels: readonly ListedReel[]): ReadonlyMap<string, readonly string[]> {
  const used = new Map<string, string[]>();
  for (const listed of reels) {
    if (listed.kind !== 'reel') continue;
    const { media, name } = listed.summary;
    for (const id of media) used.set(id, [...(used.get(id) ?? []), name]);
  }
  return used;
}
