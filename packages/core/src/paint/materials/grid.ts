import { randomAt } from '../../motion/random';

/** Texels of a tile each way; a power of two, so that it halves evenly. */
export const TILE = 512;

/** A tile's shade, row after row: 0 leaves a colour as it is, −1 makes it black and 1 white. It goes on at its edges. */
export type Shade = Float32Array;

/** Fills a tile. @param shade of a texel: its number in the row of all, x and y in 0..TILE−1 */
export function shadeBy(shade: (i: number, x: number, y: number) => number): Shade {
  const tile = new Float32Array(TILE * TILE);
  for (let i = 0; i < tile.length; i++) tile[i] = shade(i, i % TILE, Math.floor(i / TILE));
  return tile;
}

/**
 * Value noise in −1..1 that goes on at a tile's edges: a number at each of `across` × `down` places of the tile, and an
 * even ease between them.
 */
export function noise(across: number, down: number, seed: number): Shade {
  const lattice = draws(across * down, seed);
  const [along, upright] = [placesOf(across), placesOf(down)];
  const tile = new Float32Array(TILE * TILE);
  // A quarter of a million texels a call: plain loops over plain numbers, which is a tenth of the time.
  for (let y = 0; y < TILE; y++) {
    const upper = upright.before[y]! * across;
    const lower = upright.after[y]! * across;
    const t = upright.part[y]!;
    for (let x = 0; x < TILE; x++) {
      const left = along.before[x]!;
      const right = along.after[x]!;
      const s = along.part[x]!;
      const top = lattice[upper + left]! * (1 - s) + lattice[upper + right]! * s;
      const bottom = lattice[lower + left]! * (1 - s) + lattice[lower + right]! * s;
      tile[y * TILE + x] = top * (1 - t) + bottom * t;
    }
  }
  return tile;
}

/** Numbers in −1..1 (xorshift, Marsaglia 2003). */
export function draws(count: number, seed: number): Float32Array {
  const drawn = new Float32Array(count);
  let h = Math.floor(randomAt(seed) * 4294967296) | 1;
  for (let i = 0; i < count; i++) {
    h ^= h << 13;
    h ^= h >>> 17;
    h ^= h << 5;
    drawn[i] = h / 2147483648;
  }
  return drawn;
}

/** For each texel along a side: the places before and after it, and the eased part of the way between them. */
function placesOf(count: number) {
  const [before, after] = [new Int32Array(TILE), new Int32Array(TILE)];
  const part = new Float32Array(TILE);
  for (let texel = 0; texel < TILE; texel++) {
    const at = (texel / TILE) * count;
    before[texel] = Math.floor(at);
    after[texel] = (Math.floor(at) + 1) % count;
    const t = at - Math.floor(at);
    part[texel] = t * t * (3 - 2 * t);
  }
  return { before, after, part };
}

/** Thin fibres, blades or scratches thrown on a tile, each a row of steps that turns a little as it goes. */
export interface Fibres {
  readonly count: number;
  /** Texels: the shortest and the longest. */
  readonly length: readonly [number, number];
  /** Degrees: where they go, and how far they stray from that. */
  readonly angle: number;
  readonly spread: number;
  /** Degrees that one turns along its way at most, either way. */
  readonly bend: number;
  /** The darkest and the lightest of them. */
  readonly shade: readonly [number, number];
}

export function throwFibres(tile: Shade, fibres: Fibres, seed: number): Shade {
  const between = ([from, to]: readonly [number, number], part: number) => from + (to - from) * part;
  for (let n = 0; n < fibres.count; n++) {
    const own = (channel: number) => randomAt(seed, n, channel);
    const steps = Math.round(between(fibres.length, own(1)));
    const shade = between(fibres.shade, own(2));
    let angle = ((fibres.angle + fibres.spread * (own(3) * 2 - 1)) * Math.PI) / 180;
    const turn = ((fibres.bend * (own(4) * 2 - 1)) / steps) * (Math.PI / 180);
    let [x, y] = [own(5) * TILE, own(6) * TILE];
    for (let i = 0; i < steps; i++) {
      // Thin at its ends.
      add(tile, x, y, shade * Math.sin((Math.PI * (i + 0.5)) / steps));
      x += Math.cos(angle);
      y += Math.sin(angle);
      angle += turn;
    }
  }
  return tile;
}

/** Adds a shade to the four texels around a place. */
function add(tile: Shade, x: number, y: number, shade: number): void {
  const [i, j] = [Math.floor(x), Math.floor(y)];
  const [s, t] = [x - i, y - j];
  const put = (a: number, b: number, part: number) => {
    const at = (((b % TILE) + TILE) % TILE) * TILE + (((a % TILE) + TILE) % TILE);
    tile[at] = tile[at]! + shade * part;
  };
  put(i, j, (1 - s) * (1 - t));
  put(i + 1, j, s * (1 - t));
  put(i, j + 1, (1 - s) * t);
  put(i + 1, j + 1, s * t);
}

/** The nearest and the second nearest of points strewn one to a cell (Worley, 1996), in cells, and the nearest's number. */
export function cells(across: number, down: number, seed: number) {
  const strewn = Array.from({ length: across * down }, (_, n) => [
    randomAt(seed, n, 1),
    randomAt(seed, n, 2),
  ]);
  return (x: number, y: number): { readonly near: number; readonly next: number; readonly cell: number } => {
    const [u, v] = [(x / TILE) * across, (y / TILE) * down];
    const [i, j] = [Math.floor(u), Math.floor(v)];
    let [near, next, cell] = [9, 9, 0];
    for (let b = j - 1; b <= j + 1; b++) {
      for (let a = i - 1; a <= i + 1; a++) {
        const number = ((b + down) % down) * across + ((a + across) % across);
        const [p, q] = strewn[number]!;
        const [dx, dy] = [a + p! - u, b + q! - v];
        const far = dx * dx + dy * dy;
        if (far < near) {
          next = near;
          near = far;
          cell = number;
        } else if (far < next) next = far;
      }
    }
    return { near: Math.sqrt(near), next: Math.sqrt(next), cell };
  };
}
