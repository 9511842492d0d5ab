import type { Surface } from '../paint/surface';
import type { EffectTools } from './kind';

/**
 * Mixes a changed copy of a surface into it; its alpha stays as it is.
 * @param amount 0..1
 * @param change paints over the whole copy
 */
export function mixedOver(
  surface: Surface,
  amount: number,
  { borrow, giveBack }: Pick<EffectTools, 'borrow' | 'giveBack'>,
  change: (copy: Surface) => void,
): Surface {
  const { canvas, context } = surface;
  const copy = borrow(canvas.width, canvas.height);
  copy.context.drawImage(canvas, 0, 0);
  change(copy);
  context.setTransform(1, 0, 0, 1, 0, 0);
  context.globalCompositeOperation = 'source-atop';
  context.globalAlpha = amount;
  context.drawImage(copy.canvas, 0, 0);
  context.globalAlpha = 1;
  context.globalCompositeOperation = 'source-over';
  giveBack(copy);
  return surface;
}
