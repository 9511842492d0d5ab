import type { z } from 'zod';
import { type Easing, easingSchema } from '../motion/easing';
import { constantsOf } from '../values/property';
import { checksOf, defOf } from '../values/schemaDef';

/** What one value of the format is. */
export type ValueKind = 'number' | 'numbers' | 'colour' | 'switch' | 'choice' | 'words' | 'curve';

interface FieldBase {
  /** Its name in the document. */
  readonly key: string | number;
  readonly name: string;
  readonly schema: z.ZodType;
  /** Whether it may be left out. */
  readonly optional: boolean;
  /** What counts where it is left out. */
  readonly rest?: unknown;
}

/** A value: plain, or a property, which may come from a control, from keys and so on. */
export interface ValueField extends FieldBase {
  readonly kind: 'value';
  readonly holds: ValueKind;
  readonly isProperty: boolean;
  /** Of numbers: the least and most of each, and how many there are. */
  readonly min: number;
  readonly max: number;
  readonly whole: boolean;
  readonly parts: number;
  /** Of a choice: what it may be. */
  readonly options: readonly string[];
  readonly most: number;
  readonly constant: z.ZodType;
}

/** Several fields together. */
export interface PartField extends FieldBase {
  readonly kind: 'part';
  readonly fields: readonly Field[];
}

/** One of several forms. */
export interface FormsField extends FieldBase {
  readonly kind: 'forms';
  readonly forms: readonly Field[];
}

/** As many as one likes, in order. */
export interface ListField extends FieldBase {
  readonly kind: 'list';
  readonly item: Field;
  readonly least: number;
  readonly most: number;
}

/** As many as one likes, each with a name. */
export interface NamedField extends FieldBase {
  readonly kind: 'named';
  readonly item: Field;
}

/** A value or a part of the document that a maker can change, as the schema of the format has it. */
export type Field = ValueField | PartField | FormsField | ListField | NamedField;

/** Words for keys that do not read as words by themselves. */
const NAMES: Readonly<Record<string, string>> = {
  at: 'Where in its parent',
  offset: 'Away from there',
  origin: 'By which point of its own',
  move: 'Moved by',
  turn: 'Turned by',
  pivot: 'Turns and grows about',
  extent: 'How much of it is drawn',
  extentFrom: 'Drawn from',
  of: 'Stretch',
  ease: 'Curve',
  a: 'First',
  b: 'Second',
  needs: 'Only where these are filled',
  reads: 'Turns round with the words of',
  standIn: 'What stands for it',
  corner: 'Round corners',
  first: 'First line',
  count: 'Lines',
  fit: 'Room for the words',
  least: 'Smallest size',
  along: 'Runs along',
  hug: 'Fits around others',
  span: 'When it is there',
  placing: 'Put by hand',
};

/** Words of a key: `extentFrom` is “Extent from”. */
export function nameOfKey(key: string | number): string {
  if (typeof key === 'number') return String(key + 1);
  if (Object.hasOwn(NAMES, key)) return NAMES[key]!;
  const words = key.replace(/([a-z])([A-Z])/g, '$1 $2').toLowerCase();
  return words.charAt(0).toUpperCase() + words.slice(1);
}

interface Open {
  readonly schema: z.ZodType;
  readonly optional: boolean;
  readonly rest?: unknown;
}

/** A schema without what may be left out of it and what it is then. */
export function opened(schema: z.ZodType): Open {
  const def = defOf(schema);
  if (constantsOf(schema)) return { schema, optional: false };
  switch (def.type) {
    case 'optional':
      return { ...opened(def.innerType!), optional: true };
    case 'default':
      return { ...opened(def.innerType!), optional: true, rest: def.defaultValue };
    case 'prefault': {
      const inner = opened(def.innerType!);
      return { ...inner, optional: true, rest: inner.schema.parse(def.defaultValue) };
    }
    case 'lazy':
      return opened(def.getter!());
    default:
      return { schema, optional: false };
  }
}

/** Nesting of what is looked at: a schema within itself is a layer or a property, which are not gone into. */
const DEEPEST = 12;

/**
 * What a maker can change of a part of the document, read off the schema that checks it: what the format gains, the
 * workshop has. Layers within layers are left out.
 */
