import { z } from 'zod';
import { DocumentError, type DocumentKind } from '../values/load';

/**
 * A reel or a template as one file: a zip (`.freshreel`) with the document, its media and its fonts, each stored as it
 * is. `reel.json` or `template.json` is the document, or `contents.json` names several; it says which file is which.
 */
export const REEL_FILE = 'reel.json';
export const TEMPLATE_FILE = 'template.json';
export const CONTENTS_FILE = 'contents.json';
export const PACKAGE_ENDING = '.freshreel';

/** A name within the zip: in a folder of it, and nowhere else. */
const path = z.string().regex(/^(media|fonts)\/[\w.-]{1,120}$/, 'is not a file of such a package');

/** A document of several that come together. */
const documentPath = z
  .string()
  .regex(/^(reels|templates|brands)\/[\w.-]{1,120}\.json$/, 'is not a document of such a package');
const hash = z
  .string()
  .regex(/^[0-9a-f]{64}$/, 'is not a SHA-256')
  .optional();

const contentsSchema = z.strictObject({
  format: z.literal('freshreel/contents'),
  version: z.literal(3),
  /** Who made it, and when (ISO 8601), as they say themselves. */
  from: z.string().max(120).optional(),
  made: z.string().max(40).optional(),
  /** Where it is neither one reel nor one template: all the documents in it. */
  documents: z
    .array(
      z.strictObject({
        kind: z.enum(['reel', 'template', 'brand']),
        path: documentPath,
        name: z.string().max(200),
      }),
    )
    .max(5000)
    .default([]),
  /** Pictures, clips and sounds. */
  media: z
    .array(
      z.strictObject({
        /** As the document names it: `sha256:…`, the hash of its bytes. */
        id: z.string().min(1).max(200),
        path,
        /** What it was called where it came from. */
        name: z.string().max(255),
        type: z.string().max(100),
        /** It is a working copy of the file that `id` is the hash of; and how large that is. */
        original: z.strictObject({ size: z.number().int().min(0) }).optional(),
        /** The group that it stands in on the shelf, in a backup. */
        group: z.string().max(60).optional(),
      }),
    )
    .max(5000),
  fonts: z
    .array(
      z.strictObject({
        ...{ family: z.string().min(1).max(200), weight: z.number().min(1).max(1000), path },
        /** SHA-256 of its bytes. */
        hash,
      }),
    )
    .max(200),
  /** What the user has chosen for the app, in a backup. Who opens it takes what they know of it. */
  choices: z.record(z.string().max(60), z.unknown()).optional(),
});
export type PackageContents = z.infer<typeof contentsSchema>;

/** What a package without a list of its own is taken to say. */
export const NO_CONTENTS: PackageContents = {
  ...{ format: 'freshreel/contents', version: 3 },
  ...{ documents: [], media: [], fonts: [] },
};

/** What the bytes of a file in a package have to hash to, where its list says so. */
export const hashListed = (part: PackageContents['media'][number] | PackageContents['fonts'][number]) => {
  if ('hash' in part || 'family' in part) return part.hash;
  return part.original ? undefined : /^sha256:([0-9a-f]{64})$/.exec(part.id)?.[1];
};

export const contentsKind: DocumentKind<PackageContents> = {
  title: 'file',
  format: 'freshreel/contents',
  version: 3,
  schema: contentsSchema as unknown as z.ZodType<PackageContents>,
  upgrades: {
    // Version 2 may hold several documents, and says who made it.
    1: (contents) => contents,
    // Version 3 may hold what was chosen for the app, and groups of files.
    2: (contents) => contents,
  },
};

/** Whether a file begins as a zip does (PKWARE APPNOTE, 4.3.7). */
export function beginsAsZip(start: Uint8Array): boolean {
  return start[0] === 0x50 && start[1] === 0x4b && (start[2] === 3 || start[2] === 5);
}

/** Bytes of a document that are read: no reel comes near. */
const MOST_TEXT = 200 * 1024 * 1024;
/** How many times as large as itself a package may be unpacked: its files are packed already, and stored as they are. */
const MOST_GROWTH = 20;
/** Bytes that any package may be unpacked as. */
const ALWAYS = 64 * 1024 * 1024;

/** What is said of a package that is not what a package of ours is. */
export const TOO_LARGE_WITHIN =
  'This file would be unpacked as far more than it is. It was not made by this app.';

/** @param bytes of a document, unpacked. @throws {DocumentError} when it is none that is read */
export function mayBeDocument(bytes: number, title: string): void {
  if (bytes > MOST_TEXT) throw new DocumentError(`This ${title} is too large to be one.`);
}

/** Bytes that a package of so many may be unpacked as. */
export const mostUnpacked = (packed: number): number => Math.max(ALWAYS, MOST_GROWTH * packed);
