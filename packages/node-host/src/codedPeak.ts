import { execFile } from 'node:child_process';
import { rm } from 'node:fs/promises';
import { promisify } from 'node:util';
import { type FilmCodec, LoudnessMeter, NEVER_OVER, SOUND_RATE } from '@fresh-reel/core';
import { SAFELY } from './ffmpeg';
import { ENCODERS } from './filmCodecs';
import { NodeSound } from './sound';

const run = promisify(execFile);

/** Codecs of sound that give back what they were given. */
const LOSSLESS = ['pcm_s24le', 'flac'];

/**
 * The true peak of a sound as a film's codec gives it back.
 * @param path of a WAV file
 * @param peak of it, in dBTP
 * @returns dBTP; nothing where it is what it was, or lower than could matter
 * @throws {Error} when ffmpeg cannot code it
 */
export async function codedPeak(path: string, codec: FilmCodec, peak: number): Promise<number | undefined> {
  const { sound } = ENCODERS[codec];
  if (sound.length === 0 || peak < NEVER_OVER || LOSSLESS.some((name) => sound.includes(name)))
    return undefined;
  // Matroska takes what every film takes.
  const coded = `${path}.mka`;
  try {
    await run('ffmpeg', ['-nostdin', '-v', 'error', '-y', ...SAFELY, '-i', path, ...sound, coded]);
    const decoded = await NodeSound.open(coded);
    if (!decoded) return undefined;
    try {
      const meter = new LoudnessMeter();
      for (let at = 0; at < decoded.length; at += SOUND_RATE)
        meter.push(await decoded.read(at, Math.min(SOUND_RATE, decoded.length - at)));
      return meter.peak;
    } finally {
      decoded.close();
    }
  } finally {
    await rm(coded, { force: true });
  }
}
