import { z } from 'zod';
import type { Surface } from '../canvas/surface';
import { colourSchema } from '../colour/colour';
import { property } from '../values/property';
import { type EffectKind, type EffectTools, onlySchema } from './kind';
import { layOver, layUpon } from './mixed';
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
  /** Without what it is thrown on, over which it is laid; with these on top of it. */
  readonly alone?: readonly InnerShadow[];
}

/** Pixels of standard deviation that its softness is made with, where it has as many. */
const SHARP = 1.5;

/**
 * A soft shadow that the edge throws onto the content, as if it lay deeper than what is around it. In a light colour,
 * from the other side, it is the light on a rounded edge: the two together make a relief. It keeps to the alpha.
 */
export const innerShadow: EffectKind<z.infer<typeof innerShadowSchema>, InnerShadow> = {
  dear: true,
  keepsAlpha: true,
  schema: innerShadowSchema,
  resolve: ({ angle, distance, radius, colour, opacity }, { value }) => ({
    effect: 'inner-shadow',
    offset: shadowOffset([0, 0], value(angle), value(distance)),
    radius: value(radius),
    colour: value(colour),
    opacity: value(opacity),
  }),
  // The light stands still, as for a shadow.
  scaled,
  isNothing: ({ opacity, offset, radius }) =>
    opacity <= 0.002 || (radius < 0.05 && Math.hypot(...offset) < 0.05),
  // It paints nothing beyond its content, but has to know what goes on there: the frame's edge throws no shadow.
  growth: (values) => {
    const reaches = [values, ...(values.alone ?? [])].map((v) => v.radius * 3 + Math.hypot(...v.offset));
    const reach = Math.max(...reaches);
    return { left: reach, top: reach, right: reach, bottom: reach };
  },
  apply: (values, surface, tools) => {
    if (!values.alone) {
      shade(values, surface, surface, layOver, tools);
      return surface;
    }
    const { width, height } = surface.canvas;
    const shades = tools.borrow(width, height);
    // They go on around the content, to whose alpha they are kept where they are laid.
    for (const each of [values, ...values.alone]) shade(each, surface, shades, layUpon, tools);
    tools.giveBack(surface);
    return shades;
  },
};

function scaled({ alone, ...values }: InnerShadow, by: number): InnerShadow {
  return {
    ...values,
    offset: [values.offset[0] * by, values.offset[1] * by],
    radius: values.radius * by,
    ...(alone ? { alone: alone.map((each) => scaled(each, by)) } : {}),
  };
}

/** Lays the shadow that a surface's edge throws on another. */
function shade(
  { offset, radius, colour, opacity }: InnerShadow,
  surface: Surface,
  on: Surface,
  lay: typeof layOver,
  tools: EffectTools,
): void {
  const { scale, borrow, giveBack } = tools;
  const { canvas } = surface;
  const pixels = radius * scale;
  const [x, y] = [offset[0] * scale, offset[1] * scale];
  // A thin one is sharp in a draft: as many pixels as it has cost ten times as much.
  const [stepX, stepY] = [Math.round(x), Math.round(y)];
  if (tools.draft && pixels < SHARP && (stepX !== 0 || stepY !== 0)) {
    const around = outside(surface, [stepX, stepY], colour, 0, tools);
    lay(on, around, opacity);
    giveBack(around);
    return;
  }
  // Made at a small size, as a shadow is: softness hides the difference.
  const { width, height, shrink } = softSize(canvas, pixels, SHARP, tools);
  const small = borrow(width, height);
  small.context.drawImage(canvas, 0, 0, width, height);
  const moved = [(x * width) / canvas.width, (y * height) / canvas.height] as const;
  const around = outside(small, moved, colour, pixels > 0.05 ? pixels * shrink : 0, tools);
  lay(on, around, opacity);
  giveBack(small);
  giveBack(around);
}

/** What is around some content, moved: full outside of it, soft at its edge. */
function outside(
  { canvas }: Surface,
  [x, y]: readonly [number, number],
  colour: string,
  blur: number,
  { borrow }: Pick<EffectTools, 'borrow'>,
): Surface {
  const around = borrow(canvas.width, canvas.height);
  const { context } = around;
  context.fillStyle = colour;
  context.fillRect(0, 0, canvas.width, canvas.height);
  context.globalCompositeOperation = 'destination-out';
  if (blur > 0) context.filter = `blur(${blur}px)`;
  context.drawImage(canvas, x, y);
  context.filter = 'none';
  context.globalCompositeOperation = 'source-over';
  return around;
}
