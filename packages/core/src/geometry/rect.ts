/** Width and height in frame units. */
export interface Size {
  readonly width: number;
  readonly height: number;
}

/** A rectangle with its top left corner at (x, y); y grows downwards. */
export interface Rect {
  readonly x: number;
  readonly y: number;
  readonly width: number;
  readonly height: number;
}

export const EMPTY: Rect = { x: 0, y: 0, width: 0, height: 0 };

export function isEmpty(r: Rect): boolean {
  return !(r.width > 0 && r.height > 0);
}

/** The smallest rectangle holding both; an empty one does not count. */
export function union(a: Rect, b: Rect): Rect {
  if (isEmpty(a)) return b;
  if (isEmpty(b)) return a;
  const x = Math.min(a.x, b.x);
  const y = Math.min(a.y, b.y);
  return {
    x,
    y,
    width: Math.max(a.x + a.width, b.x + b.width) - x,
    height: Math.max(a.y + a.height, b.y + b.height) - y,
  };
}

export function intersection(a: Rect, b: Rect): Rect {
  const x = Math.max(a.x, b.x);
  const y = Math.max(a.y, b.y);
  const width = Math.min(a.x + a.width, b.x + b.width) - x;
  const height = Math.min(a.y + a.height, b.y + b.height) - y;
  return width > 0 && height > 0 ? { x, y, width, height } : EMPTY;
}

/** The whole pixels that a box touches. */
export function wholePixels({ x, y, width, height }: Rect): Rect {
  const [left, top] = [Math.floor(x), Math.floor(y)];
  return { x: left, y: top, width: Math.ceil(x + width) - left, height: Math.ceil(y + height) - top };
}

/** A point, x and y. */
export type Corner = [number, number];

/** Grown by a margin on every side (negative: shrunk). */
export function inset(r: Rect, margin: number): Rect {
  return { x: r.x - margin, y: r.y - margin, width: r.width + 2 * margin, height: r.height + 2 * margin };
}

/** Whether a rectangle lies within another, edges included. */
export function holds(outer: Rect, inner: Rect): boolean {
  return (
    outer.x <= inner.x &&
    outer.y <= inner.y &&
    outer.x + outer.width >= inner.x + inner.width &&
    outer.y + outer.height >= inner.y + inner.height
  );
}

/** A rectangle in other units, about the origin. */
export function scaledBy(r: Rect, by: number): Rect {
  return { x: r.x * by, y: r.y * by, width: r.width * by, height: r.height * by };
}

export function corners(r: Rect): [Corner, Corner, Corner, Corner] {
  return [
    [r.x, r.y],
    [r.x + r.width, r.y],
    [r.x + r.width, r.y + r.height],
    [r.x, r.y + r.height],
  ];
}

export function boundsOf(points: Iterable<readonly [number, number]>): Rect {
  let left = Number.POSITIVE_INFINITY;
  let top = Number.POSITIVE_INFINITY;
  let right = Number.NEGATIVE_INFINITY;
  let bottom = Number.NEGATIVE_INFINITY;
  for (const [x, y] of points) {
    if (x < left) left = x;
    if (x > right) right = x;
    if (y < top) top = y;
    if (y > bottom) bottom = y;
  }
  return left <= right ? { x: left, y: top, width: right - left, height: bottom - top } : EMPTY;
}
