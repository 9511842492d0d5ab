/** A frame rate as an exact fraction, frames per second = num / den. */
export interface Rate {
  readonly num: number;
  readonly den: number;
}

/**
 * The rates offered for rendering. 23.976, 29.97 and 59.94 are exact n·1000/1001 fractions (SMPTE ST 12-1 §4).
 * Common practice: smooth titles go out at 59.94.
 */
export const OFFERED_RATES: readonly Rate[] = [
  { num: 24000, den: 1001 },
  { num: 24, den: 1 },
  { num: 25, den: 1 },
  { num: 30000, den: 1001 },
  { num: 30, den: 1 },
  { num: 50, den: 1 },
  { num: 60000, den: 1001 },
  { num: 60, den: 1 },
];

/** `24000/1001` for a fraction, `25` for a whole rate: the form documents and the command line use. */
export function rateText(rate: Rate): string {
  return rate.den === 1 ? String(rate.num) : `${rate.num}/${rate.den}`;
}

/** Whether something counts in frames: 1 to 240 a second. */
export const isRate = ({ num, den }: Rate): boolean => num >= den && num <= 240 * den;

/** How an editor writes a rate: 23.976, 25, 29.97, 59.94. */
export function rateLabel(rate: Rate): string {
  const value = rate.num / rate.den;
  if (Number.isInteger(value)) return String(value);
  return value < 24 ? value.toFixed(3) : value.toFixed(2);
}

/**
 * Reads `60`, `60000/1001`.
 * @throws {Error} when the text is not a rate from 1 to 240 frames a second.
 */
export function parseRate(text: string): Rate {
  const match = /^\s*(\d{1,7})(?:\s*\/\s*(\d{1,5}))?\s*$/.exec(text);
  const num = match ? Number(match[1]) : 0;
  const den = match?.[2] ? Number(match[2]) : 1;
  if (!match || den <= 0 || !isRate({ num, den })) {
    throw new Error(
      `"${text}" is not a frame rate. Write a whole number such as 25, or a fraction such as 60000/1001.`,
    );
  }
  return { num, den };
}

/** The exact rate that a measured one stands for: an offered one within 0.04%, else the nearest whole one, 1 to 240. */
export function nearestRate(measured: number): Rate {
  const near = (rate: Rate) => Math.abs(rate.num / rate.den / measured - 1);
  const [best] = [...OFFERED_RATES].sort((a, b) => near(a) - near(b));
  if (near(best!) <= 0.0004) return best!;
  return { num: Math.min(240, Math.max(1, Math.round(measured) || 25)), den: 1 };
}

export function sameRate(a: Rate, b: Rate): boolean {
  return a.num * b.den === b.num * a.den;
}

/** Seconds at which frame `frame` starts. */
export function secondsAt(frame: number, rate: Rate): number {
  return (frame * rate.den) / rate.num;
}

/** Frames that so many seconds take, fractional. */
export function framesIn(seconds: number, rate: Rate): number {
  return (seconds * rate.num) / rate.den;
}

/** Position of frame `frame` of rate `from`, in (fractional) frames of rate `to`. Exact in the product. */
export function convertFrames(frame: number, from: Rate, to: Rate): number {
  return (frame * from.den * to.num) / (from.num * to.den);
}
