import { access, mkdtemp, readFile, rm, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { dirname, join, resolve } from 'node:path';
import {
  type Brand,
  brandKind,
  EMPTY_FILL,
  FRAMES,
  frameShape,
  newReel,
  openDocument,
  parseJson,
  type Reel,
  ReelScene,
  reelKind,
  reelWearing,
  type Template,
  templateKind,
  wearBrand,
} from '@fresh-reel/core';
import { INSTALL_FFMPEG, NodeStudio, type OpenedPackage, openPackage } from '@fresh-reel/node-host';
import { SHIPPED_PATHS } from '@fresh-reel/templates/assets';
import { SOURCES } from '@fresh-reel/templates/sources';
import { CommandError, type RenderCommand } from './command';
import { loadFill } from './fill';
import type { OwnFont } from './frameWriter';
import { withOriginals } from './originals';

/** What a command works on. */
export type Wanted = Pick<RenderCommand, 'what' | 'fill' | 'brand' | 'size' | 'originals'>;

/** A reel whose files and fonts are in a studio. */
export interface OpenedReel {
  readonly reel: Reel;
  /** Files by media id. */
  readonly files: ReadonlyMap<string, string>;
  readonly fonts: readonly OwnFont[];
  readonly name: string;
}

/**
 * Opens a template by its id or from its file, filled, or a reel from its file, in a studio that lives as long as what
 * is done with it.
 * @param how as `NodeStudio.start` takes it
 * @throws {CommandError} when something asked for is not there or cannot be read
 */
export async function withReel<T>(
  wanted: Wanted,
  use: (studio: NodeStudio, opened: OpenedReel) => Promise<T>,
  how: Parameters<typeof NodeStudio.start>[1] = {},
): Promise<T> {
  const studio = await NodeStudio.start(SHIPPED_PATHS, how);
  const unpacked = await mkdtemp(join(tmpdir(), 'fresh-reel-'));
  try {
    const { embedded, ...loaded } = await load(wanted, unpacked);
    const { files } = loaded;
    const fonts: OwnFont[] = [];
    for (const [id, bytes] of embedded) {
      const font = /^font:(.+)\/(\d+)$/.exec(id);
      if (font) {
        fonts.push({ family: font[1]!, weight: Number(font[2]), bytes });
        continue;
      }
      const path = join(unpacked, id.replace(/[^\w]/g, '-'));
      await writeFile(path, bytes);
      files.set(id, path);
    }
    for (const [id, path] of files) {
      await studio.addFile(id, path).catch((error: Error) => {
        if (ffmpegMissing(error)) throw error;
        const what = id.startsWith('file:') ? `for the slot "${id.slice(5)}"` : `"${id}" of the reel`;
        throw new CommandError(`The file ${what} is not a picture, clip or sound that can be read.`);
      });
    }
    for (const { family, weight, bytes } of fonts) studio.addFont(family, weight, bytes);
    return await use(studio, { ...loaded, fonts });
  } catch (error) {
    const missing = ffmpegMissing(error as Error);
    throw missing ? new CommandError(missing) : error;
  } finally {
    studio.close();
    await rm(unpacked, { recursive: true, force: true });
  }
}

/**
 * A reel's scene with all that it shows and plays ready.
 * @throws {CommandError} when it needs files that it does not hold
 */
export async function wholeScene(reel: Reel, studio: NodeStudio): Promise<ReelScene> {
  const scene = new ReelScene(reel, studio);
  await studio.prepare(scene);
  const missing = [
    ...scene.media().filter((id) => !studio.mediaFacts(id)),
    ...scene.sounds().filter((id) => !studio.hasSound(id)),
  ];
  if (missing.length > 0)
    throw new CommandError(
      `The reel needs files that it does not hold: ${missing.join(', ')}. Save the reel as a file again.`,
    );
  return scene;
}

const ffmpegMissing = (error: Error) =>
  /ENOENT.*ff(mpeg|probe)|ff(mpeg|probe) ENOENT/.test(error.message)
    ? `Clips and sounds are read by ffmpeg, which is not here. ${INSTALL_FFMPEG}`
    : '';

interface Loaded extends Omit<OpenedReel, 'files' | 'fonts'> {
  /** Files to read, by media id. */
  readonly files: Map<string, string>;
  /** Files that the reel file holds. */
  readonly embedded: ReadonlyMap<string, Uint8Array>;
}

/** A template by its id or from its file, filled; or a reel from its file; in a brand, where one is wanted. */
async function load(wanted: Wanted, unpacked: string): Promise<Loaded> {
  const worn =
    wanted.brand === undefined ? undefined : await loadBrand(wanted.brand, join(unpacked, 'brand'));
  const loaded = await loadTitle(wanted, worn?.brand, unpacked);
  if (!worn) return loaded;
  return {
    ...loaded,
    files: new Map([...worn.files, ...loaded.files]),
    embedded: new Map([...worn.fonts, ...loaded.embedded]),
  };
}

interface LoadedBrand {
  readonly brand: Brand;
  readonly files: ReadonlyMap<string, string>;
  /** Its own fonts, by media id. */
  readonly fonts: ReadonlyMap<string, Uint8Array>;
}

/** A brand from its file, with its logos, sounds and fonts. @throws {CommandError} when there is not one in it */
async function loadBrand(path: string, folder: string): Promise<LoadedBrand> {
  await access(path).catch(() => {
    throw new CommandError(`--brand: "${path}" cannot be read.`);
  });
  const opened = await openPackage(path, folder);
  if (!opened) {
    const brand = openDocument(brandKind, parseJson(await readFile(path, 'utf8'), brandKind.title));
    return { brand, files: new Map(), fonts: new Map() };
  }
  const brands = (opened.documents ?? []).flatMap((d) => (d.kind === 'brand' ? [d.document] : []));
  const [brand] = brands;
  if (!brand)
    throw new CommandError(`--brand: "${path}" holds no brand. Save one as a file on the Brand page.`);
  if (brands.length > 1)
    throw new CommandError(
      `--brand: "${path}" holds ${brands.map(({ name }) => `"${name}"`).join(', ')}. Save the one that is meant as a file of its own.`,
    );
  return {
    brand,
    files: new Map(opened.media.map((part) => [part.id, part.path])),
    fonts: await bytesOfFonts(opened),
  };
}

const bytesOfFonts = async ({ fonts }: OpenedPackage): Promise<Map<string, Uint8Array>> =>
  new Map(
    await Promise.all(
      fonts.map(
        async ({ family, weight, path }) => [`font:${family}/${weight}`, await readFile(path)] as const,
      ),
    ),
  );

async function loadTitle(
  { what, fill, size, originals }: Wanted,
  brand: Brand | undefined,
  unpacked: string,
): Promise<Loaded> {
  const how = { fill, size, brand };
  // The one that is wanted is opened alone.
  const source = SOURCES.find((t) => t.id === what);
  if (source) return filled(openDocument(templateKind, source), how);
  await access(what).catch(() => {
    throw new CommandError(
      `"${what}" is neither a template (${SOURCES.map((t) => t.id).join(', ')}) nor a file that can be read.`,
    );
  });
  const opened = await openPackage(what, unpacked);
  if (!opened) {
    const data = parseJson(await readFile(what, 'utf8'), 'reel or template');
    if (isTemplate(data)) return filled(openDocument(templateKind, data), how);
    return held(openDocument(reelKind, data), how);
  }
  if (opened.documents)
    throw new CommandError(
      `"${what}" holds several things: ${opened.documents.map((d) => d.name).join(', ')}. Lay it out with "fresh-reel unpack", and name one of its documents.`,
    );
  const loaded = opened.template ? await filled(opened.template, how) : held(opened.reel!, how);
  const media = await withOriginals(opened.media, originals ?? dirname(resolve(what)), (line) =>
    console.error(line),
  );
  return {
    ...loaded,
    files: new Map([...media, ...loaded.files]),
    embedded: await bytesOfFonts(opened),
  };
}

const isTemplate = (data: unknown) =>
  typeof data === 'object' && data !== null && 'format' in data && data.format === templateKind.format;

interface How extends Pick<Wanted, 'fill' | 'size'> {
  readonly brand: Brand | undefined;
}

async function filled(template: Template, { fill, size, brand }: How): Promise<Loaded> {
  const own = fill ? await loadFill(fill, template) : { fill: EMPTY_FILL, files: new Map<string, string>() };
  const worn = brand ? wearBrand(template, EMPTY_FILL, brand) : EMPTY_FILL;
  const shape = size ? frameShape(size) : 'wide';
  const made = newReel(template, {
    id: template.id,
    name: template.name,
    now: new Date().toISOString(),
    shape,
    // What is said of this title counts more than what is said of all.
    fill: {
      ...own.fill,
      slots: { ...worn.slots, ...own.fill.slots },
      controls: { ...worn.controls, ...own.fill.controls },
    },
  });
  return {
    reel: { ...made, frame: size ?? FRAMES[shape] },
    files: own.files,
    embedded: new Map(),
    name: template.id,
  };
}

function held(reel: Reel, { fill, size, brand }: How): Loaded {
  if (fill) throw new CommandError('--fill goes with a template; a reel file holds its own fill.');
  const embedded = new Map(
    Object.entries(reel.embedded ?? {}).map(([id, part]) => [id, Buffer.from(part.base64, 'base64')]),
  );
  const worn = brand ? reelWearing(reel, brand) : reel;
  return { reel: size ? { ...worn, frame: size } : worn, files: new Map(), embedded, name: reel.name };
}
