import {
  access,
  mkdir,
  mkdtemp,
  open,
  readdir,
  readFile,
  rename,
  rm,
  stat,
  writeFile,
} from 'node:fs/promises';
import { availableParallelism, tmpdir } from 'node:os';
import { basename, dirname, join, resolve } from 'node:path';
import {
  EMPTY_FILL,
  FRAMES,
  fileStem,
  frameShape,
  MixRender,
  newReel,
  openDocument,
  parseJson,
  type Reel,
  ReelScene,
  reelKind,
  secondsAt,
  type Template,
  templateKind,
  wavHeader,
  wavSamples,
} from '@fresh-reel/core';
import { NodeStudio, openPackage } from '@fresh-reel/node-host';
import { SHIPPED_PATHS } from '@fresh-reel/templates/assets';
import { SOURCES } from '@fresh-reel/templates/sources';
import { CommandError, type RenderCommand } from './command';
import { loadFill } from './fill';
import { FrameWriter, type OwnFont, type PaintJob } from './frameWriter';
import { withOriginals } from './originals';
import { paintOnThreads, threadsFor } from './threads';

export interface Rendered {
  readonly written: number;
  readonly folder: string;
}

/**
 * Renders numbered PNGs with alpha into a folder. They are written beside it first and moved in when all are there,
 * so the folder never holds half a render.
 * @throws {CommandError} when something asked for is not there or not possible
 */
export async function render(
  command: RenderCommand,
  onProgress: (done: number, count: number) => void,
): Promise<Rendered> {
  if (/\.(mp4|m4v|mov|mkv|webm|avi|png|jpe?g|webp|gif|zip|wav)$/i.test(command.out)) {
    throw new CommandError(
      `--out "${command.out}" looks like a file. The command line writes a folder of numbered PNGs.`,
    );
  }
  const studio = await NodeStudio.start(SHIPPED_PATHS);
  const unpacked = await mkdtemp(join(tmpdir(), 'fresh-reel-'));
  try {
    const { reel, files, embedded, name } = await load(command, unpacked);
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
        const what = id.startsWith('file:') ? `for the slot "${id.slice(5)}"` : `"${id}" of the reel`;
        throw new CommandError(
          `The file ${what} is not a picture, clip or sound that can be read. ${ffmpegMissing(error)}`.trim(),
        );
      });
    }
    for (const { family, weight, bytes } of fonts) studio.addFont(family, weight, bytes);
    return await renderReel(command, studio, { reel, files, fonts, name }, onProgress);
  } finally {
    studio.close();
    await rm(unpacked, { recursive: true, force: true });
  }
}

const ffmpegMissing = (error: Error) =>
  /ENOENT.*ff(mpeg|probe)|ff(mpeg|probe) ENOENT/.test(error.message)
    ? 'Clips and sounds need ffmpeg: install it first.'
    : '';

async function renderReel(
  command: RenderCommand,
  studio: NodeStudio,
  { reel, files, fonts, name }: Pick<Loaded, 'reel' | 'files' | 'name'> & { fonts: readonly OwnFont[] },
  onProgress: (done: number, count: number) => void,
): Promise<Rendered> {
  const scene = new ReelScene(reel, studio);
  await studio.prepare(scene);
  const missing = [
    ...scene.media().filter((id) => !studio.mediaFacts(id)),
    ...scene.sounds().filter((id) => !studio.sound(id)),
  ];
  if (missing.length > 0)
    throw new CommandError(
      `The reel needs files that it does not hold: ${missing.join(', ')}. Save the reel as a file again.`,
    );

  const rate = command.rate ?? reel.rate;
  const size = command.size ?? reel.frame;
  const total = scene.frameCount(rate);
  const [from, to] = command.frames ?? [0, total - 1];
  if (to >= total)
    throw new CommandError(`--frames: the last frame is ${total - 1}, so ${from}-${to} is not all there.`);

  const folder = resolve(command.out);
  await mkdir(dirname(folder), { recursive: true });
  const work = await mkdtemp(join(dirname(folder), `.${basename(folder)}-`));
  try {
    const written = await writeFrames();
    await writeSound();
    await moveIn(work, folder);
    return { written, folder };
  } catch (error) {
    await rm(work, { recursive: true, force: true });
    throw error;
  }

  /** The reel's sound beside the pictures, where it has any. */
  async function writeSound(): Promise<void> {
    const plays = scene.plays((id) => studio.sound(id)?.facts);
    if (plays.length === 0) return;
    const count = to - from + 1;
    const out = await open(join(work, `${fileStem(name)}.wav`), 'w');
    try {
      const mix = new MixRender(
        plays,
        secondsAt(from, rate),
        secondsAt(count, rate),
        (id) => studio.sound(id),
        async (block) => {
          await out.write(wavSamples(block));
        },
      );
      await out.write(wavHeader(mix.total));
      await mix.end();
    } finally {
      await out.close();
    }
  }

  async function writeFrames(): Promise<number> {
    const count = to - from + 1;
    const job: PaintJob = {
      ...{ reel, files: [...files], fonts, size, rate, from, count },
      ...{ folder: work, stem: fileStem(name) },
    };
    const threads = threadsFor(count, availableParallelism());
    let done = 0;
    const onFrame = () => onProgress(++done, count);
    if (threads > 1) await paintOnThreads(job, threads, onFrame);
    else await new FrameWriter(studio, scene, job).write(0, count, onFrame);
    return done;
  }
}

interface Loaded {
  readonly reel: Reel;
  /** Files to read, by media id. */
  readonly files: Map<string, string>;
  /** Files that the reel file holds. */
  readonly embedded: ReadonlyMap<string, Uint8Array>;
  readonly name: string;
}

/** A template by its id or from its file, filled; or a reel from its file. */
async function load({ what, fill, size, originals }: RenderCommand, unpacked: string): Promise<Loaded> {
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

type Wanted = Pick<RenderCommand, 'fill' | 'size'>;

async function filled(template: Template, { fill, size }: Wanted): Promise<Loaded> {
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

function held(reel: Reel, { fill, size }: Wanted): Loaded {
  if (fill) throw new CommandError('--fill goes with a template; a reel file holds its own fill.');
  const embedded = new Map(
    Object.entries(reel.embedded ?? {}).map(([id, part]) => [id, Buffer.from(part.base64, 'base64')]),
  );
  return { reel: size ? { ...reel, frame: size } : reel, files: new Map(), embedded, name: reel.name };
}

/** Puts finished frames into the folder under their final names. */
async function moveIn(work: string, folder: string): Promise<void> {
  const exists = await stat(folder).catch(() => undefined);
  if (exists && !exists.isDirectory()) throw new CommandError(`--out "${folder}" is a file. Name a folder.`);
  if (!exists) {
    await rename(work, folder);
    return;
  }
  const made = await readdir(work);
  // Pictures of an earlier render of the same name, which may have been longer, would pass for part of this one.
  const stems = new Set(made.flatMap((file) => /^(.+)_\d{5,}\.png$/.exec(file)?.[1] ?? []));
  for (const file of await readdir(folder)) {
    const stem = /^(.+)_\d{5,}\.png$/.exec(file)?.[1] ?? /^(.+)\.wav$/.exec(file)?.[1];
    if (stem !== undefined && stems.has(stem)) await rm(join(folder, file));
  }
  for (const file of made) await rename(join(work, file), join(folder, file));
  await rm(work, { recursive: true, force: true });
}
