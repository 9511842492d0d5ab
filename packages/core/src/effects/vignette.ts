import { z } from 'zod';
import {
  type Affine,
  IDENTITY_PLANE,
  invertAffine,
  multiplyAffine,
  nearestAffine,
  planeAfter,
} from '../geometry/matrix';
import { planeBounds } from '../geometry/plane';
import { property } from '../values/property';
import { type EffectKind, NO_GROWTH, type Over, onlySchema } from './kind';

export const vignetteShape = (over: Over) => ({
  amount: over(z.number().min(0).max(1)),
  /** The part of the way from the middle to the corners that stays clear. */
  clear: over(z.number().min(0).max(0.95)),
});

export const vignetteSchema = z.strictObject({
  effect: z.literal('vignette'),
  only: onlySchema,
  ...vignetteShape(property),
});

export interface Vignette {
  readonly effect: 'vignette';
  readonly amount: number;
  readonly clear: number;
  /** Takes a circle of radius 1 about nothing to the ellipse through the corners of the content, in frame units. */
  readonly map: Affine;
}

/** Darker towards the corners of the content, in the shape of its box. */
export const vignette: EffectKind<z.infer<typeof vignetteSchema>, Vignette> = {
  schema: vignetteSchema,
  resolve: ({ amount, clear }, { value, box, plane }) => {
    const [mx, my] = [box.x + box.width / 2, box.y + box.height / 2];
    // The ellipse of the box's shape that goes through its corners.
    const [rx, ry] = [box.width / Math.SQRT2, box.height / Math.SQRT2];
    return {
      effect: 'vignette',
      amount: value(amount),
      clear: value(clear),
      map: multiplyAffine(nearestAffine(plane, mx, my), [rx, 0, 0, ry, mx, my]),
    };
  },
  scaled: (values) => values,
  moved: (values, matrix) => ({ ...values, map: multiplyAffine(matrix, values.map) }),
  isNothing: ({ amount }) => amount < 0.002,
  growth: () => NO_GROWTH,
  apply: ({ amount, clear, map }, surface, { scale, left, top }) => {
    const { context, canvas } = surface;
    const [a, b, c, d, e, f] = map.map((v) => v * scale) as unknown as Affine;
    const onSurface: Affine = [a, b, c, d, e - left, f - top];
    const back = invertAffine(onSurface);
    if (!back) return surface;
    context.setTransform(...onSurface);
    const shade = context.createRadialGradient(0, 0, 0, 0, 0, 1);
    // A smooth fall (smoothstep), in as many steps as are needed for it to show none.
    for (let i = 0; i <= STEPS; i++) {
      const t = i / STEPS;
      shade.addColorStop(clear + (1 - clear) * t, `rgba(0, 0, 0, ${amount * t * t * (3 - 2 * t)})`);
    }
    context.globalCompositeOperation = 'source-atop';
    context.globalAlpha = 1;
    context.fillStyle = shade;
    // All of the surface, told in the circle's own units.
    const { width, height } = canvas;
    const all = planeBounds(planeAfter(back, IDENTITY_PLANE), { x: 0, y: 0, width, height });
    context.fillRect(all.x, all.y, all.width, all.height);
    context.setTransform(1, 0, 0, 1, 0, 0);
    context.globalCompositeOperation = 'source-over';
    return surface;
  },
};

const STEPS = 8;
