import type { Treatment } from '../effects/treatment';
import type { EvaluatedFrame } from '../evaluate/graphicScene';
import { treatmentEffects } from '../evaluate/treatments';
import { IDENTITY_PLANE } from '../geometry/matrix';
import { boundsOf } from '../geometry/rect';
import type { Size } from '../layers/kind';
import { withEffects } from '../paint/compose';
import type { Op } from '../paint/ops';
import { itemMoment } from './framing';

/**
 * What an item paints, treated, before it is laid in the frame.
 * @param time frames of the reel from where it begins
 */
export function treatedOps(
  { ops, regions }: EvaluatedFrame,
  treatments: readonly Treatment[] | undefined,
  time: number,
  frame: Size,
): readonly Op[] {
  if (!treatments || ops.length === 0) return ops;
  // A file shows in one box of the frame, all else in the frame.
  const file = regions.length === 1 && regions[0]!.slot === '' ? regions[0] : undefined;
  const box = file ? boundsOf(file.quad) : { x: 0, y: 0, ...frame };
  const effects = treatmentEffects(treatments, itemMoment(time, frame), box, IDENTITY_PLANE);
  return effects.length > 0 ? withEffects(ops, effects) : ops;
}
