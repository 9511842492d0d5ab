import type { z } from 'zod';
import { defOf } from './schemaDef';

/** What a property holds, as far as controls are concerned. */
type Holds = 'number' | 'point' | 'space' | 'colour' | 'words' | 'switch';

const HOLDS = new WeakMap<z.ZodType, Holds>();

/** What the constants of a schema are. */
function holdsOf(constant: z.ZodType): Holds {
  const held = HOLDS.get(constant) ?? foundHolds(constant);
  HOLDS.set(constant, held);
  return held;
}

function foundHolds(constant: z.ZodType): Holds {
  const { type, items = [] } = defOf(constant);
  // By what it is, not by trying values: a range may leave out any.
  if (type === 'number') return 'number';
  if (type === 'tuple') return items.length === 2 ? 'point' : 'space';
  if (type === 'boolean') return 'switch';
  const takes = (v: unknown) => constant.safeParse(v).success;
  return takes('#C8431C') && !takes('words') ? 'colour' : 'words';
}

/** Kinds of control whose words suit a property that holds words of a kind. */
const SUITS = { colour: ['colour'], words: ['font', 'path', 'choice'] } as const;

interface ControlFacts {
  readonly kind: string;
  /** What a choice or a switch may be, as tables name it. */
  readonly values: readonly string[] | undefined;
}

/** The controls that links of a document may name. */
export type LinkableControls = ReadonlyMap<string, ControlFacts>;

type Plain = Record<string, unknown>;
const isPlain = (v: unknown): v is Plain => typeof v === 'object' && v !== null && !Array.isArray(v);

/** What links need to know of some controls. */
export function linkable(
  controls: readonly {
    readonly id: string;
    readonly kind: string;
    readonly options?: readonly { id: string }[];
  }[],
): LinkableControls {
  return new Map(
    controls.map(({ id, kind, options }) => [
      id,
      { kind, values: kind === 'switch' ? ['true', 'false'] : options?.map((o) => o.id) },
    ]),
  );
}

/** What a value is to give that comes from somewhere: links stand deep in a document, and what they name beside it. */
interface Wanted {
  /** What the property holds when it holds a plain value. */
  readonly constant: z.ZodType;
  /** A part of a sum or a product, where a number meets every part of a point. */
  readonly isTerm: boolean;
}

/** The sources that were read, each with what its property is to hold. A source that was read never changes. */
const READ = new WeakMap<object, Wanted>();

/** Keeps what a source that was just read is to give, for {@link linkFaults}. */
export function keepWanted(source: object, wanted: Wanted): void {
  READ.set(source, wanted);
}

/** Something that does not suit, with the way to it. */
export interface LinkFault {
  readonly path: readonly (string | number)[];
  readonly message: string;
}

/**
 * What is wrong with the links in a part of a document that its schema has read: names that are not there, values of
 * another kind than is needed, tables without a row.
 */
export function linkFaults(
  part: unknown,
  controls: LinkableControls,
  path: readonly (string | number)[] = [],
): LinkFault[] {
  if (typeof part !== 'object' || part === null) return [];
  const within = Object.entries(part).flatMap(([key, value]) =>
    typeof value === 'object' && value !== null
      ? linkFaults(value, controls, [...path, Array.isArray(part) ? Number(key) : key])
      : [],
  );
  const wanted = READ.get(part);
  if (!wanted) return within;
  const { control } = part as { control?: string };
  const message =
    (control !== undefined && !controls.has(control)
      ? `it is linked to a control "${control}" that is not there`
      : control !== undefined
        ? faultOfLink(part as unknown as LinkFacts, wanted.constant, controls)
        : undefined) ?? (wanted.isTerm ? undefined : faultOfSource(part, holdsOf(wanted.constant), controls));
  return message === undefined ? within : [{ path, message }, ...within];
}

interface LinkFacts {
  readonly control: string;
  readonly part?: 0 | 1 | undefined;
  readonly table?: Readonly<Record<string, unknown>> | undefined;
}

