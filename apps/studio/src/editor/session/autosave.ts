import { messageOf } from '@fresh-reel/core';
/** Whether everything is written, and what stands in the way. */
export type SaveState =
  | { readonly kind: 'saved' | 'saving' }
  | { readonly kind: 'fault'; readonly message: string };

/**
 * Writes every version of a document, one after the other; while one is being written only the newest waits. Nothing
 * is written without the right to, and nothing counts as written that was not.
 */
export class Autosave<T> {
  private latest: T;
  private written: T;
  private may = false;
  private running: Promise<void> | undefined;

  constructor(
    initial: T,
    private readonly save: (document: T) => Promise<void>,
    private readonly onState: (state: SaveState) => void,
  ) {
    this.latest = initial;
    this.written = initial;
  }

  /** The newest version; written at once, or when that is allowed. */
  put(document: T): void {
    this.latest = document;
    if (this.may && this.unsaved) void this.flush();
  }

  /** Says whether this tab may write. */
  allow(may: boolean): void {
    this.may = may;
    if (may && this.unsaved) void this.flush();
  }

  /** What another tab has written is the newest, here too. */
  replace(document: T): void {
    this.latest = document;
    this.written = document;
  }

  /** What is not written yet. */
  get unsaved(): T | undefined {
    return this.latest === this.written ? undefined : this.latest;
  }

  /** Writes what is not written yet. Faults are told by the state. */
  flush(): Promise<void> {
    this.running ??= this.run().finally(() => {
      this.running = undefined;
    });
    return this.running;
  }

  private async run(): Promise<void> {
    try {
      while (this.may && this.latest !== this.written) {
        const next = this.latest;
        this.onState({ kind: 'saving' });
        await this.save(next);
        this.written = next;
      }
      if (this.latest === this.written) this.onState({ kind: 'saved' });
    } catch (error) {
      this.onState({ kind: 'fault', message: messageOf(error) });
    }
  }
}
