import type { z } from 'zod';
import { type Template, templateShape } from '../documents/template';
import { LAYER_SCHEMAS, type Layer } from '../layers/registry';
import { isConstant } from '../values/property';
import { type Field, fieldOf, formOf, type PartField } from './fields';
import { type Place, partOf, valueIn } from './places';

const kept = new Map<string, PartField>();

function once(key: string, schema: z.ZodType): PartField {
  const there = kept.get(key);
  if (there) return there;
  const made = fieldOf(key, schema) as PartField;
  kept.set(key, made);
  return made;
}

/** The fields of a kind of layer; read off the schema once. */
export const fieldsOfKind = (kind: Layer['kind']): PartField =>
  once(kind, LAYER_SCHEMAS[kind] as unknown as z.ZodType);

/** The fields of the template itself, without those of its layers. */
export const fieldsOfTemplate = (): PartField => once('template', templateShape as unknown as z.ZodType);

/** The field of a place, as the forms of what stands there have it; nothing where it is within a source of a value. */
export function fieldAt(template: Template, { of, path }: Place): Field | undefined {
  let field: Field | undefined =
    of === 'template' ? fieldsOfTemplate() : fieldsOfKind(partOf(template, of.layer).kind);
  for (const [i, key] of path.entries()) {
    if (!field) return undefined;
    field = within(field, key, valueIn(template, { of, path: path.slice(0, i) }));
  }
  return field?.kind === 'forms' ? (formOf(field, valueIn(template, { of, path })) ?? field) : field;
}

function within(field: Field, key: string | number, value: unknown): Field | undefined {
  switch (field.kind) {
    case 'part':
      return field.fields.find((f) => f.key === key);
    case 'list':
    case 'named':
      return field.item;
    case 'forms': {
      const form = formOf(field, value);
      return form && within(form, key, value);
    }
    case 'value':
      return undefined;
  }
}

/** Whether a place holds a plain value, rather than one that comes from elsewhere. */
export const isPlainAt = (template: Template, place: Place): boolean =>
  isConstant(valueIn(template, place) as never);
