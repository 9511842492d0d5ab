import type { Page } from 'puppeteer-core';

/** Reads or writes the app's own database, which is made when it is not there yet. */
function entries(page: Page, mode: IDBTransactionMode, by: 'getAllKeys' | 'get' | 'put', ...args: string[]) {
  return page.evaluate(
    (transaction: IDBTransactionMode, method: 'getAllKeys' | 'get' | 'put', given: string[]) =>
      new Promise<unknown>((resolve, reject) => {
        const open = indexedDB.open('fresh-reel', 1);
        open.onupgradeneeded = () => open.result.createObjectStore('entries');
        open.onerror = () => reject(open.error);
        open.onsuccess = () => {
          const change = open.result.transaction('entries', transaction);
          const store = change.objectStore('entries') as unknown as Record<
            string,
            (...all: string[]) => IDBRequest
          >;
          const request = store[method]!(...given);
          change.onerror = () => reject(change.error);
          change.oncomplete = () => {
            open.result.close();
            resolve(method === 'put' ? undefined : request.result);
          };
        };
      }),
    mode,
    by,
    args,
  );
}

/** Keys of everything that is stored. */
export const storedKeys = (page: Page) => entries(page, 'readonly', 'getAllKeys') as Promise<string[]>;

/** What is stored under a key. */
export const entryOf = (page: Page, key: string) =>
  entries(page, 'readonly', 'get', key) as Promise<string | undefined>;

/** Stores something, as a broken disk, an older version or an earlier visit would have left it. */
export const putEntry = (page: Page, key: string, value: string) =>
  entries(page, 'readwrite', 'put', value, key);
