import type { Surface } from '../canvas/surface';
import type { EffectTools } from './kind';

/** A surface with the same picture; give it back when done. */
export function copyOf({ canvas }: Surface, { borrow }: Pick<EffectTools, 'borrow'>): Surface {
  const copy = borrow(canvas.width, canvas.height);
  copy.context.drawImage(canvas, 0, 0);
  return copy;
}

/**
 * Mixes a changed copy of a surface into it; its alpha stays as it is.
 * @param amount 0..1
 * @param change paints over the whole copy
 */
export function mixedOver(
  surface: Surface,
  amount: number,
  tools: Pick<EffectTools, 'borrow' | 'giveBack'>,
  change: (copy: Surface) => void,
): Surface {
  const copy = copyOf(surface, tools);
  change(copy);
  layOver(surface, copy, amount);
  tools.giveBack(copy);
  return surface;
}

/** Lays a picture over all of a surface, whose alpha stays as it is. What is smaller is soft already. */
export function layOver(surface: Surface, picture: Surface, opacity: number): void {
  surface.context.globalCompositeOperation = 'source-atop';
  layUpon(surface, picture, opacity);
  surface.context.globalCompositeOperation = 'source-over';
}

/** Lays a picture over all of a surface. What is smaller is soft already. */
export function layUpon({ canvas: whole, context }: Surface, { canvas }: Surface, opacity: number): void {
  context.setTransform(1, 0, 0, 1, 0, 0);
  context.globalAlpha = opacity;
  context.imageSmoothingQuality = 'low';
  context.drawImage(canvas, 0, 0, whole.width, whole.height);
  context.globalAlpha = 1;
}
