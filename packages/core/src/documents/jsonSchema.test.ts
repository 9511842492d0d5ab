import { allTemplates, templateById } from '@fresh-reel/templates';
// A general validator of JSON Schema, draft 2020-12.
import Ajv from 'ajv/dist/2020';
import fc from 'fast-check';
import { emptyReel, newReel } from '../edit/reel';
import { beginTemplate } from '../make/begin';
import { writeJsonSchema } from './jsonSchema';
import { contentsKind, NO_CONTENTS } from './package';
import { reelKind } from './reel';
import { templateKind } from './templateKind';

const validator = (schema: ReturnType<typeof writeJsonSchema>) =>
  new Ajv({ strict: false, inlineRefs: false }).compile(schema as object);
const template = writeJsonSchema(templateKind.schema, 'Template');
const isTemplate = validator(template);

describe('the published schema', () => {
  it('takes every built-in template, and those begun from nothing', () => {
    for (const held of [...allTemplates(), beginTemplate('blank', { id: 'a', name: 'A', shape: 'tall' })]) {
      const ok = isTemplate(JSON.parse(JSON.stringify(held)));
      expect([held.id, ok, isTemplate.errors?.slice(0, 3)]).toEqual([held.id, true, undefined]);
    }
  });

  it('takes reels, and is small enough to be read', () => {
    const isReel = validator(writeJsonSchema(reelKind.schema, 'Reel'));
    const made = { id: 'r', name: 'R', now: '2026-11-28T00:00:00Z' };
    const reel = newReel(templateById('name-strap'), { ...made, shape: 'wide' });
    expect([isReel(JSON.parse(JSON.stringify(reel))), isReel.errors]).toEqual([true, null]);
    expect(
      isReel({
        ...emptyReel({ ...made, frame: { width: 2, height: 2 }, rate: { num: 1, den: 1 } }),
        frame: 1,
      }),
    ).toBe(false);
    expect(JSON.stringify(template).length).toBeLessThan(300_000);
    expect(validator(writeJsonSchema(contentsKind.schema, 'Contents'))(NO_CONTENTS)).toBe(true);
  });

  it('refuses what is no template, as the schema it is written from does', () => {
    const first = JSON.parse(JSON.stringify(templateById('name-strap'))) as object;
    for (const broken of [
      { ...first, version: 'five' },
      { ...first, layers: [] },
      { ...first, unknown: 1 },
      { ...first, use: 'kite' },
      { ...first, layers: [{ id: 'a', kind: 'cube' }] },
      { ...first, layers: [{ id: 'a', kind: 'shape', outline: { kind: 'ellipse' }, opacity: 7 }] },
    ]) {
      expect(isTemplate(broken)).toBe(false);
      expect(templateKind.schema.safeParse(broken).success).toBe(false);
    }
  });

  it('refuses nothing that the app opens', () => {
    const source = JSON.parse(JSON.stringify(templateById('name-strap')));
    const values = fc.oneof(
      fc.integer(),
      fc.double({ noNaN: true }),
      fc.boolean(),
      fc.string(),
      fc.constant(null),
    );
    fc.assert(
      fc.property(fc.array(fc.nat(40), { minLength: 1, maxLength: 6 }), values, (way, value) => {
        const data = structuredClone(source);
        let held = data;
        for (const [i, step] of way.entries()) {
          const keys = Object.keys(held);
          if (keys.length === 0) return;
          const key = keys[step % keys.length]!;
          const inner = held[key];
          if (i === way.length - 1 || typeof inner !== 'object' || inner === null) {
            held[key] = value;
            break;
          }
          held = inner;
        }
        // What the app takes, the published schema takes.
        if (templateKind.schema.safeParse(data).success)
          expect([isTemplate(data), isTemplate.errors]).toEqual([true, null]);
      }),
      { numRuns: 150 },
    );
  });
});
