import { type AsyncStorage, createAsyncStorage } from '@react-native-async-storage/async-storage';

/**
 * The one store of the app. Keys: `reel/<id>`, `brand/<id>`, `media/<hash>`, `bytes/<id>/<n>`, `thumb/<hash>`,
 * `wave/<hash>`, `proxy/<hash>`, `font/<hash>`, `coming/<id>`, `removed/<kind>/<id>`, `history/<id>`, `render/<id>`,
 * `template/<id>`, `edition/<template id>/<n>`, `preferences`, `summary/<reel id>`, `listed`, `copied`,
 * `started`.
 */
export const store: AsyncStorage = createAsyncStorage('fresh-reel');

/** A change could not be written. `full` when the browser gives no more room. */
export class StorageError extends Error {
  override readonly name = 'StorageError';
  constructor(
    message: string,
    readonly full: boolean,
  ) {
    super(message);
  }
}

/** Tells a full disk from other faults: browsers name it in the error's name or message. */
function asStorageError(error: unknown): StorageError {
  const text = error instanceof Error ? `${error.name} ${error.message}` : String(error);
  const full = /quota|full|disk|space/i.test(text);
  return new StorageError(
    full
      ? 'The browser has no more room for Fresh Reel. Your last saved version is safe. Take files off the Shelf that no reel shows, delete a reel you no longer need, or save this one as a file.'
      : `The browser could not save this (${text.trim()}). Your last saved version is safe. Try again, or save the reel as a file.`,
    full,
  );
}

/**
 * Writes all entries or none: one transaction of the browser's database.
 * @throws {StorageError}
 */
export async function write(entries: Record<string, string>): Promise<void> {
  try {
    await store.setMany(entries);
  } catch (error) {
    const told = asStorageError(error);
    if (!told.full || !makeRoom || !(await makeRoom().catch(() => false))) throw told;
    await store.setMany(entries).catch((again: unknown) => {
      throw asStorageError(again);
    });
  }
}

let makeRoom: (() => Promise<boolean>) | undefined;

/** Names what makes room when the browser gives no more; a write that failed is then tried once more. */
export function onFull(make: () => Promise<boolean>): void {
  makeRoom = make;
}

export async function remove(keys: string[]): Promise<void> {
  try {
    await store.removeMany(keys);
  } catch (error) {
    throw asStorageError(error);
  }
}

let asked: Promise<string[]> | undefined;

/** Every key there is. Those who ask in one moment are answered by one reading: it goes through the whole store. */
export function allKeys(): Promise<string[]> {
  asked ??= Promise.resolve().then(() => {
    asked = undefined;
    return store.getAllKeys();
  });
  return asked;
}

/** Keys that start with a prefix. */
export async function keysWith(prefix: string): Promise<string[]> {
  return (await allKeys()).filter((key) => key.startsWith(prefix));
}

/** A stored text as data; nothing of one that is damaged. */
export function jsonOf(text: string | null | undefined): unknown {
  try {
    return JSON.parse(text ?? 'null');
  } catch {
    return null;
  }
}
