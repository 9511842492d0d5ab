import { brandKind, type Reel, reelKind } from '@fresh-reel/core';
import immediateStorage from '@react-native-async-storage/async-storage';
import { z } from 'zod';
import { type BrandParts, putBrandParts, unwrittenBrands } from './brand';
import { newId } from './ids';
import { openedText } from './opened';
import { readReel, type StoredReel, saveReel } from './reels';
import { jsonOf } from './store';
import { ifFree, reelLock } from './tabs';

const REEL = 'unsaved/';
const BRAND = 'unsaved-brand/';

const keyOf = (id: string, who: string) => `${REEL}${id}~${who}`;
/** The reel that was kept under a key; once there was one for each, whoever kept it. */
const idIn = (key: string) => key.slice(REEL.length).replace(/~[^~]*$/, '');

/** A reel that was kept, as text, and when the version in the store was changed that it goes on from. */
const keptSchema = z.object({ basis: z.string(), reel: z.string() });

/**
 * Keeps a reel whose tab is being left before its last change is written. The database answers later than a closing
 * page lives; this storage writes at once.
 * @param basis when the version in the store was changed that it goes on from
 * @param who which of those that have a reel open kept it
 */
export function keepUnsaved(reel: Reel, basis: string, who: string): void {
  keep(keyOf(reel.id, who), { basis, reel: JSON.stringify(reel) });
}

/** Lets go of what somebody kept of a reel: something newer is written. */
export function dropUnsaved(id: string, who: string): void {
  void immediateStorage.removeItem(keyOf(id, who)).catch(() => undefined);
}

/** Keeps brands whose last change is on its way into the database when the page is left. */
export function keepUnwrittenBrands(): void {
  for (const brand of unwrittenBrands()) keep(BRAND + brand.id, brand);
}

function keep(key: string, document: BrandParts | z.infer<typeof keptSchema>): void {
  void immediateStorage.setItem(key, JSON.stringify(document)).catch(() => undefined);
}

/** Says that something was kept beside a reel that another tab wrote. */
export const besideText = (name: string) =>
  `Two tabs changed one reel. What one of them had not saved is a reel of its own now: “${name}”.`;

/**
 * Keeps what one tab could not write as a reel of its own, beside what another tab wrote.
 * @returns its name; nothing where there is no room for it
 */
export async function keepBeside(reel: Reel): Promise<string | undefined> {
  const name = `${reel.name.slice(0, 100)}, from another tab`;
  return saveReel({ ...reel, id: newId(), name }).then(
    () => name,
    () => undefined,
  );
}

/**
 * Puts what was kept into the database: in place of the version it goes on from, and beside one that another tab wrote
 * meanwhile. Called at the start.
 * @returns names of reels that were put beside others
 */
export async function recoverUnsaved(): Promise<string[]> {
  const keys = await immediateStorage.getAllKeys();
  for (const key of keys.filter((k) => k.startsWith(BRAND))) {
    const text = await immediateStorage.getItem(key);
    if (text !== null && (await putBrand(text)) === 'done') await immediateStorage.removeItem(key);
  }
  const beside: string[] = [];
  for (const id of new Set(keys.filter((k) => k.startsWith(REEL)).map(idIn)))
    beside.push(...(await recoverReel(id)).beside);
  return beside;
}

/** What came of what was kept of a reel: the names of what lies beside it now, and what has to wait. */
interface Recovered {
  readonly beside: readonly string[];
  readonly waiting: readonly KeptReel[];
}

/** Puts what was kept of a reel into the store, unless a tab has the reel: that does so by itself. */
async function recoverReel(id: string): Promise<Recovered> {
  let recovered: Recovered = { beside: [], waiting: [] };
  await ifFree(reelLock(id), async () => {
    recovered = await recoverFree(id);
  });
  return recovered;
}

