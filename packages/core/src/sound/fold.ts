import type { Stereo } from './sound';

/** −3 dB: a sound that comes from two sides is as loud as from one. */
const HALF = Math.SQRT1_2;

/** Channels in the order of WAVE (mask bits, lowest first): what is heard left of each, and what is heard right. */
const FOLDS: readonly (readonly [left: readonly number[], right: readonly number[]])[] = [
  [[], []],
  // One is heard on both sides as loud as it is.
  [[1], [1]],
  [
    [1, 0],
    [0, 1],
  ],
  // Left, right, centre.
  [
    [1, 0, HALF],
    [0, 1, HALF],
  ],
  // Left, right, left behind, right behind.
  [
    [1, 0, HALF, 0],
    [0, 1, 0, HALF],
  ],
  // Left, right, centre, left behind, right behind.
  [
    [1, 0, HALF, HALF, 0],
    [0, 1, HALF, 0, HALF],
  ],
  // The deep channel comes fourth, and is left out.
  [
    [1, 0, HALF, 0, HALF, 0],
    [0, 1, HALF, 0, 0, HALF],
  ],
  // One behind, then the two at the sides.
  [
    [1, 0, HALF, 0, 0.5, HALF, 0],
    [0, 1, HALF, 0, 0.5, 0, HALF],
  ],
  // Two behind, then the two at the sides.
  [
    [1, 0, HALF, 0, HALF, 0, HALF, 0],
    [0, 1, HALF, 0, 0, HALF, 0, HALF],
  ],
];

/**
 * How much of each of a sound's channels is heard left and right: centre and surround at −3 dB, one behind at −6 dB, the
 * deep channel not (ITU-R BS.775, downward mixing to 2/0; from memory). The same for every decoder, so that a sound is as
 * loud wherever it is heard or rendered. Of more than eight channels the first eight count.
 */
export function stereoWeights(
  channels: number,
): readonly [left: readonly number[], right: readonly number[]] {
  const [left, right] = FOLDS[Math.min(channels, FOLDS.length - 1)]!;
  const rest = Array.from({ length: channels - left.length }, () => 0);
  return [
    [...left, ...rest],
    [...right, ...rest],
  ];
}

/** Channels as two, by {@link stereoWeights}. */
export function toStereo(channels: readonly Float32Array[]): Stereo {
  const [first, second] = channels;
  if (!first) return [new Float32Array(0), new Float32Array(0)];
  if (!second) return [first, first];
  if (channels.length === 2) return [first, second];
  const [left, right] = stereoWeights(channels.length).map((weights) => {
    const side = new Float32Array(first.length);
    weights.forEach((weight, c) => {
      const channel = channels[c]!;
      if (weight > 0) for (let i = 0; i < side.length; i++) side[i]! += weight * channel[i]!;
    });
    return side;
  });
  return [left!, right!];
}
