import { z } from 'zod';
import { colourSchema } from '../colour/colour';
import { property } from '../documents/property';
import { type EffectKind, onlySchema } from './kind';
import { shadowOffset } from './shadow';
import { softSize } from './soften';

export const innerShadowSchema = z.strictObject({
  effect: z.literal('inner-shadow'),
  only: onlySchema,
  /** So far, in this direction from the edge: degrees, 0 to the right, 90 downwards. */
  angle: property(z.number().min(-720).max(720)).default(60),
  distance: property(z.number().min(0).max(200)).default(4),
  /** Standard deviation of its softness, in frame units. */
  radius: property(z.number().min(0).max(200)).default(4),
  colour: property(colourSchema).default('#000000'),
  opacity: property(z.number().min(0).max(1)).default(0.5),
});

export interface InnerShadow {
  readonly effect: 'inner-shadow';
  readonly offset: readonly [number, number];
  readonly radius: number;
  readonly colour: string;
  readonly opacity: number;
}

/** Pixels of standard deviation that its softness is made with, where it has as many. */
const SHARP = 1.5;

/**
 * A soft shadow that the edge throws onto the content, as if it lay deeper than what is around it. In a light colour,
 * from the other side, it is the light on a rounded edge: the two together make a relief. It keeps to the alpha.
 */
export const innerShadow: EffectKind<z.infer<typeof innerShadowSchema>, InnerShadow> = {
  schema: innerShadowSchema,
  resolve: ({ angle, distance, radius, colour, opacity }, { value }) => ({
    effect: 'inner-shadow',
    offset: shadowOffset([0, 0], value(angle), value(distance)),
    radius: value(radius),
    colour: value(colour),
    opacity: value(opacity),
  }),
  // The light stands still, as for a shadow.
  scaled: (values, by) => ({
    ...values,
    offset: [values.offset[0] * by, values.offset[1] * by],
    radius: values.radius * by,
  }),
  isNothing: ({ opacity, offset, radius }) =>
    opacity <= 0.002 || (radius < 0.05 && Math.hypot(...offset) < 0.05),
  // It paints nothing beyond its content, but has to know what goes on there: the frame's edge throws no shadow.
  growth: ({ offset: [x, y], radius }) => {
    const reach = radius * 3 + Math.hypot(x, y);
    return { left: reach, top: reach, right: reach, bottom: reach };
  },
  apply: ({ offset, radius, colour, opacity }, surface, tools) => {
    const { scale, borrow, giveBack } = tools;
    const { canvas, context } = surface;
    const pixels = radius * scale;
    // Made at a small size, as a shadow is: softness hides the difference.
    const { width, height, shrink } = softSize(canvas, pixels, SHARP, tools);
    const [kx, ky] = [width / canvas.width, height / canvas.height];
    const small = borrow(width, height);
    small.context.drawImage(canvas, 0, 0, width, height);
    // What is around the content, moved: full outside of it, soft at its edge.
    const around = borrow(width, height);
    around.context.fillStyle = colour;
    around.context.fillRect(0, 0, width, height);
    around.context.globalCompositeOperation = 'destination-out';
    around.context.filter = pixels > 0.05 ? `blur(${pixels * shrink}px)` : 'none';
    around.context.drawImage(small.canvas, offset[0] * scale * kx, offset[1] * scale * ky);
    around.context.filter = 'none';
    around.context.globalCompositeOperation = 'source-over';
    context.setTransform(1, 0, 0, 1, 0, 0);
    context.globalCompositeOperation = 'source-atop';
    context.globalAlpha = opacity;
    context.imageSmoothingQuality = 'low';
    context.drawImage(around.canvas, 0, 0, canvas.width, canvas.height);
    context.globalAlpha = 1;
    context.globalCompositeOperation = 'source-over';
    giveBack(small);
    giveBack(around);
    return surface;
  },
};
