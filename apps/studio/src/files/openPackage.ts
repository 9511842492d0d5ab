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
  NO_CONTENTS,
  newReel,
  openAsFarAsKnown,
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
import { assetFile } from '../decode/assets';
import { rangeOf, ZipFiles } from '../disk/zip';
import { importFont } from '../fonts/importFont';
import { importMedia } from '../media/import/importMedia';
import { DamagedError } from '../media/import/mediaError';
import { type MissingParts, missingOf } from '../media/useMissing';
import { fromBase64 } from '../storage/bytes';
import { lackingMedia, mediaId, saveMediaRecord } from '../storage/media';

/** What a file of the user's was. */
export type Opened =
  | { readonly kind: 'reel'; readonly reel: Reel }
  | { readonly kind: 'template'; readonly template: Template }
  | {
      readonly kind: 'several';
      readonly things: Things;
      /** What was chosen for the app, of a backup. */
      readonly choices?: unknown;
    };

/** Several documents that came together. */
export interface Things {
  readonly reels: readonly Reel[];
  readonly templates: readonly Template[];
  readonly brands: readonly Brand[];
}

/** A file in a package. */
export interface HeldFile {
  readonly name: string;
  readonly bytes: number;
  /** Whether it is here already, so that nothing is taken in. */
  readonly here: boolean;
}

/** What is in a file of the user's, before anything of it is taken in. */
export interface LookedInto {
  readonly opened: Opened;
  /** Who made it, as they say. */
  readonly from: string | undefined;
  /** What of it is newer than this version, in words. */
  readonly newer: readonly string[];
  readonly files: readonly HeldFile[];
  /** Families of its fonts. */
  readonly fonts: readonly string[];
  /** What it needs that is neither in it nor here. */
  readonly missing: MissingParts;
  /** Takes its media and fonts in. @returns what it is, as it names them here, and files that were damaged */
  take(): Promise<{ readonly opened: Opened; readonly damaged: readonly string[] }>;
}

/**
 * Looks into a reel or template file; nothing of it is kept.
 * @throws {Error} saying why it cannot be opened
 */
export async function lookInto(file: File): Promise<LookedInto> {
  const start = new Uint8Array(await file.slice(0, 4).arrayBuffer());
  return beginsAsZip(start) ? intoZip(file) : intoJson(file);
}

async function intoZip(file: File): Promise<LookedInto> {
  const files = await ZipFiles.open(file.size, rangeOf(file));
  const contents = await contentsOf(files);
  const texts = await textsOf(files, contents);
  const { opened, newer } = openedFrom(texts, contents);
  const media = contents.media.filter(({ path }) => files.has(path));
  const sizes = new Map(media.map(({ path }) => [path, files.sizeOf(path)]));
  const total = [...sizes.values()].reduce((a, b) => a + b, 0);
  if (total > mostUnpacked(file.size)) throw new DocumentError(TOO_LARGE_WITHIN);
  // What ships is here already.
  const strange = media.filter(({ id }) => !assetFile(id));
  const lacking = await lackingMedia(strange.map(({ id }) => hashIn(id)));
  const held = new Set(media.map(({ id }) => id));
  const families = new Set(contents.fonts.filter(({ path }) => files.has(path)).map(({ family }) => family));
  const missing = await Promise.all(reelsOf(opened).map((reel) => missingOf(reel)));
  return {
    opened,
    from: contents.from,
    newer,
    files: strange.map(({ id, path, name: called }) => ({
      name: called,
      bytes: sizes.get(path)!,
      here: !lacking.has(hashIn(id)),
    })),
    fonts: [...families],
    missing: {
      files: missing.flatMap((m) => m.files).filter(({ media: id }) => !held.has(id)),
      families: [...new Set(missing.flatMap((m) => m.families))].filter((family) => !families.has(family)),
    },
    take: () => takeIn({ file, files, contents, texts, opened, lacking }),
  };
}

/** A document in a package, as text. */
interface DocumentText {
  readonly kind: 'reel' | 'template' | 'brand';
  /** Whether it is one of several. */
  readonly listed: boolean;
  readonly text: string;
}

/** Documents of packages that are looked at: more are no package of ours. */
const MOST_DOCUMENT_BYTES = 400 * 1024 * 1024;

async function textsOf(files: ZipFiles, contents: PackageContents): Promise<DocumentText[]> {
  const alone = [
    { kind: 'template', path: TEMPLATE_FILE } as const,
    { kind: 'reel', path: REEL_FILE } as const,
  ].filter(({ path }) => files.has(path));
  if (alone.length > 1)
    throw new DocumentError('This file holds a reel and a template at once. It was not made by this app.');
  const wanted = alone.length > 0 ? alone : contents.documents;
  if (wanted.length === 0)
    throw new DocumentError('This is not a reel or a template: it is a zip without one in it.');
  let left = MOST_DOCUMENT_BYTES;
  const texts: DocumentText[] = [];
  for (const { kind, path } of wanted) {
    if (!files.has(path))
      throw new DocumentError(`This file is cut: its list names "${path}", which is not in it.`);
    mayBeDocument(files.sizeOf(path), kind);
    left -= files.sizeOf(path);
    if (left < 0) throw new DocumentError(TOO_LARGE_WITHIN);
    texts.push({ kind, listed: alone.length === 0, text: await files.text(path) });
  }
  return texts;
}

