import { z } from 'zod';
import { colourSchema, mixColours, mostReadable, withAlpha } from '../colour/colour';
import { type Easing, easingFunction, easingSchema } from '../motion/easing';
import { type Clock, type Mark, markTime } from '../time/clock';
import { keepWanted } from './linking';

/**
 * A property of a layer: a constant, or where its value comes from. There is no formula language; each source below
 * is a plain mapping, so a stranger's document is safe to open and a control can be traced to all it moves.
 */
export type Property<T> = T | Source<T>;

/** A value that properties can hold. Points are arrays, so an object is always a source. */
export type Value = number | string | boolean | readonly number[];

export type Source<T> =
  | { keys: Key<T>[] }
  | ControlLink<T>
  | { shape: { wide: Property<T>; tall: Property<T>; square: Property<T> } }
  | { frame: 'width' | 'height' | 'short' | 'long'; scale?: number }
  | { wave: { size: Property<T>; every: number; phase?: number; middle?: T } }
  | { parts: Property<number>[] }
  | { each: 'number' | 'part'; scale?: number; offset?: number }
  | { count: Repeated; scale?: number; offset?: number }
  | { sum: Property<T>[] }
  | { product: Property<T>[] };

/** What a part comes once for: each filled slot of a list of them, or each line of a slot of words. */
export const repeatedSchema = z.union([
  z.strictObject({ slots: z.array(z.string()).min(1).max(60) }),
  z.strictObject({ lines: z.string() }),
]);
export type Repeated = z.infer<typeof repeatedSchema>;

export interface Key<T> extends Mark {
  value: Property<T>;
  /** The curve from this key to the next. */
  ease?: Easing;
}

/** A link to a control, and what to make of its value. */
export interface ControlLink<T> {
  control: string;
  /** Of a point: its first or second part alone. */
  part?: 0 | 1 | undefined;
  /** Numbers and points: value × scale + offset. */
  scale?: number;
  offset?: number;
  /** Numbers become 1 − value, switches flip. */
  invert?: boolean;
  /** Picks by the control's value, written as text. */
  table?: Record<string, Property<T>>;
  /** Colours: mixed towards another by an amount 0..1. */
  mix?: { with: string; amount: number };
  /** Colours: alpha multiplied. */
  alpha?: number;
  /** Colours: whichever of these reads best on the control's colour. */
  readable?: string[];
  /** Numbers: between two values of the control they go by a curve, before they are scaled. */
  curve?: { ease: Easing; from: number; to: number };
}

export const markSchema = z.strictObject({
  at: z.number().min(-100000).max(100000),
  of: z.enum(['in', 'hold', 'out']).default('in'),
});

/** A number of a point that is made of parts; declared apart, since numbers are properties too. */
const numberPart: z.ZodType<Property<number>> = z.lazy(() => property(z.number()));

const CONSTANTS = new WeakMap<z.ZodType, z.ZodType<Value>>();

/** What a property's constants are; nothing of a schema that is no property's. */
export const constantsOf = (schema: z.ZodType): z.ZodType<Value> | undefined => CONSTANTS.get(schema);

/**
 * The schema of a property whose constant is `constant`. What it is made of is made when something is first read with
 * it: there are hundreds of properties, and what paints reads nothing.
 */
export function property<S extends z.ZodType<Value>>(constant: S): z.ZodType<Property<z.output<S>>> {
  type T = z.output<S>;
  /** A part of a sum or a product, where a number meets every part of a point. */
  const term: z.ZodType<Property<T>> = z
    .lazy(() => z.union([constant, ...sourcesOf(constant, self, term)]) as z.ZodType<Property<T>>)
    .superRefine((p) => {
      if (!isConstant(p)) keepWanted(p as object, { constant, isTerm: true });
    });
  const self = term.superRefine((p) => {
    if (!isConstant(p)) keepWanted(p as object, { constant, isTerm: false });
  });
  CONSTANTS.set(self, constant);
  return self;
}

