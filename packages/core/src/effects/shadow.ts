import { z } from 'zod';
import type { Surface } from '../canvas/surface';
import { colourSchema } from '../colour/colour';
import { property } from '../values/property';
import { type EffectKind, type EffectTools, onlySchema } from './kind';
import { enoughFor, softSize } from './soften';

export const shadowSchema = z.strictObject({
  effect: z.literal('shadow'),
  only: onlySchema,
  offset: property(z.tuple([z.number(), z.number()])).default([0, 0]),
  /** Added to the offset: so far, in this direction; degrees, 0 to the right, 90 downwards. */
  angle: property(z.number()).default(90),
  distance: property(z.number()).default(0),
  /** Standard deviation of its softness, in frame units. */
  radius: property(z.number().min(0).max(500)),
  colour: property(colourSchema),
  opacity: property(z.number().min(0).max(1)),
});

export interface Shadow {
  readonly effect: 'shadow';
  readonly offset: readonly [number, number];
  readonly radius: number;
  readonly colour: string;
  readonly opacity: number;
  /** Without what throws it, which is painted over it. */
  readonly alone?: boolean;
}

/** Where a shadow falls: so far, in this direction, from an offset. */
export function shadowOffset(
  [x, y]: readonly number[],
  angle: number,
  distance: number,
): readonly [number, number] {
  const turn = (angle * Math.PI) / 180;
  return [(x ?? 0) + Math.cos(turn) * distance, (y ?? 0) + Math.sin(turn) * distance];
}

/** A soft shadow of the content's alpha, below it. */
export const shadow: EffectKind<z.infer<typeof shadowSchema>, Shadow> = {
  schema: shadowSchema,
  resolve: (effect, { value }) => ({
    effect: 'shadow',
    offset: shadowOffset(value(effect.offset), value(effect.angle), value(effect.distance)),
    radius: value(effect.radius),
    colour: value(effect.colour),
    opacity: value(effect.opacity),
  }),
  detail: ({ radius, alone }, draft) => (alone ? enoughFor(radius, draft) : Number.POSITIVE_INFINITY),
  // The light stands still: a layer that turns throws its shadow the same way.
  scaled: (values, by) => ({
    ...values,
    offset: [values.offset[0] * by, values.offset[1] * by],
    radius: values.radius * by,
  }),
  isNothing: ({ opacity }) => opacity <= 0.002,
  growth: ({ offset: [x, y], radius }) => ({
    left: Math.max(0, radius * 3 - x),
    top: Math.max(0, radius * 3 - y),
    right: Math.max(0, radius * 3 + x),
    bottom: Math.max(0, radius * 3 + y),
  }),
  apply: (values, surface, tools) =>
    values.alone ? alone(values, surface, tools) : under(values, surface, tools),
};

/** The shadow without its content, in whose place it comes. */
function alone(
  { offset, radius, colour, opacity }: Shadow,
  surface: Surface,
  { scale, borrow, giveBack }: EffectTools,
): Surface {
  const { canvas, context } = surface;
  context.setTransform(1, 0, 0, 1, 0, 0);
  context.globalAlpha = 1;
  context.globalCompositeOperation = 'source-in';
  context.fillStyle = colour;
  context.fillRect(0, 0, canvas.width, canvas.height);
  const soft = borrow(canvas.width, canvas.height);
  const pixels = radius * scale;
  soft.context.filter = pixels > 0.05 ? `blur(${pixels}px)` : 'none';
  soft.context.globalAlpha = opacity;
  soft.context.drawImage(canvas, offset[0] * scale, offset[1] * scale);
  soft.context.filter = 'none';
  soft.context.globalAlpha = 1;
  giveBack(surface);
  return soft;
}

/** The shadow below the content. Made at a small size: softness hides the difference. */
function under({ offset, radius, colour, opacity }: Shadow, surface: Surface, tools: EffectTools): Surface {
  const { scale, borrow, giveBack } = tools;
  const { canvas, context } = surface;
  const pixels = radius * scale;
  const { width: w, height: h, shrink } = softSize(canvas, pixels, 4, tools);
  const ink = borrow(w, h);
  ink.context.drawImage(canvas, 0, 0, w, h);
  ink.context.globalCompositeOperation = 'source-in';
  ink.context.fillStyle = colour;
  ink.context.fillRect(0, 0, w, h);
  ink.context.globalCompositeOperation = 'source-over';
  const soft = borrow(w, h);
  soft.context.filter = pixels > 0.05 ? `blur(${pixels * shrink}px)` : 'none';
  soft.context.drawImage(ink.canvas, 0, 0);
  soft.context.filter = 'none';
  context.setTransform(1, 0, 0, 1, 0, 0);
  context.globalCompositeOperation = 'destination-over';
  context.globalAlpha = opacity;
  context.drawImage(soft.canvas, offset[0] * scale, offset[1] * scale, canvas.width, canvas.height);
  context.globalAlpha = 1;
  context.globalCompositeOperation = 'source-over';
  giveBack(ink);
  giveBack(soft);
  return surface;
}