/** Documents as they are opened here, with what in them is newer. */
function openedFrom(
  texts: readonly DocumentText[],
  { choices }: PackageContents,
): { opened: Opened; newer: string[] } {
  const newer: string[] = [];
  const open = <T>(kind: DocumentKind<T>, { text }: DocumentText): T => {
    const { document, left } = openAsFarAsKnown(kind, parseJson(text, kind.title));
    newer.push(...left);
    return document;
  };
  const of = <T>(kind: DocumentKind<T>, which: DocumentText['kind']) =>
    texts.filter((t) => t.kind === which).map((t) => open(kind, t));
  const things = {
    reels: of(reelKind, 'reel'),
    templates: of(templateKind, 'template'),
    brands: of(brandKind, 'brand'),
  };
  if (texts.some((t) => t.listed))
    return { opened: { kind: 'several', things, ...(choices ? { choices } : {}) }, newer };
  const [template] = things.templates;
  const opened: Opened = template ? { kind: 'template', template } : { kind: 'reel', reel: things.reels[0]! };
  return { opened, newer };
}

const hashIn = (id: string) => id.replace(/^sha256:/, '');

/** Reels that need what a file has to bring: what a template needs is what a reel of it does. */
function reelsOf(opened: Opened): Reel[] {
  const ofTemplate = (template: Template) =>
    newReel(template, { id: 'looked-into', name: template.name, now: '', shape: 'wide' });
  switch (opened.kind) {
    case 'reel':
      return [opened.reel];
    case 'template':
      return [ofTemplate(opened.template)];
    case 'several':
      return [...opened.things.reels, ...opened.things.templates.map(ofTemplate)];
  }
}

async function contentsOf(files: ZipFiles): Promise<PackageContents> {
  if (!files.has(CONTENTS_FILE)) return NO_CONTENTS;
  mayBeDocument(files.sizeOf(CONTENTS_FILE), contentsKind.title);
  return openDocument(contentsKind, parseJson(await files.text(CONTENTS_FILE), contentsKind.title));
}

interface Unpacked {
  readonly file: File;
  readonly files: ZipFiles;
  readonly contents: PackageContents;
  readonly texts: readonly DocumentText[];
  readonly opened: Opened;
  /** Hashes of files that are not here yet. */
  readonly lacking: ReadonlySet<string>;
}

async function takeIn({ file, files, contents, texts, opened, lacking }: Unpacked) {
  let renamed = texts;
  const damaged: string[] = [];
  for (const part of contents.media) {
    const { id, path, name: called, type } = part;
    // What is not there is told by the reel, which finds it again; what is here already is not taken in twice.
    if (assetFile(id) || !files.has(path) || (hashListed(part) && !lacking.has(hashIn(id)))) continue;
    const bytes = await files.slice(path, file);
    const came = await soundly(damaged, called, () =>
      importMedia(new File([bytes], called, { type }), { wanted: hashListed(part) }),
    );
    if (came?.kind !== 'media') continue;
    // A picture that was cleaned on its way in lies under another hash than it had.
    const [from, to] = [JSON.stringify(id), JSON.stringify(mediaId(came.record))];
    if (part.group && !came.record.group) await saveMediaRecord({ ...came.record, group: part.group });
    if (from !== to) renamed = renamed.map((t) => ({ ...t, text: t.text.replaceAll(from, to) }));
  }
  for (const part of contents.fonts) {
    if (!files.has(part.path)) continue;
    const bytes = await files.slice(part.path, file);
    await soundly(damaged, part.family, () =>
      importMedia(new File([bytes], `${part.family}.ttf`), { wanted: hashListed(part) }),
    );
  }
  return { opened: renamed === texts ? opened : openedFrom(renamed, contents).opened, damaged };
}

/** Takes something in; of what is not the file that the list names, its name is noted instead. */
async function soundly<T>(damaged: string[], name: string, take: () => Promise<T>): Promise<T | undefined> {
  try {
    return await take();
  } catch (error) {
    if (!(error instanceof DamagedError)) throw error;
    damaged.push(name);
    return undefined;
  }
}

function documentOf(data: unknown, name: string): Opened {
  return name === TEMPLATE_FILE
    ? { kind: 'template', template: openDocument(templateKind, data) }
    : { kind: 'reel', reel: openDocument(reelKind, data) };
}

/** A document alone; a reel file of the first kind was one JSON with everything in it as text. */
async function intoJson(file: File): Promise<LookedInto> {
  const data = parseJson(await file.text(), 'reel or template');
  const { format } = (data ?? {}) as { format?: unknown };
  const opened = documentOf(data, format === templateKind.format ? TEMPLATE_FILE : REEL_FILE);
  const embedded = opened.kind === 'reel' ? Object.entries(opened.reel.embedded ?? {}) : [];
  const held = new Set(embedded.map(([id]) => id));
  const missing = await missingOf(reelsOf(opened)[0]!);
  const parts = embedded.filter(([id]) => !id.startsWith('font:'));
  return {
    opened,
    ...{ from: undefined, newer: [] },
    files: parts.map(([, { name, base64 }]) => ({ name, bytes: (base64.length * 3) / 4, here: false })),
    fonts: embedded.flatMap(([id]) => /^font:(.+)\/\d+$/.exec(id)?.[1] ?? []),
    missing: { ...missing, files: missing.files.filter(({ media }) => !held.has(media)) },
    take: async () => {
      for (const [id, part] of embedded) {
        const bytes = new File([fromBase64(part.base64)], part.name, { type: part.type });
        if (id.startsWith('font:')) await importFont(bytes);
        else await importMedia(bytes);
      }
      if (opened.kind !== 'reel') return { opened, damaged: [] };
      const { embedded: _, ...reel } = opened.reel;
      return { opened: { kind: 'reel', reel }, damaged: [] };
    },
  };
}
