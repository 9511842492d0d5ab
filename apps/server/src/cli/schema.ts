import {
  brandKind,
  contentsKind,
  type JsonSchema,
  reelKind,
  templateKind,
  writeJsonSchema,
} from '@fresh-reel/core';

const KINDS = { template: templateKind, reel: reelKind, brand: brandKind, contents: contentsKind };

/** A kind of document that has one. */
export type DocumentName = keyof typeof KINDS;
export const DOCUMENT_NAMES = Object.keys(KINDS) as DocumentName[];

/** `schema`: the format of a kind of document as JSON Schema. */
export function schemaOf(kind: DocumentName): JsonSchema {
  const { schema, title } = KINDS[kind];
  return writeJsonSchema(schema, `Fresh Reel ${title}`);
}
