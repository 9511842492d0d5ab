import { gainOf } from './play';
import { joined, type Stereo } from './sound';
import { PEAK_REACH, truePeakAt } from './truePeak';

/** Highest true peak of a mix, in dBTP (EBU R 128). */
export const CEILING = -1;

/** Decibels. */
const HAIR = 0.05;

/** How far ahead it looks, in sample frames: 5 ms. */
const AHEAD = 240;

/**
 * Keeps true peaks (ITU-R BS.1770-4, annex 2) below a ceiling without clipping: where they would pass it, the level goes down a little before and
 * comes back a little after. What stays below is passed on as it is. Output comes `AHEAD` frames late, which `push`
 * and `end` make up for: together they give as many frames as went in.
 */
export class Limiter {
  private readonly ceiling: number;
  /** The samples, and what each would need, that are still waiting. */
  private left = new Float32Array(0);
  private right = new Float32Array(0);
  private started = false;
  private readonly past = new Float32Array(AHEAD).fill(1);
  /** The last samples given out, which peaks between samples still depend on. */
  private before: Stereo = [new Float32Array(PEAK_REACH), new Float32Array(PEAK_REACH)];

  /** @param decibels highest peak */
  constructor(decibels = CEILING) {
    // A hair below, for the rounding of files and for what meters of other makes find.
    this.ceiling = gainOf(decibels - HAIR);
  }

  push(block: Stereo): Stereo {
    this.left = joined(this.left, block[0]);
    this.right = joined(this.right, block[1]);
    return this.take(Math.max(0, this.left.length - AHEAD * 2));
  }

  end(): Stereo {
    return this.take(this.left.length);
  }

  private take(count: number): Stereo {
    const length = this.left.length;
    const need = new Float32Array(length);
    const all = [joined(this.before[0], this.left), joined(this.before[1], this.right)] as const;
    need.fill(1);
    // A peak between two samples asks for less of both. The one before the first was given out with what it needed.
    for (let i = 0; i < length; i++) {
      const peak = Math.max(
        truePeakAt(all[0], i + PEAK_REACH, this.ceiling),
        truePeakAt(all[1], i + PEAK_REACH, this.ceiling),
      );
      if (peak <= this.ceiling) continue;
      const least = this.ceiling / peak;
      need[i] = Math.min(need[i]!, least);
      if (i + 1 < length) need[i + 1] = Math.min(need[i + 1]!, least);
    }
    // The least that anything within reach needs, then its mean over the same reach: never above what is needed.
    const least = slidingLeast(need, AHEAD);
    const out: Stereo = [new Float32Array(count), new Float32Array(count)];
    const history = this.started ? this.past : new Float32Array(AHEAD).fill(least[0] ?? 1);
    let sum = 0;
    const gains = joined(history, least);
    for (let i = 0; i < AHEAD; i++) sum += gains[i]!;
    for (let i = 0; i < count; i++) {
      sum += gains[i + AHEAD]! - gains[i]!;
      const gain = sum / AHEAD;
      out[0][i] = this.left[i]! * gain;
      out[1][i] = this.right[i]! * gain;
    }
    if (count > 0) {
      this.past.set(gains.subarray(count, count + AHEAD));
      this.before = [all[0].slice(count, count + PEAK_REACH), all[1].slice(count, count + PEAK_REACH)];
      this.started = true;
    }
    this.left = this.left.slice(count);
    this.right = this.right.slice(count);
    return out;
  }
}

/** The least of each value and the `reach` − 1 after it. */
function slidingLeast(values: Float32Array, reach: number): Float32Array {
  const out = new Float32Array(values.length);
  const queue: number[] = [];
  let head = 0;
  for (let i = values.length - 1; i >= 0; i--) {
    while (queue.length > head && values[queue.at(-1)!]! >= values[i]!) queue.pop();
    queue.push(i);
    if (queue[head]! >= i + reach) head++;
    out[i] = values[queue[head]!]!;
  }
  return out;
}