/** What a property's value may come from. */
function sourcesOf<T extends Value>(
  constant: z.ZodType<T>,
  self: z.ZodType<Property<T>>,
  term: z.ZodType<Property<T>>,
) {
  return [
    z.strictObject({
      keys: z
        .array(z.strictObject({ ...markSchema.shape, value: self, ease: easingSchema.optional() }))
        .min(1),
    }),
    z.strictObject({
      control: z.string().min(1),
      /** Of a point: its first or second part alone. */
      part: z.union([z.literal(0), z.literal(1)]).optional(),
      scale: z.number().optional(),
      offset: z.number().optional(),
      invert: z.boolean().optional(),
      table: z.record(z.string(), self).optional(),
      mix: z.strictObject({ with: colourSchema, amount: z.number().min(0).max(1) }).optional(),
      alpha: z.number().min(0).max(1).optional(),
      readable: z.array(colourSchema).min(1).optional(),
      curve: z.strictObject({ ease: easingSchema, from: z.number(), to: z.number() }).optional(),
    }),
    z.strictObject({ shape: z.strictObject({ wide: self, tall: self, square: self }) }),
    z.strictObject({ frame: z.enum(['width', 'height', 'short', 'long']), scale: z.number().optional() }),
    z.strictObject({
      wave: z.strictObject({
        size: self,
        every: z.number().positive(),
        phase: z.number().optional(),
        middle: constant.optional(),
      }),
    }),
    z.strictObject({ parts: z.array(numberPart).min(2).max(4) }),
    z.strictObject({
      /** Within a part that is repeated: its number, from 0, or that as a part of the way from the first to the last. */
      each: z.enum(['number', 'part']),
      scale: z.number().optional(),
      offset: z.number().optional(),
    }),
    z.strictObject({ count: repeatedSchema, scale: z.number().optional(), offset: z.number().optional() }),
    z.strictObject({ sum: z.array(term).min(1) }),
    z.strictObject({ product: z.array(term).min(1) }),
  ] as const;
}

/** What a property may look at when its value is asked for. */
export interface Moment {
  readonly clock: Clock;
  /** Local time in template frames. */
  readonly time: number;
  /** Control values, complete (defaults included). */
  readonly controls: Readonly<Record<string, Property<Value>>>;
  readonly frame: { readonly width: number; readonly height: number };
  /** How often a part comes that is repeated; nothing of it is known where there are no slots. */
  readonly countOf?: (over: Repeated) => number;
  /** Of a part that is repeated: which one it is, and of how many. */
  readonly each?: { readonly number: number; readonly of: number };
}

export type FrameShape = 'wide' | 'tall' | 'square';

/** Frames within 10% of square count as square. */
export function frameShape(frame: { width: number; height: number }): FrameShape {
  const ratio = frame.width / frame.height;
  return ratio > 1.1 ? 'wide' : ratio < 1 / 1.1 ? 'tall' : 'square';
}

/** Whether a property holds a plain value rather than a source. */
export function isConstant<T>(p: Property<T>): p is T {
  return typeof p !== 'object' || p === null || Array.isArray(p);
}

/** Combines two numbers or points, element by element; a number meets every element of a point. */
function combine(a: Value, b: Value, by: (x: number, y: number) => number): Value {
  if (typeof a === 'number' && typeof b === 'number') return by(a, b);
  const list = (Array.isArray(a) ? a : Array.isArray(b) ? b : []) as readonly number[];
  const at = (v: Value, i: number) => (Array.isArray(v) ? ((v as readonly number[])[i] ?? 0) : Number(v));
  return list.map((_, i) => by(at(a, i), at(b, i)));
}

/** A value `t` of the way from `a` to `b`: numbers and points by line, colours through OKLab, others step at 1. */
export function between(a: Value, b: Value, t: number): Value {
  if (typeof a === 'number' && typeof b === 'number') return a + (b - a) * t;
  if (Array.isArray(a) && Array.isArray(b)) return combine(a, b, (x, y) => x + (y - x) * t);
  if (typeof a === 'string' && typeof b === 'string' && a.startsWith('#') && b.startsWith('#'))
    return mixColours(a, b, t);
  return t < 1 ? a : b;
}

function keyed(keys: readonly Key<Value>[], moment: Moment): Value {
  const { clock, time } = moment;
  const last = keys.length - 1;
  let i = 0;
  let start = markTime(clock, keys[0]!);
  // Keys stay in their order: one that a short hold would put before the one before it comes with that one.
  let next = start;
  while (i < last) {
    next = Math.max(start, markTime(clock, keys[i + 1]!));
    if (next > time) break;
    start = next;
    i++;
  }
  const from = keys[i]!;
  if (i === last || time <= start) return valueAt(from.value, moment);
  const to = keys[i + 1]!;
  const progress = (time - start) / (next - start);
  return between(
    valueAt(from.value, moment),
    valueAt(to.value, moment),
    easingFunction(from.ease ?? 'ease-in-out')(progress),
  );
}

