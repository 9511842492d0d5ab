import type { Reel, RenderPlan } from '@fresh-reel/core';
import type { QueuedRender } from '../../storage/queue';
import type { FromRender } from '../workers/messages';
import { type QueueHost, type QueueWord, type RenderJob, RenderQueue } from './queue';

const REEL = { id: 'reel', name: 'Kites over Marram' } as Reel;
const plan = (fileName: string): RenderPlan => ({
  ...{ format: 'mp4', width: 640, height: 360, rate: { num: 25, den: 1 }, from: 0, count: 100, fileName },
});
const settled = () => new Promise((resolve) => setTimeout(resolve, 0));

/** What all tabs share: what is stored, who renders, and what they say to each other. */
class Browser {
  readonly stored = new Map<string, QueuedRender>();
  readonly reels = new Map<string, Reel>();
  readonly files = new Map<string, RenderJob>();
  readonly discarded: string[] = [];
  readonly tabs: Tab[] = [];
  private made = 0;
  newId = () => `r${++this.made}`;
  /** The tab that renders, and those that would. */
  holder: Tab | undefined;
  readonly wanting: { tab: Tab; held: () => void }[] = [];

  async open(): Promise<Tab> {
    const tab = new Tab(this);
    this.tabs.push(tab);
    void tab.queue.start();
    await settled();
    return tab;
  }

  /** Ends a tab as a kill does: nothing of it happens any more. */
  async kill(tab: Tab): Promise<void> {
    tab.dead = true;
    this.tabs.splice(this.tabs.indexOf(tab), 1);
    if (this.holder === tab) {
      this.holder = undefined;
      const next = this.wanting.shift();
      this.holder = next?.tab;
      next?.held();
    }
    await settled();
  }
}

class Tab {
  dead = false;
  full = false;
  private time = 0;
  readonly ended: RenderJob[] = [];
  private listener: (word: QueueWord) => void = () => undefined;
  /** What is rendering here. */
  work: { file: string; hear: (message: FromRender) => void; stopped: boolean; ended: boolean } | undefined;
  timers: (() => void)[] = [];
  readonly queue: RenderQueue;

  constructor(readonly browser: Browser) {
    const { stored, reels, files, discarded } = browser;
    const host: QueueHost = {
      list: async () => [...stored.values()].sort((a, b) => a.place - b.place),
      reelOf: async (id) => reels.get(id),
      save: async (render, reel) => {
        if (this.full) throw new Error('The browser has no more room.');
        if (!reel && !stored.has(render.id)) return false;
        stored.set(render.id, render);
        if (reel) reels.set(render.id, reel);
        return true;
      },
      forget: async (id) => {
        stored.delete(id);
        reels.delete(id);
      },
      discard: async (id) => {
        discarded.push(id);
      },
      sweep: async () => undefined,
      finished: async () => [...files.values()],
      keep: async (job) => {
        files.set(job.id, job);
      },
      removeFinished: async (name) => {
        for (const [id, job] of files) if (job.stored === name) files.delete(id);
      },
      conduct: (_, { fileName }, hear) => {
        const work = { file: fileName, hear, stopped: false, ended: false };
        this.work = work;
        return {
          stop: () => {
            work.stopped = true;
          },
          end: () => {
            work.ended = true;
          },
        };
      },
      identity: async () => 'one',
      mine: () =>
        new Promise((resolve) => {
          if (browser.holder) browser.wanting.push({ tab: this, held: resolve });
          else {
            browser.holder = this;
            resolve();
          }
        }),
      tell: (word) => {
        for (const tab of browser.tabs) if (tab !== this && !this.dead) tab.listener(word);
      },
      hear: (listener) => {
        this.listener = listener;
      },
      newId: browser.newId,
      now: () => {
        this.time += 1000;
        return this.time;
      },
      after: (_, work) => void this.timers.push(work),
    };
    this.queue = new RenderQueue(host, (ended) => ended && this.ended.push(ended));
  }

  get states(): string[] {
    return this.queue.jobs.map((j) => `${j.plan.fileName} ${j.state}`);
  }

  async add(...names: string[]): Promise<void> {
    for (const name of names) await this.queue.add(REEL, plan(name));
    await settled();
  }

