import { randomAt } from '../motion/random';

/** A place in space, in parts of a box about its middle: −0.5 to 0.5 each way. */
export type Spot = readonly [x: number, y: number, z: number];

/** The angle by which neighbours on a sunflower's head differ: the golden angle, in radians. */
const GOLDEN = Math.PI * (3 - Math.sqrt(5));

/** Places from one end to the other. */
export function onLine(count: number): Spot[] {
  return Array.from({ length: count }, (_, i) => [count === 1 ? 0 : i / (count - 1) - 0.5, 0, 0]);
}

/** Places round a circle that lies on the ground. */
export function onRing(count: number): Spot[] {
  return Array.from({ length: count }, (_, i) => {
    const a = (2 * Math.PI * i) / count;
    return [Math.cos(a) / 2, 0, Math.sin(a) / 2];
  });
}

/** Places all over a disc that lies on the ground, evenly (Vogel, "A better way to construct the sunflower head", 1979). */
export function onDisc(count: number): Spot[] {
  return Array.from({ length: count }, (_, i) => {
    const r = Math.sqrt((i + 0.5) / count) / 2;
    return [r * Math.cos(i * GOLDEN), 0, r * Math.sin(i * GOLDEN)];
  });
}

/** Places all over a sphere, evenly: the sunflower's angle from pole to pole (the Fibonacci lattice). */
export function onSphere(count: number): Spot[] {
  return Array.from({ length: count }, (_, i) => {
    const y = 1 - (2 * i + 1) / count;
    const r = Math.sqrt(1 - y * y);
    return [(r * Math.cos(i * GOLDEN)) / 2, -y / 2, (r * Math.sin(i * GOLDEN)) / 2];
  });
}

/** Places along a screw from the bottom up. */
export function onSpiral(count: number, turns: number): Spot[] {
  return Array.from({ length: count }, (_, i) => {
    const t = count === 1 ? 0 : i / (count - 1);
    const a = 2 * Math.PI * turns * t;
    return [Math.cos(a) / 2, 0.5 - t, Math.sin(a) / 2];
  });
}

/** Rows and columns, one behind the other: row by row, the nearest rank first. */
export function onGrid(across: number, down: number, deep: number): Spot[] {
  const at = (i: number, n: number) => (n === 1 ? 0 : i / (n - 1) - 0.5);
  return Array.from({ length: across * down * deep }, (_, i) => [
    at(i % across, across),
    at(Math.floor(i / across) % down, down),
    at(Math.floor(i / (across * down)), deep),
  ]);
}

/** Places by chance all over a box. */
export function inBox(count: number, seed: number): Spot[] {
  return Array.from({ length: count }, (_, i) => [
    randomAt(seed, i, 1) - 0.5,
    randomAt(seed, i, 2) - 0.5,
    randomAt(seed, i, 3) - 0.5,
  ]);
}

/** A line of what was opened or typed, with the place its columns say. */
export interface Placed {
  readonly line: number;
  /** As written: to the right, and upwards. */
  readonly x: number;
  readonly y: number;
}

/**
 * Lines whose columns say where they are: two numbers, east and north of anywhere, or longitude and latitude in degrees.
 * @param columns of x and y, counted from 0
 * @returns those that have a place, and the numbers of those that have none
 */
export function placesOf(
  rows: readonly (readonly string[])[],
  columns: readonly [number, number],
): { readonly placed: Placed[]; readonly without: number[] } {
  const placed: Placed[] = [];
  const without: number[] = [];
  rows.forEach((row, line) => {
    const [x, y] = columns.map((c) => numberOf(row[c])) as [number, number];
    if (Number.isFinite(x) && Number.isFinite(y)) placed.push({ line, x, y });
    else without.push(line);
  });
  return { placed, without };
}

/** A number as people write it: with a point or one comma. */
function numberOf(text: string | undefined): number {
  const plain = text?.trim().replace(',', '.') ?? '';
  return /^[-+]?\d+(\.\d+)?$/.test(plain) ? Number(plain) : Number.NaN;
}

