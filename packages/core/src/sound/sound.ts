/** Sample frames a second of everything that is mixed. */
export const SOUND_RATE = 48000;

/** Two channels of samples, left and right, −1 to 1. */
export type Stereo = readonly [left: Float32Array, right: Float32Array];
