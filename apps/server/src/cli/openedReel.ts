import { access, mkdtemp, readFile, rm, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { dirname, join, resolve } from 'node:path';
import {
  EMPTY_FILL,
  FRAMES,
  frameShape,
  newReel,
  openDocument,
  parseJson,
  type Reel,
  ReelScene,
  reelKind,
  type Template,
  templateKind,
} from '@fresh-reel/core';
import { INSTALL_FFMPEG, NodeStudio, openPackage } from '@fresh-reel/node-host';
import { SHIPPED_PATHS } from '@fresh-reel/templates/assets';
import { SOURCES } from '@fresh-reel/templates/sources';
import { CommandError, type RenderCommand } from './command';
import { loadFill } from './fill';
import type { OwnFont } from './frameWriter';
import { withOriginals } from './originals';

/** What a command works on. */
export type Wanted = Pick<RenderCommand, 'what' | 'fill' | 'size' | 'originals'>;

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

/** A template by its id or from its file, filled; or a reel from its file. */
async function load({ what, fill, size, originals }: Wanted, unpacked: string): Promise<Loaded> {
  // The one that is wanted is opened alone.
  const source = SOURCES.find((t) => t.id === what);
  if (source) return filled(openDocument(templateKind, source), { fill, size });
  await access(what).catch(() => {
    throw new CommandError(
      `"${what}" is neither a template (${SOURCES.map((t) => t.id).join(', ')}) nor a file that can be read.`,
    );
  });
  const opened = await openPackage(what, unpacked);
  if (!opened) {
    const data = parseJson(await readFile(what, 'utf8'), 'reel or template');
    if (isTemplate(data)) return filled(openDocument(templateKind, data), { fill, size });
    return held(openDocument(reelKind, data), { fill, size });
  }
  if (opened.documents)
    throw new CommandError(
      `"${what}" holds several things: ${opened.documents.map((d) => d.name).join(', ')}. Lay it out with "fresh-reel unpack", and name one of its documents.`,
    );
  const fonts = await Promise.all(
    opened.fonts.map(
      async ({ family, weight, path }) => [`font:${family}/${weight}`, await readFile(path)] as const,
    ),
  );
  const loaded = opened.template
    ? await filled(opened.template, { fill, size })
    : held(opened.reel!, { fill, size });
  const media = await withOriginals(opened.media, originals ?? dirname(resolve(what)), (line) =>
    console.error(line),
  );
  return {
    ...loaded,
    files: new Map([...media, ...loaded.files]),
    embedded: new Map(fonts),
  };
}

const isTemplate = (data: unknown) =>
  typeof data === 'object' && data !== null && 'format' in data && data.format === templateKind.format;

async function filled(template: Template, { fill, size }: Pick<Wanted, 'fill' | 'size'>): Promise<Loaded> {
  const loaded = fill
    ? await loadFill(fill, template)
    : { fill: EMPTY_FILL, files: new Map<string, string>() };
  const shape = size ? frameShape(size) : 'wide';
  const made = newReel(template, {
    id: template.id,
    name: template.name,
    now: new Date().toISOString(),
    shape,
    fill: loaded.fill,
  });
  return {
    reel: { ...made, frame: size ?? FRAMES[shape] },
    files: loaded.files,
    embedded: new Map(),
    name: template.id,
  };
}

function held(reel: Reel, { fill, size }: Pick<Wanted, 'fill' | 'size'>): Loaded {
  if (fill) throw new CommandError('--fill goes with a template; a reel file holds its own fill.');
  const embedded = new Map(
    Object.entries(reel.embedded ?? {}).map(([id, part]) => [id, Buffer.from(part.base64, 'base64')]),
  );
  return { reel: size ? { ...reel, frame: size } : reel, files: new Map(), embedded, name: reel.name };
}
