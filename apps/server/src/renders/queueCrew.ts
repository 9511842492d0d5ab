import { type Job, Queue, QueueEvents } from 'bullmq';
import type { Crew } from './crew';
import { pieceKey, type RangeOrder, type RangeTask, sha256 } from './order';
import { sealOf } from './seal';
import type { Store } from './store';

/** Machines of one version share a queue: those of another may paint differently. */
export const queueName = (version: string): string => `fresh-reel-ranges-${version}`;

/** How Redis is reached; what is asked while it is away waits until it is back. */
export const connectionTo = (url: string) => ({ url, maxRetriesPerRequest: null });

/** Times that a range is tried, on one machine or another. */
const ATTEMPTS = 5;
/** Milliseconds that a Redis which is away is waited for at the end. */
export const LEAVE = 2000;
/** Milliseconds between looks at what is under way. */
const LOOK_EVERY = 1000;
/** A range is given to another machine too when it takes so many times as long as most, and so many milliseconds. */
const SLOW = 4;
const SLOW_AT_LEAST = 15_000;
/** Ranges in the queue at once, of one render. */
const IN_QUEUE = 256;

/** A crew of machines that take ranges from a queue on Redis. What is in the store counts, whatever the queue says. */
export class QueueCrew implements Crew {
  readonly size = IN_QUEUE;
  private readonly queue: Queue<RangeTask>;
  private readonly events: QueueEvents;
  /** Milliseconds that ranges took, the last ones. */
  private readonly took: number[] = [];

  constructor(
    redis: string,
    version: string,
    private readonly store: Store,
    private readonly server: () => string,
    private readonly token: string | undefined,
    private readonly slowAtLeast: number,
  ) {
    const options = { connection: connectionTo(redis) };
    this.queue = new Queue(queueName(version), options);
    this.events = new QueueEvents(queueName(version), options);
    // Redis comes back, or the render waits; nothing is lost with it.
    this.queue.on('error', () => undefined);
    this.events.on('error', () => undefined);
    // Each range of a render listens.
    this.events.setMaxListeners(0);
  }

  async make(order: RangeOrder, onFrame: () => void, signal: AbortSignal): Promise<void> {
    const key = pieceKey(order);
    // What another server asked for, or this one at another address, is brought there: it is no job of ours.
    const id = `${key}-${sha256(this.server()).slice(0, 16)}`;
    const ids = [id];
    let painted = 0;
    let failed: string | undefined;
    let wake: () => void = () => undefined;
    const progress = ({ jobId, data }: { jobId: string; data: unknown }) => {
      if (!ids.includes(jobId) || typeof data !== 'number') return;
      for (; painted < data; painted++) onFrame();
    };
    const completed = ({ jobId }: { jobId: string }) => ids.includes(jobId) && wake();
    const gaveUp = ({ jobId, failedReason }: { jobId: string; failedReason: string }) => {
      if (!ids.includes(jobId)) return;
      failed = failedReason;
      wake();
    };
    let giveUp: () => void = () => undefined;
    const givenUp = new Promise<never>((_, reject) => {
      giveUp = () => reject(signal.reason);
    });
    // It is told where something is asked.
    givenUp.catch(() => undefined);
    const aborted = () => {
      giveUp();
      wake();
    };
    this.events.on('progress', progress).on('completed', completed).on('failed', gaveUp);
    signal.addEventListener('abort', aborted);
    /** Redis that is away answers when it is back; nobody who gives up waits for that. */
    const answered = <T>(asked: Promise<T>): Promise<T> => Promise.race([asked, givenUp]);
    try {
      await answered(this.add(id, order));
      let since: number | undefined;
      while (!(await this.store.has('pieces', key))) {
        signal.throwIfAborted();
        if (failed !== undefined) throw new Error(failed);
        const job = await answered(this.queue.getJob(ids.at(-1)!));
        // Redis has lost what it was told; or its piece has just come.
        if (!job && !(await this.store.has('pieces', key))) await answered(this.add(id, order));
        since = job && (await answered(job.isActive())) ? (since ?? Date.now()) : undefined;
        if (since !== undefined && ids.length === 1 && Date.now() - since > this.slow()) {
          ids.push(`${id}-again`);
          await answered(this.add(ids[1]!, order));
        }
        await new Promise<void>((resolve) => {
          const timer = setTimeout(resolve, LOOK_EVERY);
          wake = () => {
            clearTimeout(timer);
            resolve();
          };
        });
      }
      if (since !== undefined)
        this.took.splice(0, this.took.length, ...this.took.slice(-49), Date.now() - since);
    } finally {
      this.events.off('progress', progress).off('completed', completed).off('failed', gaveUp);
      signal.removeEventListener('abort', aborted);
      // One that is at work finishes for nothing; one that waits does not begin.
      for (const id of ids) this.queue.remove(id).catch(() => undefined);
    }
  }

  async close(): Promise<void> {
    const closed = Promise.all([this.queue.close(), this.events.close()]).catch(() => undefined);
    await Promise.race([closed, new Promise((resolve) => setTimeout(resolve, LEAVE))]);
  }

  private add(jobId: string, order: RangeOrder): Promise<Job<RangeTask>> {
    const task = { order, server: this.server() };
    return this.queue.add(
      'range',
      this.token === undefined ? task : { ...task, seal: sealOf(task, this.token) },
      {
        ...{ jobId, attempts: ATTEMPTS, backoff: { type: 'exponential', delay: 500 } },
        ...{ removeOnComplete: true, removeOnFail: true },
      },
    );
  }

  private slow(): number {
    const middle = [...this.took].sort((a, b) => a - b)[this.took.length >> 1];
    return middle === undefined ? Number.POSITIVE_INFINITY : Math.max(this.slowAtLeast, SLOW * middle);
  }
}

/**
 * @param server its address, as machines in a row reach it
 * @param token of the server, where it has one
 * @param slowAtLeast milliseconds before a range that takes long is given to another machine too
 */
export const crewOn =
  (redis: string, version: string, server: () => string, token?: string, slowAtLeast = SLOW_AT_LEAST) =>
  (store: Store): Crew =>
    new QueueCrew(redis, version, store, server, token, slowAtLeast);
