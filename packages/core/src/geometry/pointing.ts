import type { Path, PathCommand } from './path';
import type { Point } from './plane';
import type { Rect } from './rect';

/** Part of a quarter of a circle at which the handles of its Bézier curve lie. */
const QUARTER = 0.5522847498;

export interface Tail {
  /** Where it points. */
  readonly to: Point;
  /** Its width at the body, in units of the box. */
  readonly width: number;
  /** The part of the way to the point that it takes. */
  readonly reach: number;
  /** How far it bows sideways, as a part of its length. */
  readonly bow: number;
}

/** A side of a box with its corners cut: from one point along a direction, and how far. */
interface Side {
  readonly from: Point;
  readonly along: Point;
  readonly length: number;
}

/** The side of a box that the way from its middle to a point goes out at, and how far along it. */
function exitOf({ x, y, width, height }: Rect, [tx, ty]: Point): { side: number; part: number } {
  const [dx, dy] = [tx - (x + width / 2), ty - (y + height / 2)];
  // By which side's slope it is steeper than the diagonal.
  if (Math.abs(dx) * height > Math.abs(dy) * width) {
    const part = 0.5 + ((dy / Math.abs(dx)) * width) / height / 2;
    return dx > 0 ? { side: 1, part } : { side: 3, part: 1 - part };
  }
  const part = dy === 0 ? 0.5 : 0.5 + ((dx / Math.abs(dy)) * height) / width / 2;
  return dy < 0 ? { side: 0, part } : { side: 2, part: 1 - part };
}

/**
 * A box with round corners and a tail that grows out of the side which faces a point, one outline. The tail stands on
 * the straight part of the side, and gets as narrow as that is; there is none while the point lies within the box.
 */
export function bubblePath(box: Rect, corner: number, { to, width, reach, bow }: Tail): Path {
  const { x, y } = box;
  const [right, bottom] = [x + box.width, y + box.height];
  const c = Math.min(Math.max(corner, 0), box.width / 2, box.height / 2);
  const k = c * (1 - QUARTER);
  const inside = to[0] > x && to[0] < right && to[1] > y && to[1] < bottom;
  const { side, part } = exitOf(box, to);
  const sides: readonly Side[] = [
    { from: [x + c, y], along: [1, 0], length: box.width - 2 * c },
    { from: [right, y + c], along: [0, 1], length: box.height - 2 * c },
    { from: [right - c, bottom], along: [-1, 0], length: box.width - 2 * c },
    { from: [x, bottom - c], along: [0, -1], length: box.height - 2 * c },
  ];
  const curves: readonly PathCommand[] = [
    ['C', right - k, y, right, y + k, right, y + c],
    ['C', right, bottom - k, right - k, bottom, right - c, bottom],
    ['C', x + k, bottom, x, bottom - k, x, bottom - c],
    ['C', x, y + k, x + k, y, x + c, y],
  ];
  const commands: PathCommand[] = [['M', ...sides[0]!.from]];
  sides.forEach((s, i) => {
    const at = (along: number): Point => [s.from[0] + s.along[0] * along, s.from[1] + s.along[1] * along];
    if (i === side && !inside && reach > 0) {
      const wide = Math.min(width, s.length);
      const middle = Math.min(Math.max(part * (s.length + 2 * c) - c, wide / 2), s.length - wide / 2);
      commands.push(...tail(at(middle - wide / 2), at(middle + wide / 2), at(middle), to, reach, bow));
    }
    commands.push(['L', ...at(s.length)]);
    if (c > 0) commands.push(curves[i]!);
  });
  commands.push(['Z']);
  return { commands };
}

/** From one foot of a tail to its tip and back to the other, bowed sideways. */
function tail(left: Point, right: Point, foot: Point, to: Point, reach: number, bow: number): PathCommand[] {
  const tip: Point = [foot[0] + (to[0] - foot[0]) * reach, foot[1] + (to[1] - foot[1]) * reach];
  const [dx, dy] = [tip[0] - foot[0], tip[1] - foot[1]];
  const bend = (from: Point): Point => [
    from[0] + (tip[0] - from[0]) * 0.5 - dy * bow,
    from[1] + (tip[1] - from[1]) * 0.5 + dx * bow,
  ];
  /** A quadratic curve as a cubic one. */
  const curve = (from: Point, by: Point, end: Point): PathCommand => [
    'C',
    from[0] + ((by[0] - from[0]) * 2) / 3,
    from[1] + ((by[1] - from[1]) * 2) / 3,
    end[0] + ((by[0] - end[0]) * 2) / 3,
    end[1] + ((by[1] - end[1]) * 2) / 3,
    ...end,
  ];
  return [['L', ...left], curve(left, bend(left), tip), curve(tip, bend(right), right)];
}

/**
 * A line from a point to a box, along which it goes on as a rule: to the near end of its lower edge, then to the far one;
 * to the upper edge, where the point lies above. It begins at the point.
 * @param gap units it keeps away from the point
 */
export function leaderPath({ x, y, width, height }: Rect, [tx, ty]: Point, gap: number): Path {
  const edge = ty < y ? y : y + height;
  const [near, far] = tx < x + width / 2 ? [x, x + width] : [x + width, x];
  const [dx, dy] = [near - tx, edge - ty];
  const length = Math.hypot(dx, dy);
  const part = length > 0 ? Math.min(1, gap / length) : 1;
  return {
    commands: [
      ['M', tx + dx * part, ty + dy * part],
      ['L', near, edge],
      ['L', far, edge],
    ],
  };
}
