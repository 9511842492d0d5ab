import { Worker } from 'node:worker_threads';
import type { PaintJob } from './frameWriter';

/** To a thread: frames to write, counted from the render's first. */
export interface ToThread {
  readonly first: number;
  readonly count: number;
}

/** From a thread: a frame is written, or a stretch of them is. */
export type FromThread = { readonly type: 'frame' } | { readonly type: 'ready' };

/** Frames a thread writes at once: neighbours, since clips are decoded forwards and many frames are alike. */
const STRETCH = 12;
/** Frames that take as long as starting a thread, with its fonts and pictures. */
const WORTH_A_THREAD = 90;

/**
 * How many threads paint a render on a machine with so many cores: one for every two, since compressing what one
 * paints keeps another busy (measured on two cores: a second painter makes it slower).
 */
export function threadsFor(count: number, cores: number): number {
  return Math.max(1, Math.min(16, Math.floor(cores / 2), Math.floor(count / WORTH_A_THREAD)));
}

/**
 * Paints all frames of a render on threads.
 * @throws {Error} the first that a thread meets; the others are stopped then
 */
export async function paintOnThreads(job: PaintJob, threads: number, onFrame: () => void): Promise<void> {
  let next = 0;
  const run = (worker: Worker) =>
    new Promise<void>((resolve, reject) => {
      worker.on('error', reject);
      worker.on('exit', () => reject(new Error('A thread that paints ended before its work was done.')));
      worker.on('message', (message: FromThread) => {
        if (message.type === 'frame') return onFrame();
        if (next >= job.count) return resolve();
        const count = Math.min(STRETCH, job.count - next);
        worker.postMessage({ first: next, count } satisfies ToThread);
        next += count;
      });
    });
  const workers = Array.from(
    { length: threads },
    () => new Worker(new URL('./paintThread.mjs', import.meta.url), { workerData: job }),
  );
  try {
    await Promise.all(workers.map(run));
  } finally {
    await Promise.all(workers.map((w) => w.terminate()));
  }
}
