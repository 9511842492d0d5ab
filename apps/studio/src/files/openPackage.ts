import {
  beginsAsZip,
  CONTENTS_FILE,
  contentsKind,
  DocumentError,
  mayBeDocument,
  mostUnpacked,
  newReel,
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
import { importFont } from '../fonts/importFont';
import { assetFile } from '../media/decode/assets';
import { rangeOf, ZipFiles } from '../media/files/zip';
import { importMedia } from '../media/import/importMedia';
import { type MissingParts, missingOf } from '../media/useMissing';
import { fromBase64 } from '../storage/bytes';
import { lackingMedia, mediaId } from '../storage/media';

/** What a file of the user's was. */
export type Opened =
  | { readonly kind: 'reel'; readonly reel: Reel }
  | { readonly kind: 'template'; readonly template: Template };

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
  readonly files: readonly HeldFile[];
  /** Families of its fonts. */
  readonly fonts: readonly string[];
  /** What it needs that is neither in it nor here. */
  readonly missing: MissingParts;
  /** Takes its media and fonts in. @returns what it is, as it names them here */
  take(): Promise<Opened>;
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
  const name = [TEMPLATE_FILE, REEL_FILE].find((n) => files.has(n));
  if (!name) throw new Error('This is not a reel or a template: it is a zip without one in it.');
  const title = name === TEMPLATE_FILE ? 'template' : 'reel';
  mayBeDocument(files.sizeOf(name), title);
  const text = await files.text(name);
  const opened = documentOf(parseJson(text, title), name);
  const contents = await contentsOf(files);
  const media = contents.media.filter(({ path }) => files.has(path));
  const sizes = new Map(media.map(({ path }) => [path, files.sizeOf(path)]));
  const total = [...sizes.values()].reduce((a, b) => a + b, 0);
  if (total > mostUnpacked(file.size)) throw new DocumentError(TOO_LARGE_WITHIN);
  // What ships is here already.
  const strange = media.filter(({ id }) => !assetFile(id));
  const lacking = await lackingMedia(strange.map(({ id }) => hashIn(id)));
  const held = new Set(media.map(({ id }) => id));
  const families = new Set(contents.fonts.filter(({ path }) => files.has(path)).map(({ family }) => family));
  const missing = await missingOf(reelOf(opened));
  return {
    opened,
    files: strange.map(({ id, path, name: called }) => ({
      name: called,
      bytes: sizes.get(path)!,
      here: !lacking.has(hashIn(id)),
    })),
    fonts: [...families],
    missing: {
      files: missing.files.filter(({ media: id }) => !held.has(id)),
      families: missing.families.filter((family) => !families.has(family)),
    },
    take: () => takeIn({ file, files, contents, name, text, opened }),
  };
}

const hashIn = (id: string) => id.replace(/^sha256:/, '');

/** What a template needs is what a reel of it does. */
const reelOf = (opened: Opened): Reel =>
  opened.kind === 'reel'
    ? opened.reel
    : newReel(opened.template, { id: 'looked-into', name: opened.template.name, now: '', shape: 'wide' });

async function contentsOf(files: ZipFiles): Promise<PackageContents> {
  if (!files.has(CONTENTS_FILE)) return { format: 'freshreel/contents', version: 1, media: [], fonts: [] };
  mayBeDocument(files.sizeOf(CONTENTS_FILE), contentsKind.title);
  return openDocument(contentsKind, parseJson(await files.text(CONTENTS_FILE), contentsKind.title));
}

interface Unpacked {
  readonly file: File;
  readonly files: ZipFiles;
  readonly contents: PackageContents;
  readonly name: string;
  readonly text: string;
  readonly opened: Opened;
}

async function takeIn({ file, files, contents, name, text, opened }: Unpacked): Promise<Opened> {
  let renamed = text;
  for (const { id, path, name: called, type } of contents.media) {
    // What is not there is told by the reel, which finds it again.
    if (assetFile(id) || !files.has(path)) continue;
    const came = await importMedia(new File([await files.slice(path, file)], called, { type }));
    // A picture that was cleaned on its way in lies under another hash than it had.
    if (came.kind === 'media')
      renamed = renamed.replaceAll(JSON.stringify(id), JSON.stringify(mediaId(came.record)));
  }
  for (const { path, family } of contents.fonts) {
    if (files.has(path)) await importFont(new File([await files.slice(path, file)], `${family}.ttf`));
  }
  return renamed === text ? opened : documentOf(JSON.parse(renamed), name);
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
  const missing = await missingOf(reelOf(opened));
  const parts = embedded.filter(([id]) => !id.startsWith('font:'));
  return {
    opened,
    files: parts.map(([, { name, base64 }]) => ({ name, bytes: (base64.length * 3) / 4, here: false })),
    fonts: embedded.flatMap(([id]) => /^font:(.+)\/\d+$/.exec(id)?.[1] ?? []),
    missing: { ...missing, files: missing.files.filter(({ media }) => !held.has(media)) },
    take: async () => {
      for (const [id, part] of embedded) {
        const bytes = new File([fromBase64(part.base64)], part.name, { type: part.type });
        if (id.startsWith('font:')) await importFont(bytes);
        else await importMedia(bytes);
      }
      if (opened.kind === 'template') return opened;
      const { embedded: _, ...reel } = opened.reel;
      return { kind: 'reel', reel };
    },
  };
}
