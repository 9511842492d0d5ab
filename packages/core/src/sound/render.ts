import { Limiter } from './limiter';
import { LoudnessMeter } from './loudness';
import { mixBlock, type SoundSource } from './mix';
import type { SoundPlay } from './play';
import { SOUND_RATE, type Stereo } from './sound';

/** What a finished mix measures. */
export interface MixFacts {
  /** LUFS; −∞ of silence. */
  readonly loudness: number;
  /** dBTP. */
  readonly peak: number;
}

/** Sample frames mixed at once: half a second. */
const BLOCK = SOUND_RATE / 2;

/**
 * A stretch of a reel mixed block by block, and limited. No more than a block is in memory, so that it can go along
 * with the pictures of a render, or stay a little ahead of what is heard.
 */
export class LimitedMix {
  /** Sample frames of the whole. */
  readonly total: number;
  private readonly start: number;
  private readonly limiter: Limiter;
  private mixed = 0;
  private ended = false;

  /**
   * @param from second of the reel at which it begins
   * @param seconds how long it is
   * @param ceiling highest true peak, in dBTP
   */
  constructor(
    private readonly plays: readonly SoundPlay[],
    from: number,
    seconds: number,
    private readonly sourceOf: (media: string) => SoundSource | undefined,
    ceiling?: number,
  ) {
    this.limiter = new Limiter(ceiling);
    this.start = Math.round(from * SOUND_RATE);
    this.total = Math.round(seconds * SOUND_RATE);
  }

  /** Seconds that were mixed. */
  get reached(): number {
    return this.mixed / SOUND_RATE;
  }

  /** The next block, in order; nothing after the last. Together they are as many sample frames as the whole. */
  async next(): Promise<Stereo | undefined> {
    while (this.mixed < this.total) {
      const frames = Math.min(BLOCK, this.total - this.mixed);
      const block = await mixBlock(this.plays, this.start + this.mixed, frames, this.sourceOf);
      this.mixed += frames;
      const limited = this.limiter.push(block);
      // The limiter looks ahead: of the first samples nothing may be ready yet.
      if (limited[0].length > 0) return limited;
    }
    if (this.ended) return undefined;
    this.ended = true;
    return this.limiter.end();
  }
}

/** Mixes a stretch of a reel along with its pictures, and measures it on the way. */
export class MixRender {
  private readonly mix: LimitedMix;
  private readonly meter = new LoudnessMeter();

  /**
   * @param from second of the reel at which it begins
   * @param seconds how long it is
   * @param write takes each block in order
   * @param ceiling highest true peak, in dBTP
   */
  constructor(
    plays: readonly SoundPlay[],
    from: number,
    seconds: number,
    sourceOf: (media: string) => SoundSource | undefined,
    private readonly write: (block: Stereo) => Promise<void> | void,
    ceiling?: number,
  ) {
    this.mix = new LimitedMix(plays, from, seconds, sourceOf, ceiling);
  }

  /** Sample frames of the whole. */
  get total(): number {
    return this.mix.total;
  }

  /** Mixes on to a second of the stretch, or a little past it. */
  async until(second: number): Promise<void> {
    while (this.mix.reached < Math.min(this.mix.total / SOUND_RATE, second)) await this.give();
  }

  async end(): Promise<MixFacts> {
    while (await this.give());
    return { loudness: this.meter.integrated, peak: this.meter.peak };
  }

  /** Loudness over the time mixed so far: see `LoudnessMeter.course`. */
  course(most: number): number[] {
    return this.meter.course(most);
  }

  private async give(): Promise<boolean> {
    const block = await this.mix.next();
    if (!block) return false;
    if (block[0].length > 0) {
      this.meter.push(block);
      await this.write(block);
    }
    return true;
  }
}
