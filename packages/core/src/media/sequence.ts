import { z } from 'zod';
import type { Rate } from '../time/rate';
import type { DocumentKind } from '../values/load';

/** Fewer numbered pictures than this are pictures, not a clip. */
export const FEWEST_FRAMES = 8;

/** Pictures of one name that differ by a number at its end: `kite_0001.png`, `kite_0002.png`, … */
export interface NumberedRun<F> {
  /** The name without the number: `kite_`. */
  readonly stem: string;
  /** With its point: `.png`. */
  readonly extension: string;
  readonly first: number;
  readonly last: number;
  /** In the order of their numbers. */
  readonly files: readonly F[];
  /** Numbers between the first and the last that are not there. */
  readonly holes: readonly number[];
}

const NUMBERED = /^(.*?)(\d+)(\.(?:png|jpe?g|webp|avif))$/i;

/**
 * Finds the pictures among files that are numbered as the frames of a clip are: at least {@link FEWEST_FRAMES} of one
 * name, and at least half of the numbers from the first to the last.
 * @returns the runs, and the files that are in none, in their order
 */
export function numberedRuns<F extends { readonly name: string }>(
  files: readonly F[],
): { runs: NumberedRun<F>[]; others: F[] } {
  const named = new Map<string, { digits: string; file: F }[]>();
  for (const file of files) {
    const [, stem, digits, extension] = NUMBERED.exec(file.name) ?? [];
    if (stem === undefined || digits === undefined) continue;
    const key = `${stem}\n${extension!.toLowerCase()}`;
    named.set(key, [...(named.get(key) ?? []), { digits, file }]);
  }
  const numberings = new Map<string, Map<number, F>>();
  for (const [key, found] of named) {
    // Leading zeros tell a fixed width, which all of that width share; the others have none. Never mixed in one run.
    const fixed = new Set(found.flatMap(({ digits }) => (/^0./.test(digits) ? [digits.length] : [])));
    for (const { digits, file } of found) {
      const numbering = `${key}\n${fixed.has(digits.length) ? digits.length : ''}`;
      const run = numberings.get(numbering) ?? new Map<number, F>();
      numberings.set(numbering, run.set(Number(digits), file));
    }
  }
  const runs: NumberedRun<F>[] = [];
  const taken = new Set<F>();
  for (const [key, numbered] of numberings) {
    const numbers = [...numbered.keys()].sort((a, b) => a - b);
    const [first, last] = [numbers[0]!, numbers.at(-1)!];
    if (numbers.length < FEWEST_FRAMES || numbers.length * 2 < last - first + 1) continue;
    const [stem, extension] = key.split('\n') as [string, string];
    const holes: number[] = [];
    for (let n = first; n <= last; n++) if (!numbered.has(n)) holes.push(n);
    const inOrder = numbers.map((n) => numbered.get(n)!);
    for (const file of inOrder) taken.add(file);
    runs.push({ stem, extension, first, last, files: inOrder, holes });
  }
  return { runs, others: files.filter((f) => !taken.has(f)) };
}

/** From so many on, numbered pictures of one name are a clip more likely than not (common practice). */
const LIKELY_CLIP = { '.jpg': 100, '.jpeg': 100, other: 24 };

/** Whether numbered pictures are frames of a clip, more likely than photos: cameras number their JPEGs, too. */
export function likelyClip<F>({ extension, files, holes }: NumberedRun<F>): boolean {
  const least = LIKELY_CLIP[extension as '.jpg'] ?? LIKELY_CLIP.other;
  return holes.length === 0 && files.length >= least;
}

/** What a run is called as one clip: `kite_0001-0048.png`. */
export function runName<F extends { readonly name: string }>({
  stem,
  extension,
  files,
}: NumberedRun<F>): string {
  const digits = (name: string) => name.slice(stem.length, name.length - extension.length);
  return `${stem}${digits(files[0]!.name)}-${digits(files.at(-1)!.name)}${extension}`;
}

/** Numbers as they are told to people: `3, 7–9 and 12`; at most `most` parts. */
export function numbersText(numbers: readonly number[], most = 4): string {
  const parts: [number, number][] = [];
  for (const n of numbers) {
    const end = parts.at(-1);
    if (end && n === end[1] + 1) end[1] = n;
    else parts.push([n, n]);
  }
  const texts = parts.slice(0, most).map(([a, b]) => (a === b ? String(a) : `${a}–${b}`));
  if (parts.length > most) return `${texts.join(', ')} and more`;
  return texts.length > 1 ? `${texts.slice(0, -1).join(', ')} and ${texts.at(-1)}` : (texts[0] ?? '');
}

/** Name of the document in the zip that holds a sequence's pictures. */
export const SEQUENCE_FILE = 'sequence.json';

const sequenceSchema = z.strictObject({
  format: z.literal('freshreel/sequence'),
  version: z.literal(1),
  rate: z.strictObject({ num: z.number().int().min(1).max(240_000), den: z.number().int().min(1).max(1001) }),
  /** Names of the pictures in the zip, in the order they show. */
  frames: z.array(z.string().min(1).max(255)).min(1).max(100_000),
});

/** Numbered pictures as one clip: kept as a zip of the pictures as they came, with this beside them. */
export type Sequence = z.infer<typeof sequenceSchema>;

export const sequenceKind: DocumentKind<Sequence> = {
  title: 'picture sequence',
  format: 'freshreel/sequence',
  version: 1,
  schema: sequenceSchema as unknown as z.ZodType<Sequence>,
  upgrades: {},
};

/** Which picture of a sequence shows at a second; before the first and after the last, those stay. */
export function sequenceFrame(at: number, rate: Rate, count: number): number {
  // Products of decimal fractions may fall short of a whole number by some of the last bits.
  const index = Math.floor((at * rate.num) / rate.den + 1e-6);
  return Math.min(Math.max(index, 0), count - 1);
}
