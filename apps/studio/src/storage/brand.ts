import { type Brand, brandKind } from '@fresh-reel/core';
import { openedText } from './opened';
import { changedParts, withParts } from './parts';
import { removeToKeep } from './removed';
import { keysWith, store, write } from './store';
import { tellTabs, whileHeld } from './tabs';

const PREFIX = 'brand/';
/** The one that was there before there were several. */
export const FIRST_BRAND = 'main';

/** All brands by name. One that is damaged is left out, and its text stays until it is saved over. */
export async function listBrands(): Promise<Brand[]> {
  const texts = await store.getMany(await keysWith(PREFIX));
  const opened = Object.entries(texts).flatMap(([key, text]) => {
    const brand = openedText(brandKind, text);
    return brand ? [{ ...brand, id: key.slice(PREFIX.length) }] : [];
  });
  return opened.sort((a, b) => a.name.localeCompare(b.name));
}

/** Parts of a brand that go into the one of their id; all of them make one that is not there. */
export interface BrandParts extends Readonly<Record<string, unknown>> {
  readonly id: string;
}

/** What is on its way into the database, by the brand's id. */
const unwritten = new Map<string, BrandParts>();
export const unwrittenBrands = (): readonly BrandParts[] => [...unwritten.values()];

/**
 * Writes a brand, or what was changed of it: the rest stays as another tab may have written it meanwhile.
 * @param before what it was before the change; all of it counts, when absent
 * @throws {StorageError} leaving what was there before in place
 */
export async function saveBrand(brand: Brand, before?: Brand): Promise<void> {
  const { id } = brand;
  const parts = before ? { ...changedParts(brand, before), id } : { ...brand };
  const going = { ...withParts(unwritten.get(id) ?? {}, parts), id };
  unwritten.set(id, going);
  try {
    await putBrandParts(parts);
  } finally {
    if (unwritten.get(id) === going) unwritten.delete(id);
  }
}

/**
 * Writes parts of a brand into it. Parts of one that is not there, or that are none of a brand, are nothing to write.
 * @throws {StorageError}
 */
export function putBrandParts(parts: BrandParts): Promise<void> {
  const key = PREFIX + parts.id;
  return whileHeld(key, async () => {
    const stored = openedText(brandKind, await store.getItem(key));
    const brand = openedText(brandKind, JSON.stringify(withParts(stored ? { ...stored } : {}, parts)));
    if (!brand) return;
    await write({ [key]: JSON.stringify(brand) });
    tellTabs('brands');
  });
}

/** Takes a brand out; for a while it can be put back. */
export async function deleteBrand({ id, name }: Pick<Brand, 'id' | 'name'>): Promise<void> {
  await removeToKeep('brand', id, name);
}
