/** Versions of a document: what undo goes back to and redo comes forward to. */
export interface History<T> {
  readonly past: readonly T[];
  readonly present: T;
  readonly future: readonly T[];
  /** What the last change was part of; changes of one gesture make one step. */
  readonly gesture: string | undefined;
}

const MOST_STEPS = 200;

export function startHistory<T>(present: T): History<T> {
  return { past: [], present, future: [], gesture: undefined };
}

/**
 * Adds a version. Changes with the same `gesture` (a drag, a word being typed) replace each other, so that one undo
 * takes the whole gesture back.
 */
export function change<T>(history: History<T>, next: T, gesture?: string): History<T> {
  if (next === history.present) return history;
  const joins = gesture !== undefined && gesture === history.gesture;
  const past = joins ? history.past : [...history.past, history.present].slice(-MOST_STEPS);
  return { past, present: next, future: [], gesture };
}

/** Ends a gesture: the next change makes a step of its own. */
export function settle<T>(history: History<T>): History<T> {
  return history.gesture === undefined ? history : { ...history, gesture: undefined };
}

/** Takes back what the gesture that is going on has changed, as if it had never begun. */
export function cancel<T>(history: History<T>): History<T> {
  const before = history.past.at(-1);
  if (history.gesture === undefined || before === undefined) return history;
  return { past: history.past.slice(0, -1), present: before, future: [], gesture: undefined };
}

export function undo<T>(history: History<T>): History<T> {
  const previous = history.past.at(-1);
  if (previous === undefined) return history;
  return {
    past: history.past.slice(0, -1),
    present: previous,
    future: [history.present, ...history.future],
    gesture: undefined,
  };
}

export function redo<T>(history: History<T>): History<T> {
  const [next, ...future] = history.future;
  if (next === undefined) return history;
  return { past: [...history.past, history.present], present: next, future, gesture: undefined };
}
