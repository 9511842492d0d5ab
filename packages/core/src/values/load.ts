import { z } from 'zod';

/** A document that could not be opened, with a reason that can be shown to the user. */
export class DocumentError extends Error {
  override readonly name = 'DocumentError';
}

/** Changes a document of one version into the next. */
export type Upgrade = (document: Record<string, unknown>) => Record<string, unknown>;

/** One kind of document: its format name, newest version, schema, and the way up from each older version. */
export interface DocumentKind<T> {
  readonly title: string;
  readonly format: string;
  readonly version: number;
  readonly schema: z.ZodType<T>;
  readonly upgrades: Readonly<Record<number, Upgrade>>;
}

/**
 * Opens a document from outside: checks its format, brings an older version up, and checks all of it.
 * @throws {DocumentError} naming what is wrong: another format, a newer version, or the first faulty part.
 */
export function openDocument<T>(kind: DocumentKind<T>, data: unknown): T {
  if (typeof data !== 'object' || data === null || Array.isArray(data)) {
    throw new DocumentError(`This is not a ${kind.title}: it holds no document.`);
  }
  mayBeGoneInto(data, kind.title);
  const document = newest(kind, data as Record<string, unknown>);
  const result = kind.schema.safeParse(document);
  if (!result.success) throw new DocumentError(`This ${kind.title} is damaged: ${faultText(result.error)}`);
  return result.data;
}

/**
 * A document of any version as one of the newest, its fields not checked yet.
 * @throws {DocumentError} when it is of another format, or of a version that is newer or no longer read
 */
function newest<T>(kind: DocumentKind<T>, data: Record<string, unknown>): Record<string, unknown> {
  let document = data;
  if (document.format !== kind.format) {
    throw new DocumentError(
      `This is not a ${kind.title}: its format is ${JSON.stringify(document.format) ?? 'not given'}.`,
    );
  }
  const version = document.version;
  if (typeof version !== 'number' || !Number.isInteger(version) || version < 1) {
    throw new DocumentError(`This ${kind.title} does not say which version it is.`);
  }
  if (version > kind.version) {
    throw new DocumentError(
      `This ${kind.title} was made by a newer Fresh Reel (version ${version}; this one reads up to ${kind.version}).`,
    );
  }
  for (let v = version; v < kind.version; v++) {
    const upgrade = kind.upgrades[v];
    if (!upgrade) throw new DocumentError(`A ${kind.title} of version ${v} can no longer be opened.`);
    try {
      document = { ...upgrade(document), version: v + 1 };
    } catch {
      throw new DocumentError(`This ${kind.title} is damaged: it cannot be read as version ${v}.`);
    }
  }
  return document;
}

/** A document within another: it is brought up by its own kind and version, whatever that of the other is. */
export function nested<T>(kind: DocumentKind<T>): z.ZodType<T> {
  const brought = z.unknown().transform((data, context) => {
    if (typeof data !== 'object' || data === null || Array.isArray(data)) return data;
    try {
      return newest(kind, data as Record<string, unknown>);
    } catch (error) {
      context.addIssue({ code: 'custom', message: (error as Error).message.replace(/\.$/, '') });
      return z.NEVER;
    }
  });
  return brought.pipe(kind.schema as z.ZodType<T, unknown>);
}

/** Levels of lists and parts within each other that a document may have; the built-in templates have 20 at most. */
const DEEPEST = 120;

/** @throws {DocumentError} when data is nested so deep that nothing of ours is */
export function mayBeGoneInto(data: unknown, title: string): void {
  if (isDeeperThan(data, DEEPEST))
    throw new DocumentError(
      `This ${title} is nested more than ${DEEPEST} levels deep, which no document needs.`,
    );
}

/** Whether data is nested deeper than so many levels; told without going down all of them. */
function isDeeperThan(data: unknown, levels: number): boolean {
  if (typeof data !== 'object' || data === null) return false;
  return levels === 0 || Object.values(data).some((part) => isDeeperThan(part, levels - 1));
}

/** A fault of a schema check, with the way to it from the document on. */
export interface Fault {
  readonly issue: z.core.$ZodIssue | undefined;
  readonly path: readonly PropertyKey[];
}

type Branch = readonly z.core.$ZodIssue[];

/**
 * The first fault of a schema check: inside a union, that of the branch that got farthest, which tells most.
 * @param preferred a branch that comes before it, where there is one
 */
export function firstFault(error: z.ZodError, preferred: (branch: Branch) => boolean = () => false): Fault {
  let issue = error.issues[0] as z.core.$ZodIssue | undefined;
  const path: PropertyKey[] = [];
  while (issue) {
    path.push(...issue.path);
    if (issue.code !== 'invalid_union') break;
    const branches = issue.errors.filter((b) => b.length > 0);
    const next = branches.find(preferred) ?? branches.sort((a, b) => depth(b) - depth(a))[0];
    if (!next) break;
    issue = next[0];
  }
  return { issue, path };
}

/** The first fault of a schema check, in words: where, and what. */
export function faultText(error: z.ZodError): string {
  const { issue, path } = firstFault(error);
  const where = path.length > 0 ? `at ${path.map(String).join(' › ')}: ` : '';
  return `${where}${issue?.message ?? 'unknown fault'}.`;
}

function depth(issues: readonly z.core.$ZodIssue[]): number {
  return Math.max(...issues.map((i) => i.path.length));
}

/** Reads JSON text. @throws {DocumentError} when it is not JSON. */
export function parseJson(text: string, title: string): unknown {
  try {
    return JSON.parse(text);
  } catch {
    throw new DocumentError(`This ${title} is damaged: it is not complete JSON.`);
  }
}
