import type { Page } from 'puppeteer-core';

/** SHA-256 of each file in one of the app's private folders. One that is removed meanwhile is not there. */
export const kept = (page: Page, folder: 'renders' | 'unfinished') =>
  page.evaluate(async (name: string) => {
    const root = await navigator.storage.getDirectory();
    const handle = await root.getDirectoryHandle(name, { create: true });
    const hashes: string[] = [];
    for await (const entry of (handle as unknown as { values(): AsyncIterable<unknown> }).values()) {
      try {
        const file = await (entry as FileSystemFileHandle).getFile();
        const hash = new Uint8Array(await crypto.subtle.digest('SHA-256', await file.arrayBuffer()));
        hashes.push([...hash].map((b) => b.toString(16).padStart(2, '0')).join(''));
      } catch (error) {
        if ((error as DOMException).name !== 'NotFoundError') throw error;
      }
    }
    return hashes;
  }, folder);
