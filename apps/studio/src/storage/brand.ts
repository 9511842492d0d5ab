import { type Brand, brandKind } from '@fresh-reel/core';
import { openedText } from './opened';
import { removeToKeep } from './removed';
import { keysWith, store, write } from './store';

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

/** The newest version of each brand that is on its way into the database. */
const unwritten = new Map<string, Brand>();
export const unwrittenBrands = (): readonly Brand[] => [...unwritten.values()];

/** @throws {StorageError} leaving what was there before in place */
export async function saveBrand(brand: Brand): Promise<void> {
  unwritten.set(brand.id, brand);
  try {
    await write({ [PREFIX + brand.id]: JSON.stringify(brand) });
  } finally {
    if (unwritten.get(brand.id) === brand) unwritten.delete(brand.id);
  }
}

/** Takes a brand out; for a while it can be put back. */
export async function deleteBrand({ id, name }: Pick<Brand, 'id' | 'name'>): Promise<void> {
  await removeToKeep('brand', id, name);
}
