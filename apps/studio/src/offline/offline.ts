import { useSyncExternalStore } from 'react';
import type { ToService } from './messages';

/** A newer version of the app that is ready to be opened. */
let newer: ServiceWorker | 'taken' | undefined;
let asked = false;
const listeners = new Set<() => void>();

function found(what: ServiceWorker | 'taken'): void {
  newer = what;
  for (const listener of listeners) listener();
}

/**
 * Keeps the app for times without a network, where the browser can, and looks whether a newer one is there.
 * @param elsewhere tells what has been fetched beside the page: at a first visit that comes before anything can be kept
 */
export async function keepOffline(elsewhere: () => Promise<readonly string[]>): Promise<void> {
  const { serviceWorker } = navigator;
  if (!serviceWorker) return;
  const begun = serviceWorker.controller;
  const registration = await serviceWorker.register('/sw.js');
  // One that is there while no other runs is the first of all.
  const look = () => registration.waiting && begun && found(registration.waiting);
  look();
  registration.addEventListener('updatefound', () => {
    const coming = registration.installing;
    coming?.addEventListener('statechange', () => coming.state === 'installed' && look());
  });
  // A tab that stays open for days looks again when one comes back to it.
  document.addEventListener('visibilitychange', () => {
    if (document.visibilityState === 'visible') void registration.update().catch(() => undefined);
  });
  serviceWorker.addEventListener('controllerchange', () => {
    // The first one takes over without a word; a newer one was asked for, here or in another tab.
    if (asked) location.reload();
    else if (begun) found('taken');
    else void keepFetched(elsewhere);
  });
}

/** Opens the newer version. */
export function openNewer(): void {
  asked = true;
  if (newer === 'taken') location.reload();
  else newer?.postMessage({ renew: true } satisfies ToService);
}

const subscribe = (listener: () => void) => {
  listeners.add(listener);
  return () => listeners.delete(listener);
};

/** Whether a newer version of the app is ready. */
export const useHasNewer = (): boolean => useSyncExternalStore(subscribe, () => newer !== undefined);

/** Has what was used until now kept, as what is used from now on is. */
async function keepFetched(elsewhere: () => Promise<readonly string[]>): Promise<void> {
  const here = performance.getEntriesByType('resource').map(({ name }) => name);
  const addresses = [...new Set([...here, ...(await elsewhere())])];
  navigator.serviceWorker.controller?.postMessage({ keep: addresses } satisfies ToService);
}
