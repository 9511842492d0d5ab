/** Word between tabs of the app: which reel was just written. */
interface Written {
  readonly reel: string;
}

const channel = typeof BroadcastChannel === 'undefined' ? undefined : new BroadcastChannel('fresh-reel');

/** Tells other tabs that a reel was written or deleted. */
export function announce(reel: string): void {
  channel?.postMessage({ reel } satisfies Written);
}

/** Hears of reels written in other tabs. */
export function onWritten(listener: (reel: string) => void): () => void {
  const hear = ({ data }: MessageEvent<Written>) => listener(data.reel);
  channel?.addEventListener('message', hear);
  return () => channel?.removeEventListener('message', hear);
}

/**
 * Holds the right to edit a reel: one tab at a time, through the browser's lock manager. A tab that is refused waits
 * in the queue, and is told when the other one is closed. `onLost` is called when another tab takes it over.
 * @returns a function that lets go, or leaves the queue
 */
export function holdReel(
  id: string,
  options: { steal: boolean; onHeld: () => void; onRefused: () => void; onLost: () => void },
): () => void {
  const { locks } = navigator as { locks?: LockManager };
  if (!locks) {
    options.onHeld();
    return () => undefined;
  }
  const name = `reel/${id}`;
  const queue = new AbortController();
  let release: () => void = () => undefined;
  const done = new Promise<void>((resolve) => {
    release = resolve;
  });
  let held = false;
  const hold = async () => {
    held = true;
    options.onHeld();
    await done;
  };
  const lost = () => {
    if (held) options.onLost();
  };
  locks
    .request(name, options.steal ? { steal: true } : { ifAvailable: true }, async (lock) => {
      if (lock) return hold();
      options.onRefused();
      locks.request(name, { signal: queue.signal }, hold).catch(lost);
    })
    .catch(lost);
  return () => {
    release();
    queue.abort();
  };
}
