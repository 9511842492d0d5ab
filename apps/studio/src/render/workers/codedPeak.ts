import { LoudnessMeter, SOUND_RATE, type SoundCodec, type Stereo, toStereo } from '@fresh-reel/core';
import {
  AudioSample,
  AudioSampleSink,
  AudioSampleSource,
  BufferSource,
  BufferTarget,
  Input,
  MATROSKA,
  MkvOutputFormat,
  Output,
  Quality,
} from 'mediabunny';
import { SOUND_BITRATE } from './soundCodec';

/** Sample frames that are coded and decoded in one go: no more than this is in memory. */
const STRETCH = 60 * SOUND_RATE;

/** A block of sound, as encoders take it. @param at sample frames of the track before it */
export function soundSample([left, right]: Stereo, at: number): AudioSample {
  const data = new Float32Array(left.length * 2);
  data.set(left);
  data.set(right, left.length);
  return new AudioSample({
    data,
    ...{ format: 'f32-planar', numberOfChannels: 2, sampleRate: SOUND_RATE, timestamp: at / SOUND_RATE },
  });
}

/** Measures the true peak of a sound as a codec gives it back. */
export class CodedMeter {
  private readonly meter = new LoudnessMeter();
  private stretch: { output: Output<MkvOutputFormat, BufferTarget>; source: AudioSampleSource } | undefined;
  private frames = 0;

  constructor(private readonly codec: Exclude<SoundCodec, 'wav'>) {}

  /** Takes the next block. */
  async push(block: Stereo): Promise<void> {
    this.stretch ??= await this.begin();
    const sample = soundSample(block, this.frames);
    await this.stretch.source.add(sample);
    sample.close();
    this.frames += block[0].length;
    if (this.frames >= STRETCH) await this.decode();
  }

  /** The peak, in dBTP. */
  async end(): Promise<number> {
    await this.decode();
    return this.meter.peak;
  }

  private async begin() {
    const output = new Output({ format: new MkvOutputFormat(), target: new BufferTarget() });
    const source = new AudioSampleSource({
      codec: this.codec,
      quality: new Quality({ bitrate: SOUND_BITRATE }),
    });
    output.addAudioTrack(source);
    await output.start();
    return { output, source };
  }

  private async decode(): Promise<void> {
    if (!this.stretch) return;
    const { output } = this.stretch;
    this.stretch = undefined;
    this.frames = 0;
    await output.finalize();
    const input = new Input({ formats: [MATROSKA], source: new BufferSource(output.target.buffer!) });
    try {
      const track = await input.getPrimaryAudioTrack();
      if (!track) return;
      for await (const sample of new AudioSampleSink(track).samples()) {
        const planes = Array.from({ length: sample.numberOfChannels }, (_, planeIndex) => {
          const plane = new Float32Array(sample.numberOfFrames);
          sample.copyTo(plane, { planeIndex, format: 'f32-planar' });
          return plane;
        });
        sample.close();
        this.meter.push(toStereo(planes));
      }
    } finally {
      input.dispose();
    }
  }
}
