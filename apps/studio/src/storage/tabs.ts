import { locks } from './lockManager';
import type { Lock } from './locks';

/** What each tab keeps in mind of the store, and reads anew when another one changed it. */
export type Shared = 'reels' | 'brands' | 'templates' | 'removed' | 'preferences';

/** Word between tabs of the app: a reel was written, another tab wants to edit it, or something that all show changed. */
type Word = { readonly written: string } | { readonly wanted: string } | { readonly changed: Shared };

const channel = typeof BroadcastChannel === 'undefined' ? undefined : new BroadcastChannel('fresh-reel');

/** Tells other tabs that a reel was written or deleted. */
export function announce(reel: string): void {
  channel?.postMessage({ written: reel } satisfies Word);
}

/** Tells other tabs that something they show is another now. */
export function tellTabs(...all: readonly Shared[]): void {
  for (const changed of all) channel?.postMessage({ changed } satisfies Word);
}

/** Hears of what other tabs changed. */
export function onChangedElsewhere(listener: (changed: Shared) => void): () => void {
  return hear((word) => {
    if ('changed' in word) listener(word.changed);
    else if ('written' in word) listener('reels');
  });
}

function hear(listener: (word: Word) => void): () => void {
  const heard = ({ data }: MessageEvent<Word>) => listener(data);
  channel?.addEventListener('message', heard);
  return () => channel?.removeEventListener('message', heard);
}

/** Hears of reels written in other tabs. */
export function onWritten(listener: (reel: string) => void): () => void {
  return hear((word) => 'written' in word && listener(word.written));
}

/** Where there is one page alone: what of it goes on under a name. */
const going = new Map<string, Promise<unknown>>();

/** Does something while a lock is held, so that other tabs see it is at work; one after the other, as they came. */
export function whileHeld<T>(name: string, work: () => Promise<T>): Promise<T> {
  const all = locks();
  if (all) return all.request(name, {}, work);
  const done = (going.get(name) ?? Promise.resolve()).then(work, work);
  const over = () => {
    if (going.get(name) === done) going.delete(name);
  };
  going.set(name, done);
  done.then(over, over);
  return done;
}

/** Takes a lock that nobody else has, and keeps it until this page or worker is gone. */
export function holdWhileAlive(name: string): Promise<void> {
  const all = locks();
  if (!all) return Promise.resolve();
  return new Promise((held, refused) => {
    const hold = () => {
      held();
      return new Promise<void>(() => undefined);
    };
    all.request(name, {}, hold).catch(refused);
  });
}

/** Does something if no tab holds a lock. @returns whether it did */
export async function ifFree(name: string, work: () => Promise<void>): Promise<boolean> {
  const all = locks();
  if (!all) {
    await work();
    return true;
  }
  return all.request(name, { ifAvailable: true }, async (lock) => {
    if (lock) await work();
    return lock !== null;
  });
}

/** The lock of whoever edits a reel. */
export const reelLock = (id: string) => `reel/${id}`;

/** Milliseconds a tab has to write what it has not yet and let go, before the reel is taken from it. */
const PATIENCE = 2000;

interface Holding {
  /** Whether it is asked of the tab that has it, rather than waited for. */
  readonly take: boolean;
  readonly onHeld: (lock: Lock) => void;
  /** Another tab has it; this one waits until that is closed. */
  readonly onRefused: () => void;
  /** It was taken away. */
  readonly onLost: () => void;
  /** Another tab asks for it: what is not written yet is written now; it is let go when that is done. */
  readonly onWanted: () => Promise<void>;
}

/**
 * Holds the right to edit a reel: one tab at a time, through locks. A tab that is refused waits
 * in the queue, and is told when the other one is closed.
 * @returns a function that lets go, or leaves the queue
 */
export function holdReel(id: string, { take, onHeld, onRefused, onLost, onWanted }: Holding): () => void {
  const all = locks();
  if (!all) {
    onHeld({});
    return () => undefined;
  }
  const name = reelLock(id);
  const queue = new AbortController();
  let release: () => void = () => undefined;
  const done = new Promise<void>((resolve) => {
    release = resolve;
  });
  let held = false;
  const hold = async (lock: Lock | null) => {
    held = true;
    onHeld(lock!);
    await done;
  };
  const lost = () => {
    if (held) onLost();
  };
  const wait = () => {
    onRefused();
    all.request(name, { signal: queue.signal }, hold).catch(lost);
  };
  if (take) {
    channel?.postMessage({ wanted: id } satisfies Word);
    const patience = new AbortController();
    const over = setTimeout(() => patience.abort(), PATIENCE);
    queue.signal.addEventListener('abort', () => patience.abort());
    const taken = (lock: Lock | null) => {
      clearTimeout(over);
      return hold(lock);
    };
    all.request(name, { signal: patience.signal }, taken).catch(() => {
      clearTimeout(over);
      if (held) onLost();
      // A tab that does not answer is asleep or gone.
      else if (!queue.signal.aborted) all.request(name, { steal: true }, hold).catch(lost);
    });
  } else all.request(name, { ifAvailable: true }, async (lock) => (lock ? hold(lock) : wait())).catch(lost);
  const unhear = hear((word) => {
    if (!held || !('wanted' in word) || word.wanted !== id) return;
    void onWanted().then(() => {
      release();
      onLost();
    });
  });
  return () => {
    unhear();
    release();
    queue.abort();
  };
}