/**
 * Places of a map in parts of a box, as large as it takes them, north up. What lies within the degrees of a globe is
 * taken for longitude and latitude, whose degrees are narrower by the cosine of the latitude (the equirectangular
 * projection about their middle).
 */
export function fitted(placed: readonly Placed[], width: number, height: number): Spot[] {
  if (placed.length === 0) return [];
  const range = (values: number[]) => [Math.min(...values), Math.max(...values)] as const;
  const [west, east] = range(placed.map((p) => p.x));
  const [south, north] = range(placed.map((p) => p.y));
  const isGlobe = west >= -180 && east <= 180 && south >= -90 && north <= 90;
  const narrow = isGlobe ? Math.cos((((south + north) / 2) * Math.PI) / 180) : 1;
  const [wide, high] = [(east - west) * narrow, north - south];
  const scales = [wide > 0 ? width / wide : Infinity, high > 0 ? height / high : Infinity];
  const scale = Math.min(...scales);
  if (!Number.isFinite(scale)) return placed.map(() => [0, 0, 0]);
  return placed.map(({ x, y }) => [
    ((x - (west + east) / 2) * narrow * scale) / width,
    (-(y - (south + north) / 2) * scale) / height,
    0,
  ]);
}

/** Pairs of places that are linked, by their numbers; the second is −1 for the middle of all. */
export type Links = readonly (readonly [number, number])[];

/** Each to the next. @param closed whether the last goes to the first */
export function linkedInOrder(count: number, closed: boolean): Links {
  const links = Array.from({ length: Math.max(0, count - 1) }, (_, i) => [i, i + 1] as const);
  return closed && count > 2 ? [...links, [count - 1, 0]] : links;
}

/** Each to the one to its right, the one below it and the one behind it. */
export function linkedAsNet(across: number, down: number, deep: number): Links {
  const links: [number, number][] = [];
  for (let i = 0; i < across * down * deep; i++) {
    if ((i % across) + 1 < across) links.push([i, i + 1]);
    if ((Math.floor(i / across) % down) + 1 < down) links.push([i, i + across]);
    if (Math.floor(i / (across * down)) + 1 < deep) links.push([i, i + across * down]);
  }
  return links;
}

type Flat = readonly (readonly [number, number, number])[];
const apart = (a: Spot, b: Spot) => Math.hypot(a[0] - b[0], a[1] - b[1], a[2] - b[2]);

/** Each to so many that are nearest to it; a pair once. */
export function linkedToNearest(spots: Flat, many: number): Links {
  const seen = new Set<number>();
  const links: [number, number][] = [];
  spots.forEach((spot, i) => {
    const nearest: { j: number; d: number }[] = [];
    spots.forEach((other, j) => {
      if (i === j) return;
      const d = apart(spot, other);
      if (nearest.length === many && d >= nearest.at(-1)!.d) return;
      nearest.push({ j, d });
      nearest.sort((a, b) => a.d - b.d);
      if (nearest.length > many) nearest.pop();
    });
    for (const { j } of nearest) {
      const key = Math.min(i, j) * spots.length + Math.max(i, j);
      if (seen.has(key)) continue;
      seen.add(key);
      links.push([Math.min(i, j), Math.max(i, j)]);
    }
  });
  return links;
}

/** All pairs that lie within a distance of each other, the nearest first. */
export function linkedWithin(spots: Flat, distance: number, most: number): Links {
  const found: { pair: [number, number]; d: number }[] = [];
  for (let i = 0; i < spots.length; i++) {
    for (let j = i + 1; j < spots.length; j++) {
      const d = apart(spots[i]!, spots[j]!);
      if (d <= distance) found.push({ pair: [i, j], d });
    }
  }
  return found
    .sort((a, b) => a.d - b.d)
    .slice(0, most)
    .map(({ pair }) => pair);
}
