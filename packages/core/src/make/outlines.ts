import { type EditedPath, type PathPoint, readPoints, writePoints } from '../edit/pathPoints';
import type { LaidPart } from '../evaluate/paintPass';
import { inverse, project, unitSquareTo } from '../geometry/matrix';
import { parseSvgPath } from '../geometry/path';
import type { Layer } from '../layers/registry';

type Pair = readonly [number, number];
type Size = { readonly width: number; readonly height: number };
type Outline = Extract<Extract<Layer, { kind: 'shape' }>['outline'], { kind: 'path' }>;

/** The outline of a part, where it is a path of one stroke that nothing else gives: such a one is drawn by hand. */
export function drawnOutline(layer: Layer): Outline | undefined {
  if (layer.kind !== 'shape' || layer.outline.kind !== 'path') return undefined;
  const { data } = layer.outline;
  if (typeof data !== 'string') return undefined;
  const strokes = parseSvgPath(data).commands.filter(([command]) => command === 'M').length;
  return strokes === 1 ? layer.outline : undefined;
}

const mapped = ({ points, closed }: EditedPath, by: (point: Pair) => Pair): EditedPath => ({
  points: points.map((p): PathPoint => ({ at: by(p.at), before: by(p.before), after: by(p.after) })),
  closed,
});

/** An outline's points in parts of its box. */
export const pointsOfOutline = ({ data, size: [w, h] }: Outline): EditedPath =>
  mapped(readPoints(String(data)), ([x, y]) => [x / w, y / h]);

/** The outline through points in parts of its box. */
export const outlineThrough = (outline: Outline, path: EditedPath): Outline => {
  const [w, h] = outline.size;
  return { ...outline, data: writePoints(mapped(path, ([x, y]) => [x * w, y * h])) };
};

/**
 * Points in parts of a box as they lie on the picture.
 * @param quad where the box lies, in frame units
 * @returns points in parts of the frame
 */
export function onPicture(path: EditedPath, quad: LaidPart['quad'], frame: Size): EditedPath {
  const plane = unitSquareTo(quad);
  return mapped(path, ([x, y]) => {
    const [u, v] = project(plane, x, y);
    return [u / frame.width, v / frame.height];
  });
}

/** The way back of {@link onPicture}; nothing of a box that is seen from its edge. */
export function fromPicture(path: EditedPath, quad: LaidPart['quad'], frame: Size): EditedPath | undefined {
  const back = inverse(unitSquareTo(quad));
  return back && mapped(path, ([x, y]) => project(back, x * frame.width, y * frame.height));
}
