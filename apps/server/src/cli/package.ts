import { lstat, mkdir, readFile, rename, rm, stat, writeFile } from 'node:fs/promises';
import { basename, dirname, join, resolve } from 'node:path';
import {
  brandKind,
  CONTENTS_FILE,
  contentsKind,
  documentOnly,
  graphicsOf,
  NO_CONTENTS,
  newReel,
  openDocument,
  type PackageContents,
  parseJson,
  REEL_FILE,
  type Reel,
  ReelScene,
  reelKind,
  TEMPLATE_FILE,
  type Template,
  templateKind,
} from '@fresh-reel/core';
import { type ListedPackage, listPackage, openPackage, writeZip } from '@fresh-reel/node-host';
import { SHIPPED_PATHS } from '@fresh-reel/templates/assets';
import { SHIPPED } from '@fresh-reel/templates/files';
import { SOURCES } from '@fresh-reel/templates/sources';
import { lookup } from 'mime-types';
import { beside } from '../rendering/beside';
import { CommandError } from '../rendering/command';

const DOCUMENT_KINDS = { reel: reelKind, template: templateKind, brand: brandKind };

/** One thing that a package holds or lacks. */
export interface Listed {
  readonly what: 'from' | 'reel' | 'template' | 'brand' | 'title' | 'file' | 'font' | 'lacking';
  readonly name: string;
  readonly bytes?: number;
}

/** What a package holds, with nothing taken out of it. @throws {CommandError} when it is none */
export async function list(path: string): Promise<Listed[]> {
  const held = await listPackage(path);
  if (!held) throw new CommandError(`"${path}" is no package: it is not a zip.`);
  const { reel, template, documents, contents, sizes } = held;
  const media = contents.media.filter((part) => sizes.has(part.path));
  const brought = new Set(media.map(({ id }) => id));
  const needed = [...new Set(reelsOf(held).flatMap((r) => new ReelScene(r, documentOnly()).held()))];
  const lacking = needed.filter((id) => !brought.has(id) && SHIPPED.find(id) === undefined);
  return [
    ...(contents.from ? [{ what: 'from' as const, name: contents.from }] : []),
    ...(
      documents ?? [
        template
          ? { kind: 'template' as const, name: template.name }
          : { kind: 'reel' as const, name: reel!.name },
      ]
    ).map(({ kind, name }) => ({ what: kind, name })),
    ...(reel ? graphicsOf(reel) : []).map((g) => ({ what: 'title' as const, name: g.template.name })),
    ...media.map(({ name, path: at }) => ({ what: 'file' as const, name, bytes: sizes.get(at)! })),
    ...contents.fonts
      .filter((part) => sizes.has(part.path))
      .map(({ family, weight, path: at }) => ({
        ...{ what: 'font' as const, name: `${family} ${weight}`, bytes: sizes.get(at)! },
      })),
    ...lacking.map((name) => ({ what: 'lacking' as const, name })),
  ];
}

/** Reels that need what a package has to bring. */
const reelsOf = ({ reel, template, documents }: ListedPackage): Reel[] =>
  documents
    ? documents.flatMap((d) =>
        d.kind === 'reel' ? [d.document] : d.kind === 'template' ? [reelOf(d.document)] : [],
      )
    : [reel ?? reelOf(template!)];

/** What a template needs is what a reel of it does. */
const reelOf = (template: Template): Reel =>
  newReel(template, { id: 'listed', name: template.name, now: '', shape: 'wide' });

const json = (data: unknown) => `${JSON.stringify(data, null, 1)}\n`;

const isThere = (path: string): Promise<boolean> =>
  stat(path).then(
    () => true,
    () => false,
  );

/**
 * `unpack`: lays a package into a new folder: its document, its list, its media and fonts.
 * @returns the folder
 * @throws {CommandError} naming what is wrong; no folder is left then
 */
