import { messageOf, type Reel, type RenderPlan } from '@fresh-reel/core';
import type { QueuedRender } from '../../storage/queue';
import type { Conducted } from '../workers/conduct';
import type { FromRender, JournalName } from '../workers/messages';

/** One render, from waiting to its file. */
export interface RenderJob {
  readonly id: string;
  readonly reelId: string;
  readonly reelName: string;
  readonly plan: RenderPlan;
  readonly state: 'waiting' | 'running' | 'paused' | 'done' | 'cancelled' | 'fault';
  readonly frames: number;
  /** Frames that were there when it was begun or gone on with, and when that was, in performance time. */
  readonly from: number;
  readonly startedAt: number | undefined;
  /** How long all of it took; nothing where it took several attempts. */
  readonly seconds: number | undefined;
  readonly file: Blob | undefined;
  readonly stored: string | undefined;
  readonly message: string | undefined;
  readonly sound: Extract<FromRender, { type: 'done' }>['sound'];
}

/** Word between tabs: the queue was changed, or how far the render is that runs in one of them. */
export type QueueWord = 'changed' | { readonly id: string; readonly frames: number };

/** What a queue uses of its surroundings. */
export interface QueueHost {
  list(): Promise<QueuedRender[]>;
  reelOf(id: string): Promise<Reel | undefined>;
  /** @returns whether it is in the queue: one that another tab has taken out is not put back */
  save(render: QueuedRender, reel?: Reel): Promise<boolean>;
  forget(id: string): Promise<void>;
  /** Removes what an unfinished render has left on disk. */
  discard(id: string): Promise<void>;
  /** Removes what no render in the queue and no finished one needs. */
  sweep(queued: ReadonlySet<string>): Promise<void>;
  finished(): Promise<RenderJob[]>;
  keep(job: RenderJob): Promise<void>;
  removeFinished(stored: string): Promise<void>;
  conduct(
    reel: Reel,
    plan: RenderPlan,
    hear: (message: FromRender) => void,
    along: { readonly journal: JournalName },
  ): Conducted;
  /** Of what paints and writes here. */
  identity(): Promise<string>;
  /** Comes when this tab is the one that renders; never, while another one is. */
  mine(): Promise<void>;
  tell(word: QueueWord): void;
  hear(listener: (word: QueueWord) => void): void;
  newId(): string;
  /** Milliseconds. */
  now(): number;
  after(milliseconds: number, work: () => void): void;
}

interface Running {
  readonly id: string;
  work: Conducted | undefined;
  frames: number;
  from: number;
  readonly startedAt: number;
  told: number;
  stopping: boolean;
}

/** Milliseconds between words to other tabs of how far a render is. */
const WORD_EVERY = 300;
/** Milliseconds that workers have to stop by themselves. */
const PATIENCE = 4000;
/** Times that a render whose workers have ended is gone on with by itself, if it has come no farther. */
const MOST_LOSSES = 2;

/**
 * The renders of all tabs, one after the other. What is stored is the queue: each tab shows it, any tab changes it, and
 * one of them renders. Where that one is closed or killed, another goes on, or the next visit does.
 */
export class RenderQueue {
  /** What is not finished, in its order. */
  private queued: readonly QueuedRender[] = [];
  /** What is, and what was cancelled in this visit; the newest first. */
  private ended: readonly RenderJob[] = [];
  private running: Running | undefined;
  private elsewhere: Exclude<QueueWord, string> | undefined;
  private runs = false;
  /** Renders whose workers have ended, how often at a frame. */
  private readonly losses = new Map<string, { readonly frames: number; readonly times: number }>();
  /** Changes of this tab that are still being written, by the render they are of. */
  private readonly writing = new Map<string, number>();
  jobs: readonly RenderJob[] = [];

  /** @param onChange after each change of `jobs`; with a render that has just ended, if one has */
  constructor(
    private readonly host: QueueHost,
    private readonly onChange: (ended?: RenderJob) => void,
  ) {}

