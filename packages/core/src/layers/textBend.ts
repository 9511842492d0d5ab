import { type PathPlace, PathRuler } from '../geometry/length';
import { type Matrix4, multiply4, translation4, turn4 } from '../geometry/matrix';
import { ellipsePath, type Path, parseSvgPath, transformPath } from '../geometry/path';
import type { PlacedGlyph, TextLayout } from '../text/textLayout';
import type { Bend } from './bend';
import type { LayerContext, Size } from './kind';
import type { Along } from './textStyle';

/** The part of a line's room that lies before the words. */
export const ALIGN = { start: 0, middle: 0.5, end: 1 } as const;

/** Reads path data; what does not parse has no length, so that a half-drawn path harms nothing. */
function readPath(data: string): Path {
  try {
    return parseSvgPath(data);
  } catch {
    return { commands: [] };
  }
}

/** A circle about the middle of its box, beginning at the top: clockwise, or for words inside it the other way. */
function circlePath(radius: number, inside: boolean): Path {
  const path = ellipsePath({ x: 0, y: 0, width: 2 * radius, height: 2 * radius });
  return inside ? transformPath(path, [-1, 0, 0, 1, 2 * radius, 0]) : path;
}

export function bendOf(
  along: Along,
  parent: Size,
  { value, memo }: Pick<LayerContext, 'value' | 'memo'>,
): Bend {
  const rulerOf = (key: string, path: () => Path) => memo.of(`ruler/${key}`, () => new PathRuler(path()));
  if ('circle' in along) {
    const radius = Math.max(1, value(along.circle.radius));
    const inside = along.circle.side === 'inside';
    const ruler = rulerOf(`${radius}/${inside}`, () => circlePath(radius, inside));
    const turn = (value(along.circle.start) / 360) * (inside ? -1 : 1) + value(along.position);
    return {
      ruler,
      room: ruler.length,
      size: { width: 2 * radius, height: 2 * radius },
      anchor: turn * ruler.length,
    };
  }
  const data = value(along.path);
  const ruler = rulerOf(`${data}/${parent.width}/${parent.height}`, () =>
    transformPath(readPath(data), [parent.width, 0, 0, parent.height, 0, 0]),
  );
  return {
    ruler,
    room: ruler.length,
    size: { width: parent.width, height: parent.height },
    anchor: value(along.position) * ruler.length,
  };
}

const DEGREES = 180 / Math.PI;

/** How a glyph set on a straight line is carried onto the bend: its middle to its place, its baseline along the way. */
export function bendGlyph(bend: Bend, layout: TextLayout, g: PlacedGlyph, align: number): Matrix4 {
  const middle = g.x + g.advance / 2;
  const place = bend.ruler.at(bend.anchor + middle - layout.width * align);
  return carry(place, middle, layout.lines[0]!.baseline);
}

function carry({ x, y, angle }: PathPlace, fromX: number, fromY: number): Matrix4 {
  return multiply4(
    multiply4(translation4(x, y, 0), turn4(0, 0, angle * DEGREES)),
    translation4(-fromX, -fromY, 0),
  );
}
