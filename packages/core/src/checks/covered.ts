import type { Size } from '../geometry/rect';
import { boundsOf } from '../geometry/rect';

/**
 * Where players of tall video put their own things, as parts of the frame: the caption and the maker's name below, the
 * buttons at the right from the middle down. Common practice: they differ from player to player and from year to year,
 * and these hold most of what they share.
 */
const COVERED = [
  { left: 0, top: 0.82, right: 1, bottom: 1 },
  { left: 0.87, top: 0.5, right: 1, bottom: 0.82 },
] as const;

/** Height for a width from which a frame is for tall screens: 16:9 upright is 1.78, 4:5 is not meant. */
const TALL = 1.5;

/** Units that words may lie in such a place by. */
const HAIR = 1;

/** Whether a box of the frame lies partly where players of tall video cover it. */
export function isCovered(
  { quad }: { readonly quad: readonly (readonly [number, number])[] },
  { width, height }: Size,
): boolean {
  if (height < width * TALL) return false;
  const box = boundsOf(quad);
  return COVERED.some(
    (c) =>
      box.x < c.right * width - HAIR &&
      box.x + box.width > c.left * width + HAIR &&
      box.y < c.bottom * height - HAIR &&
      box.y + box.height > c.top * height + HAIR,
  );
}
