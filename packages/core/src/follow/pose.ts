/**
 * Where a patch is in a picture, and how it is turned and grown since it was chosen: a similarity. A point (u, v) of the
 * patch, from its middle, lies at (x + a·u − b·v, y + b·u + a·v), in pixels.
 */
export interface Pose {
  readonly x: number;
  readonly y: number;
  readonly a: number;
  readonly b: number;
}

export const scaleOf = ({ a, b }: Pose) => Math.hypot(a, b);

/** A pose in a picture of another size. */
export const resized = (pose: Pose, k: number): Pose => ({
  // Whole numbers are the middles of pixels: the edge of a picture lies half a pixel before its first.
  x: (pose.x + 0.5) * k - 0.5,
  y: (pose.y + 0.5) * k - 0.5,
  a: pose.a,
  b: pose.b,
});

/** What is at `inner` within a patch, when the patch is at `outer`. */
export const within = (outer: Pose, inner: Pose): Pose => ({
  x: outer.x + outer.a * inner.x - outer.b * inner.y,
  y: outer.y + outer.b * inner.x + outer.a * inner.y,
  a: outer.a * inner.a - outer.b * inner.b,
  b: outer.a * inner.b + outer.b * inner.a,
});

/** Pixels by which the corners of a patch of some half width lie apart in two poses, the most of them. */
export function apart(p: Pose, q: Pose, half: number): number {
  return Math.hypot(p.x - q.x, p.y - q.y) + Math.SQRT2 * half * Math.hypot(p.a - q.a, p.b - q.b);
}
