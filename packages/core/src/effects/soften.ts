import type { Surface } from '../paint/surface';
import type { EffectTools } from './kind';

/**
 * A surface out of focus: Gaussian blur. A wide blur is made on a smaller copy, where it costs a fraction and looks the
 * same: the copy is shrunk until the radius is about four pixels.
 * @param surface is given back; the result is another of the same size, or itself where there is nothing to blur
 * @param pixels standard deviation
 */
export function softened(
  surface: Surface,
  pixels: number,
  { borrow, giveBack }: Pick<EffectTools, 'borrow' | 'giveBack'>,
): Surface {
  if (pixels < 0.05) return surface;
  const { canvas } = surface;
  const shrink = Math.min(1, 4 / pixels);
  const small = borrow(
    Math.max(1, Math.ceil(canvas.width * shrink)),
    Math.max(1, Math.ceil(canvas.height * shrink)),
  );
  small.context.drawImage(canvas, 0, 0, small.canvas.width, small.canvas.height);
  const result = borrow(canvas.width, canvas.height);
  if (shrink === 1) {
    result.context.filter = `blur(${pixels}px)`;
    result.context.drawImage(small.canvas, 0, 0);
  } else {
    const soft = borrow(small.canvas.width, small.canvas.height);
    soft.context.filter = `blur(${pixels * shrink}px)`;
    soft.context.drawImage(small.canvas, 0, 0);
    soft.context.filter = 'none';
    // What is soft already needs no better filter than the quick one.
    result.context.imageSmoothingQuality = 'low';
    result.context.drawImage(soft.canvas, 0, 0, canvas.width, canvas.height);
    giveBack(soft);
  }
  result.context.filter = 'none';
  giveBack(small);
  giveBack(surface);
  return result;
}
