import {
  cancel,
  change,
  EditError,
  type History,
  keepable,
  keepMeetings,
  type Reel,
  redo,
  settle,
  startHistory,
  undo,
} from '@fresh-reel/core';
import { keepHistory } from '../../storage/histories';
import { newId } from '../../storage/ids';
import type { OpenedReel } from '../../storage/queries';
import { StorageError } from '../../storage/store';
import { onWritten } from '../../storage/tabs';
import { besideText, dropUnsaved, keepUnsaved, leaving } from '../../storage/unsaved';
import { Autosave, type SaveState } from './autosave';
import { type LockState, ReelLock } from './reelLock';

const TAKEN = 'Another tab has this reel now. What you have changed here is kept beside it.';
const NO_ROOM_FOR_BOTH =
  'Two tabs changed this reel, and there is no room to keep both. Take files off the Shelf that no reel shows, or save this reel as a file.';

/** What of a reel that is open changes while it is. */
export interface SessionState {
  readonly history: History<Reel>;
  readonly save: SaveState;
  readonly lock: LockState;
}

/** What a session asks of who shows it. */
interface Host {
  /** Writes a version into the store. */
  write(reel: Reel): Promise<void>;
  /** Says something to the user. */
  say(text: string): void;
}

/** The instant of a change, which no version of a reel shares with another: two may be written in one millisecond. */
const instantAfter = (reel: Reel): string =>
  new Date(Math.max(Date.now(), Date.parse(reel.changed) + 1)).toISOString();

/** A reel that is open in this tab: its history, its saving, and the right to change it. */
export class ReelSession {
  private state: SessionState;
  private readonly listeners = new Set<() => void>();
  private readonly autosave: Autosave<Reel>;
  private lock: ReelLock | undefined;
  private unhear: () => void = () => undefined;
  /** By what it is told which session kept something: each lets go of its own alone. */
  private readonly who = newId();
  private kept = false;

  /** @param opened the reel, with the steps that were kept of it */
  constructor(
    { history, stored }: OpenedReel,
    private readonly host: Host,
  ) {
    this.state = { history, save: { kind: 'saved' }, lock: 'asking' };
    this.autosave = new Autosave(
      history.present,
      (next) => this.write(next),
      (save) => this.onSave(save),
      undefined,
      stored,
    );
  }

  private get id(): string {
    return this.state.history.present.id;
  }

  subscribe = (listener: () => void): (() => void) => {
    this.listeners.add(listener);
    return () => this.listeners.delete(listener);
  };

  snapshot = (): SessionState => this.state;

  private set(part: Partial<SessionState>): void {
    this.state = { ...this.state, ...part };
    for (const listener of this.listeners) listener();
  }

  /** Asks for the right to change the reel, and hears of what another tab writes while it has it. */
  open(): void {
    const lock = new ReelLock(this.id, this.autosave, {
      state: (state) => this.set({ lock: state }),
      stored: (reel) => this.set({ history: startHistory(reel) }),
      beside: (name) => this.host.say(besideText(name)),
      noRoom: () => this.host.say(NO_ROOM_FOR_BOTH),
      left: () => this.keep(),
    });
    this.lock = lock;
    lock.open();
    this.unhear = onWritten((written) => written === this.id && void lock.written());
  }

  /** Leaves the reel: what is not written is, or is kept, and the right to change it is let go. */
  close(): void {
    this.unhear();
    this.keepSteps();
    if (this.lock) leaving(this.id, this.lock.close());
  }

  /** The page goes out of sight, and may never come back. */
  hide(): void {
    this.keep();
    this.keepSteps();
  }

  /** Keeps at once what is not written yet: the page may be gone before its turn comes. */
  keep(): void {
    const { unsaved, basis } = this.autosave;
    if (!unsaved) return;
    this.kept = true;
    keepUnsaved({ ...unsaved, changed: instantAfter(basis) }, basis.changed, this.who);
  }

  /** Keeps the steps with the reel; those of the tab that may change it. */
  private keepSteps(): void {
    // Steps that do not fit are not worth a word: the reel itself is safe.
    if (this.mayEdit) void keepHistory(this.state.history).catch(() => undefined);
  }

  get mayEdit(): boolean {
    return this.state.lock === 'held';
  }

  /**
   * The one way in which a reel is changed: what an edit makes is kept if it opens again; else it is told in words, and
   * nothing is changed.
   * @returns whether it was done
   */
  edit = (by: (reel: Reel) => Reel, gesture?: string): boolean => {
    if (!this.mayEdit) return false;
    const { history } = this.state;
    try {
      // What meets a marker meets it whatever was changed.
      const next = keepable(keepMeetings(by(history.present)), history.present);
      this.become(change(history, next, gesture));
      return true;
    } catch (error) {
      if (!(error instanceof EditError)) throw error;
      this.host.say(error.message);
      return false;
    }
  };

  settle = (): void => this.become(settle(this.state.history));
  cancel = (): void => this.step(cancel);
  undo = (): void => this.step(undo);
  redo = (): void => this.step(redo);

  /** Who only looks takes nothing back either. */
  private step(by: (history: History<Reel>) => History<Reel>): void {
    if (this.mayEdit) this.become(by(this.state.history));
  }

  private become(history: History<Reel>): void {
    const { present } = this.state.history;
    if (history === this.state.history) return;
    this.set({ history });
    // The end of a gesture is nothing to write.
    if (history.present !== present) this.autosave.put(history.present);
  }

  /** Tries again to save after a fault. */
  retrySave = (): void => void this.autosave.flush();

  /** Takes the right to change it from the tab that has it. */
  takeOver = (): void => this.lock?.take();

  private async write(next: Reel): Promise<Reel> {
    if (!(await this.lock?.isHeld())) throw new StorageError(TAKEN, false);
    const stamped = { ...next, changed: instantAfter(this.autosave.basis) };
    await this.host.write(stamped);
    return stamped;
  }

  private onSave(save: SaveState): void {
    // All of it is written: what was kept here is no newer.
    if (save.kind === 'saved' && this.kept) {
      this.kept = false;
      dropUnsaved(this.id, this.who);
    }
    this.set({ save });
  }
}
