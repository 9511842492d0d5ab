import type { ControlFill } from '../documents/fill';
import { type Clock, markTime } from '../time/clock';
import { valueAt } from '../values/property';
import {
  copyKey,
  easeKey,
  keyAt,
  keysOf,
  markAt,
  moveKey,
  nextKey,
  ownKey,
  putKey,
  removeKey,
} from './keyframes';

const clock: Clock = { in: 60, hold: 100, out: 40, pace: 1 };
const longer: Clock = { ...clock, hold: 300 };
const times = (held: ControlFill, c = clock) => keysOf(held, c).map((k) => markTime(c, k));
const at = (held: ControlFill, time: number, c = clock) =>
  valueAt(held as Parameters<typeof valueAt<number>>[0], {
    clock: c,
    time,
    controls: {},
    frame: { width: 1, height: 1 },
  });

describe('keyframes', () => {
  const three = putKey(putKey(putKey(10, clock, 30, 0), clock, 110, 50), clock, 190, 100);

  it('belong to the stretch they are put in', () => {
    expect(keysOf(three, clock).map((k) => k.of)).toEqual(['in', 'hold', 'out']);
    expect(markAt(clock, 60)).toEqual({ at: 0, of: 'hold' });
    expect(markAt(clock, 170, 'in')).toEqual({ at: 170, of: 'in' });
  });

  it('keep the entrance and the exit when the hold grows', () => {
    expect(times(three)).toEqual([30, 110, 190]);
    expect(times(three, longer)).toEqual([30, 110, 390]);
    expect(at(three, 30, longer)).toBe(0);
    expect(at(three, 390, longer)).toBe(100);
  });

  it('are added, changed in place, moved within their neighbours, copied and removed', () => {
    expect(times(putKey(three, clock, 110, 7))).toEqual([30, 110, 190]);
    expect(at(putKey(three, clock, 110, 7), 110)).toBe(7);
    expect(times(moveKey(three, clock, 1, 500))).toEqual([30, 189, 190]);
    expect(times(moveKey(three, clock, 0, -50))).toEqual([0, 110, 190]);
    const eased = easeKey(three, clock, 0, 'linear');
    const copied = copyKey(eased, clock, 0, 150);
    expect(times(copied)).toEqual([30, 110, 150, 190]);
    expect(keysOf(copied, clock)[2]).toMatchObject({ value: 0, ease: 'linear' });
    const one = removeKey(removeKey(three, clock, 2), clock, 0);
    expect(removeKey(one, clock, 0)).toBe(50);
  });

  it('can be given to another stretch without moving now', () => {
    const owned = ownKey(three, clock, 1, 'out');
    expect(times(owned)).toEqual([30, 110, 190]);
    expect(times(owned, longer)).toEqual([30, 310, 390]);
  });

  it('are found from a time', () => {
    expect(nextKey(three, clock, 110, 1)).toBe(190);
    expect(nextKey(three, clock, 110, -1)).toBe(30);
    expect(nextKey(three, clock, 190, 1)).toBeUndefined();
    expect(keyAt(three, clock, 110.3)).toBe(1);
    expect(keyAt(5, clock, 110)).toBeUndefined();
  });

  it('follow their curve between them', () => {
    const line = easeKey(three, clock, 0, 'linear');
    expect(at(line, 70)).toBeCloseTo(25, 9);
    expect(at(easeKey(three, clock, 0, 'step-end'), 109)).toBe(0);
  });
});
