import type { ListedTemplate } from '@fresh-reel/core';
import type { ListedReel } from '../storage/reels';

/**
 * Names of the reels that show each media id, and of the user's templates that bring it along.
 * @param own the user's templates
 */
export function whereUsed(
  reels: readonly ListedReel[],
  own: readonly ListedTemplate[],
): ReadonlyMap<string, readonly string[]> {
  const used = new Map<string, string[]>();
  const note = (id: string, name: string) => used.set(id, [...(used.get(id) ?? []), name]);
  for (const listed of reels) {
    if (listed.kind !== 'reel') continue;
    const { media, name, making } = listed.summary;
    for (const id of media) note(id, making ? `${name} (workshop)` : name);
  }
  for (const { name, media } of own) for (const id of media) note(id, `${name} (template)`);
  return used;
}
