import { type Brand, brandKind, DocumentError, openDocument, parseJson } from '@fresh-reel/core';
import { store, write } from './store';

const KEY = 'brand/main';

/** The brand, or nothing when there is none or it is damaged (the damaged text stays until it is saved over). */
export async function readBrand(): Promise<Brand | null> {
  const text = await store.getItem(KEY);
  if (text === null) return null;
  try {
    return openDocument(brandKind, parseJson(text, 'brand'));
  } catch (error) {
    if (error instanceof DocumentError) return null;
    throw error;
  }
}

export async function saveBrand(brand: Brand): Promise<void> {
  await write({ [KEY]: JSON.stringify(brand) });
}
