import { randomAt } from './random';

/** One key stroke: how many letters stand afterwards, and whether a wrong one follows them. */
export interface Stroke {
  /** When it falls, in mean strokes from the beginning. */
  readonly at: number;
  readonly shown: number;
  readonly wrong: boolean;
}

/** Typing of a text: its strokes, and the time they take together. */
export interface Typing {
  readonly strokes: readonly Stroke[];
  readonly length: number;
}

/** Shortest and longest stroke, as parts of the mean: hands are not even, and wait after a word. */
const QUICK = 0.6;
const SLOW = 1.4;
const AFTER_WORD = 1.5;

/**
 * How a person would type `count` letters. Slips are typed, noticed a moment later, taken back and mended.
 * @param slips chance of a slip at each letter, 0..1
 * @param ends whether the letter at an index ends a word
 */
export function typingOf(
  count: number,
  slips: number,
  seed: number,
  ends: (index: number) => boolean = () => false,
): Typing {
  const strokes: Stroke[] = [];
  let time = 0;
  const press = (shown: number, wrong: boolean, weight: number) => {
    strokes.push({ at: time, shown, wrong });
    time += weight;
  };
  for (let i = 0; i < count; i++) {
    const pace = QUICK + (SLOW - QUICK) * randomAt(seed, i, 1);
    if (i > 0 && randomAt(seed, i, 2) < slips) {
      press(i, true, pace);
      press(i, true, 1.6);
      press(i, false, 0.9);
    }
    press(i + 1, false, ends(i) ? pace * AFTER_WORD : pace);
  }
  return { strokes, length: time };
}

/** What stands at a time, in mean strokes. */
export function typedAt({ strokes }: Typing, time: number): Pick<Stroke, 'shown' | 'wrong'> {
  let [low, high] = [0, strokes.length];
  while (low < high) {
    const middle = (low + high) >> 1;
    if (strokes[middle]!.at <= time) low = middle + 1;
    else high = middle;
  }
  return strokes[low - 1] ?? { shown: 0, wrong: false };
}
