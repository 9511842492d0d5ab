import { readdir, rename, rm, stat } from 'node:fs/promises';
import { availableParallelism } from 'node:os';
import { basename, join, resolve } from 'node:path';
import {
  FILM_CODECS,
  type FilmCodec,
  fileStem,
  filmFacts,
  frameOfTimecode,
  messageOf,
  pictureEnding,
  type Rate,
  sequenceName,
  timecodeAt,
} from '@fresh-reel/core';
import {
  FilmFile,
  type FilmPlan,
  hasFfmpeg,
  INSTALL_FFMPEG,
  joinFilm,
  type NodeStudio,
  type PicturesPlan,
  pieceEnding,
  whyNoFilm,
} from '@fresh-reel/node-host';
import { beside } from './beside';
import { CommandError, filmWanted, type RenderCommand } from './command';
import { type FramePixels, FrameWriter, type PaintJob, rawFrames } from './frameWriter';
import { type OpenedReel, wholeScene, withReel } from './openedReel';
import { type Part, partsOf } from './overFootage';
import { writeSound } from './sound';
import type { Stretch } from './stretch';
import { paintOnThreads, threadsFor } from './threads';

export interface Rendered {
  readonly written: number;
  /** The folder or the film. */
  readonly path: string;
  /** What is not with them, and why, in words. */
  readonly note?: string;
}

/**
 * Renders numbered PNGs with alpha into a folder, or a film. They are written beside it first and moved in when all is
 * there, so nothing under a final name is ever half a render.
 * @throws {CommandError} when something asked for is not there or not possible
 */
export async function render(
  command: RenderCommand,
  onProgress: (done: number, count: number) => void,
): Promise<Rendered> {
  // A kind of file that is not written is known before anything is opened.
  filmWanted(command, true);
  // Numbered PNGs of what needs no decoder need no ffmpeg; their sound, which lies beside them, does.
  const silent = !command.pictures && !filmWanted(command, false) && !(await hasFfmpeg());
  return withReel(command, (studio, opened) => renderReel(command, studio, opened, onProgress), {
    paintsOnly: silent,
  });
}

/**
 * Renders a reel that is open.
 * @throws {CommandError} when something asked for is not there or not possible
 */
export async function renderReel(
  command: Output,
  studio: NodeStudio,
  { reel, files, fonts, name }: OpenedReel,
  onProgress: (done: number, count: number) => void,
): Promise<Rendered> {
  const scene = await wholeScene(reel, studio);
  const rate = command.rate ?? reel.rate;
  const size = command.size ?? reel.frame;
  const total = scene.frameCount(rate);
  const [from, to] = command.frames ?? [0, total - 1];
  if (to >= total)
    throw new CommandError(`--frames: the last frame is ${total - 1}, so ${from}-${to} is not all there.`);

  const path = resolve(command.out);
  const { pictures } = command;
  const codec = pictures ? undefined : filmWanted(command, scene.transparent);
  if (codec && command.number !== undefined)
    throw new CommandError('--number: a film is not numbered. Name a folder for numbered pictures.');
  if (pictures && !(await hasFfmpeg()))
    throw new CommandError(`${pictures} is written by ffmpeg, which is not here. ${INSTALL_FFMPEG}`);
  const why = codec && (await whyNoFilm({ codec, size, out: path }));
  if (why) throw new CommandError(why);
  const work = await beside(path);
  const stretch: Stretch = { scene, studio, rate, from, count: to - from + 1 };
  const paint: PaintJob = {
    ...{ reel, files: [...files], fonts, size, rate, from, count: stretch.count },
    ...{ folder: work, stem: fileStem(name) },
  };
  let done = 0;
  const onFrame = () => onProgress(++done, stretch.count);
  try {
    if (codec) {
      const out = join(work, basename(path));
      const terms = filmTerms(command, codec, scene.transparent, rate);
      const sound = filmFacts(codec).sound
        ? await writeSound(stretch, join(work, 'sound.wav'), codec)
        : undefined;
      await writeFilm(
        { codec, size, rate, ...terms, out, ...(sound ? { sound } : {}) },
        stretch,
        paint,
        onFrame,
      );
      await rename(out, path);
      await rm(work, { recursive: true, force: true });
    } else {
      const ending = pictureEnding(pictures);
      if (pictures) {
        const pattern = sequenceName(paint.stem, 0, stretch.count).replace(
          /(0*)1\.png$/,
          (_, zeros: string) => `%0${zeros.length + 1}d.${ending}`,
        );
        const alpha = scene.transparent ? (command.alpha ?? 'straight') : 'none';
        await writeFilm({ pictures, size, rate, alpha, out: join(work, pattern) }, stretch, paint, onFrame);
      } else {
        const threads = threadsFor(stretch.count, availableParallelism());
        if (threads > 1) await paintOnThreads(paint, threads, onFrame);
        else await new FrameWriter(studio, scene, paint).write(0, stretch.count, onFrame);
      }
      if (command.number !== undefined) await countFrom(command.number, work, ending);
      if (!studio.paintsOnly) await writeSound(stretch, join(work, `${fileStem(name)}.wav`));
      await moveIn(work, path);
    }
    const silenced = studio.paintsOnly && scene.sounds().length > 0;
    return { written: done, path, ...(silenced ? { note: WITHOUT_SOUND } : {}) };
  } catch (error) {
    await rm(work, { recursive: true, force: true });
    throw error;
  }
}

