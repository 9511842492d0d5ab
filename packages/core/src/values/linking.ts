import { z } from 'zod';

/** What a property holds, as far as controls are concerned. */
export type Holds = 'number' | 'point' | 'space' | 'colour' | 'words' | 'switch';

/** What the constants of a schema are. */
export function holdsOf(constant: z.ZodType): Holds {
  const takes = (v: unknown) => constant.safeParse(v).success;
  if ([0, 0.5, 1, 400].some(takes)) return 'number';
  if (takes([0, 0])) return 'point';
  if (takes([0, 0, 0]) || takes([0, 0, 0, 0])) return 'space';
  if (takes(true)) return 'switch';
  return takes('#C8431C') && !takes('words') ? 'colour' : 'words';
}

/** Kinds of control whose words suit a property that holds words of a kind. */
const SUITS = { colour: ['colour'], words: ['font', 'path', 'choice'] } as const;

interface ControlFacts {
  readonly kind: string;
  /** What a choice or a switch may be, as tables name it. */
  readonly values: readonly string[] | undefined;
}

/**
 * The controls of the template that is being read. Links stand deep in a document and its controls beside them, and a
 * schema sees only what it is given: the template's schema sets this before its parts are read, one after the other.
 */
let reading: ReadonlyMap<string, ControlFacts> | undefined;

type Plain = Record<string, unknown>;
const isPlain = (v: unknown): v is Plain => typeof v === 'object' && v !== null && !Array.isArray(v);

function factsOf(control: Plain): ControlFacts {
  const options = Array.isArray(control.options) ? control.options.filter(isPlain) : [];
  const values =
    control.kind === 'switch'
      ? ['true', 'false']
      : control.kind === 'choice'
        ? options.map((o) => String(o.id))
        : undefined;
  return { kind: String(control.kind), values };
}

/** Reads a template with a schema whose links are checked against the template's own controls. */
export function withItsControls<S extends z.ZodType>(schema: S) {
  return z.preprocess((data) => {
    const controls = isPlain(data) && Array.isArray(data.controls) ? data.controls.filter(isPlain) : [];
    reading = new Map(controls.map((c) => [String(c.id), factsOf(c)]));
    return data;
  }, schema);
}

export interface LinkFacts {
  readonly control: string;
  readonly part?: 0 | 1 | undefined;
  readonly table?: Readonly<Record<string, unknown>> | undefined;
}

/**
 * What is wrong with a link from a property, in words; nothing when it suits, or its control is not known here.
 * @param constant what the property holds when it holds a plain value
 */
export function faultOfLink(link: LinkFacts, holds: Holds, constant: z.ZodType): string | undefined {
  const control = reading?.get(link.control);
  if (!control) return undefined;
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

/** What kind of value a property comes to; nothing where its control is not known here. */
function givenBy(p: unknown): Gives | undefined {
  if (Array.isArray(p)) return 'list';
  if (typeof p === 'number') return 'number';
  if (typeof p === 'boolean') return 'switch';
  if (typeof p === 'string') return 'text';
  if (!isPlain(p)) return undefined;
  if (Array.isArray(p.keys)) return givenBy((p.keys[0] as Plain | undefined)?.value);
  if (isPlain(p.shape)) return givenBy(p.shape.wide);
  if (isPlain(p.wave)) return givenBy(p.wave.size);
  if (p.frame !== undefined || p.each !== undefined || p.count !== undefined) return 'number';
  if (p.parts !== undefined) return 'list';
  if (p.control !== undefined) {
    if (isPlain(p.table)) return givenBy(Object.values(p.table)[0]);
    const kind = reading?.get(String(p.control))?.kind;
    if (kind === undefined || !Object.hasOwn(OF_CONTROL, kind)) return undefined;
    return kind === 'point' && p.part !== undefined ? 'number' : OF_CONTROL[kind];
  }
  const terms = [p.sum, p.product].find(Array.isArray)?.map(givenBy);
  // A number meets every part of a point; anything else cannot be reckoned with.
  return (
    terms?.find((t) => t === 'text' || t === 'switch') ?? (terms?.includes('list') ? 'list' : terms?.[0])
  );
}

/** What is wrong with where a property's value comes from, in words: that it is of another kind than is needed. */
export function faultOfSource(p: unknown, holds: Holds): string | undefined {
  if (isPlain(p) && (p.sum ?? p.product ?? p.wave) && WANTED[holds] !== 'number' && WANTED[holds] !== 'list')
    return `sums, products and waves are of numbers, and this is ${NAMES[holds]}`;
  const given = givenBy(p);
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
