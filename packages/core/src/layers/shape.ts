import { z } from 'zod';
import { longestStroke } from '../geometry/length';
import { translation4 } from '../geometry/matrix';
import type { Path } from '../geometry/path';
import type { Memo } from '../memo';
import { faded, grouped } from '../paint/compose';
import { BLEND_MODES, type Op, type Paint, type StrokeStyle } from '../paint/ops';
import { property } from '../values/property';
import {
  layerBase,
  marginSchema,
  numberProperty,
  outlineSchema,
  paintSchema,
  pointProperty,
  positiveProperty,
  resolvePaint,
  type ValueOf,
} from './common';
import type { LayerKind, PaintTools } from './kind';
import { outlinePath } from './outline';
import { coverOps } from './picture';

export const shapeSchema = z.strictObject({
  ...layerBase,
  kind: z.literal('shape'),
  outline: outlineSchema,
  /** Frame units; not needed when the shape hugs. */
  size: pointProperty.optional(),
  /** Takes its box from siblings, with a margin; it is behind or before them, never in their row. */
  hug: z.strictObject({ layers: z.array(z.string()).min(1), margin: marginSchema.default(0) }).optional(),
  /** The part of the box that is drawn, 0..1 each way, and the point it grows from: corners keep their radius. */
  extent: pointProperty.default([1, 1]),
  extentFrom: pointProperty.default([0, 0]),
  fill: paintSchema.optional(),
  /**
   * A picture or clip that gives it its colours, laid over its fill: the same one over all of the frame, of which every
   * shape that takes it shows the part where it is.
   */
  texture: z
    .strictObject({
      slot: z.string(),
      zoom: property(z.number().min(1).max(20)).default(1),
      /** Frame units that it is shifted in the frame: a zoom gives it room. */
      shift: pointProperty.default([0, 0]),
      opacity: property(z.number().min(0).max(1)).default(1),
      blend: z.enum(BLEND_MODES).default('normal'),
    })
    .optional(),
  /** Painted as a grid of copies, each a step on from the one before: dots, teeth, stripes. Fills only. */
  copies: z
    .strictObject({
      across: property(z.number().int().min(1).max(400)).default(1),
      down: property(z.number().int().min(1).max(400)).default(1),
      /** Frame units from one to the next, to the right and downwards. */
      step: pointProperty,
      /** The part of a step that every other row stands aside. */
      shift: numberProperty.default(0),
    })
    .optional(),
  stroke: z
    .strictObject({
      paint: paintSchema,
      width: positiveProperty,
      join: z.enum(['miter', 'round', 'bevel']).default('miter'),
      cap: z.enum(['butt', 'round', 'square']).default('butt'),
      dash: z.array(z.number().min(0)).max(8).optional(),
      /** The part of the line that is drawn, from its beginning. */
      drawn: property(z.number().min(0).max(1)).default(1),
    })
    .optional(),
});
export type ShapeLayer = z.infer<typeof shapeSchema>;

/** A filled or stroked outline. */
export const shape: LayerKind<ShapeLayer> = {
  measure(layer, parent, { value }) {
    if (layer.hug) return { size: { width: 0, height: 0 } };
    const [width, height] = layer.size ? value(layer.size) : [parent.width, parent.height];
    return { size: { width, height } };
  },

  paint({ layer, box }, tools) {
    const { value, memo, moment, plane } = tools;
    const [ew, eh] = value(layer.extent);
    if (ew <= 0 || eh <= 0 || box.width <= 0 || box.height <= 0) return [];
    const [fx, fy] = value(layer.extentFrom);
    const drawn = {
      x: box.width * (1 - ew) * fx,
      y: box.height * (1 - eh) * fy,
      width: box.width * ew,
      height: box.height * eh,
    };
    const outline = outlinePath(layer.outline, drawn, { value, memo, moment, plane });
    const whole = { x: 0, y: 0, width: box.width, height: box.height };
    const fill: Paint | undefined = layer.fill && resolvePaint(layer.fill, whole, value);
    const part = layer.stroke ? value(layer.stroke.drawn) : 1;
    if (part <= 0 && !fill) return [];
    const { length } =
      part < 1 ? memo.of('longest', () => ({ length: longestStroke(outline) }), outline) : NO_LENGTH;
    const stroke: StrokeStyle | undefined = layer.stroke && {
      paint: resolvePaint(layer.stroke.paint, whole, value),
      width: value(layer.stroke.width),
      join: layer.stroke.join,
      cap: layer.stroke.cap,
      ...(part < 1
        ? { dash: [length * part, length * 2] }
        : layer.stroke.dash
          ? { dash: layer.stroke.dash }
          : {}),
    };
    const texture = layer.texture ? textureOver(layer.texture, outline, tools) : [];
    if (!fill && texture.length === 0 && !(stroke && stroke.width > 0)) return [];
    if (layer.copies && fill)
      return [{ op: 'copies', path: outline, plane, fill, opacity: 1, ...grid(layer.copies, value, memo) }];
    const base = { op: 'path', path: outline, plane, opacity: 1 } as const;
    const lined = stroke && stroke.width > 0 ? { stroke } : {};
    if (texture.length === 0) return [{ ...base, ...(fill ? { fill } : {}), ...lined }];
    return [
      ...(fill ? [{ ...base, fill }] : []),
      ...texture,
      ...(lined.stroke ? [{ ...base, ...lined }] : []),
    ];
  },

  slots: ({ texture }) => (texture ? [texture.slot] : []),
};

const NO_LENGTH = { length: 0 } as const;

/** The part of a texture that lies over the frame where an outline is. */
function textureOver(
  { slot, zoom, shift, opacity, blend }: NonNullable<ShapeLayer['texture']>,
  path: Path,
  { value, moment, plane, picture }: PaintTools,
): Op[] {
  const found = picture(slot);
  const shown = value(opacity);
  if (!found || shown <= 0.004) return [];
  const [x, y] = value(shift);
  const { width, height } = moment.frame;
  const times = value(zoom);
  const spare = (times - 1) / 2;
  const whole = { x: -spare * width, y: -spare * height, width: width * times, height: height * times };
  const laid = coverOps(found, whole, translation4(x, y, 0));
  const ops: Op[] = [{ op: 'clip', path, plane }, ...laid, { op: 'unclip' }];
  if (blend !== 'normal') return grouped(ops, { opacity: shown, composite: blend });
  return faded(ops, shown);
}

/** Copies of one layer at most. */
const MOST_COPIES = 20_000;

/** The places of a grid of copies; the same grid gives the same object. */
function grid(
  copies: NonNullable<ShapeLayer['copies']>,
  value: ValueOf,
  memo: Memo,
): { readonly places: Float32Array } {
  const [across, down] = [value(copies.across), value(copies.down)].map((n) => Math.max(1, Math.round(n)));
  const [dx, dy] = value(copies.step);
  const shift = value(copies.shift);
  return memo.of(`grid/${across}/${down}/${dx}/${dy}/${shift}`, () => {
    const rows = Math.min(down!, Math.max(1, Math.floor(MOST_COPIES / across!)));
    const places = new Float32Array(across! * rows * 6);
    for (let i = 0; i < across! * rows; i++) {
      const row = Math.floor(i / across!);
      const x = (i % across!) + (row % 2 === 1 ? shift : 0);
      places.set([1, 0, 0, 1, x * dx, row * dy], i * 6);
    }
    return { places };
  });
}
