import { z } from 'zod';
import { type Homography, planeAfter, project } from '../geometry/matrix';
import type { Rect } from '../geometry/rect';
import { randomAt } from '../motion/random';
import { property } from '../values/property';
import { type EffectKind, NO_GROWTH, type Over, onlySchema } from './kind';

export const crumpleShape = (over: Over) => ({
  /** How deep its creases are: 0, flat; 1, just out of the fist. */
  amount: over(z.number().min(0).max(1)),
  /** Frame units from one crease to the next. */
  size: over(z.number().min(20).max(1000)).default(140),
  seed: z.number().int().min(0).max(100000).default(1),
});

export const crumpleSchema = z.strictObject({
  effect: z.literal('crumple'),
  only: onlySchema,
  ...crumpleShape(property),
});

export interface Crumple {
  readonly effect: 'crumple';
  readonly amount: number;
  readonly size: number;
  readonly seed: number;
  readonly box: Rect;
  readonly plane: Homography;
}

/** Facets each way at most. */
const MOST = 40;

/** Paper that has been crumpled: facets that lean this way and that, lit from the top left, with creases between them. */
export const crumple: EffectKind<z.infer<typeof crumpleSchema>, Crumple> = {
  dear: true,
  schema: crumpleSchema,
  isOfFrame: true,
  resolve: ({ amount, size, seed }, { value, box, plane }) => ({
    effect: 'crumple',
    amount: value(amount),
    size: Math.max(20, value(size)),
    seed,
    box,
    plane,
  }),
  // It lies in the content's own plane, and goes with it.
  scaled: (values) => values,
  moved: (values, matrix) => ({ ...values, plane: planeAfter(matrix, values.plane) }),
  isNothing: ({ amount }) => amount < 0.004,
  growth: () => NO_GROWTH,
  apply: ({ amount, size, seed, box, plane }, surface, { scale, left, top }) => {
    const { context } = surface;
    const [across, down] = [box.width, box.height].map((v) =>
      Math.min(MOST, Math.max(1, Math.round(v / size))),
    ) as [number, number];
    /** A corner of the facets: its place in pixels, and how high it stands. */
    const corner = (i: number, j: number) => {
      const edge = (k: number, n: number) => (k === 0 || k === n ? 0 : 1);
      const u = (i + 0.62 * (randomAt(seed, i, j, 1) - 0.5) * edge(i, across)) / across;
      const v = (j + 0.62 * (randomAt(seed, i, j, 2) - 0.5) * edge(j, down)) / down;
      const [x, y] = project(plane, box.x + u * box.width, box.y + v * box.height);
      return { x: x * scale - left, y: y * scale - top, u, v, h: randomAt(seed, i, j, 3) };
    };
    const rows = Array.from({ length: down + 1 }, (_, j) =>
      Array.from({ length: across + 1 }, (_, i) => corner(i, j)),
    );
    context.setTransform(1, 0, 0, 1, 0, 0);
    context.globalCompositeOperation = 'source-atop';
    const facet = (a: Corner, b: Corner, c: Corner) => {
      // The slope of the facet towards the top left says how much light it gets.
      const [ux, uy, uh] = [(b.u - a.u) * across, (b.v - a.v) * down, b.h - a.h];
      const [vx, vy, vh] = [(c.u - a.u) * across, (c.v - a.v) * down, c.h - a.h];
      const det = ux * vy - uy * vx || 1;
      const [sx, sy] = [(uh * vy - vh * uy) / det, (vh * ux - uh * vx) / det];
      const light = Math.max(-1, Math.min(1, (sx + sy) * 0.9));
      context.fillStyle = light > 0 ? '#ffffff' : '#000000';
      context.globalAlpha = amount * (light > 0 ? 0.4 : 0.34) * Math.abs(light);
      context.beginPath();
      context.moveTo(a.x, a.y);
      context.lineTo(b.x, b.y);
      context.lineTo(c.x, c.y);
      context.closePath();
      context.fill();
    };
    for (let j = 0; j < down; j++) {
      for (let i = 0; i < across; i++) {
        const [a, b, c, d] = [rows[j]![i]!, rows[j]![i + 1]!, rows[j + 1]![i + 1]!, rows[j + 1]![i]!];
        if (randomAt(seed, i, j, 4) < 0.5) {
          facet(a, b, c);
          facet(a, c, d);
        } else {
          facet(a, b, d);
          facet(b, c, d);
        }
      }
    }
    context.globalAlpha = 1;
    context.globalCompositeOperation = 'source-over';
    return surface;
  },
};

interface Corner {
  readonly x: number;
  readonly y: number;
  readonly u: number;
  readonly v: number;
  readonly h: number;
}
