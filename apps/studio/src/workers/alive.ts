/**
 * Holds a lock under the worker's own name for as long as the worker lives, and says when it has it: whoever waits for the
 * lock hears of its end, however that came (`startWorker.ts`). Each worker imports it.
 */
export const aliveName = (worker: string): string => `fresh-reel/alive/${worker}`;

const inWorker = typeof document === 'undefined' && typeof self !== 'undefined' && self.name !== '';
if (inWorker && navigator.locks) {
  const name = aliveName(self.name);
  void navigator.locks.request(name, () => {
    new BroadcastChannel(name).postMessage('here');
    return new Promise(() => undefined);
  });
}
