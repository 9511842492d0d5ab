import { createCanvas } from '@napi-rs/canvas';
import { noiseAt } from '../../packages/core/src/motion/random';

/** Inks dropped on water, one after the other, as red, green and blue. */
const INKS = [
  [243, 233, 214],
  [29, 78, 97],
  [226, 112, 74],
  [244, 190, 92],
  [118, 43, 84],
  [236, 222, 196],
  [52, 122, 118],
] as const;

/** Smooth noise over a plane: rows of it, eased from one to the next. */
function plane(seed: number, x: number, y: number): number {
  const row = Math.floor(y);
  const t = y - row;
  const ease = t * t * (3 - 2 * t);
  return noiseAt(seed, row, x) * (1 - ease) + noiseAt(seed, row + 1, x) * ease;
}

/** A sheet of marbled paper: rings of ink, drawn out with a comb and stirred. */
export async function marbling(width = 1600, height = 900): Promise<Buffer> {
  const canvas = createCanvas(width, height);
  const context = canvas.getContext('2d');
  const image = context.createImageData(width, height);
  for (let y = 0, at = 0; y < height; y++) {
    for (let x = 0; x < width; x++, at += 4) {
      const [u, v] = [x / 300, y / 300];
      const [sx, sy] = [u + 1.1 * plane(1, u * 0.9, v * 0.9), v + 1.1 * plane(2, u * 0.9 + 7, v * 0.9)];
      const [wx, wy] = [sx + 0.5 * plane(3, sx * 2.1, sy * 2.1), sy + 0.5 * plane(4, sx * 2.1 + 5, sy * 2.1)];
      const comb = 0.22 * Math.sin(wx * 9 + plane(5, wy * 3, 0) * 2);
      const level = (wy + comb + 0.35 * plane(6, wx * 1.7, wy * 1.7)) * 3.2;
      const band = Math.floor(level);
      const part = level - band;
      const own = INKS[((band % INKS.length) + INKS.length) % INKS.length]!;
      const next = INKS[(((band + 1) % INKS.length) + INKS.length) % INKS.length]!;
      // Inks do not mix: an edge is as sharp as a few pixels, with a thin light line where they meet.
      const edge = Math.min(1, Math.max(0, (part - 0.93) / 0.07));
      const rim = Math.max(0, 1 - Math.abs(part - 0.93) / 0.05) * 26;
      for (let k = 0; k < 3; k++)
        image.data[at + k] = Math.min(
          255,
          own[k]! * (1 - edge) + next[k]! * edge + rim + 9 * plane(9, x / 3, y / 3),
        );
      image.data[at + 3] = 255;
    }
  }
  context.putImageData(image, 0, 0);
  return canvas.encode('jpeg', 86);
}
