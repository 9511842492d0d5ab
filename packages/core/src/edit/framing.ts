import { isKeyed } from '../documents/controls';
import type { ControlFill } from '../documents/fill';
import type { Framing, ReelItem } from '../documents/item';
import type { Reel } from '../documents/reel';
import { invertAffine } from '../geometry/matrix';
import type { Size } from '../layers/kind';
import { framedAt, onFrame } from '../reel/framing';
import { lengthOf } from '../reel/itemLength';
import type { Clock } from '../time/clock';
import { changeItem, given, itemOf } from './items';
import { putKey } from './keyframes';

/** What of an item's framing can change over time. */
export const FRAMING_KEYS = ['move', 'scale', 'turn', 'opacity', 'crop'] as const;
export type FramingKey = (typeof FRAMING_KEYS)[number];
type FramingValue = number | readonly number[];

const AT_REST: Readonly<Record<FramingKey, FramingValue>> = {
  move: [0, 0],
  scale: 1,
  turn: 0,
  opacity: 1,
  crop: [0, 0, 0, 0],
};

/** The clock that keyframes of an item's framing count by: frames of the reel from where it begins. */
export function framingClock(reel: Reel, item: ReelItem): Clock {
  return { in: lengthOf(reel, item), hold: 0, out: 0, pace: 1 };
}

/** What is set of an item's framing: one value, or keys. */
export function framingHeld(item: ReelItem, key: FramingKey): ControlFill {
  return (item.framing?.[key] ?? AT_REST[key]) as ControlFill;
}

/** Sets a part of an item's framing; what is as it comes is not kept. */
export function holdFraming<K extends keyof Framing>(
  reel: Reel,
  id: string,
  key: K,
  value: Framing[K] | undefined,
): Reel {
  return changeItem(reel, id, (item) => {
    const rests = key === 'blend' ? 'normal' : AT_REST[key as FramingKey];
    const kept = JSON.stringify(value) === JSON.stringify(rests) ? undefined : value;
    const framing = given({ ...item.framing, [key]: kept });
    return given({
      ...item,
      framing: Object.keys(framing).length > 0 ? framing : undefined,
    }) as ReelItem;
  });
}

/**
 * Puts a value of an item's framing: where it has keyframes, into the one at a frame of the reel, or into a new one.
 * @param frame of the reel
 */
export function putFraming(
  reel: Reel,
  id: string,
  key: FramingKey,
  value: FramingValue,
  frame: number,
): Reel {
  const item = itemOf(reel, id)?.item;
  if (!item) return reel;
  const held = framingHeld(item, key);
  const next = isKeyed(held)
    ? putKey(held, framingClock(reel, item), inItem(reel, item, frame), value as never)
    : value;
  return holdFraming(reel, id, key, next as Framing[FramingKey]);
}

/** A frame of the reel as one of the item's, within it. */
function inItem(reel: Reel, item: ReelItem, frame: number): number {
  return Math.min(lengthOf(reel, item) - 1, Math.max(0, frame - item.start));
}

/** How an item lies at a frame of the reel. */
export function framedIn(reel: Reel, item: ReelItem, frame: number, size: Size) {
  return framedAt(item.framing, inItem(reel, item, frame), size);
}

/**
 * Scales and turns an item so that a point of the picture stays where it is.
 * @param about the point, in frame units
 * @param to what is to change
 */
export function turnAbout(
  reel: Reel,
  id: string,
  about: readonly [number, number],
  to: { readonly scale?: number; readonly turn?: number },
  frame: number,
  size: Size,
): Reel {
  const item = itemOf(reel, id)?.item;
  if (!item) return reel;
  const before = framedIn(reel, item, frame, size).matrix;
  let next = reel;
  if (to.scale !== undefined) next = putFraming(next, id, 'scale', to.scale, frame);
  if (to.turn !== undefined) next = putFraming(next, id, 'turn', to.turn, frame);
  const changed = itemOf(next, id)!.item;
  const after = framedIn(next, changed, frame, size);
  const inverse = invertAffine(before);
  if (!inverse) return next;
  const [x, y] = onFrame(after.matrix, onFrame(inverse, about));
  const { move } = after;
  return putFraming(next, id, 'move', [round(move[0] + about[0] - x), round(move[1] + about[1] - y)], frame);
}

const round = (v: number) => Math.round(v * 100) / 100;

/** Frames over which an item comes and goes: its picture, or the sound of what has no picture. */
export function fadesOf(item: ReelItem): {
  readonly in?: number | undefined;
  readonly out?: number | undefined;
} {
  return item.kind === 'sound'
    ? { in: item.soundIn, out: item.soundOut }
    : { in: item.fadeIn, out: item.fadeOut };
}

/** Sets over how many frames an item comes or goes; the two never overlap. */
export function setFade(reel: Reel, id: string, side: 'in' | 'out', frames: number): Reel {
  return changeItem(reel, id, (item) => {
    const most = lengthOf(reel, item) - (fadesOf(item)[side === 'in' ? 'out' : 'in'] ?? 0);
    const whole = Math.min(most, Math.max(0, Math.round(frames))) || undefined;
    const name = `${item.kind === 'sound' ? 'sound' : 'fade'}${side === 'in' ? 'In' : 'Out'}`;
    return given({ ...item, [name]: whole }) as ReelItem;
  });
}
