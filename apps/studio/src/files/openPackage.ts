import {
  beginsAsZip,
  CONTENTS_FILE,
  contentsKind,
  openDocument,
  parseJson,
  REEL_FILE,
  type Reel,
  reelKind,
  TEMPLATE_FILE,
  type Template,
  templateKind,
} from '@fresh-reel/core';
import { importFont } from '../fonts/importFont';
import { assetFile } from '../media/decode/assets';
import { rangeOf, ZipFiles } from '../media/files/zip';
import { importMedia } from '../media/import/importMedia';
import { fromBase64 } from '../storage/bytes';
import { mediaId } from '../storage/media';

/** What a file of the user's was. */
export type Opened =
  | { readonly kind: 'reel'; readonly reel: Reel }
  | { readonly kind: 'template'; readonly template: Template };

/**
 * Opens a reel or template file. The media and fonts in it are taken in first.
 * @throws {Error} saying why it cannot be opened
 */
export async function openPackage(file: File): Promise<Opened> {
  const start = new Uint8Array(await file.slice(0, 4).arrayBuffer());
  return beginsAsZip(start) ? fromZip(file) : fromJson(file);
}

async function fromZip(file: File): Promise<Opened> {
  const files = await ZipFiles.open(file.size, rangeOf(file));
  const name = [TEMPLATE_FILE, REEL_FILE].find((n) => files.has(n));
  if (!name) throw new Error('This is not a reel or a template: it is a zip without one in it.');
  const text = await files.text(name);
  // Before anything is taken in: a file that is no good leaves nothing behind.
  const opened = documentOf(parseJson(text, name === TEMPLATE_FILE ? 'template' : 'reel'), name);
  if (!files.has(CONTENTS_FILE)) return opened;
  const contents = openDocument(contentsKind, parseJson(await files.text(CONTENTS_FILE), 'file'));
  let renamed = text;
  for (const { id, path, name: called, type } of contents.media) {
    // What ships is here already; what is not there is told by the reel, which finds it again.
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
async function fromJson(file: File): Promise<Opened> {
  const data = parseJson(await file.text(), 'reel or template');
  const { format } = (data ?? {}) as { format?: unknown };
  if (format === templateKind.format) return documentOf(data, TEMPLATE_FILE);
  const { embedded = {}, ...reel } = openDocument(reelKind, data);
  for (const [id, part] of Object.entries(embedded)) {
    const held = new File([fromBase64(part.base64)], part.name, { type: part.type });
    if (id.startsWith('font:')) await importFont(held);
    else await importMedia(held);
  }
  return { kind: 'reel', reel };
}
