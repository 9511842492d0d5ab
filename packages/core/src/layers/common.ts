import { z } from 'zod';
import { colourSchema } from '../colour/colour';
import { effectSchema } from '../effects/registry';
import type { Affine } from '../geometry/matrix';
import type { Rect } from '../geometry/rect';
import { randomAt } from '../motion/random';
import { TILE } from '../paint/materials/grid';
import { MATERIALS } from '../paint/materials/kinds';
import type { Material, Paint } from '../paint/ops';
import { BLEND_MODES } from '../paint/ops';
import { markSchema, type Property, property, type Value } from '../values/property';

/** The name under which a repeated part finds the slot it comes for. */
export const EACH = 'each';

const number = z.number().min(-100000).max(100000);
export const numberProperty = property(number);
export const positiveProperty = property(z.number().min(0).max(100000));
export const pointProperty = property(z.tuple([number, number]));
export const spaceProperty = property(z.tuple([number, number, number]));
export const switchProperty = property(z.boolean());
export const colourProperty = property(colourSchema);
export const wordProperty = property(z.string().max(200));

/** Sides as in CSS: top, right, bottom, left. */
export const marginSchema = z.union([
  numberProperty,
  z.tuple([numberProperty, numberProperty, numberProperty, numberProperty]),
]);
export type Margin = z.infer<typeof marginSchema>;

/** What a paint is made of, laid over its colour or gradient. */
const materialSchema = z.strictObject({
  of: property(z.enum(MATERIALS)),
  /** How much of it is seen. */
  strength: property(z.number().min(0).max(1)).default(1),
  /** How coarse it is, as a multiple. */
  size: property(z.number().min(0.1).max(10)).default(1),
  /** Degrees, clockwise. */
  angle: numberProperty.default(0),
  seed: z.number().int().min(0).max(100000).default(1),
});

export const paintSchema = z.union([
  z.strictObject({ colour: colourProperty, material: materialSchema.optional() }),
  z.strictObject({
    material: materialSchema.optional(),
    gradient: z.enum(['linear', 'radial']),
    /** Linear: direction in degrees, 0 to the right, 90 downwards. */
    angle: numberProperty.default(90),
    /** Radial: centre as a part of the box, and radius as a part of its longer side. */
    centre: pointProperty.default([0.5, 0.5]),
    radius: numberProperty.default(0.6),
    stops: z
      .array(z.tuple([z.number().min(0).max(1), colourProperty]))
      .min(2)
      .max(12),
  }),
]);
export type PaintDocument = z.infer<typeof paintSchema>;

export const outlineSchema = z.union([
  z.strictObject({ kind: z.literal('rectangle'), corner: positiveProperty.default(0) }),
  z.strictObject({ kind: z.literal('ellipse') }),
  z.strictObject({
    kind: z.literal('polygon'),
    points: z.number().int().min(3).max(60),
    inner: z.number().min(0.05).max(1).default(1),
  }),
  /** SVG path data, drawn in a box of `size` and stretched to the layer's box. */
  z.strictObject({
    kind: z.literal('path'),
    data: property(z.string().min(1).max(20000)),
    size: z.tuple([z.number().positive(), z.number().positive()]),
  }),
  /** A box with a tail that points at a point of the frame, in parts of it. */
  z.strictObject({
    kind: z.literal('bubble'),
    corner: positiveProperty.default(0),
    to: pointProperty,
    /** Width of the tail where it grows out, in frame units. */
    width: positiveProperty.default(60),
    /** The part of the way to the point that it takes. */
    reach: property(z.number().min(0).max(1)).default(1),
    /** How far it bows sideways, as a part of its length. */
    bow: property(z.number().min(-1).max(1)).default(0),
  }),
  /** A line from a point of the frame, in parts of it, to the box and along its edge; for strokes. */
  z.strictObject({
    kind: z.literal('leader'),
    to: pointProperty,
    /** Frame units it keeps away from the point. */
    gap: positiveProperty.default(0),
  }),
]);
export type OutlineDocument = z.infer<typeof outlineSchema>;

/** Where the user put a layer, on top of its own place: about its middle. */
export const placingSchema = z.strictObject({
  /** Frame units. */
  move: pointProperty.default([0, 0]),
  scale: numberProperty.default(1),
  /** Degrees in the plane, clockwise. */
  turn: numberProperty.default(0),
  /** Degrees about the two axes that lie in the plane: tips over, opens sideways. */
  tilt: pointProperty.default([0, 0]),
});

