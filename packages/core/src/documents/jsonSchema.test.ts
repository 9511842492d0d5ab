import { z } from 'zod';
import { sequenceKind } from '../media/sequence';
import { brandKind } from './brand';
import { reelKind } from './reel';
import { contentsKind } from './reelFile';
import { templateKind } from './template';

describe('every document can be told as a JSON Schema (draft 2020-12)', () => {
  it.each([templateKind, reelKind, brandKind, contentsKind, sequenceKind].map((k) => [k.title, k] as const))(
    '%s',
    (_, kind) => {
      const schema = z.toJSONSchema(kind.schema as z.ZodType);
      expect(schema.$schema).toContain('2020-12');
      expect(JSON.stringify(schema)).toContain(kind.format);
    },
  );
});