function linked(link: ControlLink<Value>, moment: Moment): Value {
  const held = Object.hasOwn(moment.controls, link.control) ? moment.controls[link.control] : undefined;
  if (held === undefined)
    throw new Error(`The template links to a control "${link.control}" that it does not have.`);
  let value = valueAt(held, moment);
  if (link.table) {
    const name = String(value);
    const row = Object.hasOwn(link.table, name) ? link.table[name] : undefined;
    if (row === undefined)
      throw new Error(`The control "${link.control}" has no entry for "${String(value)}".`);
    return valueAt(row, moment);
  }
  if (typeof value === 'boolean') {
    return link.invert ? !value : value;
  }
  if (typeof value === 'string') {
    if (link.readable) value = mostReadable(value, link.readable);
    if (link.mix) value = mixColours(value, link.mix.with, link.mix.amount);
    if (link.alpha !== undefined) value = withAlpha(value, link.alpha);
    return value;
  }
  if (link.part !== undefined && Array.isArray(value)) value = value[link.part] as number;
  if (link.invert) value = combine(1, value, (x, y) => x - y);
  if (link.curve && typeof value === 'number') value = curved(value, link.curve);
  if (link.scale !== undefined) value = combine(value, link.scale, (x, y) => x * y);
  if (link.offset !== undefined) value = combine(value, link.offset, (x, y) => x + y);
  return value;
}

/** A number that goes from one value to another by a curve; beyond them it stays as it is. */
function curved(value: number, { ease, from, to }: NonNullable<ControlLink<Value>['curve']>): number {
  if (from === to) return value;
  const part = (value - from) / (to - from);
  return part <= 0 || part >= 1 ? value : from + easingFunction(ease)(part) * (to - from);
}

/** Larger numbers than this are not told apart: what a document multiplies beyond all measure stays a number. */
const LARGEST = 1e7;
const bounded = (v: number) => (Number.isNaN(v) ? 0 : Math.min(LARGEST, Math.max(-LARGEST, v)));

/** The plain value of a property at a moment. Numbers are finite. */
export function valueAt<T extends Value>(p: Property<T>, moment: Moment): T {
  const value: Value = isConstant(p) ? p : fromSource(p as Source<Value>, moment);
  if (typeof value === 'number') return bounded(value) as T;
  if (!Array.isArray(value) || value.every((v) => v === bounded(v))) return value as T;
  return value.map(bounded) as readonly number[] as T;
}

function fromSource(source: Source<Value>, moment: Moment): Value {
  if ('keys' in source) return keyed(source.keys, moment);
  if ('control' in source) return linked(source, moment);
  if ('shape' in source) return valueAt(source.shape[frameShape(moment.frame)], moment);
  if ('frame' in source) {
    const { width, height } = moment.frame;
    const side = { width, height, short: Math.min(width, height), long: Math.max(width, height) }[
      source.frame
    ];
    return side * (source.scale ?? 1);
  }
  if ('wave' in source) {
    const { size, every, phase = 0, middle } = source.wave;
    const swing = Math.sin(2 * Math.PI * (moment.time / every + phase));
    const moved = combine(valueAt(size, moment), swing, (x, y) => x * y);
    return middle === undefined ? moved : combine(moved, middle, (x, y) => x + y);
  }
  if ('each' in source) {
    const { number, of } = moment.each ?? { number: 0, of: 1 };
    const at = source.each === 'number' ? number : of > 1 ? number / (of - 1) : 0;
    return at * (source.scale ?? 1) + (source.offset ?? 0);
  }
  if ('count' in source)
    return (moment.countOf?.(source.count) ?? 0) * (source.scale ?? 1) + (source.offset ?? 0);
  if ('parts' in source) return source.parts.map((q) => valueAt(q, moment));
  const list = 'sum' in source ? source.sum : source.product;
  const by = 'sum' in source ? (x: number, y: number) => x + y : (x: number, y: number) => x * y;
  return list.map((q) => valueAt(q, moment)).reduce((a, b) => combine(a, b, by));
}
