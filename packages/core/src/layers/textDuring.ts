import { easingFunction } from '../motion/easing';
import { noiseAt } from '../motion/random';
import { markTime } from '../time/clock';
import type { TextDuring } from './motionSchema';
import { ranksOf, type StateTools } from './textMotion';
import { AT_REST, type UnitState } from './unitState';

/** The state of every unit at a moment: swings about rest, all in closed form. */
export function duringStates(
  during: TextDuring,
  count: number,
  { moment, value, memo }: StateTools,
): (UnitState | undefined)[] {
  const { clock, time } = moment;
  const from = during.from ? markTime(clock, during.from) : 0;
  const to = during.to ? markTime(clock, during.to) : clock.in + clock.hold + clock.out;
  // A control may hold less than any constant could.
  const every = Math.max(0.01, value(during.every));
  const stagger = value(during.stagger);
  const rise = value(during.rise);
  const [move, turn, scale] = [value(during.move), value(during.turn), value(during.scale)];
  const fade = value(during.fade);
  const ranks = ranksOf(count, value(during.order), during.seed, memo);
  return ranks.map((rank, unit): UnitState | undefined => {
    // What goes one way stays where it has come to; what swings is at rest before and after.
    const goesOn = during.course === 'once' || during.course === 'round';
    const since = (goesOn ? Math.min(time, to) : time) - from - rank * stagger;
    const left = to - time;
    if (goesOn ? since <= 0 : time < from || left < 0) return undefined;
    const amount = rise > 0 ? Math.min(1, Math.max(0, (time - from) / rise), Math.max(0, left / rise)) : 1;
    const at = (channel: number) => amount * courseAt(during, since, every, to - from, unit, channel);
    return {
      ...AT_REST,
      move: [move[0] * at(0), move[1] * at(1), move[2] * at(2)],
      turn: [turn[0] * at(3), turn[1] * at(4), turn[2] * at(5)],
      scale: [1 + scale[0] * at(6), 1 + scale[1] * at(6)],
      opacity: Math.min(1, Math.max(0, 1 - fade * (0.5 + at(7) / 2))),
    };
  });
}

const GENTLE = easingFunction('ease-in-out');

/** The course's value: −1..1, growing without end when it goes round, and always 1 when it is held. */
function courseAt(
  { course, seed }: TextDuring,
  since: number,
  every: number,
  length: number,
  unit: number,
  channel: number,
): number {
  switch (course) {
    case 'back-and-forth':
      return Math.sin((2 * Math.PI * since) / every);
    case 'round':
      return since / every;
    case 'at-random':
      return noiseAt(seed * 31 + unit, channel, since / every);
    case 'held':
      return 1;
    case 'once':
      return GENTLE(Math.min(1, Math.max(0, length > 0 ? since / length : 1)));
  }
}
