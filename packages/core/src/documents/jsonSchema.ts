import type { z } from 'zod';
import { constantsOf } from '../values/property';
import { checksOf, defOf, type SchemaDef } from '../values/schemaDef';

/** A JSON Schema (draft 2020-12), as plain data. */
export type JsonSchema = { readonly [key: string]: unknown } | boolean;

/**
 * Writes a schema of the format as JSON Schema, for tools outside. What schemas of zod check in code (links, rings,
 * names that have to be there) is left out: what it refuses is no document of ours, what it takes may still be none.
 * Properties, of which there are hundreds, are written once for each kind of constant.
 * @param title what a document of it is
 */
export function writeJsonSchema(schema: z.ZodType, title: string): JsonSchema {
  const writer = new Writer();
  const root = writer.write(schema);
  return {
    $schema: 'https://json-schema.org/draft/2020-12/schema',
    title,
    ...(root as object),
    $defs: writer.defs,
  };
}

/** Letters from which what comes again is worth a name. */
const LARGE = 160;

class Writer {
  readonly defs: Record<string, JsonSchema> = {};
  /** Schemas that are written, or being written: what holds itself is a reference. */
  private readonly named = new Map<z.ZodType, string>();
  private readonly properties = new Map<string, string>();
  private readonly alike = new Map<string, string>();

  write(schema: z.ZodType): JsonSchema {
    const constant = constantsOf(schema);
    if (constant) return this.property(constant);
    const def = defOf(schema);
    switch (def.type) {
      case 'optional':
      case 'nonoptional':
      case 'readonly':
        return this.write(def.innerType!);
      case 'default':
        return { ...(this.write(def.innerType!) as object), default: def.defaultValue };
      case 'prefault':
        return this.write(def.innerType!);
      case 'nullable':
        return { anyOf: [this.write(def.innerType!), { type: 'null' }] };
      case 'pipe':
        // What is brought up, or looked at first, is written as what it comes to.
        return this.write(isThrough(def.in!) ? def.out! : def.in!);
      case 'lazy':
        return this.once(schema, () => this.write(def.getter!()));
      case 'object':
        return this.shared(this.object(def));
      case 'union':
        return this.shared({ anyOf: def.options!.map((o) => this.write(o)) });
      case 'array':
        return { type: 'array', items: this.write(def.element!), ...lengths(def, 'Items') };
      case 'tuple':
        return {
          ...{ type: 'array', prefixItems: def.items!.map((s) => this.write(s)) },
          ...{ items: false, minItems: def.items!.length },
        };
      case 'record':
        return { type: 'object', additionalProperties: this.write(def.valueType!) };
      case 'number':
        return numbers(def);
      case 'string':
        return { type: 'string', ...lengths(def, 'Length'), ...patterns(def) };
      case 'boolean':
        return { type: 'boolean' };
      case 'enum':
        return { enum: Object.values(def.entries!) };
      case 'literal':
        return def.values!.length === 1 ? { const: def.values![0] } : { enum: [...def.values!] };
      case 'null':
        return { type: 'null' };
      default:
        return true;
    }
  }

  private object(def: SchemaDef): JsonSchema {
    const entries = Object.entries(def.shape!);
    const required = entries.filter(([, s]) => !mayBeAbsent(s)).map(([key]) => key);
    const strict = def.catchall && defOf(def.catchall).type === 'never';
    return {
      type: 'object',
      properties: Object.fromEntries(entries.map(([key, s]) => [key, this.write(s)])),
      ...(required.length > 0 ? { required } : {}),
      ...(strict ? { additionalProperties: false } : {}),
    };
  }

  private once(schema: z.ZodType, make: () => JsonSchema): JsonSchema {
    const there = this.named.get(schema);
    if (there !== undefined) return { $ref: `#/$defs/${there}` };
    const name = `part-${this.named.size + this.alike.size + 1}`;
    this.named.set(schema, name);
    this.defs[name] = make();
    return { $ref: `#/$defs/${name}` };
  }

  /** What is large is written once, wherever it comes again. */
  private shared(written: JsonSchema): JsonSchema {
    const text = JSON.stringify(written);
    if (text.length < LARGE) return written;
    const name = this.alike.get(text) ?? `part-${this.named.size + this.alike.size + 1}`;
    this.alike.set(text, name);
    this.defs[name] = written;
    return { $ref: `#/$defs/${name}` };
  }