  /** Shows what is stored, and renders what waits as soon as no other tab does. */
  async start(): Promise<void> {
    this.host.hear((word) => {
      if (word === 'changed') void this.refresh();
      else this.show({ elsewhere: word });
    });
    await this.refresh();
    await this.host.mine();
    this.runs = true;
    this.elsewhere = undefined;
    // Another tab may have changed it since.
    await this.refresh();
    await this.host.sweep(new Set(this.queued.map((q) => q.id))).catch(() => undefined);
  }

  /**
   * Puts a render at the end. The reel is taken as it is now; later edits do not touch it.
   * @throws {StorageError} when it cannot be written down; it is not in the queue then
   */
  async add(reel: Reel, plan: RenderPlan): Promise<void> {
    const place = 1 + Math.max(0, ...this.queued.map((q) => q.place));
    const about = { id: this.host.newId(), place, reelId: reel.id, reelName: reel.name, plan };
    const render: QueuedRender = { ...about, state: 'waiting', frames: 0 };
    this.show({ queued: [...this.queued, render] });
    try {
      await this.written(render.id, () => this.host.save(render, reel));
    } catch (error) {
      this.show({ queued: this.queued.filter((q) => q.id !== render.id) });
      throw error;
    }
    this.changed();
  }

  /** Stops a render for now. It goes on where it was. */
  pause(id: string): Promise<void> {
    const { frames } =
      this.running?.id === id ? this.running : (this.jobs.find((j) => j.id === id) ?? { frames: 0 });
    return this.change(id, ({ message: _, ...q }) => ({ ...q, state: 'paused', frames }));
  }

  /** Has a render go on that was paused or stopped by a fault. */
  resume(id: string): Promise<void> {
    return this.change(id, ({ message: _, ...q }) => ({ ...q, state: 'waiting' }));
  }

  /** Takes an unfinished render out of the queue, with all that it has written. */
  async cancel(id: string): Promise<void> {
    const render = this.queued.find((q) => q.id === id);
    if (!render) return;
    const { frames } = this.jobs.find((j) => j.id === id)!;
    const gone = jobOf({ ...render, frames }, { state: 'cancelled' });
    const queued = this.queued.filter((q) => q.id !== id);
    this.show({ queued, ended: [gone, ...this.ended] }, gone);
    await this.written(id, () => this.host.forget(id));
    // What runs lets go of it first.
    if (this.running?.id !== id) await this.host.discard(id);
    this.changed();
  }

  /** Moves a render in the order of those that wait, by one place up (-1) or down (1). */
  async move(id: string, by: -1 | 1): Promise<void> {
    const movable = this.queued.filter((q) => q.id !== this.runningId());
    const at = movable.findIndex((q) => q.id === id);
    const [one, other] = [movable[at], movable[at + by]];
    if (!one || !other) return;
    const swapped = [
      { ...one, place: other.place },
      { ...other, place: one.place },
    ];
    const queued = this.queued.map((q) => swapped.find((s) => s.id === q.id) ?? q);
    this.show({ queued: queued.sort((a, b) => a.place - b.place) });
    await Promise.all(swapped.map((s) => this.keep(s)));
    this.changed();
  }

  /** Takes an ended render from the list, a finished one with its file. */
  async remove(id: string): Promise<void> {
    const job = this.ended.find((j) => j.id === id);
    if (!job) return;
    this.show({ ended: this.ended.filter((j) => j.id !== id) });
    if (job.stored) await this.host.removeFinished(job.stored);
    this.host.tell('changed');
  }

  private runningId(): string | undefined {
    return this.running?.id ?? this.elsewhere?.id;
  }

  private async change(id: string, part: (render: QueuedRender) => QueuedRender): Promise<void> {
    const render = this.queued.find((q) => q.id === id);
    if (!render) return;
    const changed = part(render);
    this.show({ queued: this.queued.map((q) => (q.id === id ? changed : q)) });
    // What cannot be written down holds in this visit.
    await this.keep(changed).catch(() => undefined);
    this.changed();
  }