export async function unpack(path: string, folder: string): Promise<string> {
  const out = resolve(folder);
  if (await isThere(out)) throw new CommandError(`"${folder}" is there already. Name a new folder.`);
  const work = await beside(out);
  try {
    const held = await openPackage(path, work);
    if (!held) throw new CommandError(`"${path}" is no package: it is not a zip.`);
    const { reel, template, documents, contents, media, fonts } = held;
    const laid = new Set([...media, ...fonts].map((part) => part.path));
    const here = <P extends { readonly path: string }>(part: P) => laid.has(join(work, part.path));
    const whole = documents ?? [{ path: template ? TEMPLATE_FILE : REEL_FILE, document: template ?? reel }];
    for (const { path: at, document } of whole) {
      await mkdir(dirname(join(work, at)), { recursive: true });
      await writeFile(join(work, at), json(document));
    }
    const list = { ...contents, media: contents.media.filter(here), fonts: contents.fonts.filter(here) };
    await writeFile(join(work, CONTENTS_FILE), json(list));
    await rename(work, out);
  } catch (error) {
    await rm(work, { recursive: true, force: true });
    throw error;
  }
  return out;
}

/** A file on disk that goes into a package. */
interface PackedFile {
  /** Its path in the package. */
  readonly name: string;
  readonly path: string;
}

/**
 * `pack`: makes a package of a folder as `unpack` lays one out, or of a template that ships, with its media. What the
 * list of a folder does not name stays out.
 * @param what a template's id, or a folder
 * @returns the file
 * @throws {CommandError} or {DocumentError} naming what is wrong; no file is left then
 */
export async function pack(what: string, file: string): Promise<string> {
  const out = resolve(file);
  const work = await beside(out);
  try {
    const source = SOURCES.find(({ id }) => id === what);
    const files = source
      ? await filesOfTemplate(openDocument(templateKind, source), work)
      : await filesOfFolder(what);
    const whole = join(work, basename(out));
    await writeZip(files, whole);
    await rename(whole, out);
  } finally {
    await rm(work, { recursive: true, force: true });
  }
  return out;
}

/** A template that ships, with all its media: as a maker would hand it on. @param work where its documents are written */
async function filesOfTemplate(template: Template, work: string): Promise<PackedFile[]> {
  const media = [...new Set(Object.values(template.assets))].map((id) => {
    const path = SHIPPED_PATHS.find(id)!;
    const name = basename(path);
    return {
      part: {
        id,
        path: `media/${id.slice('sha256:'.length)}`,
        name,
        type: lookup(name) || 'application/octet-stream',
      },
      path,
    };
  });
  const contents: PackageContents = { ...NO_CONTENTS, media: media.map(({ part }) => part) };
  const documents = { [TEMPLATE_FILE]: template, [CONTENTS_FILE]: contents };
  for (const [name, document] of Object.entries(documents)) await writeFile(join(work, name), json(document));
  const written = Object.keys(documents).map((name) => ({ name, path: join(work, name) }));
  return [written[0]!, ...media.map(({ part, path }) => ({ name: part.path, path })), written[1]!];
}

/** What a folder holds, by its own list. */
async function filesOfFolder(folder: string): Promise<PackedFile[]> {
  const text = async (name: string) =>
    readFile(join(folder, name), 'utf8').catch(() => {
      throw new CommandError(
        `"${folder}" is no template, and holds no ${name} as a folder of a package does.`,
      );
    });
  const contents = openDocument(contentsKind, parseJson(await text(CONTENTS_FILE), contentsKind.title));
  const alone = (await isThere(join(folder, TEMPLATE_FILE)))
    ? ({ kind: 'template', path: TEMPLATE_FILE } as const)
    : ({ kind: 'reel', path: REEL_FILE } as const);
  const documents = contents.documents.length > 0 ? contents.documents : [alone];
  for (const { kind, path } of documents)
    openDocument<unknown>(DOCUMENT_KINDS[kind], parseJson(await text(path), kind));
  const names = [...contents.media, ...contents.fonts].map((part) => part.path);
  for (const name of names) {
    const found = await lstat(join(folder, name)).catch(() => undefined);
    // A link may lead out of the folder.
    if (!found?.isFile()) throw new CommandError(`"${join(folder, name)}" is in the list and is no file.`);
  }
  return [...documents.map((d) => d.path), ...new Set(names), CONTENTS_FILE].map((name) => ({
    name,
    path: join(folder, name),
  }));
}
