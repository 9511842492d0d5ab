import { randomAt } from '../../motion/random';
import { cells, draws, noise, type Shade, shadeBy, TILE, throwFibres } from './grid';

/** What things are made of. */
export const MATERIALS = [
  'wood',
  'linen',
  'felt',
  'paper',
  'cork',
  'brick',
  'slate',
  'metal',
  'turf',
  'stone',
] as const;
export type MaterialName = (typeof MATERIALS)[number];

/** How each is shaded, with the light from the upper left. */
export const SHADES: { readonly [M in MaterialName]: (seed: number) => Shade } = {
  /** A plank along x: rings that were cut lengthwise, and pores. */
  wood: (seed) => {
    const [slow, bent, fine, pores] = [
      noise(2, 5, seed),
      noise(4, 12, seed + 1),
      noise(10, 256, seed + 2),
      noise(24, 512, seed + 3),
    ];
    return shadeBy((i, _x, y) => {
      const ring = (y / TILE) * 9 + slow[i]! * 1.1 + bent[i]! * 0.22;
      // Late wood is a thin dark line at the end of a wide light band.
      const part = ring - Math.floor(ring);
      const late = part ** 4 * (1 - Math.max(0, part - 0.93) / 0.07);
      return 0.08 - 0.3 * late + 0.09 * fine[i]! - 0.14 * Math.max(0, pores[i]! - 0.45) + 0.05 * slow[i]!;
    });
  },

  /** Plain weave: every other thread lies above, and none is as thick as its neighbour. */
  linen: (seed) => {
    const threads = TILE / 5;
    const [warp, weft] = [noise(103, 6, seed), noise(6, 103, seed + 1)];
    const mottled = noise(5, 5, seed + 2);
    return shadeBy((i, x, y) => {
      const [u, v] = [(x / TILE) * Math.floor(threads), (y / TILE) * Math.floor(threads)];
      const above = (Math.floor(u) + Math.floor(v)) % 2 === 0;
      const across = above ? u - Math.floor(u) : v - Math.floor(v);
      const round = Math.sin(Math.PI * across);
      const own = above ? warp[i]! : weft[i]!;
      return 0.2 * round - 0.16 + 0.13 * own + 0.03 * mottled[i]! - (across > 0.5 ? 0.05 : 0);
    });
  },

  /** Wool that was pressed: fibres of all directions. */
  felt: (seed) => {
    const [mottled, nap] = [noise(24, 24, seed), draws(TILE * TILE, seed + 1)];
    const tile = shadeBy((i) => 0.05 * mottled[i]! + 0.035 * nap[i]!);
    return throwFibres(
      tile,
      { count: 4200, length: [12, 44], angle: 0, spread: 180, bend: 140, shade: [-0.17, 0.19] },
      seed,
    );
  },

  /** Rag paper: cloudy where it is held to the light, with a few fibres. */
  paper: (seed) => {
    const [cloud, tooth, fine] = [noise(7, 7, seed), noise(149, 149, seed + 1), noise(293, 293, seed + 2)];
    const tile = shadeBy((i) => 0.035 * cloud[i]! + 0.04 * tooth[i]! + 0.04 * fine[i]!);
    return throwFibres(
      tile,
      { count: 170, length: [10, 36], angle: 0, spread: 180, bend: 120, shade: [-0.2, 0.06] },
      seed,
    );
  },

  /** Grains pressed together, a few of them burnt. */
  cork: (seed) => {
    const grain = cells(46, 46, seed);
    const fine = noise(200, 200, seed + 1);
    return shadeBy((i, x, y) => {
      const { near, next, cell } = grain(x, y);
      const tone = randomAt(seed, cell, 3);
      const seam = Math.max(0, 1 - (next - near) / 0.16);
      return 0.3 * (tone - 0.5) - (tone < 0.09 ? 0.35 : 0) - 0.2 * seam + 0.08 * fine[i]!;
    });
  },

  /** Stretcher bond, eight courses, every stone of its own firing; mortar is lighter. */
  brick: (seed) => {
    const [rough, edge] = [noise(197, 197, seed), noise(61, 61, seed + 1)];
    const [high, wide, joint] = [TILE / 8, TILE / 4, 5];
    return shadeBy((i, x, y) => {
      const course = Math.floor(y / high);
      const along = x + (course % 2) * (wide / 2);
      const stone = Math.floor(along / wide) % 4;
      const [u, v] = [along % wide, y % high];
      const inside = Math.min(u, v, wide - u, high - v) - joint + 2.2 * edge[i]!;
      if (inside < 0) return 0.26 + 0.07 * rough[i]!;
      const lit = Math.min(u, v) - joint < 4 ? 0.1 : Math.min(wide - u, high - v) - joint < 4 ? -0.16 : 0;
      return 0.2 * (randomAt(seed, course, stone) - 0.6) + 0.1 * rough[i]! + lit;
    });
  },

  /** Split stone with the dust of chalk that was wiped. */
  slate: (seed) => {
    const [wiped, layer, fine] = [noise(3, 5, seed), noise(6, 60, seed + 1), noise(256, 256, seed + 2)];
    return shadeBy((i) => 0.07 * Math.max(0, wiped[i]!) + 0.04 * layer[i]! + 0.05 * fine[i]! - 0.01);
  },

  /** Sheet that was brushed along x. */
  metal: (seed) => {
    const [broad, brushed, hair] = [noise(2, 24, seed), noise(3, 256, seed + 1), noise(12, 512, seed + 2)];
    return shadeBy((i) => 0.05 * broad[i]! + 0.11 * brushed[i]! + 0.1 * hair[i]!);
  },

  /** Short grass, seen from above with the light along it. */
  turf: (seed) => {
    const patch = noise(6, 6, seed);
    const tile = shadeBy((i) => 0.06 * patch[i]! - 0.06);
    return throwFibres(
      tile,
      { count: 12_000, length: [8, 22], angle: -80, spread: 34, bend: 50, shade: [-0.3, 0.32] },
      seed,
    );
  },

  /** Cut stone: grain, pits, a vein or two. */
  stone: (seed) => {
    const sand = draws(TILE * TILE, seed + 3);
    const [cloud, grain, pit] = [noise(5, 5, seed), noise(211, 211, seed + 1), noise(97, 89, seed + 2)];
    return shadeBy((i) => {
      const hole = Math.max(0, pit[i]! - 0.62);
      return 0.08 * cloud[i]! + 0.07 * grain[i]! + 0.03 * sand[i]! - 0.6 * hole;
    });
  },
};
