import type { z } from 'zod';
import {
  DocumentError,
  type DocumentKind,
  type Fault,
  firstFault,
  mayBeGoneInto,
  openDocument,
} from '../values/load';
import { templateKind } from './templateKind';

/** A document as far as this version knows it, and what of it is newer. */
export interface AsFarAsKnown<T> {
  readonly document: T;
  /** What was left out or does not show, in words; nothing where all of it is known. */
  readonly left: readonly string[];
}

/** Faults that are looked past at most: a document with more is not a newer one of ours. */
const MOST = 200;

/**
 * Opens a document that a newer version may have made: what this one does not know of it is left out and told, and
 * layers of unknown kinds are kept as they are, so that the newer one finds them again.
 * @throws {DocumentError} as `openDocument` does, where what is wrong is not that something is unknown
 */
export function openAsFarAsKnown<T>(kind: DocumentKind<T>, data: unknown): AsFarAsKnown<T> {
  const { version } = (data ?? {}) as { version?: unknown };
  if (typeof version !== 'number' || version <= kind.version)
    return { document: openDocument(kind, data), left: [] };
  mayBeGoneInto(data, kind.title);
  const known = structuredClone(data) as Record<string, unknown>;
  known.version = kind.version;
  lowered(known);
  const left: string[] = [];
  for (let i = 0; i < MOST; i++) {
    const result = kind.schema.safeParse(known);
    if (result.success) return { document: result.data, left };
    const told = withoutUnknown(known, firstFault(result.error, isUnknownAlone));
    if (told === undefined) break;
    if (!left.includes(told)) left.push(told);
  }
  throw new DocumentError(
    `This ${kind.title} was made by a newer Fresh Reel (version ${version}; this one reads up to ${kind.version}), and what is new in it cannot be left out.`,
  );
}

/** Documents within, such as the templates of a reel, are of newer versions too. */
function lowered(document: Record<string, unknown>): void {
  const { templates } = document;
  if (typeof templates !== 'object' || templates === null || Array.isArray(templates)) return;
  for (const template of Object.values(templates as Record<string, Record<string, unknown>>))
    if (typeof template?.version === 'number')
      template.version = Math.min(template.version, templateKind.version);
}

/** Of a union, the branch that takes all but what it does not know. */
const isUnknownAlone = (branch: readonly z.core.$ZodIssue[]) =>
  branch.every((i) => i.code === 'unrecognized_keys');

/** Takes what is not known out of a document. @returns what it was, in words; nothing where it is another fault */
function withoutUnknown(document: Record<string, unknown>, { issue, path }: Fault): string | undefined {
  if (!issue) return undefined;
  const at = (way: readonly PropertyKey[]) =>
    way.reduce<unknown>((held, key) => (held as Record<PropertyKey, unknown> | undefined)?.[key], document);
  if (issue.code === 'unrecognized_keys') {
    const held = at(path) as Record<string, unknown> | undefined;
    if (!held || issue.keys.length === 0) return undefined;
    for (const key of issue.keys) delete held[key];
    return `${nameAt(document, path)}: “${issue.keys.join('”, “')}” is newer than this version, and is left out.`;
  }
  const kindAt = path.at(-1) === 'kind' ? path.slice(0, -1) : path;
  const layer = at(kindAt) as Record<string, unknown> | undefined;
  if (!kindAt.includes('layers') || typeof layer?.kind !== 'string' || layer.kind === 'newer')
    return undefined;
  const { id, name, kind, standIn, size, span, offset, at: lies, origin } = layer;
  const was = { ...layer };
  for (const key of Object.keys(layer)) delete layer[key];
  Object.assign(layer, { id, kind: 'newer', was });
  for (const [key, value] of Object.entries({ name, standIn, size, span, offset, at: lies, origin }))
    if (value !== undefined) layer[key] = value;
  return `The part “${String(name ?? id)}” is of a kind that this version does not know (${kind}). ${
    standIn === undefined ? 'It does not show' : 'What stands for it shows'
  }, and is kept.`;
}

/** The nearest thing around a place that has a name. */
function nameAt(document: Record<string, unknown>, path: readonly PropertyKey[]): string {
  let held: unknown = document;
  let name = typeof document.name === 'string' ? document.name : 'The document';
  for (const key of path) {
    held = (held as Record<PropertyKey, unknown> | undefined)?.[key];
    const own =
      (held as { name?: unknown; id?: unknown } | undefined)?.name ?? (held as { id?: unknown })?.id;
    if (typeof own === 'string') name = own;
  }
  return `“${name}”`;
}
