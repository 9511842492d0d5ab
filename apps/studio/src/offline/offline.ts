import { useSyncExternalStore } from 'react';

/** A newer version of the app that is ready to be opened. */
let newer: ServiceWorker | 'taken' | undefined;

/** Whether this tab asked for the newer version: remembered over a reload that was too early for it. */
const asked = {
  key: 'newer-asked',
  get: () => sessionStorage.getItem(asked.key) !== null,
  set: () => sessionStorage.setItem(asked.key, '1'),
  forget: () => sessionStorage.removeItem(asked.key),
};

/** Milliseconds until the page lets go of what still comes to it: a newer version waits for that, minutes if need be. */
const PATIENCE = 3000;

const listeners = new Set<() => void>();

function found(what: ServiceWorker | 'taken'): void {
  newer = what;
  for (const listener of listeners) listener();
}

/** Keeps the app for times without a network, where the browser can, and looks whether a newer one is there. */
export async function keepOffline(): Promise<void> {
  const { serviceWorker } = navigator;
  if (!serviceWorker) return;
  const begun = serviceWorker.controller;
  const registration = await serviceWorker.register('/sw.js');
  // One that is there while no other runs is the first of all.
  const look = () => registration.waiting && begun && found(registration.waiting);
  if (asked.get() && registration.waiting) registration.waiting.postMessage('renew');
  else {
    asked.forget();
    look();
  }
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
    if (asked.get()) {
      asked.forget();
      location.reload();
    } else if (begun) found('taken');
  });
}

/** Opens the newer version. */
export function openNewer(): void {
  if (newer === undefined) return;
  if (newer === 'taken') {
    location.reload();
    return;
  }
  asked.set();
  newer.postMessage('renew');
  setTimeout(() => location.reload(), PATIENCE);
}

const subscribe = (listener: () => void) => {
  listeners.add(listener);
  return () => listeners.delete(listener);
};

/** Whether a newer version of the app is ready. */
export const useHasNewer = (): boolean => useSyncExternalStore(subscribe, () => newer !== undefined);
