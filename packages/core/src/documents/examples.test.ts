import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import Ajv from 'ajv/dist/2020';
import type { z } from 'zod';
import { type DocumentKind, openDocument } from '../values/load';
import { brandKind } from './brand';
import { writeJsonSchema } from './jsonSchema';
import { contentsKind } from './package';
import { templateKind } from './templateKind';

const page = readFileSync(join(__dirname, '../../../../docs/packages.md'), 'utf8');
const examples = [...page.matchAll(/```json (\w+)\n([\s\S]*?)```/g)].map(
  ([, kind, text]) => [kind!, text!] as const,
);
const KINDS: Readonly<Record<string, DocumentKind<unknown>>> = {
  template: templateKind as DocumentKind<unknown>,
  brand: brandKind as DocumentKind<unknown>,
  contents: contentsKind as DocumentKind<unknown>,
};

describe('examples of the published format', () => {
  it('are there, of each kind', () => {
    expect(examples.map(([kind]) => kind)).toEqual(['template', 'brand', 'contents']);
  });

  it.each(examples)('a %s opens, and its schema takes it', (kind, text) => {
    const data = JSON.parse(text) as unknown;
    const { schema, title } = KINDS[kind]!;
    expect(openDocument(KINDS[kind]!, data)).toBeTruthy();
    const validate = new Ajv({ strict: false, inlineRefs: false }).compile(
      writeJsonSchema(schema as z.ZodType, title) as object,
    );
    expect([validate(data), validate.errors]).toEqual([true, null]);
  });
});
