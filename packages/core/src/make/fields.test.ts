import type { z } from 'zod';
import { templateShape } from '../documents/template';
import { LAYER_SCHEMAS } from '../layers/registry';
import { type Field, fieldOf, formOf, namesAt, startOf } from './fields';

const kinds = Object.keys(LAYER_SCHEMAS) as (keyof typeof LAYER_SCHEMAS)[];

function* everyField(field: Field): Generator<Field> {
  yield field;
  if (field.kind === 'part') for (const f of field.fields) yield* everyField(f);
  if (field.kind === 'forms') for (const f of field.forms) yield* everyField(f);
  if (field.kind === 'list' || field.kind === 'named') yield* everyField(field.item);
}

describe('fields of the format', () => {
  it.each(kinds)('every part of a %s has a field whose start its schema takes', (kind) => {
    const all = [...everyField(fieldOf(kind, LAYER_SCHEMAS[kind] as unknown as z.ZodType))];
    expect(all.length).toBeGreaterThan(20);
    for (const field of all) {
      const start = startOf(field.schema, () => 'name');
      const parsed = field.schema.safeParse(start);
      expect([kind, field.key, start, parsed.error?.message]).toEqual([kind, field.key, start, undefined]);
    }
  });

  it('every list of a template begins what is added as its schema takes it, with no name to give', () => {
    const all = [...everyField(fieldOf('template', templateShape as unknown as z.ZodType))];
    const items = all.flatMap((field) => (field.kind === 'list' ? [field.item] : []));
    expect(items.map(({ key }) => key)).toContain('guidelines');
    for (const { key, schema } of items) {
      const start = startOf(schema);
      expect([key, start, schema.safeParse(start).error?.message]).toEqual([key, start, undefined]);
    }
  });

  it('knows ranges, units of choice and how many numbers a value has', () => {
    const field = fieldOf('shape', LAYER_SCHEMAS.shape as unknown as z.ZodType);
    const of = (key: string) => (field.kind === 'part' ? field.fields : []).find((f) => f.key === key);
    expect(of('opacity')).toMatchObject({ holds: 'number', isProperty: true, min: 0, max: 1, rest: 1 });
    expect(of('move')).toMatchObject({ holds: 'numbers', parts: 3, rest: [0, 0, 0] });
    expect(of('visible')).toMatchObject({ holds: 'switch', isProperty: true });
    expect(of('blend')).toMatchObject({ holds: 'choice', isProperty: false });
    expect(of('extentFrom')).toMatchObject({ name: 'Drawn from' });
    expect(of('layers')).toBeUndefined();
  });

  it('tells which form a value has', () => {
    const field = fieldOf('shape', LAYER_SCHEMAS.shape as unknown as z.ZodType);
    const outline = (field.kind === 'part' ? field.fields : []).find((f) => f.key === 'outline')!;
    if (outline.kind !== 'forms') throw new Error('An outline has forms.');
    for (const value of [
      { kind: 'ellipse' },
      { kind: 'rectangle', corner: { control: 'corner' } },
      { kind: 'polygon', points: 5 },
    ]) {
      const form = formOf(outline, value);
      expect(form?.schema.safeParse(value).success).toBe(true);
    }
  });

  it('knows what a word is the name of', () => {
    expect(namesAt('text', ['words', 'slot'])).toBe('words');
    expect(namesAt('picture', ['slot'])).toBe('picture');
    expect(namesAt('shape', ['hug', 'layers', 0])).toBe('sibling');
    expect(namesAt('particles', ['from', 'text'])).toBe('sibling-text');
    expect(namesAt('text', ['words', 'text'])).toBeUndefined();
    expect(namesAt('template', ['slots', 0, 'cue'])).toBe('cue');
    expect(namesAt('template', ['slots', 0, 'scenes', 0])).toBe('scene');
    expect(namesAt('template', ['guidelines', 0, 'slots', 0])).toBe('any-slot');
    expect(namesAt('points', ['pictures', 'slots', 0])).toBe('picture');
  });
});
