import {
  brandKind,
  contentsKind,
  type JsonSchema,
  reelKind,
  templateKind,
  writeJsonSchema,
} from '@fresh-reel/core';
import { CommandError, USAGE } from './command';

const KINDS = { template: templateKind, reel: reelKind, brand: brandKind, contents: contentsKind };

/** `schema`: the format of a kind of document as JSON Schema. @throws {CommandError} when there is no such kind */
export function schemaOf([kind = 'template']: readonly string[]): JsonSchema {
  if (!Object.hasOwn(KINDS, kind))
    throw new CommandError(
      `There is no schema "${kind}"; there are ${Object.keys(KINDS).join(', ')}.\n${USAGE}`,
    );
  const { schema, title } = KINDS[kind as keyof typeof KINDS];
  return writeJsonSchema(schema, `Fresh Reel ${title}`);
}
