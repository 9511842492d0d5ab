import { isKeyed } from '../documents/controls';
import type { ControlFill, ControlKey, ControlValue } from '../documents/fill';
import type { Easing } from '../motion/easing';
import { type Clock, type Mark, markTime, type Stretch } from '../time/clock';

/** Keys nearer than this, in frames, are one. */
const SAME = 0.5;

/** The stretch a time lies in. Where all of it is one stretch, its end belongs to it too. */
export function stretchAt(clock: Clock, time: number): Stretch {
  if (time < clock.in || clock.hold + clock.out === 0) return 'in';
  return time <= clock.in + clock.hold ? 'hold' : 'out';
}

/** A time as a mark of a stretch, whole frames: of the one it lies in, when none is named. */
export function markAt(clock: Clock, time: number, of: Stretch = stretchAt(clock, time)): Mark {
  return { at: Math.round(time - markTime(clock, { at: 0, of })), of };
}

/** A control's keys in the order of time; none when it holds one value. */
export function keysOf(held: ControlFill | undefined, clock: Clock): readonly ControlKey[] {
  return isKeyed(held) ? sorted(held.keys, clock) : [];
}

function sorted(keys: readonly ControlKey[], clock: Clock): ControlKey[] {
  return [...keys].sort((a, b) => markTime(clock, a) - markTime(clock, b));
}

/** Puts a value at a time: into the key that is there, or into a new one. A plain value becomes the first key. */
export function putKey(held: ControlFill, clock: Clock, time: number, value: ControlValue): ControlFill {
  const keys = keysOf(held, clock);
  const at = keys.findIndex((k) => Math.abs(markTime(clock, k) - time) < SAME);
  if (at >= 0) return { keys: keys.map((k, i) => (i === at ? { ...k, value } : k)) };
  return { keys: sorted([...keys, { ...markAt(clock, time), value }], clock) };
}

/** Takes a key away; with the last one its value stays. */
export function removeKey(held: ControlFill, clock: Clock, index: number): ControlFill {
  const keys = keysOf(held, clock);
  const gone = keys[index];
  if (!gone) return held;
  return keys.length === 1 ? gone.value : { keys: keys.filter((_, i) => i !== index) };
}

/** Moves a key to a time, within its neighbours; it may change its stretch. */
export function moveKey(held: ControlFill, clock: Clock, index: number, time: number): ControlFill {
  const keys = keysOf(held, clock);
  const key = keys[index];
  if (!key) return held;
  const [before, after] = [keys[index - 1], keys[index + 1]];
  const least = before ? markTime(clock, before) + 1 : 0;
  const most = after ? markTime(clock, after) - 1 : clock.in + clock.hold + clock.out;
  const placed = { ...key, ...markAt(clock, Math.min(most, Math.max(least, time))) };
  return { keys: keys.map((k, i) => (i === index ? placed : k)) };
}

/** Copies a key to a time. */
export function copyKey(held: ControlFill, clock: Clock, index: number, time: number): ControlFill {
  const key = keysOf(held, clock)[index];
  if (!key) return held;
  const put = putKey(held, clock, time, key.value);
  if (!isKeyed(put) || !key.ease) return put;
  const { ease } = key;
  return {
    keys: put.keys.map((k) => (Math.abs(markTime(clock, k) - time) < SAME ? { ...k, ease } : k)),
  };
}

/** Says to which stretch a key belongs; its time now stays as it is. */
export function ownKey(held: ControlFill, clock: Clock, index: number, of: Stretch): ControlFill {
  const keys = keysOf(held, clock);
  return {
    keys: keys.map((k, i) => (i === index ? { ...k, ...markAt(clock, markTime(clock, k), of) } : k)),
  };
}

/** The curve from a key to the next. */
export function easeKey(held: ControlFill, clock: Clock, index: number, ease: Easing): ControlFill {
  return { keys: keysOf(held, clock).map((k, i) => (i === index ? { ...k, ease } : k)) };
}

/** The key before or after a time. */
export function nextKey(
  held: ControlFill | undefined,
  clock: Clock,
  time: number,
  way: 1 | -1,
): number | undefined {
  const times = keysOf(held, clock).map((k) => markTime(clock, k));
  return way === 1 ? times.find((t) => t > time + SAME) : times.findLast((t) => t < time - SAME);
}

/** The number of the key at a time. */
export function keyAt(held: ControlFill | undefined, clock: Clock, time: number): number | undefined {
  const found = keysOf(held, clock).findIndex((k) => Math.abs(markTime(clock, k) - time) < SAME);
  return found < 0 ? undefined : found;
}
