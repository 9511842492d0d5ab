import { joined, SOUND_RATE, type Stereo } from './sound';
import { PEAK_REACH, truePeakAt } from './truePeak';

/** A second-order filter: feed-forward b, feedback a (a0 is 1). */
interface Biquad {
  readonly b: readonly [number, number, number];
  readonly a: readonly [number, number];
}

/** K-weighting at 48 kHz: the shelf of the head and the high pass (ITU-R BS.1770-4, annex 1, tables 1 and 2). */
const SHELF: Biquad = {
  b: [1.53512485958697, -2.69169618940638, 1.19839281085285],
  a: [-1.69065929318241, 0.73248077421585],
};
const HIGH_PASS: Biquad = { b: [1, -2, 1], a: [-1.99004745483398, 0.99007225036621] };

/** What is quieter counts as silence: filters that die away come to numbers that processors are slow with. */
const SILENCE = 1e-24;

/** The two filters of a channel, one after the other (direct form I). */
class Weighting {
  /** The last two values of what goes in, of what the shelf makes of it, and of what the high pass makes of that. */
  private past: [x1: number, x2: number, y1: number, y2: number, z1: number, z2: number] = [0, 0, 0, 0, 0, 0];

  /** The sum of squares of some samples, weighted. They follow those of the call before. */
  squares(samples: Float32Array, from: number, to: number): number {
    const [b0, b1, b2] = SHELF.b;
    const [a1, a2] = SHELF.a;
    const [d0, d1, d2] = HIGH_PASS.b;
    const [c1, c2] = HIGH_PASS.a;
    let [x1, x2, y1, y2, z1, z2] = this.past;
    let sum = 0;
    for (let i = from; i < to; i++) {
      const x = samples[i]!;
      const y = b0 * x + b1 * x1 + b2 * x2 - a1 * y1 - a2 * y2;
      const z = d0 * y + d1 * y1 + d2 * y2 - c1 * z1 - c2 * z2;
      x2 = x1;
      x1 = x;
      y2 = y1;
      y1 = y;
      z2 = z1;
      z1 = z;
      sum += z * z;
    }
    const quiet = sum < SILENCE;
    this.past = quiet ? [x1, x2, 0, 0, 0, 0] : [x1, x2, y1, y2, z1, z2];
    return sum;
  }
}

/** Blocks of 400 ms that overlap by three quarters are sums of steps of 100 ms. */
const STEP = SOUND_RATE / 10;
const STEPS_A_BLOCK = 4;
const ABSOLUTE_GATE = -70;
const RELATIVE_GATE = -10;

const loudnessOf = (power: number) => -0.691 + 10 * Math.log10(power);

/**
 * Integrated loudness of a programme in LUFS, and its highest true peak in dBTP
 * (ITU-R BS.1770-4 with its annex 2, as EBU R 128 asks for it).
 */
export class LoudnessMeter {
  private readonly channels = [new Weighting(), new Weighting()] as const;
  private readonly steps: number[] = [];
  private sum = 0;
  private count = 0;
  private highest = 0;
  /** The end of what came before, which peaks between samples depend on. */
  private before: Stereo = [new Float32Array(0), new Float32Array(0)];

  push(block: Stereo): void {
    const length = block[0].length;
    this.findPeaks(block);
    for (let i = 0; i < length; ) {
      const end = Math.min(length, i + STEP - this.count);
      for (const channel of [0, 1] as const)
        this.sum += this.channels[channel].squares(block[channel], i, end);
      this.count += end - i;
      i = end;
      if (this.count === STEP) {
        this.steps.push(this.sum / STEP);
        this.sum = 0;
        this.count = 0;
      }
    }
  }

  private findPeaks(block: Stereo): void {
    const all: Stereo = [joined(this.before[0], block[0]), joined(this.before[1], block[1])];
    for (const samples of all) {
      // What the last places depend on comes with the next block.
      for (let i = this.before[0].length - PEAK_REACH; i < samples.length - PEAK_REACH; i++) {
        if (i >= 0) this.highest = Math.max(this.highest, truePeakAt(samples, i, this.highest));
      }
    }
    this.before = [all[0].slice(-2 * PEAK_REACH), all[1].slice(-2 * PEAK_REACH)];
  }

  /** Highest true peak in dBTP; −∞ of silence. */
  get peak(): number {
    const rest = this.before.flatMap((samples) => [...samples].map(Math.abs));
    return 20 * Math.log10(Math.max(this.highest, ...rest));
  }

  /** The power of each block. */
  private blocks(): number[] {
    const blocks: number[] = [];
    for (let i = 0; i + STEPS_A_BLOCK <= this.steps.length; i++) {
      let power = 0;
      for (let k = 0; k < STEPS_A_BLOCK; k++) power += this.steps[i + k]!;
      blocks.push(power / STEPS_A_BLOCK);
    }
    return blocks;
  }

  /** The loudest 400 ms, in LUFS: maximum momentary loudness (EBU Tech 3341); −∞ of silence. */
  get momentary(): number {
    return loudnessOf(Math.max(0, ...this.blocks()));
  }

  /**
   * Loudness over time: LUFS of equal stretches, none shorter than a block of 400 ms; −∞ where one is silent.
   * @param most stretches
   */
  course(most: number): number[] {
    const { steps } = this;
    const parts = Math.max(1, Math.min(most, Math.floor(steps.length / STEPS_A_BLOCK)));
    return Array.from({ length: steps.length > 0 ? parts : 0 }, (_, i) => {
      const [from, to] = [i, i + 1].map((n) => Math.round((n * steps.length) / parts)) as [number, number];
      return loudnessOf(steps.slice(from, to).reduce((sum, power) => sum + power, 0) / (to - from));
    });
  }

  /** LUFS; −∞ where nothing is louder than the gate, or the programme is shorter than a block. */
  get integrated(): number {
    const blocks = this.blocks();
    const mean = (list: readonly number[]) => list.reduce((s, v) => s + v, 0) / list.length;
    const heard = blocks.filter((p) => loudnessOf(p) > ABSOLUTE_GATE);
    if (heard.length === 0) return Number.NEGATIVE_INFINITY;
    const gate = loudnessOf(mean(heard)) + RELATIVE_GATE;
    return loudnessOf(mean(heard.filter((p) => loudnessOf(p) > gate)));
  }
}
