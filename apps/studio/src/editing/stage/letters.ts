import type { LetterMap } from '@fresh-reel/core';

type Letter = LetterMap['letters'][number];

/** The caret as a line from the foot of the letters to their top. */
export function caretAt(
  letters: readonly Letter[],
  index: number,
): { foot: readonly [number, number]; top: readonly [number, number] } | undefined {
  const after = letters.find((l) => l.from === index);
  const before = letters.findLast((l) => l.to <= index) ?? letters.at(-1);
  // Between two letters the caret stands at the end of the first, which is where typing goes on.
  if (before && before.to === index) return { foot: before.quad[2]!, top: before.quad[1]! };
  if (after) return { foot: after.quad[3]!, top: after.quad[0]! };
  return before && { foot: before.quad[2]!, top: before.quad[1]! };
}

/** The index in the words nearest to a point of the frame. */
export function indexAt(letters: readonly Letter[], x: number, y: number): number | undefined {
  let best: { index: number; distance: number } | undefined;
  for (const l of letters) {
    for (const [index, a, b] of [
      [l.from, l.quad[0]!, l.quad[3]!],
      [l.to, l.quad[1]!, l.quad[2]!],
    ] as const) {
      const distance = Math.hypot((a[0] + b[0]) / 2 - x, (a[1] + b[1]) / 2 - y);
      if (!best || distance < best.distance) best = { index, distance };
    }
  }
  return best?.index;
}
