import type { Locks } from '../../storage/locks';
import type { Life } from './disk';

interface Held {
  readonly life: Life;
  readonly take: () => void;
}

/** The browser's lock manager (W3C Web Locks), exclusive locks alone, as all tabs have it. */
export class BrowserLocks {
  private readonly held = new Map<string, Held>();
  private waiting: { readonly name: string; readonly life: Life; readonly grant: () => void }[] = [];

  /** A tab is gone, and what it had is free. */
  ended(life: Life): void {
    this.waiting = this.waiting.filter((w) => w.life !== life);
    for (const [name, held] of this.held) if (held.life === life) this.free(name, held);
  }

  private free(name: string, held: Held): void {
    if (this.held.get(name) !== held) return;
    this.held.delete(name);
    const next = this.waiting.find((w) => w.name === name);
    if (!next) return;
    this.waiting = this.waiting.filter((w) => w !== next);
    next.grant();
  }

  /** The lock manager, as one tab has it. */
  of(life: Life): Locks {
    return {
      request: <T>(
        name: string,
        { ifAvailable, steal, signal }: Parameters<Locks['request']>[1],
        work: (lock: object | null) => T | Promise<T>,
      ) =>
        new Promise<T>((resolve, reject) => {
          if (!life.alive) return;
          const grant = () => {
            const lost = () => reject(new DOMException('It was stolen.', 'AbortError'));
            const held: Held = { life, take: lost };
            this.held.set(name, held);
            const over = () => this.free(name, held);
            Promise.resolve()
              .then(() => work({}))
              .then(resolve, reject)
              .finally(over);
          };
          const other = this.held.get(name);
          if (!other) return grant();
          if (steal) {
            this.held.delete(name);
            other.take();
            return grant();
          }
          if (ifAvailable) {
            Promise.resolve()
              .then(() => work(null))
              .then(resolve, reject);
            return;
          }
          const waits = { name, life, grant };
          this.waiting.push(waits);
          signal?.addEventListener('abort', () => {
            if (!this.waiting.includes(waits)) return;
            this.waiting = this.waiting.filter((w) => w !== waits);
            reject(new DOMException('It is not waited for.', 'AbortError'));
          });
        }),
    };
  }
}
