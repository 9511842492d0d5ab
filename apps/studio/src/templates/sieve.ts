import type { FrameShape, ListedTemplate, Use } from '@fresh-reel/core';

/** Lengths that are told apart, in seconds as a template comes: up to the last number. */
export const LENGTHS = [
  { id: 'short', name: 'Up to 4 s', to: 4 },
  { id: 'middle', name: '4 to 8 s', to: 8 },
  { id: 'long', name: 'Longer', to: Number.POSITIVE_INFINITY },
] as const;
export type LengthName = (typeof LENGTHS)[number]['id'];

/** How many of a kind of slot a template has. */
export const COUNTS = [
  { id: 'none', name: 'None', from: 0, to: 0 },
  { id: 'one', name: 'One', from: 1, to: 1 },
  { id: 'few', name: '2 to 4', from: 2, to: 4 },
  { id: 'many', name: '5 and more', from: 5, to: Number.POSITIVE_INFINITY },
] as const;
export type CountName = (typeof COUNTS)[number]['id'];

/** What templates are looked for by; what is absent does not matter. */
export interface Sieve {
  readonly use?: Use;
  readonly shape?: FrameShape;
  readonly mood?: string;
  readonly set?: string;
  readonly length?: LengthName;
  readonly pictures?: CountName;
  readonly words?: CountName;
  /** Whether the pictures on the shelf fill it, by their number and their shapes. */
  readonly suits?: boolean;
  readonly favourites?: boolean;
}

/** Pictures, clips and logos that a template takes. */
export const picturesOf = ({ takes }: ListedTemplate): number => takes.picture + takes.logo;

/** Texts and lists that a template takes. */
export const wordsOf = ({ takes }: ListedTemplate): number => takes.text + takes.list;

const lengthName = ({ seconds }: ListedTemplate): LengthName => LENGTHS.find(({ to }) => seconds <= to)!.id;

const countName = (n: number): CountName => COUNTS.find(({ from, to }) => n >= from && n <= to)!.id;

/**
 * Templates that pass a sieve, in their order but for favourites, which come first.
 * @param pictures shapes of the pictures and clips on the user's shelf, width by height
 */
export function sifted(
  templates: readonly ListedTemplate[],
  sieve: Sieve,
  favourites: ReadonlySet<string>,
  pictures: readonly number[],
): readonly ListedTemplate[] {
  const is = <T>(wanted: T | undefined, value: () => T) => wanted === undefined || wanted === value();
  const passed = templates.filter(
    (t) =>
      is(sieve.use, () => t.use) &&
      is(sieve.shape, () => t.shape) &&
      (sieve.mood === undefined || t.moods.includes(sieve.mood)) &&
      is(sieve.set, () => t.set ?? '') &&
      is(sieve.length, () => lengthName(t)) &&
      is(sieve.pictures, () => countName(picturesOf(t))) &&
      is(sieve.words, () => countName(wordsOf(t))) &&
      (!sieve.suits || suits(t, pictures)) &&
      (!sieve.favourites || favourites.has(t.id)),
  );
  return [
    ...passed.filter(({ id }) => favourites.has(id)),
    ...passed.filter(({ id }) => !favourites.has(id)),
  ];
}

/** How many times wider or narrower a picture may be than its window: half of it shows then, at least. */
const CROP = 2;
/** Windows looked at of a template whose pictures may all be left out: one that suits is enough. */
const LOOKS = 4;

/** Whether a template shows pictures, and those that are there fill all that must be filled with little cut away. */
function suits({ windows }: ListedTemplate, pictures: readonly number[]): boolean {
  const needed = windows.filter((w) => !w.optional);
  if (needed.length > 0) return fills(needed, pictures);
  return windows.slice(0, LOOKS).some((window) => fills([window], pictures));
}

/**
 * Whether each window can have a picture of its own that suits its shape. Windows and pictures in order of their widths:
 * the narrowest picture that suits the narrowest window suits no later one better.
 */
function fills(windows: ListedTemplate['windows'], pictures: readonly number[]): boolean {
  const left = pictures.toSorted((a, b) => a - b);
  const shaped = windows.flatMap(({ shape }) => shape ?? []).sort((a, b) => a - b);
  for (const window of shaped) {
    const at = left.findIndex((p) => p * CROP >= window && p <= window * CROP);
    if (at < 0) return false;
    left.splice(at, 1);
  }
  return left.length >= windows.length - shaped.length;
}

/** How many things of a sieve are set, besides the use, which has a row of its own. */
export const setOf = ({ use: _, ...sieve }: Sieve): number =>
  Object.values(sieve).filter((value) => value !== undefined && value !== false).length;

/** What a list of templates has of something, each once, the most frequent first. */
export function offered(
  templates: readonly ListedTemplate[],
  of: (t: ListedTemplate) => readonly string[],
): string[] {
  const counts = new Map<string, number>();
  for (const value of templates.flatMap(of)) counts.set(value, (counts.get(value) ?? 0) + 1);
  return [...counts].sort(([a, m], [b, n]) => n - m || a.localeCompare(b)).map(([value]) => value);
}
