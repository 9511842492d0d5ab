import type { Rate } from './rate';

/** Nominal frames counted per timecode second: 30 for 29.97, 24 for 23.976. */
export function nominal(rate: Rate): number {
  return Math.round(rate.num / rate.den);
}

/** Drop-frame counting exists for 30000/1001 and 60000/1001 alone (SMPTE ST 12-1, 5.2.2). */
export function canDropFrames(rate: Rate): boolean {
  return rate.den === 1001 && (nominal(rate) === 30 || nominal(rate) === 60);
}

/** How many numbers are dropped at the start of each minute but every tenth. */
function dropped(rate: Rate): number {
  return nominal(rate) / 15;
}

/**
 * Timecode of a frame, `HH:MM:SS:FF`, or `HH:MM:SS;FF` when numbers are dropped so that the clock keeps up with
 * real time. Method: SMPTE ST 12-1. Wraps after 24 hours.
 * @param frame frame number, 0 or more
 */
export function timecodeAt(frame: number, rate: Rate, drop = canDropFrames(rate)): string {
  const fps = nominal(rate);
  let count = Math.floor(frame);
  const counting = drop && canDropFrames(rate);
  if (counting) {
    const skip = dropped(rate);
    const perMinute = fps * 60 - skip;
    const perTenMinutes = perMinute * 10 + skip;
    const day = perTenMinutes * 144;
    count %= day;
    const tens = Math.floor(count / perTenMinutes);
    const rest = count % perTenMinutes;
    count += skip * 9 * tens + (rest > skip ? skip * Math.floor((rest - skip) / perMinute) : 0);
  } else {
    count %= fps * 86400;
  }
  const two = (n: number) => String(n).padStart(2, '0');
  const seconds = Math.floor(count / fps);
  return `${two(Math.floor(seconds / 3600))}:${two(Math.floor(seconds / 60) % 60)}:${two(seconds % 60)}${
    counting ? ';' : ':'
  }${two(count % fps)}`;
}

/**
 * Frame number of a timecode. A `;` before the frames means drop-frame.
 * @throws {Error} when the text is not a timecode of this rate, or names a number that drop-frame counting skips.
 */
export function frameOfTimecode(text: string, rate: Rate): number {
  const match = /^(\d{2}):(\d{2}):(\d{2})([:;])(\d{2})$/.exec(text.trim());
  const fps = nominal(rate);
  if (!match) throw new Error(`"${text}" is not a timecode. Write it as 00:00:02:12.`);
  const [h, m, s, f] = [match[1], match[2], match[3], match[5]].map(Number) as [
    number,
    number,
    number,
    number,
  ];
  if (h > 23 || m > 59 || s > 59 || f >= fps) {
    throw new Error(`"${text}" is past what a timecode at ${fps} frames a second can say.`);
  }
  const total = ((h * 60 + m) * 60 + s) * fps + f;
  if (match[4] !== ';') return total;
  if (!canDropFrames(rate)) throw new Error(`"${text}" drops frames, which a rate of ${fps} does not.`);
  const skip = dropped(rate);
  if (s === 0 && f < skip && m % 10 !== 0) {
    throw new Error(`"${text}" does not exist: drop-frame timecode skips it.`);
  }
  const minutes = h * 60 + m;
  return total - skip * (minutes - Math.floor(minutes / 10));
}
