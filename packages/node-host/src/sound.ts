import { execFile } from 'node:child_process';
import { promisify } from 'node:util';
import { SOUND_RATE, type SoundFacts, type SoundSource, type Stereo } from '@fresh-reel/core';
import { SAFELY } from './ffmpeg';
import { foldFilter, type Streams, streamsOf } from './streams';

const run = promisify(execFile);

/** A sound, or the sound of a clip, decoded by ffmpeg to stereo at 48 kHz. */
export class NodeSound implements SoundSource {
  readonly facts: SoundFacts;

  private constructor(private readonly planes: Stereo) {
    this.facts = { duration: planes[0].length / SOUND_RATE };
  }

  /**
   * @param looked what ffprobe says of the file, where it has been asked
   * @returns null when the file has no sound
   * @throws {Error} when ffmpeg is not there
   */
  static async open(path: string, looked: Promise<Streams> = streamsOf(path)): Promise<NodeSound | null> {
    const { sounds, channels } = await looked;
    if (!sounds) return null;
    const { stdout } = await run(
      'ffmpeg',
      [
        '-nostdin',
        '-v',
        'error',
        ...SAFELY,
        '-i',
        path,
        '-map',
        '0:a:0',
        // Silence before a sound that begins later than its file.
        '-af',
        `aresample=async=1:first_pts=0,${foldFilter(channels)}`,
        '-f',
        'f32le',
        '-ar',
        String(SOUND_RATE),
        'pipe:1',
      ],
      { encoding: 'buffer', maxBuffer: 2 ** 31 - 1 },
    );
    const frames = Math.floor(stdout.length / 8);
    const [left, right] = [new Float32Array(frames), new Float32Array(frames)];
    for (let i = 0; i < frames; i++) {
      left[i] = stdout.readFloatLE(i * 8);
      right[i] = stdout.readFloatLE(i * 8 + 4);
    }
    return new NodeSound([left, right]);
  }

  async read(from: number, frames: number): Promise<Stereo> {
    const part = (plane: Float32Array) => {
      const out = new Float32Array(frames);
      const start = Math.max(0, from);
      if (start < plane.length && from + frames > 0)
        out.set(plane.subarray(start, Math.min(plane.length, from + frames)), start - from);
      return out;
    };
    return [part(this.planes[0]), part(this.planes[1])];
  }
}
