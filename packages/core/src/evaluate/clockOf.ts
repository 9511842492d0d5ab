import type { ControlFill } from '../documents/fill';
import type { Template } from '../documents/template';
import type { Size } from '../layers/kind';
import type { Clock } from '../time/clock';
import { type Moment, type Repeated, valueAt } from '../values/property';

/** Longest hold, in frames: an hour at 120 a second. What is no number at all counts as the least. */
const LONGEST = 432_000;
const between = (least: number, v: number, most: number) => (v >= least ? Math.min(v, most) : least);

/**
 * The times of a graphic.
 * @param controls what every control holds
 * @param countOf how often a part comes that is repeated: a length may go by it
 */
export function clockOf(
  { timing }: Template,
  controls: Readonly<Record<string, ControlFill>>,
  frame: Size,
  countOf: (over: Repeated) => number,
): Clock {
  const still: Moment = {
    clock: { in: timing.in, hold: 0, out: timing.out, pace: 1 },
    time: 0,
    controls: controls as Moment['controls'],
    frame,
    countOf,
  };
  return {
    in: timing.in,
    hold: between(0, valueAt(timing.hold, still), LONGEST),
    out: timing.out,
    pace: between(0.1, valueAt(timing.pace, still), 8),
  };
}