/** What is wrong with a link to a control that is there, in words; nothing when it suits. */
function faultOfLink(link: LinkFacts, constant: z.ZodType, controls: LinkableControls): string | undefined {
  const control = controls.get(link.control)!;
  const holds = holdsOf(constant);
  if (link.table) {
    if (!control.values) return `a table needs a choice or a switch, and "${link.control}" is neither`;
    const missing = control.values.find((v) => !Object.hasOwn(link.table!, v));
    return missing === undefined ? undefined : `the table of "${link.control}" has no row for "${missing}"`;
  }
  const suits: readonly string[] | undefined =
    holds === 'colour' || holds === 'words' ? SUITS[holds] : undefined;
  // One word of a few can only come from a choice, each of whose options is one of them.
  const free = holds !== 'words' || constant.safeParse('any words').success;
  if ((suits && !suits.includes(control.kind)) || (!free && control.kind !== 'choice'))
    return `the control "${link.control}" is a ${control.kind}, which does not give ${NAMES[holds]}`;
  const stray = free ? undefined : control.values?.find((v) => !constant.safeParse(v).success);
  return stray === undefined
    ? undefined
    : `the control "${link.control}" may be "${stray}", which is none of what is possible here`;
}

const NAMES: Readonly<Record<Holds, string>> = {
  number: 'a number',
  point: 'a point',
  space: 'a point',
  colour: 'a colour',
  words: 'words',
  switch: 'on or off',
};

type Gives = 'number' | 'list' | 'text' | 'switch';
const WANTED: Readonly<Record<Holds, Gives>> = {
  ...{ number: 'number', point: 'list', space: 'list' },
  ...{ colour: 'text', words: 'text', switch: 'switch' },
};

const OF_CONTROL: Readonly<Record<string, Gives>> = {
  ...{ number: 'number', duration: 'number', point: 'list', switch: 'switch' },
  ...{ colour: 'text', font: 'text', path: 'text', choice: 'text' },
};

/** What kind of value a property comes to; nothing where its control is not there. */
function givenBy(p: unknown, controls: LinkableControls): Gives | undefined {
  if (Array.isArray(p)) return 'list';
  if (typeof p === 'number') return 'number';
  if (typeof p === 'boolean') return 'switch';
  if (typeof p === 'string') return 'text';
  if (!isPlain(p)) return undefined;
  if (Array.isArray(p.keys)) return givenBy((p.keys[0] as Plain | undefined)?.value, controls);
  if (isPlain(p.shape)) return givenBy(p.shape.wide, controls);
  if (isPlain(p.wave)) return givenBy(p.wave.size, controls);
  if (p.frame !== undefined || p.each !== undefined || p.count !== undefined) return 'number';
  if (p.parts !== undefined) return 'list';
  if (p.control !== undefined) {
    if (isPlain(p.table)) return givenBy(Object.values(p.table)[0], controls);
    const kind = controls.get(String(p.control))?.kind;
    if (kind === undefined || !Object.hasOwn(OF_CONTROL, kind)) return undefined;
    return kind === 'point' && p.part !== undefined ? 'number' : OF_CONTROL[kind];
  }
  const terms = [p.sum, p.product].find(Array.isArray)?.map((term) => givenBy(term, controls));
  // A number meets every part of a point; anything else cannot be reckoned with.
  return (
    terms?.find((t) => t === 'text' || t === 'switch') ?? (terms?.includes('list') ? 'list' : terms?.[0])
  );
}

/** What is wrong with where a property's value comes from, in words: that it is of another kind than is needed. */
function faultOfSource(p: unknown, holds: Holds, controls: LinkableControls): string | undefined {
  if (isPlain(p) && (p.sum ?? p.product ?? p.wave) && WANTED[holds] !== 'number' && WANTED[holds] !== 'list')
    return `sums, products and waves are of numbers, and this is ${NAMES[holds]}`;
  const given = givenBy(p, controls);
  if (given === undefined || given === WANTED[holds]) return undefined;
  const { control } = isPlain(p) ? p : {};
  const who = control === undefined ? 'its source' : `the control "${String(control)}"`;
  return `${who} does not give ${NAMES[holds]}`;
}

/** Every name that links in a document point to, found by walking its plain data. */
export function linkedControls(data: unknown, found = new Set<string>()): Set<string> {
  if (Array.isArray(data)) for (const part of data) linkedControls(part, found);
  else if (typeof data === 'object' && data !== null) {
    for (const [key, value] of Object.entries(data)) {
      if (key === 'control' && typeof value === 'string') found.add(value);
      else linkedControls(value, found);
    }
  }
  return found;
}

/** Of hundreds of layers a change leaves all but one the same objects. */
const LINKED = new WeakMap<object, ReadonlySet<string>>();

/** The same of each of some layers, which never change once they are made: found once for each. */
export function controlsOfLayers(layers: readonly object[]): Set<string> {
  return new Set(
    layers.flatMap((layer) => {
      const known = LINKED.get(layer) ?? linkedControls(layer);
      LINKED.set(layer, known);
      return [...known];
    }),
  );
}
