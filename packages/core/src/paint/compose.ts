import { grownBy, opsBounds } from './bounds';
import type { Op } from './ops';

/**
 * Keeps what lies inside (or outside) the alpha of other operations.
 * @param effects applied to the cutting shape first, to soften its edge
 */
export function within(
  ops: readonly Op[],
  cut: readonly Op[],
  invert = false,
  luminance = false,
  effects: readonly { effect: 'blur'; radius: number }[] = [],
): Op[] {
  return [
    { op: 'open', bounds: opsBounds(ops), opacity: 1, composite: 'normal', effects: [] },
    ...ops,
    {
      op: 'open',
      bounds: grownBy(opsBounds(cut), effects),
      opacity: 1,
      composite: invert ? 'keep-outside' : 'keep-inside',
      effects,
      ...(luminance ? { luminance } : {}),
    },
    ...cut,
    { op: 'close' },
    { op: 'close' },
  ];
}