/** What every layer has. Layers are stacked as listed: the last is on top. */
export const layerBase = {
  id: z.string().regex(/^[a-z0-9][a-z0-9-]*$/, 'must be in kebab case'),
  name: z.string().max(80).optional(),
  /** Shown from one mark to another; always, when absent. */
  span: z.strictObject({ from: markSchema, to: markSchema }).optional(),
  visible: switchProperty.default(true),
  /** Slots without which it makes no sense: while one of them is empty or hidden, all of it is away. */
  needs: z.array(z.string()).min(1).max(20).optional(),
  /** A slot of words: where they read from right to left, the layer stands on the other side of its parent. */
  reads: z.string().optional(),
  opacity: property(z.number().min(0).max(1)).default(1),
  blend: z.enum(BLEND_MODES).default('normal'),
  /** A point of the parent's box, 0..1 each way. */
  at: pointProperty.default([0, 0]),
  /** Frame units from there. */
  offset: pointProperty.default([0, 0]),
  /** The point of the layer's own box that is put there, 0..1 each way. */
  origin: pointProperty.default([0, 0]),
  /** Motion on top of the place: frame units; z goes away from the viewer. */
  move: spaceProperty.default([0, 0, 0]),
  /** Degrees about x, y and z. */
  turn: spaceProperty.default([0, 0, 0]),
  scale: pointProperty.default([1, 1]),
  skew: numberProperty.default(0),
  /** The point turns and scales happen about: parts of the own box, and a depth in frame units. */
  pivot: spaceProperty.default([0.5, 0.5, 0]),
  placing: placingSchema.optional(),
  mask: z
    .strictObject({
      outline: outlineSchema,
      /** Box of the mask as parts of the layer's box: left, top, width, height. */
      box: property(z.tuple([number, number, number, number])).default([0, 0, 1, 1]),
      feather: positiveProperty.default(0),
      invert: z.boolean().default(false),
    })
    .optional(),
  /** Shows this layer only where another is. */
  matte: z
    .strictObject({
      layer: z.string(),
      by: z.enum(['alpha', 'luminance']).default('alpha'),
      invert: z.boolean().default(false),
    })
    .optional(),
  effects: z.array(effectSchema).max(8).default([]),
  /**
   * The name of a picture or clip among the assets that stands for it: in a draft where it costs much, and wherever a
   * version does not know its kind.
   */
  standIn: z.string().min(1).max(80).optional(),
  /** Frames that are dropped, in bursts: it stands still for a step, and is where it would be at the next. */
  stutter: z
    .strictObject({
      /** The part of the steps in which it stands still. */
      amount: property(z.number().min(0).max(1)),
      /** Frames of a step. */
      every: z.number().int().min(2).max(120).default(5),
      seed: z.number().int().min(0).max(100_000).default(1),
    })
    .optional(),
  /** What it leaves behind along its way: itself, as it was at moments before. */
  afterimage: z
    .strictObject({
      /** How far back, in frames, and how often. */
      length: property(z.number().min(0).max(600)),
      copies: z.number().int().min(1).max(48).default(16),
      opacity: property(z.number().min(0).max(1)).default(0.6),
      /** How much of that the oldest has lost, and how much smaller it is. */
      fade: property(z.number().min(0).max(1)).default(1),
      taper: property(z.number().min(0).max(1)).default(0),
      /** All of it in one colour; as it is, when absent. */
      colour: colourProperty.optional(),
      blend: z.enum(BLEND_MODES).default('normal'),
    })
    .optional(),
} as const;

export interface LayerBase extends z.infer<z.ZodObject<typeof layerBase>> {}

export type ValueOf = <T extends Value>(p: Property<T>) => T;

/** Frame units of a texel of a material of size 1. */
const TEXEL = 1.4;

function resolveMaterial(
  { of, strength, size, angle, seed }: z.infer<typeof materialSchema>,
  box: Rect,
  value: ValueOf,
): Material {
  const [turn, grown] = [(value(angle) * Math.PI) / 180, value(size) * TEXEL];
  const [c, s] = [Math.cos(turn) * grown, Math.sin(turn) * grown];
  // Another seed shows another part of the tile.
  const [u, v] = [randomAt(seed, 1) * TILE, randomAt(seed, 2) * TILE];
  const map: Affine = [c, s, -s, c, box.x - c * u + s * v, box.y - s * u - c * v];
  return { of: value(of), strength: value(strength), map };
}

/** A paint's values, laid over a box. */
export function resolvePaint(paint: PaintDocument, box: Rect, value: ValueOf): Paint {
  const ground = resolveGround(paint, box, value);
  return paint.material ? { ...ground, material: resolveMaterial(paint.material, box, value) } : ground;
}

function resolveGround(paint: PaintDocument, box: Rect, value: ValueOf): Paint {
  if ('colour' in paint) return { kind: 'solid', colour: value(paint.colour) };
  const stops = paint.stops.map(([at, colour]) => [at, value(colour)] as const);
  if (paint.gradient === 'radial') {
    const [cx, cy] = value(paint.centre);
    const radius = Math.max(0.01, value(paint.radius) * Math.max(box.width, box.height));
    return { kind: 'radial', centre: [box.x + cx * box.width, box.y + cy * box.height], radius, stops };
  }
  // As in CSS Images: the line is long enough that the corners get the end colours.
  const angle = (value(paint.angle) * Math.PI) / 180;
  const [dx, dy] = [Math.cos(angle), Math.sin(angle)];
  const half = (Math.abs(dx) * box.width + Math.abs(dy) * box.height) / 2;
  const [cx, cy] = [box.x + box.width / 2, box.y + box.height / 2];
  return {
    kind: 'linear',
    from: [cx - dx * half, cy - dy * half],
    to: [cx + dx * half, cy + dy * half],
    stops,
  };
}

export function resolveMargin(margin: Margin, value: ValueOf): [number, number, number, number] {
  if (Array.isArray(margin))
    return (margin as Property<number>[]).map((m) => value(m)) as [number, number, number, number];
  const all = value(margin as Property<number>);
  return [all, all, all, all];
}
