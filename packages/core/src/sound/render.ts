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
 * Mixes a stretch of a reel block by block, limited, and measured on the way. No more than a block is in memory, so
 * that it can go along with the pictures of a render.
 */
export class MixRender {
  /** Sample frames of the whole. */
  readonly total: number;
  private readonly start: number;
  private readonly limiter = new Limiter();
  private readonly meter = new LoudnessMeter();
  private done = 0;

  /**
   * @param from second of the reel at which it begins
   * @param seconds how long it is
   * @param write takes each block in order
   */
  constructor(
    private readonly plays: readonly SoundPlay[],
    from: number,
    seconds: number,
    private readonly sourceOf: (media: string) => SoundSource | undefined,
    private readonly write: (block: Stereo) => Promise<void> | void,
  ) {
    this.start = Math.round(from * SOUND_RATE);
    this.total = Math.round(seconds * SOUND_RATE);
  }

  /** Mixes on to a second of the stretch, or a little past it. */
  async until(second: number): Promise<void> {
    while (this.done < Math.min(this.total, second * SOUND_RATE)) {
      const frames = Math.min(BLOCK, this.total - this.done);
      const block = await mixBlock(this.plays, this.start + this.done, frames, this.sourceOf);
      this.done += frames;
      await this.give(this.limiter.push(block));
    }
  }

  async end(): Promise<MixFacts> {
    await this.until(Number.POSITIVE_INFINITY);
    await this.give(this.limiter.end());
    return { loudness: this.meter.integrated, peak: this.meter.peak };
  }

  private async give(block: Stereo): Promise<void> {
    if (block[0].length === 0) return;
    this.meter.push(block);
    await this.write(block);
  }
}
