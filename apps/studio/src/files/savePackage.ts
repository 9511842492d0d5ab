import {
  CONTENTS_FILE,
  EMPTY_FILL,
  fileStem,
  fontNeeds,
  PACKAGE_ENDING,
  type PackageContents,
  REEL_FILE,
  type Reel,
  ReelScene,
  TEMPLATE_FILE,
  type Template,
} from '@fresh-reel/core';
import { DOCUMENT_ONLY } from '../engine/documentOnly';
import { ownFontFiles } from '../fonts/useFamilies';
import { assetFile, assetUrl } from '../media/decode/assets';
import { outFile } from '../media/files/outFile';
import { saveFile } from '../media/files/pickFile';
import { zipWriter } from '../media/files/zip';
import { readWhole, streamMedia } from '../storage/media';

interface Package {
  /** What it is called, without its ending. */
  readonly name: string;
  /** The document's name in the zip, and the document. */
  readonly document: readonly [name: string, document: object];
  /** Files that go along, by media id. */
  readonly media: readonly string[];
  /** Families of which the user's own go along. */
  readonly families: readonly string[];
}

/**
 * Gives the user the reel as one file, with all files of theirs that it holds (those of hidden slots too) and fonts,
 * that opens here and on the command line.
 * @returns ids of files that are not here whole, and so could not go along
 */
export async function saveReelFile(reel: Reel): Promise<string[]> {
  const { file, left, name } = await reelFile(reel);
  saveFile(file, name);
  return left;
}

/** A package as a file. */
interface Packed {
  readonly file: Blob;
  readonly name: string;
  /** Ids of files that are not here whole, and so could not go along. */
  readonly left: string[];
}

/** The reel as one file, as {@link saveReelFile} gives it. */
export function reelFile(reel: Reel): Promise<Packed> {
  const scene = new ReelScene(reel, DOCUMENT_ONLY);
  const { embedded: _, ...document } = reel;
  const chosen = JSON.stringify(reel.tracks);
  return packed({
    name: reel.name,
    document: [REEL_FILE, document],
    // Samples that nobody changed are there wherever the file is opened.
    media: scene.held().filter((id) => !assetFile(id) || chosen.includes(JSON.stringify(id))),
    families: scene.fonts().faces.map((f) => f.family),
  });
}

/** Gives the user a template as one file, with its samples and fonts. @returns as {@link saveReelFile} */
export async function saveTemplateFile(template: Template): Promise<string[]> {
  const { file, left, name } = await packed({
    name: template.name,
    document: [TEMPLATE_FILE, template],
    media: Object.values(template.assets),
    families: fontNeeds(template, EMPTY_FILL).faces.map((f) => f.family),
  });
  saveFile(file, name);
  return left;
}

/** Writes a package, piece by piece, however large its files are. */
async function packed({ name, document, media, families }: Package): Promise<Packed> {
  const fonts = await ownFontFiles(new Set(families));
  const file = fileStem(name) + PACKAGE_ENDING;
  const out = await outFile(file);
  const zip = zipWriter((bytes) => out.write(bytes));
  const json = (data: unknown) => new Blob([JSON.stringify(data, null, 1)], { type: 'application/json' });
  await zip.add(document[0], json(document[1]));
  const parts: PackageContents['media'] = [];
  const left: string[] = [];
  for (const id of new Set(media)) {
    const path = `media/${id.replace(/^sha256:/, '').replace(/[^\w-]/g, '-')}`;
    const found = await sourceOf(id);
    if (!found) {
      left.push(id);
      continue;
    }
    await zip.addStream(path, found.stream);
    const { name: called, type, original } = found;
    parts.push({ id, path, name: called, type, ...(original ? { original } : {}) });
  }
  const contents: PackageContents = {
    format: 'freshreel/contents',
    version: 1,
    media: parts,
    fonts: fonts.map(({ family, weight }, i) => ({ family, weight, path: `fonts/${i + 1}.ttf` })),
  };
  for (const [i, { bytes }] of fonts.entries())
    await zip.add(`fonts/${i + 1}.ttf`, new Blob([bytes as BlobPart]));
  await zip.add(CONTENTS_FILE, json(contents));
  await zip.end();
  return { file: await out.finish(), name: file, left };
}

interface Source {
  readonly name: string;
  readonly type: string;
  /** Of a working copy. */
  readonly original?: { readonly size: number } | undefined;
  readonly stream: ReadableStream<Uint8Array>;
}

/** The bytes of a file that ships or lies on the shelf; nothing when it is not here whole. */
async function sourceOf(id: string): Promise<Source | undefined> {
  const record = id.startsWith('sha256:') ? await readWhole(id.slice(7)) : null;
  if (record) return { ...record, stream: streamMedia(record) };
  const asset = assetUrl(id);
  if (!asset) return undefined;
  const response = await fetch(asset);
  if (!response.ok || !response.body) return undefined;
  const type = response.headers.get('content-type') ?? 'application/octet-stream';
  return { name: asset.replace(/^.*\//, ''), type, stream: response.body };
}