const WITHOUT_SOUND = `Its sound is not with it: sounds are read by ffmpeg, which is not here. ${INSTALL_FFMPEG}`;

/** How a render is written. */
export type Output = Omit<RenderCommand, 'what' | 'fill' | 'brand' | 'originals'>;

/**
 * How a film keeps transparency, and its first timecode.
 * @throws {CommandError} when the codec keeps none, or the timecode is none of this rate
 */
export function filmTerms(
  { alpha, timecode }: { readonly [K in 'alpha' | 'timecode']?: Output[K] },
  codec: FilmCodec,
  transparent: boolean,
  rate: Rate,
): Pick<FilmPlan, 'alpha' | 'timecode'> {
  const able = filmFacts(codec).alpha;
  if (!able && alpha !== undefined && alpha !== 'none')
    throw new CommandError(
      `--alpha: ${codec} keeps no transparency. ${FILM_CODECS.filter((c) => filmFacts(c).alpha).join(', ')} do.`,
    );
  try {
    if (timecode !== undefined) frameOfTimecode(timecode, rate);
  } catch (error) {
    throw new CommandError(`--timecode: ${messageOf(error)}`);
  }
  return {
    alpha: able && transparent ? (alpha ?? 'straight') : 'none',
    timecode: timecode ?? timecodeAt(0, rate),
  };
}

/** Gives numbered pictures, which count from 1, other numbers. */
async function countFrom(first: number, folder: string, ending: string): Promise<void> {
  const numbered = new RegExp(`^(.+_)(\\d{5,})\\.${ending}$`);
  const found = (await readdir(folder)).flatMap((file) => {
    const [, stem, digits] = numbered.exec(file) ?? [];
    return stem && digits ? [{ file, stem, number: Number(digits), digits: digits.length }] : [];
  });
  // From the end that is moved away from, so that none takes another's place.
  found.sort((a, b) => (first > 1 ? b.number - a.number : a.number - b.number));
  for (const { file, stem, number, digits } of found) {
    const name = `${stem}${String(number - 1 + first).padStart(digits, '0')}.${ending}`;
    if (name !== file) await rename(join(folder, file), join(folder, name));
  }
}

/** Writes a film, in the parts that it is best made in, or numbered pictures. */
async function writeFilm(
  plan: FilmPlan | PicturesPlan,
  stretch: Stretch,
  paint: PaintJob,
  onFrame: () => void,
): Promise<void> {
  const job: PaintJob = { ...paint, raw: true, onBlack: plan.alpha === 'none' };
  try {
    if (!('codec' in plan)) return await writePart(plan, stretch, job, onFrame);
    const parts = partsOf(stretch, plan);
    if (parts.length === 1) return await writePart(overPlan(plan, parts[0]!), stretch, job, onFrame);
    const pieces: { path: string; frames: number }[] = [];
    let { from } = stretch;
    for (const part of parts) {
      const path = join(paint.folder, `part-${pieces.length}.${pieceEnding(plan.codec)}`);
      const { sound: _, ...silent } = plan;
      const own = { from, count: part.frames };
      await writePart(
        overPlan({ ...silent, out: path }, part),
        { ...stretch, ...own },
        { ...job, ...own },
        onFrame,
      );
      pieces.push({ path, frames: part.frames });
      from += part.frames;
    }
    await joinFilm(pieces, plan);
  } catch (error) {
    throw new CommandError(`The film could not be written: ${messageOf(error)}`);
  }
}

const overPlan = (plan: FilmPlan, { underlay }: Part): FilmPlan => (underlay ? { ...plan, underlay } : plan);

/** Writes frames in one run of ffmpeg. @throws {Error} with what it said; no file is left then */
async function writePart(
  plan: FilmPlan | PicturesPlan,
  { scene, studio, count }: Stretch,
  paint: PaintJob,
  onFrame: () => void,
): Promise<void> {
  const over = 'codec' in plan ? plan.underlay?.area : undefined;
  const job: PaintJob = over ? { ...paint, over, onBlack: false } : paint;
  const film = new FilmFile(plan);
  const take = async (pixels: FramePixels) => {
    await film.write(pixels);
    onFrame();
  };
  try {
    const threads = threadsFor(count, availableParallelism());
    if (threads > 1) await paintOnThreads(job, threads, (pixels) => take(pixels!));
    else for await (const pixels of rawFrames(studio, scene, job, 0, count)) await take(pixels);
    await film.end();
  } catch (error) {
    await film.drop();
    throw error;
  }
}

const NUMBERED = /^(.+)_\d{5,}\.(?:png|tiff)$/;

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
  const stems = new Set(made.flatMap((file) => NUMBERED.exec(file)?.[1] ?? []));
  for (const file of await readdir(folder)) {
    const stem = NUMBERED.exec(file)?.[1] ?? /^(.+)\.wav$/.exec(file)?.[1];
    if (stem !== undefined && stems.has(stem)) await rm(join(folder, file));
  }
  for (const file of made) await rename(join(work, file), join(folder, file));
  await rm(work, { recursive: true, force: true });
}
