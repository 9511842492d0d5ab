import { newReel, type Reel } from '@fresh-reel/core';
import { templateById } from '@fresh-reel/templates';
import type { ReelSession, SessionState } from '../../editing/session/reelSession';
import type { Lease, LeaseStore } from '../../storage/leases';
import { BrowserLocks } from './browserLocks';
import { Disk, type Life } from './disk';
import { Words } from './words';

/** The modules of the app that open and write reels, as one tab has them. */
interface Modules {
  readonly ReelSession: typeof ReelSession;
  readonly unsaved: typeof import('../../storage/unsaved');
  readonly reels: typeof import('../../storage/reels');
  readonly histories: typeof import('../../storage/histories');
  readonly leave: () => void;
}

/** What is edited here is a list of notes: each is one marker, so that it is told which are there. */
export const notesOf = (reel: Reel): string[] => reel.markers.map((m) => m.name);

/** A tab of the browser with a reel open in it, or none. */
export class Tab {
  readonly life: Life = { alive: true };
  readonly said: string[] = [];
  session: ReelSession | undefined;
  readonly modules: Modules;

  constructor(world: World) {
    this.modules = world.modulesFor(this.life);
  }

  get state(): SessionState | undefined {
    return this.session?.snapshot();
  }

  get present(): Reel | undefined {
    return this.state?.history.present;
  }

  /** Begins as the app does, and opens a reel. */
  async start(id: string): Promise<void> {
    const { unsaved, reels, histories, ReelSession } = this.modules;
    await unsaved.recoverUnsaved();
    const found = await unsaved.newestReel(id);
    if (found?.kind !== 'reel' || !this.life.alive) return;
    const history = await histories.readHistory(found.reel);
    if (!this.life.alive) return;
    const opened = found.stored ? { history, stored: found.stored } : { history };
    const say = (text: string) => void this.said.push(text);
    this.session = new ReelSession(opened, { write: reels.saveReel, say });
    this.session.open();
  }
}

/** A browser: tabs, one storage, and locks, or none as at an address that is not secure. */
export class World {
  readonly tabs: (Tab | undefined)[] = [undefined, undefined, undefined];
  readonly disk: Disk;
  private readonly words = new Words();
  private readonly locks = new BrowserLocks();
  private readonly leases = new Map<string, Lease>();

  constructor(
    private readonly secure: boolean,
    onWrite: ConstructorParameters<typeof Disk>[0],
  ) {
    this.disk = new Disk(onWrite);
    for (const id of ['one', 'two']) {
      const reel = newReel(templateById('quiet-title'), {
        id,
        name: id,
        shape: 'wide',
        now: '2026-06-05T10:00:00.000Z',
      });
      this.disk.database.set(`reel/${id}`, JSON.stringify(reel));
    }
  }

  /** Loads the app's modules anew, with the storage, the channels and the locks of one tab. */
  modulesFor(life: Life): Modules {
    let leave: () => void = () => undefined;
    let modules: Omit<Modules, 'leave'> | undefined;
    const core = jest.requireActual('@fresh-reel/core');
    const zod = jest.requireActual('zod');
    jest.isolateModules(() => {
      // What does not differ from tab to tab need not be loaded for each.
      jest.doMock('@fresh-reel/core', () => core);
      jest.doMock('zod', () => zod);
      jest.doMock('@react-native-async-storage/async-storage', () => this.disk.storageOf(life));
      Object.assign(globalThis, { BroadcastChannel: this.words.channelOf(life) });
      const { LeaseLocks } = require('../../storage/leases') as typeof import('../../storage/leases');
      const channel = new BroadcastChannel('leases');
      const leases = new LeaseLocks(this.leaseStore(life), channel, Date.now);
      if (!this.secure) leave = () => leases.leave();
      const locks = this.secure ? this.locks.of(life) : leases;
      jest.doMock('../../storage/lockManager', () => ({ locks: () => locks }));
      modules = {
        ReelSession: require('../../editing/session/reelSession').ReelSession,
        unsaved: require('../../storage/unsaved'),
        reels: require('../../storage/reels'),
        histories: require('../../storage/histories'),
      };
    });
    return { ...modules!, leave };
  }

  private leaseStore(life: Life): LeaseStore {
    return {
      change: async (name, by) => {
        await Promise.resolve();
        if (!life.alive) return new Promise(() => undefined);
        const lease = by(this.leases.get(name));
        if (lease) this.leases.set(name, lease);
        else this.leases.delete(name);
        return lease;
      },
      drop: (name, holder) => {
        if (this.leases.get(name)?.holder === holder) this.leases.delete(name);
      },
    };
  }

  /** The browser ends a tab at once. */
  kill(tab: Tab): void {
    tab.life.alive = false;
    this.locks.ended(tab.life);
  }

  /** A tab is closed, or another page is opened in it: the page is told, and is gone. */
  close(tab: Tab): void {
    tab.session?.keep();
    tab.modules.leave();
    this.kill(tab);
  }

  /** What is stored of a reel. */
  stored(id: string): Reel | undefined {
    const text = this.disk.database.get(`reel/${id}`);
    return text === undefined ? undefined : (JSON.parse(text) as Reel);
  }

  /** Notes in all reels that are stored. */
  allNotes(): Set<string> {
    const reels = [...this.disk.database].filter(([key]) => key.startsWith('reel/'));
    return new Set(reels.flatMap(([, text]) => notesOf(JSON.parse(text) as Reel)));
  }
}
