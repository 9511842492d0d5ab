import { z } from 'zod';
import { withAlpha } from '../colour/colour';
import { ellipsePath, type Path } from '../geometry/path';
import { noiseAt } from '../motion/random';
import { grouped, withEffects } from '../paint/compose';
import type { Op } from '../paint/ops';
import { property, valueAt } from '../values/property';
import { colourProperty, layerBase, numberProperty, pointProperty, positiveProperty } from './common';
import type { LayerKind, PaintTools } from './kind';

const part = property(z.number().min(0).max(1));

export const beamSchema = z.strictObject({
  ...layerBase,
  kind: z.literal('beam'),
  /** Frame units; the parent's box when absent. */
  size: pointProperty.optional(),
  /** Where it begins and ends, in parts of the box. */
  from: pointProperty,
  to: pointProperty,
  /** Width of its core at either end, in frame units: one that widens comes towards the viewer. */
  width: pointProperty.default([6, 6]),
  core: colourProperty.default('#FFFFFF'),
  colour: colourProperty,
  /** How far its light reaches, in frame units. */
  glow: positiveProperty.default(60),
  /** The part of its way that it has grown, and the part from its beginning that has gone again. */
  grown: part.default(1),
  gone: part.default(0),
  brightness: property(z.number().min(0).max(2)).default(1),
  /** Size of the flares at its two ends, in frame units. */
  flares: pointProperty.default([0, 0]),
  flicker: z.strictObject({ amount: part, every: z.number().min(1).max(600).default(4) }).optional(),
  /** Fainter beams to either side of it. */
  sides: z
    .strictObject({
      /** On each side. */
      count: property(z.number().int().min(0).max(12)),
      /** Frame units from one to the next. */
      apart: numberProperty,
      /** Frames that each comes after the one before it; 0, all are there from the start. */
      after: numberProperty.default(0),
      strength: part.default(0.4),
    })
    .optional(),
  seed: z.number().int().min(0).max(1_000_000).default(1),
});
export type BeamLayer = z.infer<typeof beamSchema>;

type Point = readonly [number, number];

/** A beam as it stands now: its axis, its width at either end of what shows of it, and how strong it is. */
interface Ray {
  readonly from: Point;
  readonly to: Point;
  readonly widths: Point;
  readonly strength: number;
}

const mix = (a: number, b: number, t: number) => a + (b - a) * t;

/** The outline of a ray that is so much wider on each side, its ends round enough for light. */
function rayPath({ from, to, widths }: Ray, wider: number): Path {
  const [dx, dy] = [to[0] - from[0], to[1] - from[1]];
  const length = Math.hypot(dx, dy) || 1;
  const [nx, ny] = [-dy / length, dx / length];
  const [a, b] = [widths[0] / 2 + wider, widths[1] / 2 + wider];
  return {
    commands: [
      ['M', from[0] + nx * a, from[1] + ny * a],
      ['L', to[0] + nx * b, to[1] + ny * b],
      ['L', to[0] - nx * b, to[1] - ny * b],
      ['L', from[0] - nx * a, from[1] - ny * a],
      ['Z'],
    ],
  };
}

/** The ray and those beside it, the farthest first. */
function raysOf(layer: BeamLayer, box: { width: number; height: number }, tools: PaintTools): Ray[] {
  const { value, moment } = tools;
  const place = ([x, y]: readonly number[]): Point => [x! * box.width, y! * box.height];
  const [from, to] = [place(value(layer.from)), place(value(layer.to))];
  const widths = value(layer.width) as Point;
  const [dx, dy] = [to[0] - from[0], to[1] - from[1]];
  const length = Math.hypot(dx, dy);
  if (!(length > 0)) return [];
  const [nx, ny] = [-dy / length, dx / length];
  const at = (after: number, aside: number, strength: number): Ray[] => {
    const then = after === 0 ? moment : { ...moment, time: moment.time - after };
    const [end, begin] = [valueAt(layer.grown, then), valueAt(layer.gone, then)];
    if (end - begin <= 0.0005 || strength <= 0.002) return [];
    const on = (t: number): Point => [
      mix(from[0], to[0], t) + nx * aside,
      mix(from[1], to[1], t) + ny * aside,
    ];
    return [
      {
        from: on(begin),
        to: on(end),
        widths: [mix(...widths, begin), mix(...widths, end)],
        strength,
      },
    ];
  };
  const flicker = layer.flicker
    ? 1 -
      value(layer.flicker.amount) * (0.5 + 0.5 * noiseAt(layer.seed, 0, moment.time / layer.flicker.every))
    : 1;
  const strength = value(layer.brightness) * flicker;
  const rays: Ray[] = [];
  if (layer.sides) {
    const [count, apart, after] = [
      value(layer.sides.count),
      value(layer.sides.apart),
      value(layer.sides.after),
    ];
    const least = value(layer.sides.strength);
    for (let i = Math.round(count); i >= 1; i--) {
      for (const side of [-1, 1]) rays.push(...at(after * i, side * apart * i, (strength * least) / i));
    }
  }
  return [...rays, ...at(0, 0, strength)];
}

/** A beam of light between two points: a bright core, and light about it. It is best laid with the screen mode. */
export const beam: LayerKind<BeamLayer> = {
  measure(layer, parent, { value }) {
    const [width, height] = layer.size ? value(layer.size) : [parent.width, parent.height];
    return { size: { width, height } };
  },

  paint({ layer, box }, tools) {
    const { value, plane, scale } = tools;
    const rays = raysOf(layer, box, tools);
    if (rays.length === 0) return [];
    const colour = value(layer.colour);
    const glow = value(layer.glow);
    const solid = (path: Path, fill: string, opacity: number): Op => ({
      op: 'path',
      path,
      plane,
      fill: { kind: 'solid', colour: fill },
      opacity: Math.min(1, opacity),
    });
    // Far light, near light, core: each narrower, and brighter.
    const light = (wider: number, radius: number, opacity: number): Op[] =>
      withEffects(
        rays.map((ray) => solid(rayPath(ray, wider), colour, ray.strength * opacity)),
        [{ effect: 'blur', radius: Math.max(0.1, radius * scale) }],
      );
    const cores = rays.map((ray) => solid(rayPath(ray, 0), value(layer.core), ray.strength));
    const [first, last] = value(layer.flares) as Point;
    const main = rays.at(-1)!;
    const flares = [
      ...flare(main.from, first, main.strength, colour),
      ...flare(main.to, last, main.strength, colour),
    ];
    return grouped([
      ...(glow > 0 ? [...light(glow * 0.3, glow * 0.7, 0.42), ...light(glow * 0.06, glow * 0.16, 0.9)] : []),
      ...cores,
      ...flares.map((op): Op => ({ ...op, plane })),
    ]);
  },

  slots: () => [],
};

type Flare = Omit<Extract<Op, { op: 'path' }>, 'plane'>;

/** A ball of light, and a streak through it. */
function flare([x, y]: Point, size: number, strength: number, colour: string): Flare[] {
  if (size <= 0.5) return [];
  const made = (width: number, height: number, opacity: number): Flare => ({
    op: 'path',
    path: ellipsePath({ x: x - width, y: y - height, width: 2 * width, height: 2 * height }),
    fill: {
      kind: 'radial',
      centre: [x, y],
      radius: Math.max(width, height),
      stops: [
        [0, '#ffffff'],
        [0.18, withAlpha(colour, 0.85)],
        [1, withAlpha(colour, 0)],
      ],
    },
    opacity: Math.min(1, strength * opacity),
  });
  return [made(size, size, 0.9), made(size * 2.6, size * 0.05, 0.8)];
}
