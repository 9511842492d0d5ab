import { randomUUID } from 'node:crypto';
import { EventEmitter } from 'node:events';
import { mkdir, readdir, readFile, rename, rm, stat, writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import type { Readable } from 'node:stream';
import { fileStem, filmFacts, messageOf, type ReelScene } from '@fresh-reel/core';
import { joinFilm, whyNoFilm } from '@fresh-reel/node-host';
import { z } from 'zod';
import { TooLarge, writeHashed } from '../hashed';
import { CommandError } from '../rendering/command';
import { filmTerms } from '../rendering/render';
import { writeSound } from '../rendering/sound';
import type { Crew } from './crew';
import { openStudio, takeIn } from './document';
import { holdFolder } from './holdFolder';
import type { Metrics } from './metrics';
import {
  endingOf,
  LIMITS,
  type Limits,
  type Paint,
  paintSchema,
  pieceKey,
  type RangeOrder,
  rangesOf,
  type Wish,
} from './order';
import { type Kept, makeRoom } from './room';
import { Store } from './store';

const STATES = ['waiting', 'running', 'done', 'failed', 'cancelled'] as const;

/** A render as it is kept. */
const recordSchema = z.strictObject({
  id: z.uuid(),
  /** Of whoever asked for it. */
  key: z.string().optional(),
  /** Of its film. */
  fileName: z.string(),
  state: z.enum(STATES),
  /** Why it failed. */
  message: z.string().optional(),
  paint: paintSchema,
  timecode: z.string(),
  /** ISO 8601 instants. */
  created: z.string(),
  ended: z.string().optional(),
  /** Bytes of its film. */
  bytes: z.number().optional(),
});
type RenderRecord = z.infer<typeof recordSchema>;

/** What is told of a render. */
export interface RenderState extends Omit<RenderRecord, 'paint' | 'timecode' | 'key'> {
  readonly codec: Paint['codec'];
  readonly size: Paint['size'];
  readonly rate: Paint['rate'];
  readonly alpha: Paint['alpha'];
  /** Frames in all, and those that are painted. */
  readonly count: number;
  readonly frames: number;
}

/** Something asked for is not possible; `status` is the one of HTTP. */
export class RenderRefused extends Error {
  override readonly name = 'RenderRefused';
  constructor(
    message: string,
    readonly status: 404 | 409 | 413 | 422 | 429,
  ) {
    super(message);
  }
}

/** Days after which a film goes that nobody let go of. */
const FILMS_KEPT_FOR = 30;
/** Milliseconds before a render by which what it needs may have been sent. */
const SENT_BEFORE = 3_600_000;

interface Job {
  record: RenderRecord;
  frames: number;
  stop: AbortController;
}

interface DeskOptions {
  readonly folder: string;
  readonly crew: (store: Store) => Crew;
  readonly version: string;
  readonly limits?: Partial<Limits>;
  readonly metrics?: Metrics;
}

/**
 * The renders of a server, one after the other, each in pieces that a crew makes. The queue lies in files, so that it
 * lives through a restart; pieces that were made are not made again.
 */
export class RenderDesk {
  readonly store: Store;
  private readonly jobs = new Map<string, Job>();
  private readonly crew: Crew;
  private readonly limits: Limits;
  private readonly told = new EventEmitter().setMaxListeners(0);
  private running: Promise<void> | undefined;
  private started = false;
  private closed = false;

  private constructor(
    private readonly options: DeskOptions,
    private readonly free: () => Promise<void>,
  ) {
    this.store = new Store(options.folder);
    this.crew = options.crew(this.store);
    this.limits = { ...LIMITS, ...options.limits };
  }

  /**
   * Opens a desk, with what an earlier one has left. It works from its `start` on.
   * @throws {Error} when another server has its folder
   */
  static async open(options: DeskOptions): Promise<RenderDesk> {
    await mkdir(options.folder, { recursive: true });
    const free = await holdFolder(options.folder);
    const desk = new RenderDesk(options, free);
    await rm(join(options.folder, 'coming'), { recursive: true, force: true });
    await desk.load();
    await desk.dropOld();
    return desk;
  }

  start(): void {
    this.started = true;
    this.next();
  }

  /** All renders, the oldest first. */
  list(): RenderState[] {
    return [...this.jobs.values()].map(stateOf);
  }

  state(id: string): RenderState | undefined {
    const job = this.jobs.get(id);
    return job && stateOf(job);
  }

  /** Hears of every change of a render. @returns a function that stops hearing */
  hear(id: string, listener: (state: RenderState) => void): () => void {
    this.told.on(id, listener);
    return () => this.told.off(id, listener);
  }

  /**
   * Takes a reel file and puts its render in the queue.
   * @throws {RenderRefused} when it cannot be rendered, or is beyond a limit
   */
  async take(stream: Readable, wish: Wish): Promise<RenderState> {
    for (const { record } of [...this.jobs.values()])
      if (wish.key && record.key === wish.key) await this.drop(record.id);
    const open = [...this.jobs.values()].filter((j) => isOpen(j.record)).length;
    if (open >= this.limits.jobs)
      throw new RenderRefused(`${open} renders are waiting, and no more are taken. Try again later.`, 429);
    const path = await this.store.beside();
    try {
      await writeHashed(stream, path, this.limits.bytes);
      const { hash, used } = await takeIn(path, this.store, (scene, name) => this.planOf(scene, name, wish));
      const record: RenderRecord = {
        ...{ id: randomUUID(), fileName: used.fileName, state: 'waiting', timecode: used.timecode },
        ...{ paint: { ...used.paint, document: hash }, created: new Date().toISOString() },
        ...(wish.key ? { key: wish.key } : {}),
      };
      const job: Job = { record, frames: 0, stop: new AbortController() };
      await this.keep(job);
      this.jobs.set(record.id, job);
      this.next();
      return stateOf(job);
    } catch (error) {
      if (error instanceof RenderRefused) throw error;
      if (error instanceof TooLarge) throw new RenderRefused(error.message, 413);
      if (error instanceof CommandError || (error as Error).name === 'DocumentError')
        throw new RenderRefused(messageOf(error).replace(/--(\w+)/g, '$1'), 422);
      throw error;
    } finally {
      await rm(path, { force: true });
    }
  }

  /** The film of a render that is done. */
  async film(id: string): Promise<{ path: string; size: number; name: string } | undefined> {
    const record = this.jobs.get(id)?.record;
    if (record?.state !== 'done') return undefined;
    const path = join(this.resultFolder(id), record.fileName);
    return { path, size: (await stat(path)).size, name: record.fileName };
  }

  /** Stops a render, or lets go of a film. @returns whether there was one */
  async drop(id: string): Promise<boolean> {
    const job = this.jobs.get(id);
    if (!job) return false;
    this.jobs.delete(id);
    if (isOpen(job.record)) {
      this.options.metrics?.ended('cancelled');
      job.record = { ...job.record, state: 'cancelled' };
      job.stop.abort();
      this.tell(job);
    }
    await rm(this.recordPath(id), { force: true });
    await rm(this.resultFolder(id), { recursive: true, force: true });
    return true;
  }

  /** Stops working; what is not finished goes on when a desk is opened here again. */
  async close(): Promise<void> {
    this.closed = true;
    for (const job of this.jobs.values()) job.stop.abort();
    await this.running;
    await this.crew.close();
    await this.free();
  }

  private async planOf(
    scene: ReelScene,
    name: string,
    wish: Wish,
  ): Promise<{ paint: Omit<Paint, 'document'>; fileName: string; timecode: string }> {
    const { codec } = wish;
    const { pixels, frames } = this.limits;
    const [width, height] = wish.size?.split('x').map(Number) ?? [];
    const size = width && height ? { width, height } : scene.reel.frame;
    if (size.width * size.height > pixels || Math.min(size.width, size.height) < 16)
      throw new RenderRefused(
        `A frame of ${size.width} x ${size.height} is not rendered here: 16 pixels a side at least, ${pixels} in all at most.`,
        422,
      );
    const rate = wish.rate ?? scene.reel.rate;
    const total = scene.frameCount(rate);
    const [from = 0, to = total - 1] = wish.frames?.split('-').map(Number) ?? [];
    if (to < from || to >= total)
      throw new RenderRefused(
        `The last frame is ${total - 1}, so frames ${from} to ${to} are not all there.`,
        422,
      );
    const count = to - from + 1;
    if (count > frames)
      throw new RenderRefused(
        `${count} frames are more than the ${frames} that are rendered here at once.`,
        422,
      );
    const fileName = `${wish.name ?? fileStem(name)}.${endingOf(codec)}`;
    const why = await whyNoFilm({ codec, size, out: fileName });
    if (why) throw new RenderRefused(why, 422);
    const { alpha, timecode } = filmTerms(wish, codec, scene.transparent, rate);
    const { version } = this.options;
    return {
      paint: { codec, size, rate, alpha, number: wish.number, from, count, version },
      fileName,
      timecode,
    };
  }

  /** Begins with the next render that waits. */
  private next(): void {
    if (this.running || this.closed || !this.started) return;
    const job = [...this.jobs.values()].find((j) => j.record.state === 'waiting');
    if (!job) return;
    this.running = this.run(job)
      .then(() => this.dropOld())
      // What cannot be tidied up now is another time.
      .catch(() => undefined)
      .finally(() => {
        this.running = undefined;
        this.next();
      });
  }

  private async run(job: Job): Promise<void> {
    const { id } = job.record;
    const late = AbortSignal.timeout(this.limits.seconds * 1000);
    const signal = AbortSignal.any([job.stop.signal, late]);
    const begun = performance.now();
    try {
      await this.change(job, { state: 'running' });
      await this.render(job, signal);
      const film = join(this.resultFolder(id), job.record.fileName);
      // The film is there, whether that can be written down or not.
      await this.change(job, {
        state: 'done',
        bytes: (await stat(film)).size,
        ended: new Date().toISOString(),
      }).catch(() => undefined);
      this.options.metrics?.ended('done', (performance.now() - begun) / 1000);
    } catch (error) {
      // Cancelled, or the desk is closed: it goes on another time.
      if (job.stop.signal.aborted) return;
      const message = late.aborted
        ? `It took longer than the ${this.limits.seconds} seconds that are given here.`
        : messageOf(error);
      // Where not even that can be written down, it is told; after a restart it is tried again.
      await this.change(job, { state: 'failed', message, ended: new Date().toISOString() }).catch(
        () => undefined,
      );
      this.options.metrics?.ended('failed', (performance.now() - begun) / 1000);
    }
  }

  private async render(job: Job, signal: AbortSignal): Promise<void> {
    const { paint, timecode, fileName, id } = job.record;
    const orders = rangesOf(paint).map((range): RangeOrder => ({ paint, ...range }));
    const painted = new Array<number>(orders.length).fill(0);
    const count = () => {
      job.frames = painted.reduce((sum, n) => sum + n, 0);
      this.tell(job);
    };
    const failed = new AbortController();
    const wanted = AbortSignal.any([signal, failed.signal]);
    const sound = this.sound(job.record, wanted);
    const out = `${await this.store.beside()}.${endingOf(paint.codec)}`;
    let next = 0;
    const makeSome = async () => {
      for (let i = next++; i < orders.length; i = next++) {
        const order = orders[i]!;
        if (await this.store.has('pieces', pieceKey(order))) this.options.metrics?.found();
        else {
          const onFrame = () => {
            painted[i] = Math.min(order.count, painted[i]! + 1);
            count();
          };
          await this.crew.make(order, onFrame, wanted);
          this.options.metrics?.made(order.count);
        }
        painted[i] = order.count;
        count();
      }
    };
    try {
      const makers = Array.from({ length: Math.min(this.crew.size, orders.length) }, makeSome);
      const [heard] = await Promise.all([sound, ...makers]);
      signal.throwIfAborted();
      const pieces = orders.map((order) => ({
        path: this.store.path('pieces', pieceKey(order)),
        frames: order.count,
      }));
      await joinFilm(pieces, { ...paint, timecode, out, ...(heard ? { sound: heard } : {}) });
      signal.throwIfAborted();
      await mkdir(this.resultFolder(id), { recursive: true });
      await rename(out, join(this.resultFolder(id), fileName));
    } finally {
      // What the others are at is not wanted any more.
      failed.abort();
      await rm(out, { force: true });
      const heard = await sound.catch(() => undefined);
      if (heard) await rm(heard, { force: true });
    }
  }

  /** Mixes the sound of a render, once. @returns path of a WAV file, or nothing where there is none to hear */
  private async sound({ paint }: RenderRecord, signal: AbortSignal): Promise<string | undefined> {
    if (!filmFacts(paint.codec).sound) return undefined;
    const { studio, scene, close } = await openStudio(this.store, paint.document);
    try {
      signal.throwIfAborted();
      const path = `${await this.store.beside()}.wav`;
      const { rate, from, count } = paint;
      return await writeSound({ scene, studio, rate, from, count }, path, paint.codec);
    } finally {
      close();
    }
  }

  private async change(job: Job, part: Partial<RenderRecord>): Promise<void> {
    job.record = { ...job.record, ...part };
    // One that was let go of meanwhile is not written down again.
    try {
      if (this.jobs.has(job.record.id)) await this.keep(job);
    } finally {
      this.tell(job);
    }
  }

  private tell(job: Job): void {
    this.told.emit(job.record.id, stateOf(job));
  }

  private async keep({ record }: Job): Promise<void> {
    const path = this.recordPath(record.id);
    await mkdir(join(this.options.folder, 'jobs'), { recursive: true });
    // Whole, or as it was before.
    try {
      await writeFile(`${path}.new`, JSON.stringify(record, undefined, 2));
      await rename(`${path}.new`, path);
    } catch (error) {
      throw new Error(`What is known of this render cannot be written down: ${messageOf(error)}`);
    }
  }

  private async load(): Promise<void> {
    const folder = join(this.options.folder, 'jobs');
    const names = await readdir(folder).catch(() => []);
    const records: RenderRecord[] = [];
    for (const name of names.filter((n) => n.endsWith('.json'))) {
      const text = await readFile(join(folder, name), 'utf8');
      const parsed = recordSchema.safeParse(jsonOf(text));
      if (parsed.success) records.push(parsed.data);
    }
    records.sort((a, b) => a.created.localeCompare(b.created));
    for (const record of records) {
      const job: Job = {
        record: record.state === 'running' ? { ...record, state: 'waiting' } : record,
        frames: record.state === 'done' ? record.paint.count : 0,
        stop: new AbortController(),
      };
      this.jobs.set(record.id, job);
    }
  }

  /**
   * Makes room among films and what lies in the store. What a render that is not finished needs stays, and the film that
   * came last: it is not fetched yet, however large it is.
   */
  private async dropOld(): Promise<void> {
    const open = [...this.jobs.values()].filter((job) => isOpen(job.record));
    const needed = Math.min(...open.map(({ record }) => Date.parse(record.created) - SENT_BEFORE));
    const stored = (await this.store.kept()).filter(({ used }) => used < needed);
    const films = [...this.jobs.values()].flatMap(({ record: { id, state, ended, bytes = 0 } }): Kept[] =>
      state === 'done' && ended
        ? [{ bytes, used: Date.parse(ended), days: FILMS_KEPT_FOR, drop: () => this.drop(id) }]
        : [],
    );
    const last = Math.max(...films.map(({ used }) => used));
    const earlier = films.filter(({ used }) => used < last);
    const { bytes, dropped } = await makeRoom([...earlier, ...stored], this.limits.disk);
    const stays = films.reduce((sum, one) => (one.used === last ? sum + one.bytes : sum), bytes);
    this.options.metrics?.lies(stays, dropped);
  }

  private recordPath = (id: string) => join(this.options.folder, 'jobs', `${id}.json`);
  private resultFolder = (id: string) => join(this.options.folder, 'films', id);
}

const isOpen = ({ state }: RenderRecord) => state === 'waiting' || state === 'running';

function stateOf({ record, frames }: Job): RenderState {
  const { paint, timecode: _, key: __, ...told } = record;
  const { codec, size, rate, alpha, count } = paint;
  return { ...told, codec, size, rate, alpha, count, frames: record.state === 'done' ? count : frames };
}

function jsonOf(text: string): unknown {
  try {
    return JSON.parse(text);
  } catch {
    return undefined;
  }
}
