import { spawn } from 'node:child_process';
import { randomUUID } from 'node:crypto';
import { once } from 'node:events';
import { closeSync, fstatSync, openSync, read as readAt, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { promisify } from 'node:util';
import { SOUND_RATE, type SoundFacts, type SoundSource, type Stereo } from '@fresh-reel/core';
import { SAFELY } from './ffmpeg';
import { foldFilter, type Streams, streamsOf } from './streams';

const read = promisify(readAt);

/** A sample frame of two channels of 32 bits. */
const BYTES = 8;

/** A file for reading and writing that goes when it is closed, or with the process. */
function passingFile(): { file: number; gone: () => void } {
  const path = join(tmpdir(), `fresh-reel-sound-${randomUUID()}`);
  const file = openSync(path, 'wx+', 0o600);
  const remove = () => rmSync(path, { force: true });
  try {
    remove();
  } catch {
    // Where a file that is open cannot be removed, it is when it is closed.
  }
  return {
    file,
    gone: () => {
      closeSync(file);
      remove();
    },
  };
}

/**
 * A sound, or the sound of a clip, decoded by ffmpeg to stereo at 48 kHz. It lies in a file while it is open, 1.4 GB an
 * hour, so that none is too long for memory.
 */
export class NodeSound implements SoundSource {
  private constructor(
    private readonly file: number,
    /** Sample frames. */
    readonly length: number,
    readonly facts: SoundFacts,
    private readonly gone: () => void,
  ) {}

  /**
   * @param looked what ffprobe says of the file, where it has been asked
   * @returns null when the file has no sound
   * @throws {Error} when ffmpeg is not there, or cannot read it, with what it says
   */
  static async open(path: string, looked: Promise<Streams> = streamsOf(path)): Promise<NodeSound | null> {
    const { sounds, channels, picture, duration } = await looked;
    if (!sounds) return null;
    const { file, gone } = passingFile();
    try {
      await decode(path, channels, file);
      const length = Math.floor(fstatSync(file).size / BYTES);
      return new NodeSound(file, length, { duration: picture ? duration : length / SOUND_RATE }, gone);
    } catch (error) {
      gone();
      throw error;
    }
  }

  async read(from: number, frames: number): Promise<Stereo> {
    const out: Stereo = [new Float32Array(frames), new Float32Array(frames)];
    const [first, last] = [Math.max(0, from), Math.min(this.length, from + frames)];
    if (first >= last) return out;
    const both = new Float32Array((last - first) * 2);
    await read(this.file, both, 0, both.byteLength, first * BYTES);
    for (let i = 0; i < last - first; i++) {
      out[0][first - from + i] = both[2 * i]!;
      out[1][first - from + i] = both[2 * i + 1]!;
    }
    return out;
  }

  close(): void {
    this.gone();
  }
}

/** Decodes the first sound of a file into another, as sample frames one after the other. */
async function decode(path: string, channels: number, file: number): Promise<void> {
  const ffmpeg = spawn(
    'ffmpeg',
    [
      ...['-nostdin', '-v', 'error', ...SAFELY, '-i', path, '-map', '0:a:0'],
      // Silence before a sound that begins later than its file.
      ...['-af', `aresample=async=1:first_pts=0,${foldFilter(channels)}`],
      ...['-f', 'f32le', '-ar', String(SOUND_RATE), 'pipe:1'],
    ],
    { stdio: ['ignore', file, 'pipe'] },
  );
  let complaint = '';
  ffmpeg.stderr!.on('data', (text) => {
    complaint = String(text).trim();
  });
  const [code] = await once(ffmpeg, 'close');
  if (code !== 0) throw new Error(`The sound of "${path}" cannot be read. ${complaint}`.trim());
}
