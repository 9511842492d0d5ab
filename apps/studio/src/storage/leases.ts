import { type DBSchema, type IDBPDatabase, openDB } from 'idb';
import { newId } from './ids';
import type { Lock, Locks } from './locks';

/** Who has something, and until when unless it is renewed: milliseconds since 1970. */
export interface Lease {
  readonly holder: string;
  readonly until: number;
}

/** Where leases lie, for all tabs. */
export interface LeaseStore {
  /** Puts another lease in place of one, or none, in a step that no other tab comes between. @returns what is there then */
  change(name: string, by: (lease: Lease | undefined) => Lease | undefined): Promise<Lease | undefined>;
  /** Takes a lease away, if that holder has it, in one call: a page that is being left hears no answer. */
  drop(name: string, holder: string): void;
}

/**
 * Milliseconds for which a lease is given, and after which it is renewed. Browsers wake a tab that is out of sight once a
 * minute.
 */
const LIFE = 100_000;
const RENEWED = 20_000;
/** Milliseconds after which one that waits looks again by itself. */
const LOOK = 5_000;

/**
 * Locks as those of the browser's lock manager (W3C Web Locks), for addresses at which browsers offer none: a lease for
 * each, which its holder renews while it lives. A tab that is killed holds on until its lease is over, or is taken.
 */
export class LeaseLocks implements Locks {
  /** What of this page goes on under which holder's name. */
  private readonly mine = new Map<string, string>();
  private readonly freed = new EventTarget();

  /**
   * @param channel tells other tabs that something is free, or was taken
   * @param now milliseconds since 1970
   */
  constructor(
    private readonly store: LeaseStore,
    private readonly channel: Pick<BroadcastChannel, 'postMessage' | 'addEventListener'> | undefined,
    private readonly now: () => number = Date.now,
  ) {
    channel?.addEventListener('message', ({ data }: MessageEvent<string>) => this.wake(data));
  }

  async request<T>(
    name: string,
    { ifAvailable = false, steal = false, signal }: Parameters<Locks['request']>[1],
    work: (lock: Lock | null) => T | Promise<T>,
  ): Promise<T> {
    const holder = newId();
    while (!(await this.take(name, holder, steal))) {
      if (ifAvailable) return work(null);
      await this.turn(name, signal);
    }
    if (signal?.aborted) {
      await this.letGo(name, holder);
      throw signal.reason;
    }
    this.mine.set(holder, name);
    let renewing: ReturnType<typeof setInterval> | undefined;
    let look: () => void = () => undefined;
    try {
      const lost = new Promise<never>((_, reject) => {
        const isHeld = async () => {
          const held = await this.renew(name, holder).catch(() => true);
          if (!held) reject(new DOMException('Another tab has taken it.', 'AbortError'));
          return held;
        };
        renewing = setInterval(isHeld, RENEWED);
        look = () => void isHeld();
        this.freed.addEventListener(name, look);
      });
      const isHeld = () => this.renew(name, holder);
      return await Promise.race([work({ isHeld }), lost]);
    } finally {
      clearInterval(renewing);
      this.freed.removeEventListener(name, look);
      await this.letGo(name, holder);
    }
  }

  /** Lets go of all that this page has: it is about to be gone. */
  leave(): void {
    for (const [holder, name] of this.mine) {
      this.store.drop(name, holder);
      this.channel?.postMessage(name);
    }
  }

  private async take(name: string, holder: string, steal: boolean): Promise<boolean> {
    const now = this.now();
    let from: string | undefined;
    const lease = await this.store.change(name, (held) => {
      if (held && held.until > now && !steal) return held;
      from = held?.holder;
      return { holder, until: now + LIFE };
    });
    const taken = lease?.holder === holder;
    // Who had it looks whether it still has.
    if (taken && from !== undefined) this.tell(name);
    return taken;
  }

  /** @returns whether it is still held, for its whole life from now on */
  private async renew(name: string, holder: string): Promise<boolean> {
    const until = this.now() + LIFE;
    const lease = await this.store.change(name, (held) =>
      held?.holder === holder ? { holder, until } : held,
    );
    return lease?.holder === holder;
  }

  private async letGo(name: string, holder: string): Promise<void> {
    this.mine.delete(holder);
    let had = false;
    await this.store
      .change(name, (held) => {
        had = held?.holder === holder;
        return had ? undefined : held;
      })
      // It is over by itself, later.
      .catch(() => undefined);
    if (had) this.tell(name);
  }

  private tell(name: string): void {
    this.wake(name);
    this.channel?.postMessage(name);
  }

  private wake(name: string): void {
    this.freed.dispatchEvent(new Event(name));
  }

  /** Waits until it may be free. @throws what the signal says when it is not waited for any more */
  private turn(name: string, signal: AbortSignal | undefined): Promise<void> {
    return new Promise((resolve, reject) => {
      const end = (settle: () => void) => {
        clearTimeout(looking);
        this.freed.removeEventListener(name, free);
        signal?.removeEventListener('abort', aborted);
        settle();
      };
      const free = () => end(resolve);
      const aborted = () => end(() => reject(signal!.reason));
      const looking = setTimeout(free, LOOK);
      if (signal?.aborted) return aborted();
      this.freed.addEventListener(name, free);
      signal?.addEventListener('abort', aborted);
    });
  }
}

/** A lease for each name, under the name and its holder, so that one can be taken away unread. */
interface Leases extends DBSchema {
  leases: { key: [name: string, holder: string]; value: Lease };
}

/** Leases in a database of their own: a step of it is one transaction, which no other comes between. */
export function leaseStore(): LeaseStore {
  let opening: Promise<IDBPDatabase<Leases>> | undefined;
  let opened: IDBPDatabase<Leases> | undefined;
  const open = () => {
    opening ??= openDB<Leases>('fresh-reel-leases', 1, {
      upgrade: (database) => void database.createObjectStore('leases'),
    }).then(
      (database) => {
        opened = database;
        return database;
      },
      (error: unknown) => {
        opening = undefined;
        throw error;
      },
    );
    return opening;
  };
  return {
    async change(name, by) {
      const transaction = (await open()).transaction('leases', 'readwrite');
      const [before] = await transaction.store.getAll(IDBKeyRange.bound([name], [name, []]));
      const after = by(before);
      if (after !== before) {
        if (before) await transaction.store.delete([name, before.holder]);
        if (after) await transaction.store.put(after, [name, after.holder]);
      }
      await transaction.done;
      return after;
    },
    drop(name, holder) {
      const transaction = opened?.transaction('leases', 'readwrite');
      // It is over by itself, later.
      transaction?.done.catch(() => undefined);
      transaction?.store.delete([name, holder]).catch(() => undefined);
      // By itself it would be once the answer came.
      transaction?.commit();
    },
  };
}
