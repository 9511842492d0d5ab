import { type Effect, resolveEffect } from '../effects/registry';
import type { Treatment } from '../effects/treatment';
import type { Homography } from '../geometry/matrix';
import type { Rect } from '../geometry/rect';
import { type Moment, valueAt } from '../values/property';

/**
 * What treatments are at a moment, in their order; those that are off or change nothing are left out.
 * @param box of what they are put on, and the plane it lies in
 * @param scale how much larger than its own units it shows
 */
export function treatmentEffects(
  treatments: readonly Treatment[] | undefined,
  moment: Moment,
  box: Rect,
  plane: Homography,
  scale = 1,
): Effect[] {
  return (treatments ?? []).flatMap(({ id: _id, off, ...document }) => {
    if (off) return [];
    const at = { value: <T>(p: T) => valueAt(p as never, moment) as never, time: moment.time, box, plane };
    return resolveEffect(document, at, scale) ?? [];
  });
}
