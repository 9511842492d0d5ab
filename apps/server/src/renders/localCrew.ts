import { availableParallelism } from 'node:os';
import { Worker } from 'node:worker_threads';
import type { Crew } from './crew';
import type { RangeOrder } from './order';

export type ToRangeThread = RangeOrder | 'give up';
export type FromRangeThread =
  | { readonly type: 'frame' }
  | { readonly type: 'made' }
  | { readonly type: 'failed'; readonly message: string };

/** Threads of this machine, one for every two cores: compressing what one paints keeps another busy. */
export class LocalCrew implements Crew {
  readonly size = Math.max(1, Math.min(16, Math.floor(availableParallelism() / 2)));
  private readonly idle: Worker[] = [];
  private readonly all = new Set<Worker>();

  constructor(private readonly folder: string) {}

  /** Starts its first thread before anything is asked of it, so that the first render does not wait for that. */
  readyAhead(): this {
    this.idle.push(this.begin());
    return this;
  }

  async make(order: RangeOrder, onFrame: () => void, signal: AbortSignal): Promise<void> {
    signal.throwIfAborted();
    const worker = this.idle.pop() ?? this.begin();
    const giveUp = () => worker.postMessage('give up' satisfies ToRangeThread);
    signal.addEventListener('abort', giveUp);
    let hear: (message: FromRangeThread) => void = () => undefined;
    let fail: (error: Error) => void = () => undefined;
    const exit = () => fail(new Error('A thread that renders ended before its work was done.'));
    const listen = (message: FromRangeThread) => hear(message);
    const broken = (error: Error) => fail(error);
    worker.on('message', listen).on('error', broken).on('exit', exit);
    try {
      await new Promise<void>((resolve, reject) => {
        fail = reject;
        hear = (message) => {
          if (message.type === 'frame') onFrame();
          else if (message.type === 'made') resolve();
          else reject(new Error(message.message));
        };
        worker.postMessage(order satisfies ToRangeThread);
      });
    } finally {
      signal.removeEventListener('abort', giveUp);
      worker.off('message', listen).off('error', broken).off('exit', exit);
      if (this.all.has(worker)) this.idle.push(worker);
    }
  }

  async close(): Promise<void> {
    await Promise.all([...this.all].map((worker) => worker.terminate()));
    this.all.clear();
    this.idle.length = 0;
  }

  private begin(): Worker {
    const worker = new Worker(new URL('./rangeThread.mjs', import.meta.url), {
      workerData: { folder: this.folder },
    });
    this.all.add(worker);
    const gone = () => {
      this.all.delete(worker);
      this.idle.splice(0, this.idle.length, ...this.idle.filter((w) => w !== worker));
    };
    // One that breaks while it has nothing to do is nobody's fault.
    worker.on('error', gone);
    worker.on('exit', gone);
    return worker;
  }
}
