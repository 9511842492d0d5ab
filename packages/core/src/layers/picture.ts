import { z } from 'zod';
import { type Matrix4, multiply4, planeOf, scale4, translation4, turn4 } from '../geometry/matrix';
import { rectanglePath } from '../geometry/path';
import { planeBounds } from '../geometry/plane';
import { inset, intersection, isEmpty, type Rect } from '../geometry/rect';
import type { Op } from '../paint/ops';
import { markSchema } from '../values/property';
import { layerBase, outlineSchema, pointProperty, positiveProperty } from './common';
import type { FoundPicture, LayerKind } from './kind';
import { outlinePath } from './outline';

export const pictureSchema = z.strictObject({
  ...layerBase,
  kind: z.literal('picture'),
  slot: z.string(),
  /** The box the picture fills, or the largest it may be when it fits. Frame units. */
  size: pointProperty,
  /** `fill` covers the box and crops; `fit` shows all of the picture, and the layer's box is the picture's. */
  fit: z.enum(['fill', 'fit']).default('fill'),
  /** Of a clip: the moment it begins, its slot's first when absent, and the moment from which it stands still. */
  clip: z.strictObject({ from: markSchema.optional(), freeze: markSchema.optional() }).optional(),
  /** Extra scale of the picture inside its box, about the focus. */
  zoom: positiveProperty.default(1),
  /** The frame it is cropped to. */
  outline: outlineSchema.optional(),
});
export type PictureLayer = z.infer<typeof pictureSchema>;

/** Frame units beyond the frame's edge within which effects may still bring something of a picture into it. */
const BEYOND = 600;

/** A picture or clip from a slot. */
export const picture: LayerKind<PictureLayer> = {
  measure(layer, _parent, { value, picture: find }) {
    const found = find(layer.slot, layer.clip);
    const [width, height] = value(layer.size);
    if (layer.fit === 'fill') return { size: { width, height } };
    if (!found) return undefined;
    const k = Math.min(width / found.width, height / found.height);
    return { size: { width: found.width * k, height: found.height * k } };
  },

  paint({ layer, box }, { value, memo, moment, plane, matrix, picture: find }) {
    const found = find(layer.slot, layer.clip);
    if (!found || box.width <= 0 || box.height <= 0) return [];
    const whole = { x: 0, y: 0, width: box.width, height: box.height };
    // Far beyond the frame, or behind the camera, nothing of it can be seen.
    if (isEmpty(intersection(planeBounds(plane, whole), inset({ x: 0, y: 0, ...moment.frame }, BEYOND))))
      return [];
    // A layer that takes the picture's shape shows all of it, unless the user says otherwise.
    const fit = found.fit ?? layer.fit;
    const zoom = value(layer.zoom) * (layer.fit === 'fill' || found.fit ? found.scale : 1);
    const drawing = drawIn(found, whole, matrix, fit, zoom);
    const outline = layer.outline ?? { kind: 'rectangle', corner: 0 };
    // The edges of the picture are those of its box, and need no cutting.
    const isBox = outline.kind === 'rectangle' && value(outline.corner) <= 0;
    if (isBox && !drawing.spills) return [drawing.op];
    const path = outlinePath(outline, whole, { value, memo, moment, plane });
    return [{ op: 'clip', path, plane }, drawing.op, { op: 'unclip' }];
  },

  slots: (layer) => [layer.slot],
};

/** A picture drawn in a box as its fill says; `spills` when it reaches outside and has to be cropped. */
function drawIn(
  found: FoundPicture,
  box: Rect,
  matrix: Matrix4,
  fit: 'fill' | 'fit',
  zoom: number,
): { op: Op; spills: boolean } {
  const { turn, flip = [false, false] } = found;
  const middle = [box.x + box.width / 2, box.y + box.height / 2] as const;
  let m = matrix;
  const aboutMiddle = (by: Matrix4) => {
    m = multiply4(
      m,
      multiply4(translation4(...middle, 0), multiply4(by, translation4(-middle[0], -middle[1], 0))),
    );
  };
  if (turn !== 0) aboutMiddle(turn4(0, 0, turn));
  if (flip[0] || flip[1]) aboutMiddle(scale4(flip[0] ? -1 : 1, flip[1] ? -1 : 1));
  const made = (source: Rect, target: Rect): Op => ({
    op: 'picture',
    picture: found.id,
    ...(found.at === undefined ? {} : { at: found.at }),
    source,
    target,
    plane: planeOf(m),
    opacity: found.opacity ?? 1,
    ...(found.blend === undefined || found.blend === 'normal' ? {} : { blend: found.blend }),
  });
  const [fx, fy] = found.focus;
  if (fit === 'fill' && zoom >= 1) {
    // A turned picture is drawn larger than its box, so that no corner stays empty.
    const angle = (Math.abs(turn) * Math.PI) / 180;
    const [c, s] = [Math.abs(Math.cos(angle)), Math.abs(Math.sin(angle))];
    const grown = { width: box.width * c + box.height * s, height: box.width * s + box.height * c };
    const target = { x: middle[0] - grown.width / 2, y: middle[1] - grown.height / 2, ...grown };
    return { op: made(visiblePart(found, grown, zoom, [fx, fy]), target), spills: turn !== 0 };
  }
  // The whole picture, its focus moved towards the middle of the box as far as there is room.
  const cover = fit === 'fill' ? Math.max : Math.min;
  const k = cover(box.width / found.width, box.height / found.height) * zoom;
  const [width, height] = [found.width * k, found.height * k];
  const target = { x: middle[0] - fx * width, y: middle[1] - fy * height, width, height };
  const spills =
    turn !== 0 ||
    target.x < box.x - 0.01 ||
    target.y < box.y - 0.01 ||
    target.x + width > box.x + box.width + 0.01 ||
    target.y + height > box.y + box.height + 0.01;
  return { op: made({ x: 0, y: 0, width: found.width, height: found.height }, target), spills };
}

/** A slot's picture laid over a box, filling it. */
export function coverOps(found: FoundPicture, box: Rect, matrix: Matrix4): Op[] {
  const { op, spills } = drawIn(found, box, matrix, found.fit ?? 'fill', found.scale);
  if (!spills) return [op];
  return [{ op: 'clip', path: rectanglePath(box), plane: planeOf(matrix) }, op, { op: 'unclip' }];
}

/**
 * The part of a picture that fills a box: as large as the box's shape allows at zoom 1, its middle as near the focus
 * as the picture's edges let it be.
 * @param focus parts of the picture, 0..1
 */
export function visiblePart(
  size: { width: number; height: number },
  box: { width: number; height: number },
  zoom: number,
  focus: readonly [number, number],
): { x: number; y: number; width: number; height: number } {
  const k = Math.min(size.width / box.width, size.height / box.height) / Math.max(zoom, 1e-3);
  const width = Math.min(size.width, box.width * k);
  const height = Math.min(size.height, box.height * k);
  const held = (middle: number, part: number, whole: number) =>
    Math.min(Math.max(middle - part / 2, 0), whole - part);
  return {
    x: held(focus[0] * size.width, width, size.width),
    y: held(focus[1] * size.height, height, size.height),
    width,
    height,
  };
}
