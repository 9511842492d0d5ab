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
    const reel = opened(await kept.getItem(key));
    const stored = reel && (await readReel(reel.id));
    if (reel && stored?.kind === 'reel' && stored.reel.changed < reel.changed) {
      // What cannot be written now stays for the next start.
      const saved = await saveReel(reel).then(
        () => true,
        () => false,
      );
      if (!saved) continue;
    }
    await kept.removeItem(key);
  }
}

/** A kept reel; nothing when it does not open: it cannot be better than the one that is stored. */
function opened(text: string | null): Reel | undefined {
  try {
    return openDocument(reelKind, parseJson(text ?? '', 'reel'));
  } catch {
    return undefined;
  }
}
