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

/** Takes points in parts of a box to parts of the frame. @param quad where the box lies, in frame units */
function toPicture(quad: LaidPart['quad'], frame: Size): (point: Pair) => Pair {
  const plane = unitSquareTo(quad);
  return ([x, y]) => {
    const [u, v] = project(plane, x, y);
    return [u / frame.width, v / frame.height];
  };
}

/** The way back; nothing of a box that is seen from its edge. */
function backFrom(quad: LaidPart['quad'], frame: Size): ((point: Pair) => Pair) | undefined {
  const back = inverse(unitSquareTo(quad));
  return back && (([x, y]) => project(back, x * frame.width, y * frame.height));
}

/**
 * Points in parts of a box as they lie on the picture.
 * @param quad where the box lies, in frame units
 * @returns points in parts of the frame
 */
export const onPicture = (path: EditedPath, quad: LaidPart['quad'], frame: Size): EditedPath =>
  mapped(path, toPicture(quad, frame));

/** The way back of {@link onPicture}; nothing of a box that is seen from its edge. */
export function fromPicture(path: EditedPath, quad: LaidPart['quad'], frame: Size): EditedPath | undefined {
  const by = backFrom(quad, frame);
  return by && mapped(path, by);
}

/** A point of a part that lies on the picture: its place in the part, and what it is given in parts of. */
export interface PartPoint {
  readonly path: readonly [string, string] | readonly [string];
  readonly name: string;
  readonly of: 'frame' | 'box';
  readonly value: Pair;
}

/** The points of a part that are set by hand, where nothing else gives them. */
export function pointsOfPart(layer: Layer): PartPoint[] {
  const point = (path: PartPoint['path'], name: string, of: PartPoint['of'], value: unknown): PartPoint[] =>
    Array.isArray(value) && value.every((v) => typeof v === 'number')
      ? [{ path, name, of, value: value as unknown as Pair }]
      : [];
  if (layer.kind === 'beam')
    return [
      ...point(['from'], 'Where the light begins', 'box', layer.from),
      ...point(['to'], 'Where the light ends', 'box', layer.to),
    ];
  if (layer.kind === 'particles')
    return 'point' in layer.from
      ? point(['from', 'point'], 'Where particles come from', 'box', layer.from.point)
      : [];
  if (layer.kind !== 'shape') return [];
  const { outline, fill } = layer;
  return [
    ...(outline.kind === 'bubble' || outline.kind === 'leader'
      ? point(['outline', 'to'], 'Where it points', 'frame', outline.to)
      : []),
    ...(fill && 'gradient' in fill && fill.gradient === 'radial'
      ? point(['fill', 'centre'], 'Middle of the gradient', 'box', fill.centre)
      : []),
  ];
}

/** Where a point of a part lies, in parts of the frame. */
export const pointOnPicture = ({ of, value }: PartPoint, quad: LaidPart['quad'], frame: Size): Pair =>
  of === 'frame' ? value : toPicture(quad, frame)(value);

/** The way back of {@link pointOnPicture}; nothing of a part that is seen from its edge. */
export function pointFromPicture(
  { of }: Pick<PartPoint, 'of'>,
  at: Pair,
  quad: LaidPart['quad'],
  frame: Size,
): Pair | undefined {
  const value = of === 'frame' ? at : backFrom(quad, frame)?.(at);
  return value && [Math.round(value[0] * 1e4) / 1e4, Math.round(value[1] * 1e4) / 1e4];
}
