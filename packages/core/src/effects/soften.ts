import type { Surface } from '../canvas/surface';
import type { EffectTools, Growth } from './kind';

/** Pixels of standard deviation from which a Gaussian enlarged by lines looks like one made at full size. */
const SOFT = 3;

/** What is left of the pixels of what is soft in a draft, each way. */
const ROUGH = 0.5;

/** Pixels of standard deviation that make no difference; in a draft, that are done without. */
const SHARP = 0.05;
const SHARP_ENOUGH = 0.7;

/** Pixels per frame unit that are enough for what is blurred by a radius. */
export const enoughFor = (radius: number, draft: boolean) =>
  radius > 0 ? softBy(SOFT, draft) / radius : Number.POSITIVE_INFINITY;

const softBy = (pixels: number, draft: boolean) => (draft ? pixels * ROUGH : pixels);

/** How far a blur of some radius reaches: three standard deviations. */
export function growthOfBlur(radius: number): Growth {
  const reach = radius * 3;
  return { left: reach, top: reach, right: reach, bottom: reach };
}

/**
 * The size at which something soft is made: so small that its radius is `most` pixels, where it has more, and fewer in
 * a draft.
 * @param pixels standard deviation at full size
 */
export function softSize(
  canvas: { readonly width: number; readonly height: number },
  pixels: number,
  most: number,
  { draft }: Pick<EffectTools, 'draft'>,
) {
  const shrink = Math.min(1, softBy(most, draft) / Math.max(pixels, 0.01));
  const side = (length: number) => Math.max(1, Math.ceil(length * shrink));
  return { width: side(canvas.width), height: side(canvas.height), shrink };
}

/**
 * A surface out of focus: Gaussian blur. A wide blur is made on a smaller copy, where it costs a fraction and looks the
 * same: the copy is shrunk until the radius is `SOFT` pixels.
 * @param surface is given back; the result is another of the same size, or itself where there is nothing to blur
 * @param pixels standard deviation
 */
export function softened(
  surface: Surface,
  pixels: number,
  { draft, borrow, giveBack }: Pick<EffectTools, 'draft' | 'borrow' | 'giveBack'>,
): Surface {
  if (pixels < (draft ? SHARP_ENOUGH : SHARP)) return surface;
  const { canvas } = surface;
  // What is painted for this radius is that small already, but for the rounding of it.
  const enough = softBy(SOFT, draft);
  const shrink = pixels <= enough * 1.001 ? 1 : enough / pixels;
  if (shrink === 1) {
    const result = borrow(canvas.width, canvas.height);
    result.context.filter = `blur(${pixels}px)`;
    result.context.drawImage(canvas, 0, 0);
    result.context.filter = 'none';
    giveBack(surface);
    return result;
  }
  const small = borrow(
    Math.max(1, Math.ceil(canvas.width * shrink)),
    Math.max(1, Math.ceil(canvas.height * shrink)),
  );
  small.context.drawImage(canvas, 0, 0, small.canvas.width, small.canvas.height);
  const soft = borrow(small.canvas.width, small.canvas.height);
  soft.context.filter = `blur(${pixels * shrink}px)`;
  soft.context.drawImage(small.canvas, 0, 0);
  soft.context.filter = 'none';
  const result = borrow(canvas.width, canvas.height);
  // What is soft already needs no better filter than the quick one.
  result.context.imageSmoothingQuality = 'low';
  result.context.drawImage(soft.canvas, 0, 0, canvas.width, canvas.height);
  giveBack(soft);
  giveBack(small);
  giveBack(surface);
  return result;
}
