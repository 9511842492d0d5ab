import type { Surface } from '@fresh-reel/core';
import { randomAt } from '../../packages/core/src/motion/random';

type Context = Surface['context'];

/** Fills the unit square from top to bottom. */
function ramp(context: Context, stops: readonly (readonly [number, string])[]): void {
  const gradient = context.createLinearGradient(0, 0, 0, 1);
  for (const [at, colour] of stops) gradient.addColorStop(at, colour);
  context.fillStyle = gradient;
  context.fillRect(0, 0, 1, 1);
}

/** What titles lie over, drawn in a unit square: a bright sky, a dark crowd, busy grass. */
export const grounds: readonly ((context: Context) => void)[] = [
  (context) =>
    ramp(context, [
      [0, '#8FC3E8'],
      [0.6, '#DDEBF2'],
      [0.8, '#F6F3E6'],
      [1, '#C9D6B8'],
    ]),
  (context) => {
    ramp(context, [
      [0, '#2A2D38'],
      [0.5, '#171920'],
      [1, '#0B0C10'],
    ]);
    for (let i = 0; i < 130; i++) {
      const [x, y] = [randomAt(i, 1), 0.3 + 0.7 * randomAt(i, 2)];
      context.fillStyle = randomAt(i, 3) > 0.8 ? '#6B5344' : '#25201E';
      context.fillRect(x, y, 0.02 + 0.03 * y, 0.05 + 0.06 * y);
    }
  },
  (context) => {
    ramp(context, [
      [0, '#7E9B55'],
      [1, '#3F5B2A'],
    ]);
    for (let i = 0; i < 900; i++) {
      context.fillStyle = ['#A9C46C', '#2F4A22', '#D7DE9A', '#55793A'][Math.floor(randomAt(i, 4) * 4)]!;
      context.fillRect(randomAt(i, 1), randomAt(i, 2), 0.004, 0.03 + 0.05 * randomAt(i, 3));
    }
  },
];
