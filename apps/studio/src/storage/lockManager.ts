import { LeaseLocks, leaseStore } from './leases';
import type { Locks } from './locks';

let leases: LeaseLocks | undefined;

/** The browser's locks; leases at addresses at which it offers none; nothing where there is one page alone. */
export function locks(): Locks | undefined {
  const own = (globalThis.navigator as { locks?: LockManager } | undefined)?.locks;
  if (own) return own as Locks;
  if (typeof indexedDB === 'undefined') return undefined;
  if (!leases) {
    const channel =
      typeof BroadcastChannel === 'undefined' ? undefined : new BroadcastChannel('fresh-reel/leases');
    const made = new LeaseLocks(leaseStore(), channel);
    globalThis.addEventListener?.('pagehide', () => made.leave());
    leases = made;
  }
  return leases;
}
