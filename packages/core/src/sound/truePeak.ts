import { sampleAt } from './resample';

/** Values looked at from one sample to the next. ITU-R BS.1770-4, annex 2 asks for four at least. */
const STEPS = 8;
const TAPS = 24;

/** Samples before a place, and after it, that the value there depends on. */
export const PEAK_REACH = TAPS / 2;

/** Weights of the samples around, for each place between two: the same interpolation as that of the mix. */
const PHASES = Array.from({ length: STEPS - 1 }, (_, step) =>
  Float64Array.from({ length: TAPS }, (_, k) => {
    const one = new Float32Array(TAPS);
    one[k] = 1;
    return sampleAt(one, PEAK_REACH - 1 + (step + 1) / STEPS, 1);
  }),
);

/** The place in the middle. */
const MIDDLE = PHASES[STEPS / 2 - 1]!;

/**
 * What lies between is not higher than this many times the highest of two samples and their middle, for anything up to
 * 20 kHz: a wave of 0.42 of the rate is at most a quarter of a sample away from its crest, where it has 1/1.27 of it.
 */
const MOST_BETWEEN = 1.3;
/** The middle of two samples is not higher than this many times the highest of the four around it, in anything heard. */
const MOST_MIDDLE = 2;

const size = (samples: Float32Array, i: number) => Math.abs(samples[i] ?? 0);

function between(samples: Float32Array, from: number, phase: Float64Array): number {
  let sum = 0;
  if (from >= 0 && from + TAPS <= samples.length) {
    for (let k = 0; k < TAPS; k++) sum += phase[k]! * samples[from + k]!;
  } else {
    for (let k = 0; k < TAPS; k++) sum += phase[k]! * (samples[from + k] ?? 0);
  }
  return Math.abs(sum);
}

/**
 * The highest value, of either sign, that the signal reaches from sample `i` to the next; beyond its ends it is silent.
 * @param floor what lies below it need not be known exactly
 */
export function truePeakAt(samples: Float32Array, i: number, floor = 0): number {
  const own = size(samples, i);
  const ends = Math.max(own, size(samples, i + 1));
  if (Math.max(ends, size(samples, i - 1), size(samples, i + 2)) * MOST_MIDDLE <= floor) return own;
  const from = i - PEAK_REACH + 1;
  const middle = between(samples, from, MIDDLE);
  let peak = Math.max(own, middle);
  if (Math.max(ends, middle) * MOST_BETWEEN <= floor) return peak;
  for (const phase of PHASES) {
    if (phase !== MIDDLE) peak = Math.max(peak, between(samples, from, phase));
  }
  return peak;
}
