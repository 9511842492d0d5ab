import type { Picture } from '@fresh-reel/core';
import type { ClipSample, ClipSource } from './clip';
import { openClip, openProxy, type ProxySource } from './clipSource';

/** Decoded frames kept of one clip; more only while one picture shows more. */
const MOST_KEPT = 6;
/** Of what is decoded on the way to a frame farther back, the last frames are kept: it goes on back, more likely than not. */
const KEPT_BACK = 16;
/** A proxy may be shown so many times its size: one cannot tell. */
const ENLARGED = 1.05;

interface Reach {
  /** A step forward of up to so many seconds is decoded through; a longer one, or one back, is jumped to. */
  readonly on: number;
  /** Seconds before a frame that is gone back to at which reading begins. */
  readonly back: number;
}
const REACH: Reach = { on: 1.5, back: 0.5 };
/** In a proxy a jump costs little. */
const PROXY_REACH: Reach = { on: 0.3, back: 0.2 };

interface Frame {
  readonly from: number;
  /** When the next one begins. */
  readonly to: number;
  /** Of fewer pixels than are wanted at rest. */
  readonly soft: boolean;
  readonly picture: Picture & { readonly image: OffscreenCanvas };
}

/** One place in a clip from which it is read forwards. */
class Cursor {
  private readonly stream: AsyncGenerator<ClipSample, void, unknown>;
  /** The sample that came last: shown once the one after it is known. */
  private ahead: ClipSample | undefined;

  private constructor(source: ClipSource, at: number) {
    this.stream = source.samples(at);
  }

  static async at(source: ClipSource, at: number): Promise<Cursor> {
    const cursor = new Cursor(source, at);
    await cursor.step();
    return cursor;
  }

  /** How far a second lies ahead of what comes next; less than none, when it has gone by. */
  distance(at: number): number {
    return this.ahead ? at - this.ahead.timestamp : Number.NEGATIVE_INFINITY;
  }

  /**
   * Goes on to the sample of a second, and gives it with the time the next one begins. The caller closes it.
   * @param passing sees what lies on the way, and when each is over
   * @param goOn whether it is still wanted
   */
  async read(
    at: number,
    passing: ((sample: ClipSample, to: number) => void) | undefined,
    goOn: () => boolean,
  ): Promise<{ sample: ClipSample; to: number } | undefined> {
    for (;;) {
      const sample = this.ahead;
      if (!sample || !goOn()) return undefined;
      await this.step();
      const to = this.ahead?.timestamp ?? Number.POSITIVE_INFINITY;
      if (to > at) return { sample, to };
      passing?.(sample, to);
      sample.close();
    }
  }

  async close(): Promise<void> {
    await this.stream.return();
    this.ahead?.close();
  }

  private async step(): Promise<void> {
    this.ahead = (await this.stream.next()).value ?? undefined;
  }
}

/** A clip that is read frame by frame, forwards as it plays or wherever it is sought; in several places at once. */
export class ClipReader {
  private readonly kept: Frame[] = [];
  /** Canvases of frames that are gone: a new one costs as much again as drawing on it. */
  private readonly free: OffscreenCanvas[] = [];
  private cursors: Cursor[] = [];
  private busy: Promise<void> = Promise.resolve();
  /** How many frames are kept now. */
  private most = MOST_KEPT;
  /** Longest side frames are kept at; less than the clip's own while a small preview plays. */
  private side = Number.POSITIVE_INFINITY;
  private moving = false;
  /** Ends what is read of a source that does not fit any more. */
  private turn: () => void = () => undefined;

  /** What the cursors read. */
  private reading: ClipSource;
  private proxy: ProxySource | null = null;

  private constructor(
    private readonly media: string,
    private readonly source: ClipSource,
  ) {
    this.reading = source;
  }

  get facts(): ClipSource['facts'] {
    return this.source.facts;
  }

  /**
   * @param proxies whether its proxy may be shown, where it has pixels enough
   * @returns null when the media is not there, or is no clip
   * @throws {Error} when this browser cannot decode it
   */
  static async open(media: string, proxies: boolean): Promise<ClipReader | null> {
    const source = await openClip(media);
    if (!source) return null;
    const reader = new ClipReader(media, source);
    if (proxies) reader.findProxy();
    return reader;
  }

  /** Looks for the clip's proxy: it came, or went. */
  findProxy(): void {
    this.busy = this.busy.then(async () => {
      this.proxy?.dispose();
      this.proxy = await openProxy(this.media);
    });
  }

  /** What is read for frames of the size that is wanted now. */
  private get fitting(): ClipSource {
    return this.proxy && (this.moving || this.suffices(this.proxy)) ? this.proxy : this.source;
  }

  private get reach(): Reach {
    return this.reading === this.proxy ? PROXY_REACH : REACH;
  }

  private suffices({ side }: ProxySource): boolean {
    return this.side <= side * ENLARGED;
  }

  private fits({ soft }: Frame): boolean {
    return this.moving || !soft;
  }

  /**
   * Says which frames are wanted.
   * @param side pixels of the longest side: they need be no larger
   * @param moving they go by, in play or while one seeks: a proxy does, whatever its size
   */
  keepTo(side: number, moving: boolean): void {
    const { fitting } = this;
    if (side > this.side) this.kept.splice(0);
    this.side = side;
    this.moving = moving;
    if (fitting !== this.fitting) this.turn();
  }

  /** Whether exactly the frame of a second is there. */
  has(at: number): boolean {
    return this.kept.some((f) => showsAt(at)(f) && this.fits(f));
  }

