import type { Memo } from '../memo';
import { easingFunction } from '../motion/easing';
import { fittingStagger, type Order, startRanks } from '../motion/stagger';
import { typedAt, typingOf } from '../motion/typing';
import { markTime } from '../time/clock';
import type { LayerContext } from './kind';
import type { TextMotion } from './motionSchema';
import { AT_REST, HIDDEN, type UnitState } from './unitState';

/** States of all units; `undefined` for units at rest, which is how most are most of the time. */
export interface UnitStates {
  readonly states: readonly (UnitState | undefined)[];
  /** Where the cursor stands: after this many units of the ones that take part. */
  readonly cursor?: number;
}

/** Ranks of an order; kept, since they are asked for in every frame. */
export function ranksOf(count: number, order: Order, seed: number, memo: Memo): number[] {
  return memo.of(`ranks/${count}/${order}/${seed}`, () => startRanks(count, order, seed));
}

/** What the states of units are made with. */
export type StateTools = Pick<LayerContext, 'moment' | 'value' | 'memo'>;

/** Units that end a word, for typing. */
export type EndsWord = (unit: number) => boolean;

/**
 * The state of every unit at a moment. A motion always ends within its stretch: first the stagger gives way, then the
 * length; a stretch without length shows its end at once.
 * @param count units that take part, in reading order
 */
export function unitStates(
  motion: TextMotion,
  goes: 'in' | 'out',
  count: number,
  tools: StateTools,
  endsWord: EndsWord = () => false,
): UnitStates {
  const { value } = tools;
  const { clock, time } = tools.moment;
  const start = markTime(clock, motion.start);
  const end = clock.in + clock.hold + clock.out;
  const latest = goes === 'in' && motion.start.of === 'in' ? clock.in : end;
  const available = Math.max(0, latest - start);
  const { typing } = motion.away;
  if (typing) return typed(motion, goes, count, time - start, available, tools, endsWord);

  const length = Math.min(value(motion.length), available);
  const ranks = ranksOf(count, value(motion.order), motion.seed, tools.memo);
  const stagger = fittingStagger(value(motion.stagger), ranks, length, available);
  const curve = easingFunction(motion.ease);
  const away = {
    opacity: value(motion.away.opacity),
    move: value(motion.away.move),
    turn: value(motion.away.turn),
    scale: value(motion.away.scale),
    blur: value(motion.away.blur),
    spread: value(motion.away.spread),
  };
  const { wipe, scramble } = motion.away;
  const draw = motion.away.draw === undefined ? undefined : value(motion.away.draw);
  const states = ranks.map((rank, unit): UnitState | undefined => {
    const since = time - start - rank * stagger;
    const progress = length > 0 ? Math.min(1, Math.max(0, since / length)) : since >= 0 ? 1 : 0;
    if (goes === 'in' ? progress >= 1 : progress <= 0) return undefined;
    // Leaving runs the same curve from rest to away.
    const rest = goes === 'in' ? curve(progress) : 1 - curve(progress);
    const gone = 1 - rest;
    return {
      opacity: Math.min(1, Math.max(0, 1 - gone * (1 - away.opacity))),
      move: [away.move[0] * gone, away.move[1] * gone, away.move[2] * gone],
      turn: [away.turn[0] * gone, away.turn[1] * gone, away.turn[2] * gone],
      scale: [1 - gone * (1 - away.scale[0]), 1 - gone * (1 - away.scale[1])],
      blur: Math.max(0, away.blur * gone),
      spread: away.spread * gone,
      shown: Math.min(1, Math.max(0, rest)),
      ...(wipe ? { wipe } : {}),
      ...(draw === undefined ? {} : { draw }),
      ...(scramble ? { other: Math.floor(time / scramble) * 1000 + unit } : {}),
    };
  });
  return { states };
}

function typed(
  motion: TextMotion,
  goes: 'in' | 'out',
  count: number,
  since: number,
  available: number,
  { value, memo }: StateTools,
  endsWord: EndsWord,
): UnitStates {
  const { typing } = motion.away;
  const plan = typingOf(count, value(typing!.slips), motion.seed, endsWord);
  const stroke = Math.min(value(motion.stagger), available / Math.max(1e-9, plan.length));
  const done = stroke > 0 ? since / stroke : since >= 0 ? plan.length : -1;
  const { shown, wrong } = typedAt(plan, goes === 'in' ? done : plan.length - done);
  const order = ranksOf(count, value(motion.order), motion.seed, memo);
  const states = order.map((rank, unit): UnitState | undefined => {
    if (rank < shown) return undefined;
    return wrong && rank === shown ? { ...AT_REST, other: motion.seed * 1000 + unit } : HIDDEN;
  });
  return { states, ...(typing!.cursor ? { cursor: shown + (wrong ? 1 : 0) } : {}) };
}
