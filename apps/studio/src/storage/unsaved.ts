import { openDocument, parseJson, type Reel, reelKind } from '@fresh-reel/core';
import immediateStorage from '@react-native-async-storage/async-storage';
import { readReel, saveReel } from './reels';

const PREFIX = 'unsaved/';

/**
 * Keeps a reel whose tab is being left before its last change is written. The database answers later than a closing
 * page lives; this storage writes at once.
 */
export function keepUnsaved(reel: Reel): void {
  void immediateStorage.setItem(PREFIX + reel.id, JSON.stringify(reel)).catch(() => undefined);
}

/** Puts what was kept into the database, where it is newer than what is there. Called at the start. */
export async function recoverUnsaved(): Promise<void> {
  const kept = immediateStorage;
  const keys = (await kept.getAllKeys()).filter((key) => key.startsWith(PREFIX));
  for (const key of keys) {
    const text = await kept.getItem(key);
    try {
      const reel = openDocument(reelKind, parseJson(text ?? '', 'reel'));
      const stored = await readReel(reel.id);
      if (stored?.kind === 'reel' && stored.reel.changed < reel.changed) await saveReel(reel);
    } catch {
      // A kept change that does not open cannot be better than the reel that is stored.
    }
    await kept.removeItem(key);
  }
}
