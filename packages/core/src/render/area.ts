import { EMPTY, intersection, isEmpty, type Rect, scaledBy, union } from '../geometry/rect';
import type { Size } from '../layers/kind';
import { opsBounds } from '../paint/bounds';
import type { Op } from '../paint/ops';

/** Part of the frame past which nothing is gained by painting where something shows alone. */
export const MOST_OF_FRAME = 0.5;

/** Pixels around what is painted: edges reach beyond their boxes. */
const EDGE = 4;

/**
 * The pixels of a film's picture that a box covers, with its edges: a place and sides that are even, as 4:2:0 wants
 * them; a corner, where nothing of the box is in the picture.
 * @param bounds in frame units
 * @param frame in frame units
 * @param size of the film, in pixels, even
 */
export function evenArea(bounds: Rect, frame: Size, size: Size): Rect {
  const { x, y, width, height } = scaledBy(bounds, size.width / frame.width);
  const down = (n: number) => Math.floor((n - EDGE) / 2) * 2;
  const up = (n: number) => Math.ceil((n + EDGE) / 2) * 2;
  const box = { x: down(x), y: down(y), width: up(x + width) - down(x), height: up(y + height) - down(y) };
  const within = intersection(box, { x: 0, y: 0, ...size });
  return width > 0 && !isEmpty(within) ? within : { x: 0, y: 0, width: 2, height: 2 };
}

/** The pixels in which something of a frame shows, as {@link evenArea} has them. */
export const areaOf = (moments: readonly (readonly Op[])[], frame: Size, size: Size): Rect =>
  evenArea(moments.map(opsBounds).reduce(union, EMPTY), frame, size);
