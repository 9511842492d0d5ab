import {
  type Brand,
  CONTENTS_FILE,
  EMPTY_FILL,
  fileStem,
  fontNeeds,
  mayEmbed,
  PACKAGE_ENDING,
  type PackageContents,
  REEL_FILE,
  type Reel,
  ReelScene,
  TEMPLATE_FILE,
  type Template,
} from '@fresh-reel/core';
import { assetFile, assetUrl } from '../decode/assets';
import { outFile } from '../disk/outFile';
import { saveFile } from '../disk/pickFile';
import { zipWriter } from '../disk/zip';
import { DOCUMENT_ONLY } from '../engine/documentOnly';
import { ownFontFiles } from '../fonts/useFamilies';
import { sha256 } from '../storage/bytes';
import { readWhole, streamMedia } from '../storage/media';
import { readPreferences } from '../storage/preferences';

interface Package {
  /** What it is called, without its ending. */
  readonly name: string;
  /** Each document's name in the zip, and the document; of several, what the list says of it too. */
  readonly documents: readonly {
    readonly path: string;
    readonly document: object;
    readonly listed?: Pick<PackageContents['documents'][number], 'kind' | 'name'>;
  }[];
  /** Files that go along, by media id. */
  readonly media: readonly string[];
  /** Families of which the user's own go along. */
  readonly families: readonly string[];
  /** Of a backup: what was chosen for the app. */
  readonly choices?: PackageContents['choices'];
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
  const { embedded: _, ...document } = reel;
  return packed({ name: reel.name, documents: [{ path: REEL_FILE, document }], ...neededBy(reel) });
}

/** Files and families that a reel needs to be whole elsewhere. */
function neededBy(reel: Reel): Pick<Package, 'media' | 'families'> {
  const scene = new ReelScene(reel, DOCUMENT_ONLY);
  const chosen = JSON.stringify(reel.tracks);
  return {
    // Samples that nobody changed are there wherever the file is opened.
    media: scene.held().filter((id) => !assetFile(id) || chosen.includes(JSON.stringify(id))),
    families: scene.fonts().faces.map((f) => f.family),
  };
}

const neededByTemplate = (template: Template): Pick<Package, 'media' | 'families'> => ({
  media: Object.values(template.assets),
  families: fontNeeds(template, EMPTY_FILL).faces.map((f) => f.family),
});

const neededByBrand = ({ logos, sounds, fonts }: Brand): Pick<Package, 'media' | 'families'> => ({
  media: [
    ...Object.values(logos).flatMap((logo) => logo?.media ?? []),
    ...Object.values(sounds).flatMap((one) => one?.sound ?? []),
  ],
  families: Object.values(fonts).flatMap((family) => family ?? []),
});

/** Reels, templates and brands that go into one file. */
export interface Things {
  readonly reels?: readonly Reel[];
  readonly templates?: readonly Template[];
  readonly brands?: readonly Brand[];
  /** Hashes of files that none of them shows and that go along all the same. */
  readonly media?: readonly string[];
  readonly families?: readonly string[];
  /** What was chosen for the app: it makes a backup of them. */
  readonly choices?: PackageContents['choices'];
}

/** Several things as one file. @param name of the file, without its ending */
export function thingsFile(
  name: string,
  { reels = [], templates = [], brands = [], ...more }: Things,
): Promise<Packed> {
  const listed = (
    kind: 'reel' | 'template' | 'brand',
    folder: string,
    all: readonly { id: string; name: string }[],
  ) =>
    all.map((document) => ({
      path: `${folder}/${document.id.replace(/[^\w.-]/g, '-').slice(0, 110)}.json`,
      document,
      listed: { kind, name: document.name },
    }));
  const needed = [...reels.map(neededBy), ...templates.map(neededByTemplate), ...brands.map(neededByBrand)];
  return packed({
    name,
    documents: [
      ...listed('brand', 'brands', brands),
      ...listed('template', 'templates', templates),
      ...listed(
        'reel',
        'reels',
        reels.map(({ embedded: _, ...reel }) => reel),
      ),
    ],
    media: [...needed.flatMap((n) => n.media), ...(more.media ?? [])],
    families: [...needed.flatMap((n) => n.families), ...(more.families ?? [])],
    ...(more.choices ? { choices: more.choices } : {}),
  });
}

/** Gives the user several things as one file. @returns as {@link saveReelFile} */
export async function saveThingsFile({ name, things }: { name: string; things: Things }): Promise<string[]> {
  const { file, left, name: called } = await thingsFile(name, things);
  saveFile(file, called);
  return left;
}

/** Gives the user a template as one file, with its samples and fonts. @returns as {@link saveReelFile} */
export async function saveTemplateFile(template: Template): Promise<string[]> {
  const { file, left, name } = await packed({
    name: template.name,
    documents: [{ path: TEMPLATE_FILE, document: template }],
    ...neededByTemplate(template),
  });
  saveFile(file, name);
  return left;
}

/** Writes a package, piece by piece, however large its files are. */
async function packed({ name, documents, media, families, choices }: Package): Promise<Packed> {
  // A font whose licence forbids it stays here.
  const fonts = (await ownFontFiles(new Set(families))).filter(({ bytes }) => mayEmbed(bytes));
  const file = fileStem(name) + PACKAGE_ENDING;
  const out = await outFile(file);
  const zip = zipWriter((bytes) => out.write(bytes));
  const json = (data: unknown) => new Blob([JSON.stringify(data, null, 1)], { type: 'application/json' });
  for (const { path, document } of documents) await zip.add(path, json(document));
  const { signature: from } = await readPreferences();
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
    const { name: called, type, original, group } = found;
    parts.push({
      ...{ id, path, name: called, type },
      ...(original ? { original } : {}),
      ...(choices && group ? { group } : {}),
    });
  }
  const contents: PackageContents = {
    format: 'freshreel/contents',
    version: 3,
    ...(choices ? { choices } : {}),
    ...(from ? { from } : {}),
    made: new Date().toISOString(),
    documents: documents.flatMap(({ path, listed }) => (listed ? [{ ...listed, path }] : [])),
    media: parts,
    fonts: await Promise.all(
      fonts.map(async ({ family, weight, bytes }, i) => ({
        ...{ family, weight, path: `fonts/${i + 1}.ttf` },
        hash: await sha256(bytes),
      })),
    ),
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
  /** It stands in on the shelf. */
  readonly group?: string | undefined;
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
