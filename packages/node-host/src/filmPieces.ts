import { execFile } from 'node:child_process';
import { copyFile, rm, writeFile } from 'node:fs/promises';
import { promisify } from 'node:util';
import type { FilmCodec, Rate } from '@fresh-reel/core';
import { SAFELY } from './ffmpeg';
import { ENCODERS } from './filmCodecs';
import type { FilmPlan } from './filmFile';

const run = promisify(execFile);

/** Endings of pieces: containers that keep every frame's time exactly. */
const PIECES: Partial<Record<FilmCodec, string>> = {
  h264: 'mp4',
  h265: 'mp4',
  av1: 'mp4',
  prores422hq: 'mov',
  prores4444: 'mov',
  dnxhr: 'mov',
  ffv1: 'mkv',
  vp9: 'webm',
};

/** What pieces of a codec are written as; nothing where it cannot be made in pieces: its colours are chosen for the whole. */
export const pieceEnding = (codec: FilmCodec): string | undefined => PIECES[codec];

/**
 * The arguments of ffmpeg that join pieces, which were compressed apart, into a film without compressing them again.
 * @param list path of the list of pieces (`pieceList`)
 */
function joinArguments({ codec, rate, timecode, sound, out }: FilmPlan, list: string): string[] {
  const { settings, sound: soundCodec } = ENCODERS[codec];
  const heard = sound !== undefined && soundCodec.length > 0;
  /** Of the settings, those of the container. */
  const boxed = ['-movflags', '-tag:v'].flatMap((name) => {
    const at = settings.indexOf(name);
    return at < 0 ? [] : [name, settings[at + 1]!];
  });
  return [
    ...[
      '-hide_banner',
      '-nostdin',
      '-nostats',
      '-v',
      'error',
      '-y',
      '-f',
      'concat',
      '-safe',
      '0',
      '-i',
      list,
    ],
    ...(heard ? [...SAFELY, '-i', sound] : []),
    ...['-map', '0:v:0', ...(heard ? ['-map', '1:a:0', ...soundCodec] : []), '-c:v', 'copy', ...boxed],
    ...(/\.(mov|mp4)$/i.test(out) ? ['-timecode', timecode, '-write_tmcd', '1'] : []),
    ...['-video_track_timescale', String(rate.num * (rate.den === 1 ? 512 : 1))],
    ...['-map_metadata', '-1', '-fflags', '+bitexact', '-flags:a', '+bitexact', out],
  ];
}

/** The list of pieces as ffmpeg's `concat` reads it, each as long as its frames. */
const pieceList = (
  pieces: readonly { readonly path: string; readonly frames: number }[],
  { num, den }: Rate,
): string =>
  [
    'ffconcat version 1.0',
    ...pieces.flatMap(({ path, frames }) => [
      `file '${path.replaceAll("'", "'\\''")}'`,
      `duration ${((frames * den) / num).toFixed(9)}`,
    ]),
    '',
  ].join('\n');

/**
 * Joins pieces into a film; one that is not made in pieces is its only one.
 * @throws {Error} with what ffmpeg said; no file is left then
 */
export async function joinFilm(
  pieces: readonly { readonly path: string; readonly frames: number }[],
  plan: FilmPlan,
): Promise<void> {
  if (!pieceEnding(plan.codec)) return copyFile(pieces[0]!.path, plan.out);
  const list = `${plan.out}.pieces`;
  await writeFile(list, pieceList(pieces, plan.rate));
  try {
    await run('ffmpeg', joinArguments(plan, list));
  } catch (error) {
    await rm(plan.out, { force: true });
    throw new Error((error as { stderr?: string }).stderr?.trim() || (error as Error).message);
  } finally {
    await rm(list, { force: true });
  }
}
