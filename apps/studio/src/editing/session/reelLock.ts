import type { Reel } from '@fresh-reel/core';
import type { Lock } from '../../storage/locks';
import { readReel, type StoredReel } from '../../storage/reels';
import { holdReel } from '../../storage/tabs';
import { isSame, keepBeside, putKept } from '../../storage/unsaved';
import type { Autosave } from './autosave';

/** Whether this tab may change the reel. */
export type LockState = 'asking' | 'held' | 'elsewhere';

interface Told {
  state(state: LockState): void;
  /** What another tab wrote. */
  stored(reel: Reel): void;
  /** Another tab wrote something else than what could not be written here: that is another reel now, of this name. */
  beside(name: string): void;
  /** There is no room to keep both. */
  noRoom(): void;
  /** What could not be written is left behind. */
  left(): void;
}

/** What it asks of the store. */
interface Store {
  hold: typeof holdReel;
  read(id: string): Promise<StoredReel | null>;
  /** Puts what other tabs kept of a reel into the store; the names of what came to lie beside it. */
  put(id: string): Promise<readonly string[]>;
  beside(reel: Reel): Promise<string | undefined>;
}

const STORE: Store = { hold: holdReel, read: readReel, put: putKept, beside: keepBeside };

/** Milliseconds after which a store that did not answer, or had no room, is asked once more. */
const AGAIN = 1000;

/**
 * The right to change a reel while it is open: one tab has it. Nothing is written without it, what another tab wrote is
 * read before it is used, and what is not written yet is before it is let go.
 */
export class ReelLock {
  private release: () => void = () => undefined;
  private state: LockState = 'asking';
  private held: Lock | undefined;
  private closed = false;
  private saidNoRoom = false;

  constructor(
    private readonly id: string,
    private readonly autosave: Pick<Autosave<Reel>, 'allow' | 'basis' | 'flush' | 'replace' | 'unsaved'>,
    private readonly told: Told,
    private readonly store = STORE,
  ) {}

  /** Asks for the right, or waits until the tab that has it is closed. */
  open(): void {
    this.ask(false);
  }

  /** Takes the right from the tab that has it, once that has written everything. */
  take(): void {
    if (this.state !== 'elsewhere') return;
    this.release();
    this.ask(true);
  }

  /** Whether this tab still has the right, asked of the store: a tab that was asleep may not know that it has not. */
  async isHeld(): Promise<boolean> {
    return this.held !== undefined && ((await this.held.isHeld?.()) ?? true);
  }

  /** Writes what is not written yet, and lets go. */
  async close(): Promise<void> {
    this.closed = true;
    // What cannot be written was told by the save state, and is kept for when the reel is opened again.
    await this.autosave.flush().catch(() => undefined);
    if (this.autosave.unsaved) this.told.left();
    this.autosave.allow(false);
    this.release();
  }

  /** Another tab wrote the reel: shows it, while that tab has the right. */
  async written(): Promise<void> {
    if (this.state === 'elsewhere') await this.reload();
  }

  private ask(take: boolean): void {
    this.release = this.store.hold(this.id, {
      take,
      onHeld: async (lock) => {
        this.held = lock;
        // Another tab may have written it since it was read here, or left something that it could not write.
        while (!(await this.isNewest()) && !this.closed && this.held === lock)
          await new Promise((resolve) => setTimeout(resolve, AGAIN));
        if (this.closed || this.held !== lock) return;
        this.autosave.allow(true);
        this.become('held');
      },
      onRefused: () => this.become('elsewhere'),
      onLost: () => {
        this.held = undefined;
        this.autosave.allow(false);
        if (this.closed) return;
        this.become('elsewhere');
        this.release();
        this.ask(false);
      },
      onWanted: async () => {
        await this.autosave.flush();
        // What cannot be written goes along to the tab that takes the reel.
        if (this.autosave.unsaved) this.told.left();
      },
    });
  }

  private become(state: LockState): void {
    this.state = state;
    if (!this.closed) this.told.state(state);
  }

  /** Makes what is here the newest there is. @returns whether it is */
  private async isNewest(): Promise<boolean> {
    try {
      if (!this.autosave.unsaved) for (const name of await this.store.put(this.id)) this.told.beside(name);
    } catch {
      return false;
    }
    return this.reload();
  }

  /** Shows what is stored. @returns whether what is here goes on from it now */
  private async reload(): Promise<boolean> {
    const found = await this.store.read(this.id).catch(() => undefined);
    // What cannot be read just now may be newer than what is here.
    if (this.closed || found === undefined) return false;
    if (found?.kind !== 'reel' || found.reel.changed === this.autosave.basis.changed) return true;
    const { unsaved } = this.autosave;
    if (unsaved && !isSame(unsaved, found.reel)) {
      // What could not be written before the reel was taken away is not thrown out for what was, nor written over it.
      const name = await this.store.beside(unsaved);
      if (name === undefined) {
        if (!this.saidNoRoom) this.told.noRoom();
        this.saidNoRoom = true;
        return false;
      }
      this.told.beside(name);
      // It was changed once more meanwhile.
      if (this.autosave.unsaved !== unsaved) return this.reload();
    }
    this.autosave.replace(found.reel);
    this.told.stored(found.reel);
    return true;
  }
}