  private changed(): void {
    this.host.tell('changed');
    this.reconcile();
  }

  /** Writes a change of a render down; one that another tab has taken out goes here, too. */
  private async keep(render: QueuedRender): Promise<void> {
    let there = true;
    await this.written(render.id, async () => {
      there = await this.host.save(render);
    });
    if (!there) this.show({ queued: this.queued.filter((q) => q.id !== render.id) });
  }

  /** Does a change of what is stored; until it is done, this tab knows better. */
  private async written(id: string, work: () => Promise<unknown>): Promise<void> {
    this.writing.set(id, (this.writing.get(id) ?? 0) + 1);
    try {
      await work();
    } finally {
      const left = this.writing.get(id)! - 1;
      if (left > 0) this.writing.set(id, left);
      else this.writing.delete(id);
    }
  }

  private async refresh(): Promise<void> {
    const [stored, finished] = await Promise.all([this.host.list(), this.host.finished()]);
    const done = new Set(finished.map((j) => j.id));
    const mine = (id: string) => this.writing.has(id);
    const queued = [
      ...stored.filter((q) => !mine(q.id) && !done.has(q.id)),
      ...this.queued.filter((q) => mine(q.id)),
    ].sort((a, b) => a.place - b.place);
    const here = new Map(this.ended.map((j) => [j.id, j]));
    const ended = [
      ...this.ended.filter((j) => !j.stored),
      // A file that is held already stays the same.
      ...finished.map((j) => here.get(j.id) ?? j),
    ];
    const told = this.elsewhere && queued.some((q) => q.id === this.elsewhere!.id && q.state === 'waiting');
    this.show({ queued, ended, elsewhere: told ? this.elsewhere : undefined });
    // It was finished, but the visit ended before it was taken off the queue.
    if (this.runs) for (const q of stored) if (done.has(q.id)) void this.letGo(q.id);
    this.reconcile();
  }

  /** Stops what should not run any more, and begins what should. */
  private reconcile(): void {
    const { running } = this;
    if (running) {
      if (this.queued.some((q) => q.id === running.id && q.state === 'waiting')) return;
      this.stop(running);
      return;
    }
    const next = this.queued.find((q) => q.state === 'waiting');
    if (this.runs && next) void this.begin(next);
  }

  private stop(running: Running): void {
    if (running.stopping) return;
    running.stopping = true;
    running.work?.stop();
    const ended = () => this.running === running && this.end(running);
    if (!running.work) ended();
    // Workers that hang are ended as they are.
    else this.host.after(PATIENCE, ended);
  }

  private async begin({ id, plan, frames }: QueuedRender): Promise<void> {
    const running: Running = {
      ...{ id, work: undefined, frames, from: 0, startedAt: this.host.now(), told: 0, stopping: false },
    };
    this.running = running;
    this.show({});
    this.host.tell({ id, frames });
    try {
      const [reel, identity] = await Promise.all([this.host.reelOf(id), this.host.identity()]);
      if (this.running !== running) return;
      if (!reel) throw new Error('What it was to render is gone. Render it again from its reel.');
      running.work = this.host.conduct(reel, plan, (message) => this.hear(running, plan, message), {
        journal: { id, identity },
      });
    } catch (error) {
      this.hear(running, plan, { type: 'fault', message: messageOf(error) });
    }
  }

  private hear(running: Running, plan: RenderPlan, message: FromRender): void {
    if (this.running !== running) return;
    if (message.type === 'resumed') running.from = message.frames;
    if (message.type === 'resumed' || message.type === 'progress') {
      running.frames = message.frames;
      const now = this.host.now();
      if (now - running.told > WORD_EVERY) {
        running.told = now;
        this.host.tell({ id: running.id, frames: running.frames });
      }
      this.show({});
    } else if (message.type === 'done') void this.finish(running, plan, message);
    else if (message.type === 'fault') {
      const { frames } = running;
      if (message.lost && !running.stopping && this.mayGoOn(running)) return void this.beginAgain(running);
      const state = running.stopping ? {} : ({ state: 'fault', message: message.message } as const);
      const failed = this.queued.find((q) => q.id === running.id);
      if (failed) void this.change(running.id, (q) => ({ ...q, ...state, frames }));
      this.end(running, failed && !running.stopping ? jobOf(failed, { ...state, frames }) : undefined);
    } else this.end(running);
  }

