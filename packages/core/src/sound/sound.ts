/** Sample frames a second of everything that is mixed. */
export const SOUND_RATE = 48000;

/** How the sound of a render is written: compressed beside its pictures, or as a file of its own. */
export const SOUND_CODECS = ['aac', 'opus', 'mp3', 'wav'] as const;
export type SoundCodec = (typeof SOUND_CODECS)[number];

/** Two channels of samples, left and right, −1 to 1. */
export type Stereo = readonly [left: Float32Array, right: Float32Array];

/** Samples of one channel followed by more of it. */
export function joined(a: Float32Array, b: Float32Array): Float32Array<ArrayBuffer> {
  const out = new Float32Array(a.length + b.length);
  out.set(a);
  out.set(b, a.length);
  return out;
}
