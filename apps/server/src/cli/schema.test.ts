import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { templateKind } from '@fresh-reel/core';
// A general validator of JSON Schema, draft 2020-12.
import Ajv from 'ajv/dist/2020';
import { main } from './main';

const TEMPLATES = join(__dirname, '../../../../packages/templates/src');

/** What the command prints. */
async function printed(...args: string[]): Promise<string> {
  const log = jest.spyOn(console, 'log').mockImplementation(() => undefined);
  try {
    expect(await main(args)).toBe(0);
    return log.mock.calls.map(([text]) => String(text)).join('\n');
  } finally {
    log.mockRestore();
  }
}

it('the schema of templates accepts the built-in ones as they lie on disk, which are of the present version', async () => {
  const schema = JSON.parse(await printed('schema', 'template')) as object;
  const isTemplate = new Ajv({ strict: false, inlineRefs: false }).compile(schema);
  const ids = readdirSync(TEMPLATES, { withFileTypes: true }).flatMap((entry) =>
    entry.isDirectory() && entry.name !== 'shared' ? [entry.name] : [],
  );
  expect(ids.length).toBeGreaterThanOrEqual(68);
  for (const id of ids) {
    const document = JSON.parse(readFileSync(join(TEMPLATES, id, 'template.json'), 'utf8')) as {
      version: number;
    };
    const ok = isTemplate(document);
    expect([id, ok, isTemplate.errors?.slice(0, 3)]).toEqual([id, true, undefined]);
    expect(document.version).toBe(templateKind.version);
  }
  // And no other: a field that is none, a value of another kind.
  const one = JSON.parse(readFileSync(join(TEMPLATES, 'name-strap/template.json'), 'utf8')) as object;
  expect([isTemplate({ ...one, colour: 'red' }), isTemplate({ ...one, name: 7 })]).toEqual([false, false]);
});
