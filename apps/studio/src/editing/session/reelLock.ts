import type { Reel } from '@fresh-reel/core';
import { readReel } from '../../storage/reels';
import { holdReel } from '../../storage/tabs';
import { keepBeside } from '../../storage/unsaved';
import type { Autosave } from './autosave';

/** Whether this tab may change the reel. */
export type LockState = 'asking' | 'held' | 'elsewhere';

interface Told {
  state(state: LockState): void;
  /** What another tab wrote. */
  stored(reel: Reel): void;
  /** Another tab wrote something else than what could not be written here: that is another reel now, of this name. */
  beside(name: string): void;
  /** What could not be written is left behind. */
  left(): void;
}

/**
 * The right to change a reel while it is open: one tab has it. Nothing is written without it, what another tab wrote is
 * read before it is used, and what is not written yet is before it is let go.
 */
export class ReelLock {
  private release: () => void = () => undefined;
  private state: LockState = 'asking';
  /** Another tab had it, so what is stored may be newer than what is here. */
  private other = false;
  private closed = false;

  constructor(
    private readonly id: string,
    private readonly autosave: Pick<Autosave<Reel>, 'allow' | 'basis' | 'flush' | 'replace' | 'unsaved'>,
    private readonly told: Told,
    private readonly hold = holdReel,
    private readonly read = readReel,
    private readonly aside = keepBeside,
  ) {}

  /** Asks for the right, or waits until the tab that has it is closed. */
  open(): void {
    this.ask(false);
  }

  /** Takes the right from the tab that has it, once that has written everything. */
  take(): void {
    this.other = true;
    this.release();
    this.ask(true);
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
    this.release = this.hold(this.id, {
      take,
      onHeld: async () => {
        if (this.other) await this.reload();
        if (this.closed) return;
        this.autosave.allow(true);
        this.become('held');
      },
      onRefused: () => {
        this.other = true;
        this.become('elsewhere');
      },
      onLost: () => {
        this.autosave.allow(false);
        if (this.closed) return;
        this.other = true;
        this.become('elsewhere');
        this.release();
        this.ask(false);
      },
      onWanted: () => this.autosave.flush(),
    });
  }

  private become(state: LockState): void {
    this.state = state;
    if (!this.closed) this.told.state(state);
  }

  private async reload(): Promise<void> {
    // What cannot be read just now is no newer than what is here; the next word of the other tab tries again.
    const found = await this.read(this.id).catch(() => undefined);
    if (this.closed || found?.kind !== 'reel') return;
    const { unsaved, basis } = this.autosave;
    if (unsaved) {
      // What could not be written before the reel was taken away is not thrown out for what was, nor written over it.
      if (found.reel.changed === basis.changed) return;
      const name = await this.aside(unsaved);
      if (name === undefined) return;
      this.told.beside(name);
    }
    this.autosave.replace(found.reel);
    this.told.stored(found.reel);
  }
}
