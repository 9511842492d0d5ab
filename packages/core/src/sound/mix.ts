import type { SoundPlay } from './play';
import { reachAt, sampleAt } from './resample';
import { SOUND_RATE, type Stereo } from './sound';

/** A sound that can be read anywhere, in stereo at 48 kHz. */
export interface SoundSource {
  /**
   * `frames` sample frames from a sample frame on. What lies before the beginning or after the end is silent.
   */
  read(from: number, frames: number): Promise<Stereo>;
}

/**
 * A block of the mix, not limited yet. Blocks may be asked for in any order and of any length: they fit together.
 * @param start sample frame of the reel at 48 kHz
 * @param sourceOf a sound by its media id; nothing when it is missing
 */
export async function mixBlock(
  plays: readonly SoundPlay[],
  start: number,
  frames: number,
  sourceOf: (media: string) => SoundSource | undefined,
): Promise<Stereo> {
  const out: Stereo = [new Float32Array(frames), new Float32Array(frames)];
  for (const play of plays) {
    const begins = Math.round(play.start * SOUND_RATE);
    const count = Math.round(play.length * SOUND_RATE);
    const from = Math.max(start, begins);
    const to = Math.min(start + frames, begins + count);
    const source = from < to ? sourceOf(play.media) : undefined;
    if (source) await add(out, source, play, { begins, count, from, to, start });
  }
  return out;
}

async function add(
  out: Stereo,
  source: SoundSource,
  { from: second, speed, gain, fadeIn, fadeOut }: SoundPlay,
  {
    begins,
    count,
    from,
    to,
    start,
  }: { begins: number; count: number; from: number; to: number; start: number },
): Promise<void> {
  const at = second * SOUND_RATE + (from - begins) * speed;
  // Read beyond both ends of a block, for interpolation.
  const margin = Math.ceil(reachAt(speed)) + 4;
  const first = Math.floor(at) - margin;
  const planes = await source.read(first, Math.ceil((to - from) * speed) + 2 * margin + 2);
  const cutoff = Math.min(1, 1 / speed);
  const whole = speed === 1 && Number.isInteger(at);
  const [up, down] = [fadeIn * SOUND_RATE, fadeOut * SOUND_RATE];
  for (let n = from; n < to; n++) {
    const into = n - begins;
    const fade = Math.min(rise(into, up), rise(count - into, down));
    const position = at + (n - from) * speed - first;
    for (const channel of [0, 1] as const) {
      const value = whole ? planes[channel][position]! : sampleAt(planes[channel], position, cutoff);
      out[channel][n - start]! += value * gain * fade;
    }
  }
}

/** A fade that begins and ends level: half a cosine. */
function rise(into: number, length: number): number {
  if (into >= length) return 1;
  return into <= 0 ? 0 : 0.5 - 0.5 * Math.cos((Math.PI * into) / length);
}
