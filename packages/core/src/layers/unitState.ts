import type { Side } from './motionSchema';

/** What a motion does to one unit at one moment. At rest nothing is done. */
export interface UnitState {
  readonly opacity: number;
  /** Ems. */
  readonly move: readonly [number, number, number];
  /** Degrees. */
  readonly turn: readonly [number, number, number];
  readonly scale: readonly [number, number];
  /** Frame units. */
  readonly blur: number;
  /** Letters stand this part farther from the middle of their unit than at rest. */
  readonly spread: number;
  /** The part of the unit that has come, 0..1. */
  readonly shown: number;
  /** The side it is wiped in from. */
  readonly wipe?: Side;
  /** Width in ems of the pen that draws the outline. */
  readonly draw?: number;
  /** Shows other letters than its own: which, by this seed. */
  readonly other?: number;
}

export const AT_REST: UnitState = {
  opacity: 1,
  move: [0, 0, 0],
  turn: [0, 0, 0],
  scale: [1, 1],
  blur: 0,
  spread: 0,
  shown: 1,
};

export const HIDDEN: UnitState = { ...AT_REST, opacity: 0, shown: 0 };
