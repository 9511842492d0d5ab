import { z } from 'zod';
import type { Context2D } from '../canvas/surface';
import { type Homography, planeAfter, project } from '../geometry/matrix';
import { property } from '../values/property';
import { type EffectKind, type Over, onlySchema } from './kind';

export const bulgeShape = (over: Over) => ({
  /** Above 0 its middle is nearer, below 0 it is drawn in. */
  amount: over(z.number().min(-1).max(1)),
  /** Its middle, in parts of the content's box. */
  at: over(z.tuple([z.number().min(-4).max(5), z.number().min(-4).max(5)])).default([0.5, 0.5]),
  /** Frame units. */
  radius: over(z.number().min(1).max(4000)).default(300),
});

export const bulgeSchema = z.strictObject({
  effect: z.literal('bulge'),
  only: onlySchema,
  ...bulgeShape(property),
});

export interface Bulge {
  readonly effect: 'bulge';
  readonly amount: number;
  readonly radius: number;
  /** Its middle in the content's plane, and that plane. */
  readonly middle: readonly [number, number];
  readonly plane: Homography;
}

/** Rings that the lens is cut into: each shows the picture enlarged as its middle is. */
const RINGS = 22;

/**
 * The part of its distance from the middle at which a point lies whose picture is at a part of the radius.
 * @param amount −1..1
 */
export function lensSource(part: number, amount: number): number {
  const inside = Math.max(0, 1 - part);
  return part * (amount >= 0 ? 1 - 0.72 * amount * inside ** 1.2 : 1 - 1.6 * amount * inside ** 1.2);
}

/** A lens held over it: what lies under its middle is larger or smaller, and at its rim nothing is changed. */
export const bulge: EffectKind<z.infer<typeof bulgeSchema>, Bulge> = {
  schema: bulgeSchema,
  isOfFrame: true,
  resolve: ({ amount, at, radius }, { value, box, plane }) => {
    const [x, y] = value(at);
    return {
      effect: 'bulge',
      amount: value(amount),
      radius: value(radius),
      middle: [box.x + x * box.width, box.y + y * box.height],
      plane,
    };
  },
  scaled: (values, by) => ({ ...values, radius: values.radius * by }),
  moved: (values, matrix) => ({ ...values, plane: planeAfter(matrix, values.plane) }),
  isNothing: ({ amount }) => Math.abs(amount) < 0.004,
  growth: ({ amount, radius }) => {
    const by = amount > 0 ? radius * 0.4 * amount : 0;
    return { left: by, top: by, right: by, bottom: by };
  },
  apply: ({ amount, radius, middle, plane }, surface, { scale, left, top, borrow, giveBack }) => {
    const { width, height } = surface.canvas;
    const [fx, fy] = project(plane, ...middle);
    const [cx, cy] = [fx * scale - left, fy * scale - top];
    const bent = borrow(width, height);
    const { context } = bent;
    context.drawImage(surface.canvas, 0, 0);
    for (let i = RINGS; i >= 1; i--) {
      const outer = (i / RINGS) * radius * scale;
      const part = (i - 0.5) / RINGS;
      const times = part / lensSource(part, amount);
      // It takes the place of what lay there, and where the circle covers part of a pixel, of that part: no seam shows.
      context.save();
      context.setTransform(1, 0, 0, 1, 0, 0);
      tracedCircle(context, cx, cy, outer);
      context.globalCompositeOperation = 'destination-out';
      context.fillStyle = '#000000';
      context.fill();
      context.clip();
      context.globalCompositeOperation = 'lighter';
      context.setTransform(times, 0, 0, times, cx - cx * times, cy - cy * times);
      context.drawImage(surface.canvas, 0, 0);
      context.restore();
    }
    giveBack(surface);
    return bent;
  },
};

/** Corners of the polygon that stands for a circle. */
const CORNERS = 64;

/** Begins a path with a circle, in pixels. */
function tracedCircle(context: Context2D, x: number, y: number, radius: number): void {
  context.beginPath();
  for (let i = 0; i < CORNERS; i++) {
    const a = (2 * Math.PI * i) / CORNERS;
    const [px, py] = [x + Math.cos(a) * radius, y + Math.sin(a) * radius];
    if (i === 0) context.moveTo(px, py);
    else context.lineTo(px, py);
  }
  context.closePath();
}
