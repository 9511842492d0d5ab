import { openDocument, type Reel, reelKind } from '@fresh-reel/core';
import { saveBrand } from '../storage/brand';
import { saveReel } from '../storage/reels';
import { store, write } from '../storage/store';
import { DEMO_BRAND } from './brand';

/** Gets the reels of the demo from beside the app. @throws {Error} when they do not come */
async function fetchReels(): Promise<Reel[]> {
  const reply = await fetch('/demo/reels.json');
  if (!reply.ok) throw new Error(`The reels of the demo did not come (${reply.status}).`);
  return ((await reply.json()) as unknown[]).map((data) => openDocument(reelKind, data));
}

/**
 * Puts the demo in at the first start, as of now; later starts, and users who deleted it, are left alone.
 * @param reels gets its reels
 */
export async function startDemo(reels: () => Promise<readonly Reel[]> = fetchReels): Promise<void> {
  if ((await store.getItem('started')) !== null) return;
  const now = new Date().toISOString();
  await saveBrand(DEMO_BRAND);
  for (const reel of await reels()) await saveReel({ ...reel, created: now, changed: now });
  await write({ started: now });
}