  /** Has a render go on whose workers have ended. What they have written down stays; the file they had begun goes. */
  private async beginAgain(running: Running): Promise<void> {
    running.work?.end();
    await this.host.sweep(new Set(this.queued.map((q) => q.id))).catch(() => undefined);
    if (this.running === running) this.end(running);
  }

  /** Whether a render whose workers have ended is begun again: not for ever at the same place. */
  private mayGoOn({ id, frames }: Running): boolean {
    const before = this.losses.get(id);
    const times = before && before.frames >= frames ? before.times + 1 : 1;
    this.losses.set(id, { frames, times });
    return times <= MOST_LOSSES;
  }

  private async finish(
    running: Running,
    plan: RenderPlan,
    { file, frames, stored, sound }: Extract<FromRender, { type: 'done' }>,
  ): Promise<void> {
    const { id, from, startedAt } = running;
    const render = this.queued.find((q) => q.id === id);
    if (!render) {
      // It was cancelled when it was nearly done.
      if (stored) await this.host.removeFinished(stored).catch(() => undefined);
      return this.end(running);
    }
    const seconds = from === 0 ? (this.host.now() - startedAt) / 1000 : undefined;
    const done: RenderJob = {
      ...jobOf(render, { state: 'done' }),
      ...{ plan, file, frames, stored, sound, seconds },
    };
    // A record that cannot be kept leaves the file in this visit's list.
    await this.host.keep(done).catch(() => undefined);
    this.show({
      queued: this.queued.filter((q) => q.id !== id),
      ended: [done, ...this.ended.filter((j) => j.id !== id)],
    });
    await this.letGo(id);
    this.end(running, done);
  }

  /** Takes what is finished off the queue, with what it had written on the way. */
  private async letGo(id: string): Promise<void> {
    await this.written(id, () => this.host.forget(id)).catch(() => undefined);
    await this.host.discard(id).catch(() => undefined);
  }

  private end(running: Running, ended?: RenderJob): void {
    running.work?.end();
    this.running = undefined;
    this.show({}, ended);
    // Cancelled: its workers have let go of what they wrote.
    if (!this.queued.some((q) => q.id === running.id))
      void this.host.discard(running.id).catch(() => undefined);
    this.host.tell('changed');
    this.reconcile();
  }

  private show(
    part: {
      readonly queued?: readonly QueuedRender[];
      readonly ended?: readonly RenderJob[];
      readonly elsewhere?: Exclude<QueueWord, string> | undefined;
    },
    ended?: RenderJob,
  ): void {
    if (part.queued) this.queued = part.queued;
    if (part.ended) this.ended = part.ended;
    if ('elsewhere' in part) this.elsewhere = part.elsewhere;
    this.jobs = [...this.queued.map((q) => this.asJob(q)), ...this.ended];
    this.onChange(ended);
  }

  private asJob(render: QueuedRender): RenderJob {
    const { running, elsewhere } = this;
    if (running?.id === render.id && !running.stopping) {
      const { frames, from, startedAt } = running;
      return jobOf({ ...render, frames }, { state: 'running', from, startedAt });
    }
    if (elsewhere?.id === render.id && render.state === 'waiting')
      return jobOf({ ...render, frames: elsewhere.frames }, { state: 'running' });
    return jobOf(render, {});
  }
}

const jobOf = (
  { id, reelId, reelName, plan, state, frames, message }: QueuedRender,
  part: Partial<RenderJob>,
): RenderJob => ({
  ...{ id, reelId, reelName, plan, state, frames, message },
  ...{
    from: 0,
    startedAt: undefined,
    seconds: undefined,
    file: undefined,
    stored: undefined,
    sound: undefined,
  },
  ...part,
});
