import { createHash } from 'node:crypto';
import { createWriteStream } from 'node:fs';
import { type FileHandle, mkdir, open } from 'node:fs/promises';
import { dirname, join } from 'node:path';
import { Transform, Writable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import {
  type Brand,
  beginsAsZip,
  brandKind,
  CONTENTS_FILE,
  contentsKind,
  DocumentError,
  type DocumentKind,
  hashListed,
  mayBeDocument,
  mostUnpacked,
  openDocument,
  type PackageContents,
  parseJson,
  REEL_FILE,
  type Reel,
  reelKind,
  TEMPLATE_FILE,
  type Template,
  TOO_LARGE_WITHIN,
  templateKind,
} from '@fresh-reel/core';
import { type FileEntry, TextWriter, ZipReader } from '@zip.js/zip.js/index-native.js';
import { ZipFileReader } from './zipFile';

/** What a package holds, its files laid out in a folder. */
export interface OpenedPackage {
  /** Its own list of what is in it. */
  readonly contents: PackageContents;
  /** One of the two; neither, where there are several documents. */
  readonly reel?: Reel;
  readonly template?: Template;
  /** Several that came together, in the order of the list. */
  readonly documents?: readonly PackedDocument[];
  readonly media: readonly {
    readonly id: string;
    readonly path: string;
    /** What it was called where it came from. */
    readonly name: string;
    /** It is a working copy of the file that the id is the hash of, which has this many bytes. */
    readonly original?: { readonly size: number } | undefined;
  }[];
  readonly fonts: readonly { readonly family: string; readonly weight: number; readonly path: string }[];
}

/** One of several documents. */
export type PackedDocument = { readonly path: string; readonly name: string } & (
  | { readonly kind: 'reel'; readonly document: Reel }
  | { readonly kind: 'template'; readonly document: Template }
  | { readonly kind: 'brand'; readonly document: Brand }
);

/** What is in a package, as its own list says it, with nothing laid out. */
export interface ListedPackage extends Pick<OpenedPackage, 'contents' | 'reel' | 'template' | 'documents'> {
  /** Bytes of each file that is in it, by path. */
  readonly sizes: ReadonlyMap<string, number>;
}

const KINDS: Readonly<Record<PackedDocument['kind'], unknown>> = {
  reel: reelKind,
  template: templateKind,
  brand: brandKind,
};

interface ReadPackage extends ListedPackage {
  readonly entries: ReadonlyMap<string, FileEntry>;
}

/** Reads the documents of a package. @returns nothing when the file is no zip @throws {DocumentError} */
async function readPackage(file: FileHandle): Promise<ReadPackage | undefined> {
  const { buffer } = await file.read(new Uint8Array(4), 0, 4, 0);
  if (!beginsAsZip(buffer)) return undefined;
  const entries = new Map<string, FileEntry>();
  for (const entry of await new ZipReader(new ZipFileReader(file, (await file.stat()).size)).getEntries()) {
    if (!entry.directory) entries.set(entry.filename, entry);
  }
  const document = async <T>(kind: DocumentKind<T>, name: string): Promise<T> => {
    const entry = entries.get(name);
    if (!entry)
      throw new DocumentError(`This is not a reel or a template: it is a zip without "${name}" in it.`);
    mayBeDocument(entry.uncompressedSize, kind.title);
    return openDocument(kind, parseJson(await entry.getData(new TextWriter()), kind.title));
  };
  const contents = await document(contentsKind, CONTENTS_FILE);
  const several = async (): Promise<PackedDocument[]> => {
    const read: PackedDocument[] = [];
    for (const { kind, path, name } of contents.documents)
      read.push({
        kind,
        path,
        name,
        document: await document(KINDS[kind] as DocumentKind<unknown>, path),
      } as PackedDocument);
    return read;
  };
  const held = entries.has(TEMPLATE_FILE)
    ? { template: await document(templateKind, TEMPLATE_FILE) }
    : contents.documents.length > 0
      ? { documents: await several() }
      : { reel: await document(reelKind, REEL_FILE) };
  const sizes = new Map([...entries].map(([path, { uncompressedSize }]) => [path, uncompressedSize]));
  return { ...held, contents, sizes, entries };
}

/**
 * Looks into a package (`.freshreel`).
 * @returns nothing when the file is no zip
 * @throws {DocumentError} when it is one without a reel or template in it, or damaged
 */
export async function listPackage(path: string): Promise<ListedPackage | undefined> {
  const file = await open(path);
  try {
    return await readPackage(file);
  } finally {
    await file.close();
  }
}

/**
 * Opens a package (`.freshreel`) and lays what is in it into a folder, piece by piece.
 * @returns nothing when the file is no zip
 * @throws {DocumentError} when it is one without a reel or template in it, that is damaged, or far larger within
 */
export async function openPackage(path: string, folder: string): Promise<OpenedPackage | undefined> {
  const file = await open(path);
  try {
    const read = await readPackage(file);
    if (!read) return undefined;
    const { entries, contents, reel, template, documents } = read;
    let left = mostUnpacked((await file.stat()).size);
    const laid = async <P extends Parameters<typeof hashListed>[0]>(part: P): Promise<P[]> => {
      const entry = entries.get(part.path);
      if (!entry) return [];
      const target = join(folder, part.path);
      await mkdir(dirname(target), { recursive: true });
      const wanted = hashListed(part);
      const hash = createHash('sha256');
      const measured = new Transform({
        transform(chunk: Buffer, _encoding, done) {
          hash.update(chunk);
          left -= chunk.length;
          if (left >= 0) return done(null, chunk);
          done(new DocumentError(TOO_LARGE_WITHIN));
        },
      });
      const written = pipeline(measured, createWriteStream(target));
      // The fault of what is written is the one to tell.
      await Promise.all([
        written,
        entry.getData(Writable.toWeb(measured) as WritableStream).catch(() => written),
      ]);
      if (wanted !== undefined && hash.digest('hex') !== wanted)
        throw new DocumentError(
          `"${part.path}" is damaged: it is not the file that the list of this package names.`,
        );
      return [{ ...part, path: target }];
    };
    const media = [];
    for (const part of contents.media) media.push(...(await laid(part)));
    const fonts = [];
    for (const part of contents.fonts) fonts.push(...(await laid(part)));
    return {
      ...(template ? { template } : documents ? { documents } : { reel: reel! }),
      ...{ contents, media, fonts },
    };
  } finally {
    await file.close();
  }
}