  /** The frame of a second; while it is being decoded, the last one that was. */
  frame(at: number): Picture | undefined {
    const shown = this.kept.filter(showsAt(at));
    return (shown.find((f) => !f.soft) ?? shown[0] ?? this.kept.at(-1))?.picture;
  }

  /** Decodes the frames of some seconds, so that all of them are there at once. */
  ready(seconds: readonly number[]): Promise<void> {
    const next = this.busy.then(() => this.decodeAll([...seconds].sort((a, b) => a - b)));
    // Whoever asked hears of the fault; the next one that asks does not.
    this.busy = next.catch(() => undefined);
    return next;
  }

  close(): void {
    void this.busy.then(async () => {
      await this.drop(this.cursors.splice(0));
      this.kept.splice(0);
      this.proxy?.dispose();
      this.source.dispose();
    });
  }

  /** Each second is read on from the cursor that is nearest before it; cursors that none of them needs are closed. */
  private async decodeAll(seconds: readonly number[]): Promise<void> {
    const used = new Set<Cursor>();
    for (const at of seconds) {
      const held = this.kept.findIndex((f) => showsAt(at)(f) && this.fits(f));
      if (held >= 0) {
        // What is wanted again goes last, and where it was read is gone on from.
        this.kept.push(...this.kept.splice(held, 1));
        const behind = this.nearest((c) => Math.abs(c.distance(at)));
        if (behind) used.add(behind);
        continue;
      }
      const read = await this.read(at, used);
      if (!read) continue;
      // Before the first frame of a clip, the first shows.
      this.keep(read.sample, Math.min(read.sample.timestamp, at), read.to);
      read.sample.close();
      const most = Math.max(this.most, seconds.length);
      while (this.kept.length > most) this.free.push(this.kept.shift()!.picture.image);
      this.free.splice(0, this.free.length - 2);
    }
    const idle = this.cursors.filter((c) => !used.has(c));
    this.cursors = this.cursors.filter((c) => used.has(c));
    await this.drop(idle);
  }

  /** Reads the frame of a second, from what has pixels enough when it is there. */
  private async read(at: number, used: Set<Cursor>) {
    for (;;) {
      const { fitting } = this;
      try {
        const read = await this.readFrom(fitting, at, used);
        if (fitting === this.fitting) return read;
        // Meanwhile more pixels are wanted than this has.
        read?.sample.close();
      } catch (error) {
        if (fitting !== this.proxy) throw error;
        // A proxy that does not read is none: there is the clip itself.
        this.proxy.dispose();
        this.proxy = null;
      }
    }
  }

  /** @returns nothing at the clip's end, and when another source fits by now */
  private async readFrom(fitting: ClipSource, at: number, used: Set<Cursor>) {
    const turned = new Promise<void>((resolve) => {
      this.turn = resolve;
    });
    if (fitting !== this.reading) {
      // Those of a proxy that is gone may not close; nothing waits for them.
      void this.drop(this.cursors.splice(0)).catch(() => undefined);
      this.reading = fitting;
    }
    const isBack = this.cursors.some((c) => c.distance(at) < 0 && c.distance(at) > -this.reach.back);
    this.most = isBack ? KEPT_BACK : MOST_KEPT;
    let cursor = this.nearest((c) => (c.distance(at) < 0 ? this.reach.on : c.distance(at)));
    if (!cursor) {
      // What comes before it is decoded on the way from a key frame in any case.
      const opened = Cursor.at(fitting, isBack ? Math.max(0, at - this.reach.back) : at);
      cursor = (await Promise.race([opened, turned])) ?? undefined;
      if (!cursor) {
        void opened.then((late) => late.close()).catch(() => undefined);
        return undefined;
      }
      this.cursors.push(cursor);
    }
    used.add(cursor);
    return cursor.read(at, isBack ? this.passing(at) : undefined, () => fitting === this.fitting);
  }

  /** Keeps what lies shortly before a second that is gone back to. */
  private passing(at: number) {
    return (sample: ClipSample, to: number) => {
      if (at - to > this.reach.back || this.has(sample.timestamp)) return;
      this.keep(sample, sample.timestamp, to);
      while (this.kept.length > KEPT_BACK) this.free.push(this.kept.shift()!.picture.image);
    };
  }

  /** The cursor at the least distance, if that is near enough to read on. */
  private nearest(distance: (cursor: Cursor) => number): Cursor | undefined {
    const near = this.cursors.filter((c) => distance(c) < this.reach.on);
    return near.sort((a, b) => distance(a) - distance(b))[0];
  }

  private async drop(cursors: readonly Cursor[]): Promise<void> {
    await Promise.all(cursors.map((c) => c.close()));
  }

  private keep(sample: ClipSample, from: number, to: number): void {
    const { width, height } = this.facts;
    // No larger than it comes: what paints it enlarges it anyway.
    const { width: w, height: h } = this.reading.facts;
    const k = Math.min(1, this.side / Math.max(w, h));
    const canvas = this.canvas(Math.max(1, Math.round(w * k)), Math.max(1, Math.round(h * k)));
    // The sample knows how it is turned and which colours it means.
    sample.draw(canvas.getContext('2d')!, 0, 0, canvas.width, canvas.height);
    const soft = this.reading === this.proxy && !this.suffices(this.proxy);
    this.kept.push({ from, to, soft, picture: { image: canvas, width, height } });
  }

  /** A clear canvas of a size. */
  private canvas(width: number, height: number): OffscreenCanvas {
    const free = this.free.pop();
    if (free?.width !== width || free.height !== height) return new OffscreenCanvas(width, height);
    free.getContext('2d')!.clearRect(0, 0, width, height);
    return free;
  }
}

const showsAt = (at: number) => (f: Frame) => f.from <= at && at < f.to;
