import { messageOf, ofOtherEditions, type Reel, setEdition, type Template } from '@fresh-reel/core';
import { readReel, saveReel } from './reels';
import { announce, ifFree, reelLock } from './tabs';

/** What became of reels that were to be changed. */
export interface Renewed {
  /** As they were before, so that it can be taken back. */
  readonly before: readonly Reel[];
  /** Why others stay as they are, in words. */
  readonly left: readonly string[];
}

/**
 * Makes all graphics of a template in stored reels of another edition of it. A reel that is open in another tab, does not
 * open or has such a graphic on a locked track stays as it is.
 */
export async function renewReels(ids: readonly string[], template: Template): Promise<Renewed> {
  const before: Reel[] = [];
  const left: string[] = [];
  for (const id of ids) {
    const free = await ifFree(reelLock(id), async () => {
      const stored = await readReel(id);
      if (stored?.kind !== 'reel') return;
      const { reel } = stored;
      try {
        const next = setEdition(reel, ofOtherEditions(reel, template), template);
        if (next === reel) return;
        await saveReel({ ...next, changed: new Date().toISOString() });
        before.push(reel);
        announce(id);
      } catch (error) {
        left.push(`“${reel.name}”: ${messageOf(error)}`);
      }
    });
    if (!free) left.push('A reel that is open in another tab stays as it is.');
  }
  return { before, left };
}

/** Puts reels back to how they were. @returns why some are not, in words */
export async function putReelsBack(reels: readonly Reel[]): Promise<string[]> {
  const left: string[] = [];
  for (const reel of reels) {
    const free = await ifFree(reelLock(reel.id), async () => {
      await saveReel(reel);
      announce(reel.id);
    });
    if (!free) left.push(`“${reel.name}” is open in another tab: undo it there.`);
  }
  return left;
}
