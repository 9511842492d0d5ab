import { AudioSampleSink, type InputAudioTrack } from 'mediabunny';

/** A stretch of one channel of a sound. */
export interface ChannelPiece {
  /** Second of the file at which it begins. */
  readonly timestamp: number;
  /** Samples a second. */
  readonly rate: number;
  /** Read before the next piece is asked for: it takes the same room. */
  readonly samples: Float32Array;
}

/** The first channel of a sound, piece by piece, between two seconds of it. */
export async function* firstChannel(
  track: InputAudioTrack,
  from?: number,
  to?: number,
): AsyncGenerator<ChannelPiece> {
  const options = { planeIndex: 0, format: 'f32-planar' } as const;
  let plane = new Float32Array(0);
  for await (const sample of new AudioSampleSink(track).samples(from, to)) {
    const size = sample.allocationSize(options) / 4;
    if (plane.length < size) plane = new Float32Array(size);
    const samples = plane.subarray(0, size);
    sample.copyTo(samples, options);
    const { timestamp, sampleRate: rate } = sample;
    sample.close();
    yield { timestamp, rate, samples };
  }
}