export function fieldOf(key: string | number, held: z.ZodType, depth = 0): Field {
  const { schema, optional, rest } = opened(held);
  const base = { key, name: nameOfKey(key), schema: held, optional, ...(rest === undefined ? {} : { rest }) };
  const constant = constantsOf(schema);
  if (constant) return valueField(base, constant, true);
  if ((schema as unknown) === easingSchema) return valueField(base, schema, false);
  const def = defOf(schema);
  const inner = (k: string | number, s: z.ZodType) => fieldOf(k, s, depth + 1);
  if (depth > DEEPEST) throw new Error(`The format is nested too deep at "${String(key)}".`);
  switch (def.type) {
    case 'object':
      return {
        ...base,
        kind: 'part',
        fields: Object.entries(def.shape!).flatMap(([k, s]) => (k === 'layers' ? [] : [inner(k, s)])),
      };
    case 'union':
      if (def.options!.every(isWord)) return valueField(base, schema, false);
      return { ...base, kind: 'forms', forms: def.options!.map((s) => inner(key, s)) };
    case 'array':
      return {
        ...base,
        kind: 'list',
        item: inner(key, def.element!),
        least: lengthOf(schema, 'minimum') ?? 0,
        most: lengthOf(schema, 'maximum') ?? 1000,
      };
    case 'tuple':
      if (def.items!.every((s) => defOf(s).type === 'number')) return valueField(base, schema, false);
      return { ...base, kind: 'part', fields: def.items!.map((s, i) => inner(i, s)) };
    case 'record':
      return { ...base, kind: 'named', item: inner('value', def.valueType!) };
    default:
      return valueField(base, schema, false);
  }
}

const isWord = (schema: z.ZodType) => ['literal', 'enum'].includes(defOf(schema).type);

function lengthOf(schema: z.ZodType, which: 'minimum' | 'maximum'): number | undefined {
  return checksOf(defOf(schema)).find((limit) => limit[which] !== undefined)?.[which];
}

function valueField(base: FieldBase, constant: z.ZodType, isProperty: boolean): ValueField {
  const field = {
    ...base,
    kind: 'value',
    isProperty,
    constant,
    ...{ min: -100_000, max: 100_000, whole: false, parts: 1, options: [], most: 2000 },
  } as const;
  if (constant === easingSchema) return { ...field, holds: 'curve' };
  const def = defOf(constant);
  switch (def.type) {
    case 'number':
      return { ...field, holds: 'number', ...rangeOf(constant) };
    case 'tuple': {
      const items = def.items!;
      return { ...field, holds: 'numbers', ...rangeOf(items[0]!), parts: items.length };
    }
    case 'boolean':
      return { ...field, holds: 'switch' };
    case 'enum':
      return { ...field, holds: 'choice', options: Object.values(def.entries!) };
    case 'literal':
      return { ...field, holds: 'choice', options: def.values!.map(String) };
    case 'union':
      return { ...field, holds: 'choice', options: def.options!.flatMap(wordsOf) };
    default:
      return constant.safeParse('#C8431C').success && !constant.safeParse('words').success
        ? { ...field, holds: 'colour' }
        : { ...field, holds: 'words', most: lengthOf(constant, 'maximum') ?? 2000 };
  }
}

function wordsOf(schema: z.ZodType): string[] {
  const { values, entries } = defOf(schema);
  return values ? values.map(String) : Object.values(entries ?? {});
}

function rangeOf(schema: z.ZodType): Pick<ValueField, 'min' | 'max' | 'whole'> {
  const { minValue, maxValue, isInt } = schema as z.ZodNumber;
  const within = (v: number | null | undefined, far: number) =>
    v === null || v === undefined || !Number.isFinite(v) ? far : Math.max(-100_000, Math.min(100_000, v));
  return { min: within(minValue, -100_000), max: within(maxValue, 100_000), whole: isInt ?? false };
}

/** Which of several forms a value has: the first whose fixed words and needed parts it has, and which takes it. */
export function formOf({ forms }: FormsField, value: unknown): Field | undefined {
  const likely = forms.filter((form) => looksLike(form, value));
  return likely.length < 2 ? likely[0] : (likely.find((f) => f.schema.safeParse(value).success) ?? likely[0]);
}

