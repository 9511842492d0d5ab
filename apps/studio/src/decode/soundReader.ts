import {
  SOUND_RATE,
  type SoundFacts,
  type SoundSource,
  type Stereo,
  toSoundRate,
  toStereo,
} from '@fresh-reel/core';
import { AudioSampleSink, type Input, type InputAudioTrack } from 'mediabunny';
import { openInput } from './mediaSource';

/** Seconds decoded at once, and how many such stretches are kept of one sound. */
const STRETCH = 8;
const KEPT = 3;
/** Seconds read beyond both ends, for what lies between samples. */
const MARGIN = 0.02;

/** A sound, or the sound of a clip, read in stretches and never held whole. */
export class SoundReader implements SoundSource {
  private readonly kept = new Map<number, Promise<Stereo>>();

  private constructor(
    private readonly input: Input,
    track: InputAudioTrack,
    private readonly rate: number,
    readonly facts: SoundFacts,
    private readonly sink = new AudioSampleSink(track),
  ) {}

  /** @returns null when the media is not there, has no sound, or has one that this browser cannot decode */
  static async open(media: string): Promise<SoundReader | null> {
    const input = await openInput(media);
    const track = await input?.getPrimaryAudioTrack();
    if (!input || !track || !(await track.canDecode())) {
      input?.dispose();
      return null;
    }
    const picture = await input.getPrimaryVideoTrack();
    return new SoundReader(input, track, await track.getSampleRate(), {
      duration: await (picture ?? input).computeDuration(),
    });
  }

  async read(from: number, frames: number): Promise<Stereo> {
    const out: Stereo = [new Float32Array(frames), new Float32Array(frames)];
    const size = STRETCH * SOUND_RATE;
    const end = this.facts.duration * SOUND_RATE;
    for (let n = Math.max(0, Math.floor(from / size)); n * size < Math.min(from + frames, end); n++) {
      const planes = await this.stretch(n);
      const [a, b] = [Math.max(from, n * size), Math.min(from + frames, (n + 1) * size)];
      for (const c of [0, 1] as const) out[c].set(planes[c].subarray(a - n * size, b - n * size), a - from);
    }
    return out;
  }

  close(): void {
    this.input.dispose();
  }

  private stretch(n: number): Promise<Stereo> {
    let held = this.kept.get(n);
    if (!held) {
      held = this.decode(n);
      this.kept.set(n, held);
      if (this.kept.size > KEPT) this.kept.delete(this.kept.keys().next().value!);
    }
    return held;
  }

  private async decode(n: number): Promise<Stereo> {
    const first = Math.max(0, Math.floor((n * STRETCH - MARGIN) * this.rate));
    const length = Math.ceil((STRETCH + 2 * MARGIN) * this.rate) + 2;
    const channels: Float32Array[] = [];
    const until = (first + length) / this.rate;
    for await (const sample of this.sink.samples(first / this.rate, until)) {
      const at = Math.round(sample.timestamp * this.rate) - first;
      for (let c = 0; c < sample.numberOfChannels; c++) {
        channels[c] ??= new Float32Array(length);
        const plane = new Float32Array(sample.numberOfFrames);
        sample.copyTo(plane, { planeIndex: c, format: 'f32-planar' });
        const skip = Math.max(0, -at);
        channels[c]!.set(plane.subarray(skip, Math.max(skip, length - at)), Math.max(0, at));
      }
      sample.close();
    }
    const [from, count] = [n * STRETCH * SOUND_RATE, STRETCH * SOUND_RATE];
    const [left, right] = toStereo(channels);
    const converted = (plane: Float32Array) => toSoundRate(plane, this.rate, first, from, count);
    const done = converted(left);
    return [done, left === right ? done : converted(right)];
  }
}

/** Opens every sound that may be heard, by its media id. */
export async function openSounds(media: readonly string[]): Promise<Map<string, SoundReader>> {
  const opened = await Promise.all(
    media.map(async (id) => [id, await SoundReader.open(id).catch(() => null)] as const),
  );
  return new Map(opened.flatMap(([id, reader]) => (reader ? [[id, reader] as const] : [])));
}
