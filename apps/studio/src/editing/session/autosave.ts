import { messageOf } from '@fresh-reel/core';

/** Whether everything is written, and what stands in the way. */
export type SaveState =
  | { readonly kind: 'saved' | 'saving' }
  | { readonly kind: 'fault'; readonly message: string };

/** Milliseconds between writes of a burst: a drag makes sixty versions a second, and each that is written is cloned. */
const REST = 200;

/**
 * Writes the newest version of a document: the first of a burst at once, those after it with a rest between. Nothing is
 * written without the right to, and nothing counts as written that was not.
 */
export class Autosave<T> {
  private latest: T;
  private written: T;
  /** What was written last, or read, as it lies in the store. */
  private stored: T;
  private may = false;
  private running: Promise<void> | undefined;
  private wake: () => void = () => undefined;
  private hurried = false;
  /** When the last write began. */
  private last = Number.NEGATIVE_INFINITY;

  /**
   * @param save writes a version, and says how it lies in the store then
   * @param rest milliseconds between one write and the next
   * @param stored what lies in the store, where the document begins as something that is not written yet
   */
  constructor(
    initial: T,
    private readonly save: (document: T) => Promise<T>,
    private readonly onState: (state: SaveState) => void,
    private readonly rest = REST,
    stored = initial,
  ) {
    this.latest = initial;
    this.written = stored;
    this.stored = stored;
  }

  /** The newest version; written soon, or when that is allowed. */
  put(document: T): void {
    this.latest = document;
    if (this.may && this.unsaved) void this.start();
  }

  /** Says whether this tab may write. */
  allow(may: boolean): void {
    this.may = may;
    if (may && this.unsaved) void this.start();
  }

  /** What another tab has written is the newest, here too. */
  replace(document: T): void {
    this.latest = document;
    this.written = document;
    this.stored = document;
  }

  /** The version in the store that what is here goes on from, as far as this tab knows. */
  get basis(): T {
    return this.stored;
  }

  /** What is not written yet. */
  get unsaved(): T | undefined {
    return this.latest === this.written ? undefined : this.latest;
  }

  /** Writes what is not written yet, without a rest. Faults are told by the state. */
  flush(): Promise<void> {
    this.hurried = true;
    this.wake();
    return this.start();
  }

  private start(): Promise<void> {
    this.running ??= this.run().finally(() => {
      this.running = undefined;
      this.hurried = false;
    });
    return this.running;
  }

  private async run(): Promise<void> {
    try {
      if (this.may && this.unsaved) this.onState({ kind: 'saving' });
      while (this.may && this.latest !== this.written) {
        const left = this.hurried ? 0 : this.last + this.rest - Date.now();
        if (left > 0) {
          await this.pause(left);
          // It may not be allowed any more, or another tab's version may have come.
          continue;
        }
        const next = this.latest;
        this.last = Date.now();
        this.stored = await this.save(next);
        this.written = next;
      }
      if (this.latest === this.written) this.onState({ kind: 'saved' });
    } catch (error) {
      this.onState({ kind: 'fault', message: messageOf(error) });
    }
  }

  /** @param ms milliseconds, unless somebody waits for what is to be written */
  private pause(ms: number): Promise<void> {
    return new Promise((resolve) => {
      this.wake = resolve;
      setTimeout(resolve, ms);
    });
  }
}
