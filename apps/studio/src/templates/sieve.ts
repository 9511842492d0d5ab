import type { FrameShape, Template, Use } from '@fresh-reel/core';
import { secondsOf } from './facts';

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
  /** Whether it takes pictures, and no more than there are on the shelf. */
  readonly suits?: boolean;
  readonly favourites?: boolean;
}

/** Pictures, clips and logos that a template takes. */
export const picturesOf = ({ slots }: Template): number =>
  slots.filter((s) => s.kind === 'picture' || s.kind === 'logo').length;

/** Texts and lists that a template takes. */
export const wordsOf = ({ slots }: Template): number =>
  slots.filter((s) => s.kind === 'text' || s.kind === 'list').length;

function lengthName(template: Template): LengthName {
  const seconds = secondsOf(template);
  return LENGTHS.find(({ to }) => seconds <= to)!.id;
}

const countName = (n: number): CountName => COUNTS.find(({ from, to }) => n >= from && n <= to)!.id;

/**
 * Templates that pass a sieve, in their order but for favourites, which come first.
 * @param pictures how many pictures and clips the user has on the shelf
 */
export function sifted(
  templates: readonly Template[],
  sieve: Sieve,
  favourites: ReadonlySet<string>,
  pictures: number,
): readonly Template[] {
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

/** Whether a template shows pictures, and so many of them as are there fill all that must be filled. */
function suits(template: Template, pictures: number): boolean {
  const slots = template.slots.filter((s) => s.kind === 'picture');
  return slots.length > 0 && slots.filter((s) => !s.optional).length <= pictures;
}

/** How many things of a sieve are set, besides the use, which has a row of its own. */
export const setOf = ({ use: _, ...sieve }: Sieve): number =>
  Object.values(sieve).filter((value) => value !== undefined && value !== false).length;

/** What a list of templates has of something, each once, the most frequent first. */
export function offered(templates: readonly Template[], of: (t: Template) => readonly string[]): string[] {
  const counts = new Map<string, number>();
  for (const value of templates.flatMap(of)) counts.set(value, (counts.get(value) ?? 0) + 1);
  return [...counts].sort(([a, m], [b, n]) => n - m || a.localeCompare(b)).map(([value]) => value);
}