function looksLike(form: Field, value: unknown): boolean {
  const isParts = typeof value === 'object' && value !== null && !Array.isArray(value);
  switch (form.kind) {
    case 'part': {
      if (Array.isArray(value)) return form.fields.length === value.length && form.fields[0]?.key === 0;
      if (!isParts) return false;
      const held = value as Readonly<Record<string, unknown>>;
      const known = new Set(form.fields.map((f) => String(f.key)));
      return (
        Object.keys(held).every((k) => known.has(k)) &&
        form.fields.every((f) => {
          if (!Object.hasOwn(held, f.key)) return f.optional;
          const fixed = defOf(opened(f.schema).schema);
          return fixed.type !== 'literal' || fixed.values!.includes(held[f.key]);
        })
      );
    }
    case 'list':
      return Array.isArray(value);
    case 'value':
      return form.schema.safeParse(value).success;
    default:
      return isParts;
  }
}

/** Where files, slots and other parts are named: what of the template such a word is the name of. */
export type Names =
  | 'words'
  | 'picture'
  | 'any-slot'
  | 'sibling'
  | 'sibling-text'
  | 'asset'
  | 'font'
  | 'cue'
  | 'scene';

const NAMING: Readonly<Record<string, Names>> = {
  lines: 'words',
  reads: 'words',
  needs: 'any-slot',
  slots: 'picture',
  picture: 'picture',
  layer: 'sibling',
  layers: 'sibling',
  standIn: 'asset',
  family: 'font',
  beside: 'sibling-text',
  cue: 'cue',
  scenes: 'scene',
};

/**
 * What a word at a place is the name of, where it names something.
 * @param layerKind of the layer it is in; `template`, where it is in none
 */
export function namesAt(layerKind: string, path: readonly (string | number)[]): Names | undefined {
  const key = path.findLast((part) => typeof part === 'string') as string | undefined;
  if (key === undefined) return undefined;
  if (key === 'slots' && layerKind === 'template') return 'any-slot';
  if (key === 'slot') return layerKind === 'text' ? 'words' : 'picture';
  if (key === 'text') return path[0] === 'from' ? 'sibling-text' : undefined;
  return Object.hasOwn(NAMING, key) ? NAMING[key] : undefined;
}

/** A drawn outline, where one has to begin with something. */
const FIRST_PATH = 'M 0 0 H 100 V 100 H 0 Z';

/**
 * The plainest value that a schema takes: where a part is added, it begins as this.
 * @param named gives a name for a word that has to be one; nothing where there is none to give
 */
export function startOf(
  schema: z.ZodType,
  named: (key: string) => string | undefined = () => undefined,
  key = '',
): unknown {
  const { schema: own, optional, rest } = opened(schema);
  if (rest !== undefined) return rest;
  if (optional) return undefined;
  const constant = constantsOf(own) ?? own;
  if (constant === (easingSchema as unknown)) return 'ease-out' satisfies Easing;
  const def = defOf(constant);
  switch (def.type) {
    case 'object': {
      const parts = Object.entries(def.shape!).map(([k, s]) => [k, startOf(s, named, k)] as const);
      return Object.fromEntries(parts.filter(([, value]) => value !== undefined));
    }
    case 'union':
      return startOf(def.options![0]!, named, key);
    case 'tuple':
      return def.items!.map((s) => startOf(s, named, key));
    case 'array':
      return Array.from({ length: lengthOf(constant, 'minimum') ?? 0 }, () =>
        startOf(def.element!, named, key),
      );
    case 'record':
      return {};
    case 'number':
      return firstNumber(constant);
    case 'boolean':
      return false;
    case 'enum':
      return Object.values(def.entries!)[0];
    case 'literal':
      return def.values![0];
    default:
      return firstWords(constant, named(key), key);
  }
}

function firstNumber(schema: z.ZodType): number {
  const { min, max, whole } = rangeOf(schema);
  const wanted = [1, 0, min, max].find((v) => schema.safeParse(v).success) ?? (min + max) / 2;
  return whole ? Math.round(wanted) : wanted;
}

function firstWords(schema: z.ZodType, name: string | undefined, key: string): string {
  const tries = [name, ...(key === 'data' ? [FIRST_PATH] : []), 'Words', 'first', '#FFFFFF', ''];
  return tries.find((v): v is string => v !== undefined && schema.safeParse(v).success) ?? '';
}
