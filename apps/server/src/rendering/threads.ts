import { Worker } from 'node:worker_threads';
import type { FramePixels, PaintJob } from './frameWriter';

/** To a thread: frames to write, counted from the render's first. */
export interface ToThread {
  readonly first: number;
  readonly count: number;
}

/** From a thread: a frame is written or, for a film, painted; or a stretch of them is. */
export type FromThread =
  | { readonly type: 'frame'; readonly index: number; readonly pixels?: FramePixels }
  | { readonly type: 'ready' };

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

/** Stretches that are painted ahead of what is taken, for each thread: what waits lies in memory. */
const AHEAD = 2;

/**
 * Paints all frames of a render on threads.
 * @param onFrame takes each frame; those of a film, one after the other in their order
 * @throws {Error} the first that a thread meets, or that taking one does; the others are stopped then
 */
export async function paintOnThreads(
  job: PaintJob,
  threads: number,
  onFrame: (pixels?: FramePixels) => Promise<void> | void,
): Promise<void> {
  let next = 0;
  let taken = 0;
  const waiting: Worker[] = [];
  const painted = new Map<number, FramePixels>();
  const hand = (worker: Worker) => {
    const count = Math.min(STRETCH, job.count - next);
    worker.postMessage({ first: next, count } satisfies ToThread);
    next += count;
  };
  const workers = Array.from(
    { length: threads },
    () => new Worker(new URL('./paintThread.mjs', import.meta.url), { workerData: job }),
  );
  try {
    await new Promise<void>((resolve, reject) => {
      let taking = false;
      const take = async () => {
        if (taking) return;
        taking = true;
        for (let pixels = painted.get(taken); pixels; pixels = painted.get(taken)) {
          painted.delete(taken);
          await onFrame(pixels);
          taken++;
          if (waiting.length > 0 && next < job.count && next - taken < AHEAD * threads * STRETCH)
            hand(waiting.shift()!);
        }
        taking = false;
        if (taken === job.count) resolve();
      };
      for (const worker of workers) {
        worker.on('error', reject);
        worker.on('exit', () => reject(new Error('A thread that paints ended before its work was done.')));
        worker.on('message', (message: FromThread) => {
          if (message.type === 'ready') {
            if (next >= job.count) return;
            if (job.raw && next - taken >= AHEAD * threads * STRETCH) waiting.push(worker);
            else hand(worker);
          } else if (message.pixels) {
            painted.set(message.index, message.pixels);
            take().catch(reject);
          } else {
            void onFrame();
            if (++taken === job.count) resolve();
          }
        });
      }
    });
  } finally {
    await Promise.all(workers.map((w) => w.terminate()));
  }
}
