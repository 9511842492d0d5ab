import type { FromPaint, PaintedFrame, PaintJob, ToPaint } from './paintMessages';

/** The part of a message port that a crew uses: a paint worker is at its other end. */
export interface Painter {
  postMessage(message: ToPaint, transfer?: Transferable[]): void;
  onmessage: ((event: MessageEvent<FromPaint>) => void) | null;
}

/** Frames that a painter takes at once: neighbours, since clips are decoded forwards and many frames are alike. */
export const STRETCH = 4;

/** Each painter holds the pictures and frames of a render once more. */
const MOST_PAINTERS = 8;

/** How many painters serve a render on a machine with so many cores. */
export function crewSize(count: number, cores: number): number {
  return Math.max(1, Math.min(MOST_PAINTERS, cores, Math.ceil(count / STRETCH)));
}

interface Waiting {
  readonly index: number;
  resolve(): void;
  reject(error: Error): void;
}

/** Frames that have to be waited for before another painter joins: the first one of all is waited for in any case. */
const PATIENCE = 3;

/**
 * Painters that share the frames of a render. Frames are taken in order; no painter runs farther ahead than two
 * stretches for each that is at work, so that memory does not grow with the length of the render. They begin with one;
 * another joins when frames have to be waited for, since what paints takes its share of what encodes.
 */
export class PaintCrew {
  private readonly idle: Painter[] = [];
  private readonly left = new Map<Painter, number>();
  /** Painters at work, and how often a frame was waited for since the last of them joined. */
  private joined = 0;
  private waits = 0;
  private readonly painted = new Map<number, { frame: PaintedFrame; by: Painter }>();
  private waiting: Waiting | undefined;
  private next: number;
  private taken: number;
  private fault: Error | undefined;
  private last: { frame: PaintedFrame; by: Painter } | undefined;
  /** Seconds for which frames were waited for, but for the first, which waits for everything to be loaded. */
  waited = 0;

  /** @param count frames in all, those before the job's first among them */
  constructor(
    private readonly job: PaintJob,
    private readonly count: number,
    private readonly painters: readonly Painter[],
  ) {
    this.next = job.first ?? 0;
    this.taken = this.next;
    for (const painter of painters) painter.onmessage = ({ data }) => this.hear(painter, data);
    this.join();
  }

  private join(): void {
    const painter = this.painters[this.joined];
    if (!painter) return;
    this.joined++;
    this.waits = 0;
    painter.postMessage({ type: 'start', ...this.job });
    this.idle.push(painter);
    this.assign();
  }

  /**
   * The next frame, in order. It is given back, or closed, once another comes after it.
   * @throws {Error} when painting failed
   */
  async take(): Promise<NonNullable<PaintedFrame>> {
    const index = this.taken;
    if (index >= this.count) throw new RangeError(`There are ${this.count} frames, and all have been taken.`);
    if (!this.painted.has(index)) {
      const begun = performance.now();
      await this.wait(index);
      if (index > 0) this.waited += (performance.now() - begun) / 1000;
    }
    if (this.fault) throw this.fault;
    const { frame, by } = this.painted.get(index)!;
    this.painted.delete(index);
    this.taken++;
    this.assign();
    if (frame !== undefined) {
      this.giveBack();
      this.last = { frame, by };
    }
    const shown = this.last?.frame;
    if (shown === undefined) throw new Error('The first frame cannot be the one before it once more.');
    return shown;
  }

  private wait(index: number): Promise<void> {
    if (this.fault) return Promise.reject(this.fault);
    if (++this.waits >= PATIENCE) this.join();
    return new Promise((resolve, reject) => {
      this.waiting = { index, resolve, reject };
    });
  }

  private giveBack(): void {
    const { frame, by } = this.last ?? {};
    if (frame instanceof ArrayBuffer) by?.postMessage({ type: 'back', pixels: frame }, [frame]);
    else if (frame && 'close' in frame) frame.close();
  }

  private assign(): void {
    const ahead = this.taken + 2 * STRETCH * this.joined;
    while (this.idle.length > 0 && this.next < Math.min(this.count, ahead)) {
      const painter = this.idle.shift()!;
      const count = Math.min(STRETCH, this.count - this.next);
      painter.postMessage({ type: 'paint', first: this.next, count });
      this.left.set(painter, (this.left.get(painter) ?? 0) + count);
      this.next += count;
    }
  }

  private hear(by: Painter, message: FromPaint): void {
    if (message.type === 'fault') {
      this.fail(message.message);
      return;
    }
    this.painted.set(message.index, { frame: message.frame, by });
    const left = this.left.get(by)! - 1;
    this.left.set(by, left);
    // Asked for the next stretch before it is through with this one, it does not wait for the answer.
    if (left <= 1 && !this.idle.includes(by)) {
      this.idle.push(by);
      this.assign();
    }
    if (this.waiting?.index === message.index) {
      this.waiting.resolve();
      this.waiting = undefined;
    }
  }

  private fail(message: string): void {
    this.fault ??= new Error(message);
    this.waiting?.reject(this.fault);
    this.waiting = undefined;
  }
}