/** The same, for the tab that has the reel. @returns names of reels that were put beside it */
export const putKept = async (id: string): Promise<readonly string[]> => (await recoverFree(id)).beside;

async function recoverFree(id: string): Promise<Recovered> {
  const beside: string[] = [];
  const waiting: KeptReel[] = [];
  const keys = (await immediateStorage.getAllKeys()).filter((k) => k.startsWith(REEL) && idIn(k) === id);
  for (const key of keys) {
    const text = await immediateStorage.getItem(key);
    const kept = text === null ? undefined : keptReel(text);
    const put = kept ? await putReel(id, kept) : 'done';
    // What cannot be written now stays for the next time; what does not open is no better than what is stored.
    if (put === 'waits') waiting.push(kept!);
    else await immediateStorage.removeItem(key);
    if (typeof put === 'object') beside.push(put.beside);
  }
  return { beside, waiting };
}

/** Reels that are being left in this tab: what is not written of them is on its way, or about to be kept. */
const beingLeft = new Map<string, Promise<void>>();

/** Says that a reel is being left until some work is done, so that who opens it again finds what that leaves. */
export function leaving(id: string, work: Promise<void>): void {
  const done = work.finally(() => {
    if (beingLeft.get(id) === done) beingLeft.delete(id);
  });
  beingLeft.set(id, done);
}

/** A reel as it is opened; with what is stored of it where that is not the newest. */
type NewestReel = StoredReel & { readonly stored?: Reel };

/** A reel as it is opened: as it is stored, or as it was kept where there is no room in the store. */
export async function newestReel(id: string): Promise<NewestReel | null> {
  await beingLeft.get(id);
  const { waiting } = await recoverReel(id);
  const stored = await readReel(id);
  if (stored?.kind !== 'reel') return stored;
  const kept = waiting.find((k) => goesOn(k, stored));
  return kept ? { ...stored, reel: kept.reel, stored: stored.reel } : stored;
}

/** What became of something that was kept: done with, to be tried again, or put beside. */
type Put = 'done' | 'waits' | { readonly beside: string };

async function putBrand(text: string): Promise<Put> {
  // Before they were kept in parts, brands were kept whole, of whichever version.
  const parts = openedText(brandKind, text) ?? brandPartsSchema.safeParse(jsonOf(text)).data;
  return parts ? written(putBrandParts({ ...parts })) : 'done';
}

const written = (work: Promise<void>): Promise<Put> =>
  work.then(
    () => 'done',
    () => 'waits',
  );

interface KeptReel {
  readonly reel: Reel;
  readonly basis: string | undefined;
}

/** Before there was a basis, the reel alone was kept. */
function keptReel(text: string): KeptReel | undefined {
  const kept = keptSchema.safeParse(jsonOf(text));
  const reel = openedText(reelKind, kept.success ? kept.data.reel : text);
  return reel && { reel, basis: kept.data?.basis };
}

/** Whether what was kept goes on from the version that is stored. */
const goesOn = ({ reel, basis }: KeptReel, stored: { readonly reel: Reel }) =>
  stored.reel.changed === (basis ?? stored.reel.changed) && stored.reel.changed < reel.changed;

const brandPartsSchema = z.looseObject({ id: z.string().min(1) });

/** Whether two versions of a reel are the same, whenever they were written. */
export const isSame = (a: Reel, b: Reel): boolean =>
  JSON.stringify({ ...a, changed: '' }) === JSON.stringify({ ...b, changed: '' });

async function putReel(id: string, kept: KeptReel): Promise<Put> {
  const stored = await readReel(id);
  if (stored?.kind !== 'reel') return 'done';
  if (isSame(stored.reel, kept.reel)) return 'done';
  if (goesOn(kept, stored)) return written(saveReel(kept.reel));
  // What was kept before there was a basis is told by its age.
  if (kept.basis === undefined) return 'done';
  const beside = await keepBeside(kept.reel);
  return beside === undefined ? 'waits' : { beside };
}
