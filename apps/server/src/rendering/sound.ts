import { open } from 'node:fs/promises';
import { type FilmCodec, heldBack, MixRender, secondsAt, wavHeader, wavSamples } from '@fresh-reel/core';
import { codedPeak } from '@fresh-reel/node-host';
import type { Stretch } from './stretch';

/**
 * Writes what is heard of a stretch as a WAV file. True peaks stay below −1 dBTP, also when a film's codec has taken
 * something from it.
 * @param codec of the film it goes into; it is kept as it is, when absent
 * @returns its path, or nothing where all is silent
 * @throws {Error} when the file cannot be written, or ffmpeg cannot code it
 */
export async function writeSound(
  stretch: Stretch,
  path: string,
  codec?: FilmCodec,
): Promise<string | undefined> {
  const { scene, studio } = stretch;
  const plays = scene.plays((id) => studio.sound(id)?.facts);
  if (plays.length === 0) return undefined;
  await heldBack(async (ceiling) => {
    const { peak } = await mixInto(path, plays, stretch, ceiling);
    return { peak: (codec && (await codedPeak(path, codec, peak))) ?? peak };
  });
  return path;
}

async function mixInto(
  path: string,
  plays: ReturnType<Stretch['scene']['plays']>,
  { studio, rate, from, count }: Stretch,
  ceiling: number,
) {
  const out = await open(path, 'w');
  try {
    const mix = new MixRender(
      plays,
      secondsAt(from, rate),
      secondsAt(count, rate),
      (id) => studio.sound(id),
      async (block) => {
        await out.write(wavSamples(block));
      },
      ceiling,
    );
    await out.write(wavHeader(mix.total));
    return await mix.end();
  } finally {
    await out.close();
  }
}
