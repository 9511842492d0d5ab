import { type Brand, brandKind, type Reel, reelKind } from '@fresh-reel/core';
import immediateStorage from '@react-native-async-storage/async-storage';
import { saveBrand, unwrittenBrands } from './brand';
import { openedText } from './opened';
import { readReel, saveReel } from './reels';

const REEL = 'unsaved/';
const BRAND = 'unsaved-brand/';

/**
 * Keeps a reel whose tab is being left before its last change is written. The database answers later than a closing
 * page lives; this storage writes at once.
 */
export const keepUnsaved = (reel: Reel): void => keep(REEL + reel.id, reel);

/** Keeps brands whose last change is on its way into the database when the page is left. */
export function keepUnwrittenBrands(): void {
  for (const brand of unwrittenBrands()) keep(BRAND + brand.id, brand);
}

function keep(key: string, document: Reel | Brand): void {
  void immediateStorage.setItem(key, JSON.stringify(document)).catch(() => undefined);
}

/** Puts what was kept into the database, where it is newer than what is there. Called at the start. */
export async function recoverUnsaved(): Promise<void> {
  for (const key of await immediateStorage.getAllKeys()) {
    const text = key.startsWith(REEL) || key.startsWith(BRAND) ? await immediateStorage.getItem(key) : null;
    // What cannot be written now stays for the next start; what does not open is no better than what is stored.
    if (text !== null && (await putIn(key, text))) await immediateStorage.removeItem(key);
  }
}

/** @returns whether it is done with */
async function putIn(key: string, text: string): Promise<boolean> {
  const written = (work: Promise<void>) =>
    work.then(
      () => true,
      () => false,
    );
  if (key.startsWith(BRAND)) {
    const brand = openedText(brandKind, text);
    return brand === undefined || written(saveBrand(brand));
  }
  const reel = openedText(reelKind, text);
  const stored = reel && (await readReel(reel.id));
  const isNewer = reel && stored?.kind === 'reel' && stored.reel.changed < reel.changed;
  return !isNewer || written(saveReel(reel));
}
