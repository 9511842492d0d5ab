/** A 4×4 matrix, column-major as in WebGL and gl-matrix: element (row r, column c) is m[c·4 + r]. */
export type Matrix4 = readonly number[];

/** A 2D transform as the canvas takes it: x' = a·x + c·y + e, y' = b·x + d·y + f. */
export type Affine = readonly [a: number, b: number, c: number, d: number, e: number, f: number];

/** A plane's projection onto the picture, row-major 3×3: [x', y', w'] = H·[x, y, 1]. */
export type Homography = readonly [number, number, number, number, number, number, number, number, number];

export const IDENTITY4: Matrix4 = [1, 0, 0, 0, 0, 1, 0, 0, 0, 0, 1, 0, 0, 0, 0, 1];
export const IDENTITY: Affine = [1, 0, 0, 1, 0, 0];
export const IDENTITY_PLANE: Homography = [1, 0, 0, 0, 1, 0, 0, 0, 1];

export function multiply4(a: Matrix4, b: Matrix4): Matrix4 {
  const out = new Array<number>(16);
  for (let c = 0; c < 4; c++) {
    for (let r = 0; r < 4; r++) {
      out[c * 4 + r] =
        a[r]! * b[c * 4]! +
        a[4 + r]! * b[c * 4 + 1]! +
        a[8 + r]! * b[c * 4 + 2]! +
        a[12 + r]! * b[c * 4 + 3]!;
    }
  }
  return out;
}

export function translation4(x: number, y: number, z: number): Matrix4 {
  return [1, 0, 0, 0, 0, 1, 0, 0, 0, 0, 1, 0, x, y, z, 1];
}

export function scale4(x: number, y: number, z = 1): Matrix4 {
  return [x, 0, 0, 0, 0, y, 0, 0, 0, 0, z, 0, 0, 0, 0, 1];
}

const radians = (degrees: number) => (degrees * Math.PI) / 180;

/**
 * Turn about x, then y, then z, in degrees. With y downwards and z away from the viewer, a positive z turn is
 * clockwise as seen, a positive y turn sends the right side away, a positive x turn sends the bottom towards you.
 */
export function turn4(x: number, y: number, z: number): Matrix4 {
  let m = IDENTITY4;
  if (z) {
    const [s, c] = [Math.sin(radians(z)), Math.cos(radians(z))];
    m = multiply4(m, [c, s, 0, 0, -s, c, 0, 0, 0, 0, 1, 0, 0, 0, 0, 1]);
  }
  if (y) {
    const [s, c] = [Math.sin(radians(y)), Math.cos(radians(y))];
    m = multiply4(m, [c, 0, s, 0, 0, 1, 0, 0, -s, 0, c, 0, 0, 0, 0, 1]);
  }
  if (x) {
    const [s, c] = [Math.sin(radians(x)), Math.cos(radians(x))];
    m = multiply4(m, [1, 0, 0, 0, 0, c, -s, 0, 0, s, c, 0, 0, 0, 0, 1]);
  }
  return m;
}

/** Shear by an angle in degrees, leaning tops to the right. */
export function skew4(degrees: number): Matrix4 {
  return [1, 0, 0, 0, -Math.tan(radians(degrees)), 1, 0, 0, 0, 0, 1, 0, 0, 0, 0, 1];
}

/**
 * The perspective projection of a camera at `distance` before the plane z = 0, looking at (cx, cy): a point at depth z
 * shows at scale distance / (distance + z), and the plane z = 0 at its own size. Rows of a pinhole camera.
 */
export function perspective4(distance: number, cx: number, cy: number): Matrix4 {
  const k = 1 / distance;
  return [1, 0, 0, 0, 0, 1, 0, 0, cx * k, cy * k, 1, k, 0, 0, 0, 1];
}

/** How the z = 0 plane of a layer shows through a 4×4 matrix that includes the projection. */
export function planeOf(m: Matrix4): Homography {
  return [m[0]!, m[4]!, m[12]!, m[1]!, m[5]!, m[13]!, m[3]!, m[7]!, m[15]!];
}

/** Depth (z, growing away from the viewer) of a point of a layer's plane, before projection. */
export function depthOf(m: Matrix4, x: number, y: number): number {
  return m[2]! * x + m[6]! * y + m[14]!;
}

/** Whether a plane shows without perspective, so that a canvas transform can draw it. */
export function isAffine(h: Homography): boolean {
  return Math.abs(h[6]) < 1e-9 && Math.abs(h[7]) < 1e-9 && h[8] > 1e-9;
}

export function affineOf(h: Homography): Affine {
  const w = h[8];
  return [h[0] / w, h[3] / w, h[1] / w, h[4] / w, h[2] / w, h[5] / w];
}

/** A plane seen from coordinates of its own: first the affine map `m`, then the plane's projection. */
export function planeTimes(h: Homography, m: Affine): Homography {
  const row = (a: number, b: number, c: number): [number, number, number] => [
    a * m[0] + b * m[1],
    a * m[2] + b * m[3],
    a * m[4] + b * m[5] + c,
  ];
  return [...row(h[0], h[1], h[2]), ...row(h[3], h[4], h[5]), ...row(h[6], h[7], h[8])];
}

