import {
  change,
  messageOf,
  ofOtherEditions,
  type Reel,
  setEdition,
  type Template,
  undo,
} from '@fresh-reel/core';
import { keepHistory, readHistory } from './histories';
import { readReel, saveReel } from './reels';
import { ifFree, reelLock } from './tabs';

/** What became of reels that were to be changed. */
export interface Renewed {
  /** Ids of those that were. */
  readonly changed: readonly string[];
  /** Why others stay as they are, in words. */
  readonly left: readonly string[];
}

/**
 * Makes all graphics of a template in stored reels of another edition of it, as a step that can be undone in each. A reel
 * that is open in another tab, does not open or has such a graphic on a locked track stays as it is.
 */
export const renewReels = (ids: readonly string[], template: Template): Promise<Renewed> =>
  changeStored(ids, async (reel) => {
    const history = await readHistory(reel);
    const next = setEdition(reel, ofOtherEditions(reel, template), template);
    return next === reel ? undefined : change(history, { ...next, changed: new Date().toISOString() });
  });

/** Takes back the last step of stored reels. */
export const putReelsBack = (ids: readonly string[]): Promise<Renewed> =>
  changeStored(ids, async (reel) => {
    const history = await readHistory(reel);
    return history.past.length > 0 ? undo(history) : undefined;
  });

/** Changes reels that are stored and not open. */
async function changeStored(
  ids: readonly string[],
  by: (reel: Reel) => Promise<Parameters<typeof keepHistory>[0] | undefined>,
): Promise<Renewed> {
  const changed: string[] = [];
  const left: string[] = [];
  for (const id of ids) {
    const free = await ifFree(reelLock(id), async () => {
      const stored = await readReel(id);
      if (stored?.kind !== 'reel') return;
      try {
        const history = await by(stored.reel);
        if (!history) return;
        await saveReel(history.present);
        await keepHistory(history);
        changed.push(id);
      } catch (error) {
        left.push(`“${stored.reel.name}”: ${messageOf(error)}`);
      }
    });
    if (!free) left.push('A reel that is open in another tab stays as it is.');
  }
  return { changed, left };
}
