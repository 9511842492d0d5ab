import FFT from 'fft.js';

/** Samples of a window, and from one window to the next, at the rates sound comes in (44.1 and 48 kHz). */
const WINDOW = 1024;
const HOP = 512;
/** Beats a minute that are looked for; most music lies about the middle (common practice). */
const [SLOWEST, FASTEST, USUAL] = [60, 190, 115];
/** How much a beat off the tempo costs against how strong its onset is (Ellis uses about 100 for strengths of one). */
const TIGHT = 100;

/**
 * Finds the beats of music while its sound goes by. How much the spectrum grows from one window to the next (spectral
 * flux, Dixon, Onset Detection Revisited, 2006) gives the onsets; the beats are the row of onsets that is strongest and
 * most even (Ellis, Beat Tracking by Dynamic Programming, 2007).
 */
export class BeatFinder {
  private readonly fft = new FFT(WINDOW);
  private readonly window = Float64Array.from(
    { length: WINDOW },
    (_, i) => 0.5 - 0.5 * Math.cos((2 * Math.PI * (i + 0.5)) / WINDOW),
  );
  private readonly held = new Float64Array(WINDOW);
  private readonly windowed = new Array<number>(WINDOW).fill(0);
  private filled = 0;
  private before = new Float64Array(WINDOW / 2);
  private after = new Float64Array(WINDOW / 2);
  private readonly spectrum = this.fft.createComplexArray() as number[];
  private readonly flux: number[] = [];

  /** @param rate samples a second */
  constructor(private readonly rate: number) {}

  /** Takes the next samples of one channel. */
  add(samples: Float32Array): void {
    for (const sample of samples) {
      this.held[this.filled++] = sample;
      if (this.filled < WINDOW) continue;
      this.step();
      this.held.copyWithin(0, HOP);
      this.filled = WINDOW - HOP;
    }
  }

  private step(): void {
    for (let i = 0; i < WINDOW; i++) this.windowed[i] = this.held[i]! * this.window[i]!;
    this.fft.realTransform(this.spectrum, this.windowed);
    let sum = 0;
    for (let i = 0; i < WINDOW / 2; i++) {
      // Loudness is heard in steps of its logarithm.
      const size = Math.log1p(100 * Math.hypot(this.spectrum[2 * i]!, this.spectrum[2 * i + 1]!));
      this.after[i] = size;
      sum += Math.max(0, size - this.before[i]!);
    }
    [this.before, this.after] = [this.after, this.before];
    this.flux.push(this.flux.length === 0 ? 0 : sum);
  }

  /** The beats so far, in seconds; none where there is no music that beats. */
  beats(): number[] {
    const onsets = standOut(this.flux);
    const perSecond = this.rate / HOP;
    const period = periodOf(onsets, perSecond);
    if (!period) return [];
    // A window's energy is that of its middle, where a Hann window weighs most.
    return bestRow(onsets, period).map((n) => (n * HOP + WINDOW / 2) / this.rate);
  }
}

/** Onsets against what is around them: what is no more than the mean of its neighbourhood counts for nothing. */
function standOut(flux: readonly number[]): Float64Array {
  const [n, reach] = [flux.length, 16];
  const sums = new Float64Array(n + 1);
  for (let i = 0; i < n; i++) sums[i + 1] = sums[i]! + flux[i]!;
  const onsets = Float64Array.from(flux, (value, i) => {
    const [from, to] = [Math.max(0, i - reach), Math.min(n, i + reach + 1)];
    return Math.max(0, value - (sums[to]! - sums[from]!) / (to - from));
  });
  const mean = onsets.reduce((a, b) => a + b, 0) / Math.max(1, n);
  const spread = Math.sqrt(onsets.reduce((a, b) => a + (b - mean) ** 2, 0) / Math.max(1, n));
  return spread > 1e-9 ? onsets.map((v) => v / spread) : new Float64Array(n);
}

/** Windows from beat to beat, by how well the onsets agree with themselves so much later. */
function periodOf(onsets: Float64Array, perSecond: number): number | undefined {
  const [least, most] = [(60 / FASTEST) * perSecond, (60 / SLOWEST) * perSecond];
  if (onsets.length < most * 2) return undefined;
  const energy = onsets.reduce((a, b) => a + b * b, 0);
  let [best, found] = [0, 0];
  for (let lag = Math.floor(least); lag <= most; lag++) {
    let sum = 0;
    for (let i = lag; i < onsets.length; i++)
      sum +=
        onsets[i]! *
        Math.max(onsets[i - lag]!, 0.5 * (onsets[i - lag + 1] ?? 0), 0.5 * (onsets[i - lag - 1] ?? 0));
    // Of a tempo, its double and its half, the most usual is meant.
    const octaves = Math.log2((60 * perSecond) / lag / USUAL);
    const weight = Math.exp(-0.5 * (octaves / 0.9) ** 2);
    if (sum * weight > best) [best, found] = [sum * weight, lag];
  }
  return best > 0.1 * energy ? found : undefined;
}

/** The row of windows that is strongest and most evenly apart. */
function bestRow(onsets: Float64Array, period: number): number[] {
  const n = onsets.length;
  const score = Float64Array.from(onsets);
  const from = new Int32Array(n).fill(-1);
  for (let i = 0; i < n; i++) {
    let [best, at] = [0, -1];
    for (let j = Math.max(0, Math.round(i - 2 * period)); j <= i - period / 2; j++) {
      const value = score[j]! - TIGHT * Math.log((i - j) / period) ** 2;
      if (value > best) [best, at] = [value, j];
    }
    score[i] = onsets[i]! + best;
    from[i] = at;
  }
  // It ends with the best of the last period.
  let last = n - 1;
  for (let i = Math.max(0, Math.round(n - period)); i < n; i++) if (score[i]! > score[last]!) last = i;
  const row: number[] = [];
  for (let i = last; i >= 0; i = from[i]!) row.push(i);
  row.reverse();
  // Before the first onset and after the last there is no music to beat to.
  const heard = (i: number) => Math.max(...onsets.subarray(Math.max(0, i - 3), i + 4)) > 0.5;
  const [first, end] = [row.findIndex(heard), row.findLastIndex(heard)];
  return first < 0 ? [] : row.slice(first, end + 1);
}