/** A plane's picture somewhere else: first the projection, then the affine map `m`. */
export function planeAfter(m: Affine, h: Homography): Homography {
  const row = (a: number, b: number, c: number): [number, number, number] => [
    a * h[0] + b * h[3] + c * h[6],
    a * h[1] + b * h[4] + c * h[7],
    a * h[2] + b * h[5] + c * h[8],
  ];
  return [...row(m[0], m[2], m[4]), ...row(m[1], m[3], m[5]), h[6], h[7], h[8]];
}

/** A plane's picture moved and scaled: first the projection, then `scale` and the shift. */
export function planeInView(h: Homography, scale: number, dx: number, dy: number): Homography {
  const row = (i: number, d: number): [number, number, number] => [
    h[i]! * scale + h[6] * d,
    h[i + 1]! * scale + h[7] * d,
    h[i + 2]! * scale + h[8] * d,
  ];
  return [...row(0, dx), ...row(3, dy), h[6], h[7], h[8]];
}

/** The map back from the picture to the plane, up to a factor; nothing for a plane seen edge on. */
export function inverse(h: Homography): Homography | undefined {
  const [a, b, c, d, e, f, g, i, j] = h;
  const [x, y, z] = [e * j - f * i, f * g - d * j, d * i - e * g];
  const det = a * x + b * y + c * z;
  if (Math.abs(det) < 1e-12) return undefined;
  return [
    x / det,
    (c * i - b * j) / det,
    (b * f - c * e) / det,
    y / det,
    (a * j - c * g) / det,
    (c * d - a * f) / det,
    z / det,
    (b * g - a * i) / det,
    (a * e - b * d) / det,
  ];
}

/** Two affine maps as one: first `n`, then `m`. */
export function multiplyAffine(m: Affine, n: Affine): Affine {
  return [
    m[0] * n[0] + m[2] * n[1],
    m[1] * n[0] + m[3] * n[1],
    m[0] * n[2] + m[2] * n[3],
    m[1] * n[2] + m[3] * n[3],
    m[0] * n[4] + m[2] * n[5] + m[4],
    m[1] * n[4] + m[3] * n[5] + m[5],
  ];
}

/** The affine map back; nothing when there is none. */
export function invertAffine([a, b, c, d, e, f]: Affine): Affine | undefined {
  const det = a * d - b * c;
  if (Math.abs(det) < 1e-15) return undefined;
  return [d / det, -b / det, -c / det, a / det, (c * f - d * e) / det, (b * e - a * f) / det];
}

/** The affine map that agrees with a plane's projection at one point and in its slopes there. */
export function nearestAffine(h: Homography, x: number, y: number): Affine {
  const w = h[6] * x + h[7] * y + h[8];
  const px = (h[0] * x + h[1] * y + h[2]) / w;
  const py = (h[3] * x + h[4] * y + h[5]) / w;
  const a = (h[0] - px * h[6]) / w;
  const b = (h[3] - py * h[6]) / w;
  const c = (h[1] - px * h[7]) / w;
  const d = (h[4] - py * h[7]) / w;
  return [a, b, c, d, px - a * x - c * y, py - b * x - d * y];
}

/**
 * How much a plane enlarges lengths at a point, in the direction in which it does so most: the larger singular value
 * of its slopes. A layer that turns away keeps its size by this measure, one that shrinks does not.
 */
export function largestScale(h: Homography, x: number, y: number): number {
  if (h[6] * x + h[7] * y + h[8] <= 0) return 1;
  const [a, b, c, d] = nearestAffine(h, x, y);
  const [sum, det] = [a * a + b * b + c * c + d * d, a * d - b * c];
  return Math.sqrt((sum + Math.sqrt(Math.max(0, sum * sum - 4 * det * det))) / 2);
}

/** A plane's point on the picture. Points at or behind the camera are put far out along their direction. */
export function project(h: Homography, x: number, y: number): [number, number] {
  const w = Math.max(h[6] * x + h[7] * y + h[8], 1e-4);
  return [(h[0] * x + h[1] * y + h[2]) / w, (h[3] * x + h[4] * y + h[5]) / w];
}

type Corner = readonly [number, number];

/**
 * The plane that takes the unit square to four corners, clockwise from its top left (P. S. Heckbert, Fundamentals of
 * Texture Mapping and Image Warping, 1989, section 2.2.3).
 */
export function unitSquareTo(quad: readonly (readonly [number, number])[]): Homography {
  const [[x0, y0], [x1, y1], [x2, y2], [x3, y3]] = quad as [Corner, Corner, Corner, Corner];
  const [sx, sy] = [x0 - x1 + x2 - x3, y0 - y1 + y2 - y3];
  const [dx1, dy1, dx2, dy2] = [x1 - x2, y1 - y2, x3 - x2, y3 - y2];
  const whole = dx1 * dy2 - dx2 * dy1;
  const flat = whole === 0 || (Math.abs(sx) < 1e-9 && Math.abs(sy) < 1e-9);
  const [g, h] = flat ? [0, 0] : [(sx * dy2 - dx2 * sy) / whole, (dx1 * sy - sx * dy1) / whole];
  return [x1 - x0 + g * x1, x3 - x0 + h * x3, x0, y1 - y0 + g * y1, y3 - y0 + h * y3, y0, g, h, 1];
}
