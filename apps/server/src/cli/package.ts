import { lstat, mkdir, readFile, rename, rm, stat, writeFile } from 'node:fs/promises';
import { basename, dirname, join, resolve } from 'node:path';
import {
  brandKind,
  CONTENTS_FILE,
  contentsKind,
  documentOnly,
  graphicsOf,
  newReel,
  openDocument,
  PACKAGE_ENDING,
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
import { SHIPPED } from '@fresh-reel/templates/files';
import { beside } from './beside';
import { CommandError, parsedArgs, TEXT, USAGE } from './command';

const DOCUMENT_KINDS = { reel: reelKind, template: templateKind, brand: brandKind };

/** One thing that a package holds or lacks. */
export interface Listed {
  readonly what: 'from' | 'reel' | 'template' | 'brand' | 'title' | 'file' | 'font' | 'lacking';
  readonly name: string;
  readonly bytes?: number;
}

const one = (positionals: readonly string[], what: string): string => {
  if (positionals.length !== 1) throw new CommandError(`Name one ${what}.\n${USAGE}`);
  return positionals[0]!;
};

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

/** `open --list`: what a package holds. */
export async function listed(args: readonly string[]): Promise<{ found: Listed[]; json: boolean }> {
  const { values, positionals } = parsedArgs(args, { list: { type: 'boolean' }, json: { type: 'boolean' } });
  const path = one(positionals, 'reel or template file');
  if (!values.list) throw new CommandError(`Say what to do with it: --list.\n${USAGE}`);
  return { found: await list(path), json: values.json ?? false };
}

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
export async function unpack(args: readonly string[]): Promise<string> {
  const { values, positionals } = parsedArgs(args, { out: TEXT });
  const path = one(positionals, 'reel or template file');
  if (!values.out) throw new CommandError(`Say where it goes: --out <folder>.\n${USAGE}`);
  const out = resolve(values.out);
  if (await isThere(out)) throw new CommandError(`"${values.out}" is there already. Name a new folder.`);
  const work = await beside(out);
  try {
    const held = await openPackage(path, work);
    if (!held) throw new CommandError(`"${path}" is no package: it is not a zip.`);
    const { reel, template, documents, contents, media, fonts } = held;
    const laid = new Set([...media, ...fonts].map((part) => part.path));
    const here = <P extends { readonly path: string }>(part: P) => laid.has(join(work, part.path));
    const json = (data: unknown) => `${JSON.stringify(data, null, 1)}\n`;
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

/**
 * `pack`: makes a package of a folder as `unpack` lays one out. What its list does not name stays out.
 * @returns the file
 * @throws {CommandError} or {DocumentError} naming what is wrong; no file is left then
 */
export async function pack(args: readonly string[]): Promise<string> {
  const { values, positionals } = parsedArgs(args, { out: TEXT });
  const folder = one(positionals, 'folder');
  if (!values.out?.endsWith(PACKAGE_ENDING))
    throw new CommandError(`Say where it goes: --out name${PACKAGE_ENDING}.\n${USAGE}`);
  const text = async (name: string) =>
    readFile(join(folder, name), 'utf8').catch(() => {
      throw new CommandError(`"${folder}" holds no ${name}.`);
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
  const out = resolve(values.out);
  const work = await beside(out);
  try {
    const whole = join(work, basename(out));
    const files = [...documents.map((d) => d.path), ...new Set(names), CONTENTS_FILE].map((name) => ({
      name,
      path: join(folder, name),
    }));
    await writeZip(files, whole);
    await rename(whole, out);
  } finally {
    await rm(work, { recursive: true, force: true });
  }
  return out;
}