  async finish(): Promise<void> {
    const { file, hear } = this.work!;
    hear({ type: 'done', file: new Blob(['x']), frames: 100, stored: `stored-${file}` });
    await settled();
    await settled();
  }

  id = (name: string) => this.queue.jobs.find((j) => j.plan.fileName === name)!.id;
}

describe('the queue', () => {
  it('renders one after the other, in order', async () => {
    const tab = await new Browser().open();
    await tab.add('a', 'b', 'c');
    expect([tab.states, tab.work!.file]).toEqual([['a running', 'b waiting', 'c waiting'], 'a']);
    await tab.finish();
    expect([tab.states, tab.work!.file]).toEqual([['b running', 'c waiting', 'a done'], 'b']);
    await tab.finish();
    await tab.finish();
    expect(tab.states).toEqual(['c done', 'b done', 'a done']);
    expect(tab.browser.stored.size).toBe(0);
    expect(tab.ended.map((j) => j.plan.fileName)).toEqual(['a', 'b', 'c']);
  });

  it('is put in another order, but for what runs', async () => {
    const tab = await new Browser().open();
    await tab.add('a', 'b', 'c', 'd');
    await tab.queue.move(tab.id('d'), -1);
    await tab.queue.move(tab.id('d'), -1);
    await tab.queue.move(tab.id('d'), -1);
    expect(tab.states).toEqual(['a running', 'd waiting', 'b waiting', 'c waiting']);
    await tab.queue.move(tab.id('b'), 1);
    await tab.finish();
    expect(tab.states.slice(0, 3)).toEqual(['d running', 'c waiting', 'b waiting']);
  });

  it('goes on in the next visit after a kill, with what ran first', async () => {
    const browser = new Browser();
    const first = await browser.open();
    await first.add('a', 'b');
    first.work!.hear({ type: 'progress', frames: 40 });
    await browser.kill(first);
    const next = await browser.open();
    expect([next.states, next.work!.file]).toEqual([['a running', 'b waiting'], 'a']);
    next.work!.hear({ type: 'resumed', frames: 25 });
    expect(next.queue.jobs[0]).toMatchObject({ frames: 25, from: 25 });
    await next.finish();
    // How long it took is not known of what took two visits.
    expect(next.queue.jobs.find((j) => j.state === 'done')!.seconds).toBeUndefined();
  });

  it('does not bring back what another tab took out, whatever this one was doing with it', async () => {
    const browser = new Browser();
    const [one, two] = [await browser.open(), await browser.open()];
    await one.add('a', 'b', 'c');
    // The one that renders has not heard of it yet when its workers fail, for their files are gone.
    browser.tabs.splice(browser.tabs.indexOf(one), 1);
    for (const name of ['a', 'b', 'c']) await two.queue.cancel(two.id(name));
    one.work!.hear({ type: 'fault', message: 'A file could not be found.' });
    await one.queue.pause(one.id('b'));
    await one.queue.move(one.id('c'), -1).catch(() => undefined);
    await settled();
    await settled();
    expect([...browser.stored.keys()]).toEqual([]);
    browser.tabs.push(one);
    expect(one.states.filter((s) => !s.endsWith('cancelled'))).toEqual([]);
  });

  it('is the same in two tabs: one renders, both show and change it, and the other goes on where that one is closed', async () => {
    const browser = new Browser();
    const [one, two] = [await browser.open(), await browser.open()];
    await two.add('a', 'b');
    expect([one.work?.file, two.work]).toEqual(['a', undefined]);
    one.work!.hear({ type: 'progress', frames: 1 });
    await settled();
    expect([one.states, two.states]).toEqual([
      ['a running', 'b waiting'],
      ['a running', 'b waiting'],
    ]);
    await two.queue.pause(two.id('a'));
    await settled();
    expect(one.work!.stopped).toBe(true);
    one.work!.hear({ type: 'stopped' });
    await settled();
    expect([one.work!.file, one.states, two.states]).toEqual([
      'b',
      ['a paused', 'b running'],
      ['a paused', 'b running'],
    ]);
    await browser.kill(one);
    await settled();
    expect([two.work?.file, two.states]).toEqual(['b', ['a paused', 'b running']]);
    await two.finish();
    await two.queue.resume(two.id('a'));
    await settled();
    await two.finish();
    expect(two.states).toEqual(['a done', 'b done']);
  });

  it('what is cancelled leaves nothing, whether it waits, runs, or was nearly done', async () => {
    const tab = await new Browser().open();
    await tab.add('a', 'b', 'c');
    const [a, b, c] = ['a', 'b', 'c'].map(tab.id);
    await tab.queue.cancel(b!);
    expect(tab.browser.discarded).toEqual([b]);
    await tab.queue.cancel(a!);
    expect(tab.browser.discarded).toEqual([b]);
    tab.work!.hear({ type: 'stopped' });
    await settled();
    expect(tab.browser.discarded).toEqual([b, a]);
    expect(tab.work!.file).toBe('c');
    await tab.queue.cancel(c!);
    await tab.finish();
    expect([tab.browser.stored.size, tab.browser.files.size]).toEqual([0, 0]);
    expect(tab.states).toEqual(['c cancelled', 'a cancelled', 'b cancelled']);
  });

  it('a fault stops one render alone, which can be tried again', async () => {
    const tab = await new Browser().open();
    await tab.add('a', 'b');
    tab.work!.hear({ type: 'fault', message: 'The disk is full.' });
    await settled();
    expect(tab.states).toEqual(['a fault', 'b running']);
    expect(tab.queue.jobs[0]!.message).toBe('The disk is full.');
    expect(tab.ended).toMatchObject([{ state: 'fault' }]);
    await tab.queue.resume(tab.id('a'));
    await tab.finish();
    expect([tab.work!.file, tab.states[0]]).toEqual(['a', 'a running']);
  });

  it('a render whose workers the browser has ended goes on by itself, but not for ever at one place', async () => {
    const tab = await new Browser().open();
    await tab.add('a', 'b');
    const lost = async (frames: number) => {
      const { hear } = tab.work!;
      hear({ type: 'progress', frames });
      hear({ type: 'fault', message: 'The browser has ended a part of the app.', lost: true });
      await settled();
    };
    // It comes farther each time.
    for (const frames of [10, 20, 30, 40]) {
      await lost(frames);
      expect([tab.states, tab.work!.file]).toEqual([['a running', 'b waiting'], 'a']);
    }
    await lost(40);
    expect(tab.states).toEqual(['a running', 'b waiting']);
    await lost(40);
    expect(tab.states).toEqual(['a fault', 'b running']);
    expect(tab.queue.jobs[0]!.message).toContain('has ended a part');
  });

  it('workers that do not stop are ended', async () => {
    const tab = await new Browser().open();
    await tab.add('a', 'b');
    await tab.queue.pause(tab.id('a'));
    const hung = tab.work!;
    expect([hung.ended, tab.timers.length]).toEqual([false, 1]);
    tab.timers[0]!();
    await settled();
    expect([hung.ended, tab.work!.file]).toEqual([true, 'b']);
  });

  it('finished, but killed before it was taken off the queue: it is not made twice', async () => {
    const browser = new Browser();
    const first = await browser.open();
    await first.add('a');
    const record = browser.stored.get(first.id('a'))!;
    await first.finish();
    browser.stored.set(record.id, record);
    await browser.kill(first);
    const next = await browser.open();
    expect([next.states, next.work, browser.stored.size]).toEqual([['a done'], undefined, 0]);
  });

  it('what cannot be written down is not in the queue', async () => {
    const tab = await new Browser().open();
    tab.full = true;
    await expect(tab.add('a')).rejects.toThrow('no more room');
    expect([tab.states, tab.work]).toEqual([[], undefined]);
  });

  it('what is gone says so, and what comes after it is rendered', async () => {
    const tab = await new Browser().open();
    await tab.add('a', 'b', 'c');
    tab.browser.reels.delete(tab.id('b'));
    await tab.finish();
    expect(tab.states).toEqual(['b fault', 'c running', 'a done']);
    expect(tab.queue.jobs[0]!.message).toContain('Render it again');
  });
});
