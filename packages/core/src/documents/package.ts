import { z } from 'zod';
import { DocumentError, type DocumentKind } from './load';

/**
 * A reel or a template as one file: a zip (`.freshreel`) with the document, its media and its fonts, each stored as it
 * is. `reel.json` or `template.json` is the document, `contents.json` says which file is which.
 */
export const REEL_FILE = 'reel.json';
export const TEMPLATE_FILE = 'template.json';
export const CONTENTS_FILE = 'contents.json';
export const PACKAGE_ENDING = '.freshreel';

/** A name within the zip: in a folder of it, and nowhere else. */
const path = z.string().regex(/^(media|fonts)\/[\w.-]{1,120}$/, 'is not a file of such a package');

const contentsSchema = z.strictObject({
  format: z.literal('freshreel/contents'),
  version: z.literal(1),
  /** Pictures, clips and sounds. */
  media: z
    .array(
      z.strictObject({
        /** As the document names it: `sha256:…`. */
        id: z.string().min(1).max(200),
        path,
        /** What it was called where it came from. */
        name: z.string().max(255),
        type: z.string().max(100),
        /** It is a working copy of the file that `id` is the hash of; and how large that is. */
        original: z.strictObject({ size: z.number().int().min(0) }).optional(),
      }),
    )
    .max(2000),
  fonts: z
    .array(z.strictObject({ family: z.string().min(1).max(200), weight: z.number().min(1).max(1000), path }))
    .max(200),
});
export type PackageContents = z.infer<typeof contentsSchema>;

export const contentsKind: DocumentKind<PackageContents> = {
  title: 'file',
  format: 'freshreel/contents',
  version: 1,
  schema: contentsSchema,
  upgrades: {},
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
