import type { Rect } from '../geometry/rect';

/** The largest rectangle of pixels that are so, by the heights of the columns above each row; nothing where none are. */
export function largestRect(
  width: number,
  height: number,
  isSo: (pixel: number) => boolean,
): Rect | undefined {
  const heights = new Int32Array(width + 1);
  const open = new Int32Array(width + 1);
  let [most, x, y, wide, high] = [0, 0, 0, 0, 0];
  for (let row = 0; row < height; row++) {
    let depth = 0;
    for (let column = 0; column <= width; column++) {
      if (column < width) heights[column] = isSo(row * width + column) ? heights[column]! + 1 : 0;
      // A column lower than those that are open ends them.
      while (depth > 0 && heights[open[depth - 1]!]! >= heights[column]!) {
        const tall = heights[open[--depth]!]!;
        const left = depth > 0 ? open[depth - 1]! + 1 : 0;
        if (tall * (column - left) > most) {
          most = tall * (column - left);
          [x, y, wide, high] = [left, row - tall + 1, column - left, tall];
        }
      }
      open[depth++] = column;
    }
  }
  return most > 0 ? { x, y, width: wide, height: high } : undefined;
}

/** The parts of a rectangle around another, of whole pixels as both are. */
export function around(whole: Rect, hole: Rect): Rect[] {
  const [right, bottom] = [whole.x + whole.width, whole.y + whole.height];
  const [from, to] = [Math.max(whole.y, hole.y), Math.min(bottom, hole.y + hole.height)];
  const [left, on] = [Math.max(whole.x, hole.x), Math.min(right, hole.x + hole.width)];
  if (from >= to || left >= on) return [whole];
  return [
    { ...whole, height: from - whole.y },
    { ...whole, y: to, height: bottom - to },
    { x: whole.x, y: from, width: left - whole.x, height: to - from },
    { x: on, y: from, width: right - on, height: to - from },
  ].filter((part) => part.width > 0 && part.height > 0);
}
