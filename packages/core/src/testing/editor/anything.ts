import fc from 'fast-check';
import type { z } from 'zod';
import { colourSchema } from '../../colour/colour';
import { constantsOf } from '../../values/property';
import { checksOf, defOf, type SchemaDef } from '../../values/schemaDef';

/** How deep lists and parts go into each other. */
const DEEPEST = 5;

/** Numbers on an edge are drawn up to this, and those between mostly. */
const FARTHEST = 1000;
const USUAL = 60;

const COLOURS = ['#C8431C', '#102030', '#FFFFFF', '#00000080', '#7FC6A4FF', '#000000'];
const TEXTS = [
  '',
  'a',
  'Marram',
  'قوس قزح',
  'e\u0301\u{1FA81}',
  'two\nlines',
  'Instrument Sans',
  'x'.repeat(70),
];
const PATH = 'M0 0.5C0.3 0 0.6 1 1 0.5';

/**
 * Whatever a schema takes, as it is once it was read: values within its limits and on their edges, lists short and long,
 * parts there and absent. Links to controls are left out: they go by a template, which a schema does not know.
 */
export function anythingOf<T>(schema: z.ZodType<T>): fc.Arbitrary<T> {
  return made(schema, DEEPEST)
    .map((value) => schema.safeParse(value))
    .filter((read) => read.success)
    .map((read) => read.data as T);
}

const MADE = new Map<number, WeakMap<z.ZodType, fc.Arbitrary<unknown>>>();

function made(schema: z.ZodType, depth: number): fc.Arbitrary<unknown> {
  const known = MADE.get(depth) ?? new WeakMap<z.ZodType, fc.Arbitrary<unknown>>();
  MADE.set(depth, known);
  const there = known.get(schema);
  if (there) return there;
  const fresh = (schema as z.ZodType) === colourSchema ? fc.constantFrom(...COLOURS) : ofDef(schema, depth);
  known.set(schema, fresh);
  return fresh;
}

function ofDef(schema: z.ZodType, depth: number): fc.Arbitrary<unknown> {
  const constant = constantsOf(schema);
  if (constant) return propertyOf(made(constant, depth), depth);
  const def = defOf(schema);
  switch (def.type) {
    case 'optional':
    case 'default':
    case 'prefault':
      return depth <= 0 ? fc.constant(undefined) : fc.option(made(def.innerType!, depth), { nil: undefined });
    case 'nullable':
      return fc.option(made(def.innerType!, depth), { nil: null });
    case 'nonoptional':
    case 'readonly':
      return made(def.innerType!, depth);
    case 'pipe':
      return made(def.in!, depth);
    case 'lazy':
      return made(def.getter!(), depth);
    case 'object':
      return objectOf(def, depth);
    case 'union':
      return fc.oneof(...def.options!.map((o) => made(o, depth - 1)));
    case 'array':
      return listOf(def, depth);
    case 'tuple':
      return fc.tuple(...def.items!.map((i) => made(i, depth)));
    case 'record':
      return fc.constant({});
    case 'number':
      return numberOf(def);
    case 'string':
      return fc.constantFrom(...TEXTS, PATH);
    case 'boolean':
      return fc.boolean();
    case 'enum':
      return fc.constantFrom(...Object.values(def.entries!));
    case 'literal':
      return fc.constantFrom(...def.values!);
    default:
      return fc.constant(null);
  }
}

/** A constant, mostly; else one that changes over time. */
function propertyOf(constant: fc.Arbitrary<unknown>, depth: number): fc.Arbitrary<unknown> {
  if (depth <= 0) return constant;
  const mark = { at: fc.integer({ min: -30, max: 90 }), of: fc.constantFrom('in', 'hold', 'out') };
  const keys = fc.array(fc.record({ ...mark, value: constant }), { minLength: 1, maxLength: 3 });
  return fc.oneof({ weight: 6, arbitrary: constant }, { weight: 1, arbitrary: fc.record({ keys }) });
}

function objectOf(def: SchemaDef, depth: number): fc.Arbitrary<unknown> {
  const parts = Object.entries(def.shape!).map(([key, s]) => [key, made(s, depth - 1)] as const);
  return fc
    .record(Object.fromEntries(parts))
    .map((all) => Object.fromEntries(Object.entries(all).filter(([, value]) => value !== undefined)));
}

function listOf(def: SchemaDef, depth: number): fc.Arbitrary<unknown> {
  const least = limit(def, 'min_length') ?? 0;
  const most = limit(def, 'max_length') ?? 3;
  return fc.array(made(def.element!, depth - 1), { minLength: least, maxLength: Math.min(most, least + 2) });
}

const limit = (def: SchemaDef, check: string): number | undefined => {
  const found = checksOf(def).find((c) => c.check === check);
  return found?.minimum ?? found?.maximum;
};

/** A number in its range: on its edges, nought, one, and what people set between. */
function numberOf(def: SchemaDef): fc.Arbitrary<unknown> {
  const checks = checksOf(def);
  const whole = checks.some((c) => c.check === 'number_format' && c.format === 'safeint');
  const bound = (check: string) => checks.find((c) => c.check === check);
  const [low, high] = [bound('greater_than'), bound('less_than')];
  const least = low?.value ?? -1000;
  const most = high?.value ?? 1000;
  const inside = (v: number) => (low?.inclusive === false ? v > least : v >= least) && v <= most;
  // The very ends of time are out of time at another rate, and thousandfold sizes take their time to paint.
  const edges = [least, most, 0, 1].filter((v) => inside(v) && Math.abs(v) <= FARTHEST);
  const step = whole ? 1 : 0.01;
  const [from, to] = [Math.max(least, -USUAL), Math.min(most, USUAL)];
  const between = fc
    .integer({ min: Math.ceil(from / step), max: Math.max(Math.ceil(from / step), Math.floor(to / step)) })
    .map((n) => Math.round(n * step * 100) / 100)
    .filter(inside);
  return edges.length === 0
    ? between
    : fc.oneof({ weight: 1, arbitrary: fc.constantFrom(...edges) }, { weight: 3, arbitrary: between });
}
