import type { Grey } from './grey';

/** How alike two small pictures must be to be of one shot. */
const ONE_SHOT = 0.35;

/** Whether the shot changes between two pictures of some dozen pixels, which follow each other. */
export function cutBetween(a: Grey, b: Grey): boolean {
  return correlation(a.data, b.data) < ONE_SHOT;
}

/** Correlation of shades, −1 to 1; two flat pictures are alike. */
function correlation(a: Float32Array, b: Float32Array): number {
  const n = a.length;
  let [ma, mb] = [0, 0];
  for (let i = 0; i < n; i++) {
    ma += a[i]!;
    mb += b[i]!;
  }
  ma /= n;
  mb /= n;
  let [aa, bb, ab] = [0, 0, 0];
  for (let i = 0; i < n; i++) {
    aa += (a[i]! - ma) ** 2;
    bb += (b[i]! - mb) ** 2;
    ab += (a[i]! - ma) * (b[i]! - mb);
  }
  // A shade or less of difference is noise.
  if (aa < n && bb < n) return 1;
  return ab / Math.sqrt(Math.max(n, aa) * Math.max(n, bb));
}
