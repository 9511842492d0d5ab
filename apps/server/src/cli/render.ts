import { mkdir, mkdtemp, open, readdir, rename, rm, stat } from 'node:fs/promises';
import { availableParallelism } from 'node:os';
import { basename, dirname, join, resolve } from 'node:path';
import { fileStem, MixRender, ReelScene, secondsAt, wavHeader, wavSamples } from '@fresh-reel/core';
import type { NodeStudio } from '@fresh-reel/node-host';
import { CommandError, type RenderCommand } from './command';
import { FrameWriter, type PaintJob } from './frameWriter';
import { missingFiles, type OpenedReel, withReel } from './openedReel';
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
  return withReel(command, (studio, work) => renderReel(command, studio, work, onProgress));
}

async function renderReel(
  command: RenderCommand,
  studio: NodeStudio,
  { reel, files, fonts, name }: OpenedReel,
  onProgress: (done: number, count: number) => void,
): Promise<Rendered> {
  const scene = new ReelScene(reel, studio);
  await studio.prepare(scene);
  const missing = missingFiles(scene, studio);
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
