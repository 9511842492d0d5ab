import { SOUND_RATE } from './sound';

/** Samples to each side that a value between samples is made of. */
const REACH = 12;
/** Values of the kernel kept between two samples. */
const STEPS = 512;

/** A sinc under a Blackman window, `REACH` samples to each side (windowed-sinc interpolation). */
const KERNEL = Float64Array.from({ length: REACH * STEPS + 1 }, (_, i) => {
  const x = i / STEPS;
  if (x === 0) return 1;
  const a = Math.PI * x;
  const w = Math.PI * (x / REACH);
  return (Math.sin(a) / a) * (0.42 + 0.5 * Math.cos(w) + 0.08 * Math.cos(2 * w));
});

/** Samples to each side that a value is made of when a sound plays at a speed. */
export const reachAt = (speed: number) => REACH * Math.max(1, speed);

/**
 * The value between samples at a position; beyond the ends it is silent.
 * @param cutoff below 1 lets only that part of the band through: what plays faster, or goes down in rate, must not
 * bring what would lie above half the rate
 */
export function sampleAt(samples: Float32Array, position: number, cutoff: number): number {
  const reach = REACH / cutoff;
  const from = Math.max(0, Math.ceil(position - reach));
  const to = Math.min(samples.length - 1, Math.floor(position + reach));
  let sum = 0;
  for (let i = from; i <= to; i++) {
    const x = Math.abs(position - i) * cutoff * STEPS;
    const n = Math.floor(x);
    const k = KERNEL[n]! + (x - n) * ((KERNEL[n + 1] ?? 0) - KERNEL[n]!);
    sum += samples[i]! * k;
  }
  return sum * cutoff;
}

/**
 * A stretch of a sound at 48 kHz, from samples of another rate.
 * @param first position, in samples of that rate, of the first one given
 * @param from sample frame at 48 kHz, and how many from there
 */
export function toSoundRate(
  samples: Float32Array,
  rate: number,
  first: number,
  from: number,
  count: number,
): Float32Array {
  const out = new Float32Array(count);
  const step = rate / SOUND_RATE;
  const cutoff = Math.min(1, 1 / step);
  for (let i = 0; i < count; i++) {
    const position = (from + i) * step - first;
    out[i] = rate === SOUND_RATE ? (samples[Math.round(position)] ?? 0) : sampleAt(samples, position, cutoff);
  }
  return out;
}
