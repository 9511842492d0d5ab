import type { StoredReel } from '../storage/reels';

/** Names of the reels that show each media id. */
export function whereUsed(reels: readonly StoredReel[]): ReadonlyMap<string, readonly string[]> {
  const used = new Map<string, string[]>();
  for (const stored of reels) {
    if (stored.kind !== 'reel') continue;
    // Ids stand in slots, in text fills and in sounds; all of them have the one form.
    const fills = JSON.stringify(stored.reel.tracks.flatMap((t) => t.graphics.map((g) => g.fill)));
    for (const id of new Set(fills.match(/sha256:[0-9a-f]{64}/g) ?? [])) {
      used.set(id, [...(used.get(id) ?? []), stored.reel.name]);
    }
  }
  return used;
}