  /** A constant, or where its value comes from: written once for each kind of constant. */
  private property(constant: z.ZodType): JsonSchema {
    const own = this.write(constant);
    const key = JSON.stringify(own);
    const there = this.properties.get(key);
    if (there !== undefined) return { $ref: `#/$defs/${there}` };
    const name = `property-${this.properties.size + 1}`;
    this.properties.set(key, name);
    const self = { $ref: `#/$defs/${name}` };
    this.defs[name] = { anyOf: [own, ...sources(self)] };
    return self;
  }
}

/** What takes anything and makes something of it. */
const isThrough = (schema: z.ZodType): boolean => {
  const { type } = defOf(schema);
  return type === 'transform' || type === 'unknown' || type === 'any' || type === 'pipe';
};

function mayBeAbsent(schema: z.ZodType): boolean {
  const def = defOf(schema);
  if (['optional', 'default', 'prefault'].includes(def.type)) return true;
  return def.type === 'nullable' || def.type === 'readonly' ? mayBeAbsent(def.innerType!) : false;
}

function lengths(def: SchemaDef, of: 'Items' | 'Length'): Record<string, number> {
  return Object.fromEntries(
    checksOf(def).flatMap(({ check, minimum, maximum }) => [
      ...(check === 'min_length' ? [[`min${of}`, minimum!] as const] : []),
      ...(check === 'max_length' ? [[`max${of}`, maximum!] as const] : []),
    ]),
  );
}

function patterns(def: SchemaDef): { readonly pattern?: string } {
  const found = checksOf(def).find((c) => c.pattern)?.pattern;
  return found && found.flags === '' ? { pattern: found.source } : {};
}

function numbers(def: SchemaDef): JsonSchema {
  const checks = checksOf(def);
  const whole = checks.some((c) => c.check === 'number_format' && c.format?.includes('int'));
  const limits = checks.flatMap(({ check, value, inclusive }): (readonly [string, number])[] => {
    if (value === undefined || !Number.isFinite(value)) return [];
    if (check === 'greater_than') return [[inclusive ? 'minimum' : 'exclusiveMinimum', value]];
    if (check === 'less_than') return [[inclusive ? 'maximum' : 'exclusiveMaximum', value]];
    return [];
  });
  return { type: whole ? 'integer' : 'number', ...Object.fromEntries(limits) };
}

const NUMBER = { type: 'number' } as const;
const WORDS = { type: 'string' } as const;
const COLOURS = { type: 'array', items: WORDS, minItems: 1 } as const;
const STRETCH = { enum: ['in', 'hold', 'out'] } as const;
const strict = (properties: object, ...required: readonly string[]) => ({
  ...{ type: 'object', properties, required, additionalProperties: false },
});
const scaled = { scale: NUMBER, offset: NUMBER };

/** Where a value may come from, as `property.ts` has it. */
function sources(self: JsonSchema): JsonSchema[] {
  const key = strict({ at: NUMBER, of: STRETCH, value: self, ease: true }, 'at', 'value');
  return [
    strict({ keys: { type: 'array', items: key, minItems: 1 } }, 'keys'),
    strict(
      {
        ...{ control: WORDS, part: { enum: [0, 1] }, ...scaled, invert: { type: 'boolean' } },
        ...{ table: { type: 'object', additionalProperties: self } },
        ...{ mix: strict({ with: WORDS, amount: NUMBER }, 'with', 'amount'), alpha: NUMBER },
        ...{
          readable: COLOURS,
          curve: strict({ ease: true, from: NUMBER, to: NUMBER }, 'ease', 'from', 'to'),
        },
      },
      'control',
    ),
    strict({ shape: strict({ wide: self, tall: self, square: self }, 'wide', 'tall', 'square') }, 'shape'),
    strict({ frame: { enum: ['width', 'height', 'short', 'long'] }, scale: NUMBER }, 'frame'),
    strict(
      { wave: strict({ size: self, every: NUMBER, phase: NUMBER, middle: true }, 'size', 'every') },
      'wave',
    ),
    strict({ parts: { type: 'array', minItems: 2, maxItems: 4 } }, 'parts'),
    strict({ each: { enum: ['number', 'part'] }, ...scaled }, 'each'),
    strict({ count: { type: 'object' }, ...scaled }, 'count'),
    // A number meets every part of a point.
    strict({ sum: { type: 'array', minItems: 1 } }, 'sum'),
    strict({ product: { type: 'array', minItems: 1 } }, 'product'),
  ];
}
