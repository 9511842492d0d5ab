import { z } from 'zod';
import { MOST } from '../values/limits';
import { type BeamLayer, beam, beamSchema } from './beam';
import { type GrainLayer, grain, grainSchema } from './grain';
import { type GroupLayer, group, groupBase } from './group';
import type { LayerKind } from './kind';

declare module './kind' {
  interface KnownLayers {
    readonly any: Layer;
    readonly text: TextLayer;
  }
}

import { type NewerLayer, newer, newerSchema } from './newer';
import { type ParticlesLayer, particles, particlesSchema } from './particles';
import { type PictureLayer, picture, pictureSchema } from './picture';
import { points } from './points';
import { type PointsLayer, pointsSchema } from './pointsSchema';
import { type ShapeLayer, shape, shapeSchema } from './shape';
import { text } from './text';
import { type TextLayer, textSchema } from './textSchema';

export type Layer =
  | TextLayer
  | ShapeLayer
  | PictureLayer
  | ParticlesLayer
  | BeamLayer
  | PointsLayer
  | GrainLayer
  | NewerLayer
  | GroupLayer;

const groupSchema = z.strictObject({
  ...groupBase,
  get layers(): z.ZodArray<z.ZodType<Layer>> {
    return z.array(layerSchema).max(MOST.layers);
  },
});

/** The schema of each kind of layer. */
export const LAYER_SCHEMAS = {
  text: textSchema,
  shape: shapeSchema,
  picture: pictureSchema,
  particles: particlesSchema,
  beam: beamSchema,
  points: pointsSchema,
  grain: grainSchema,
  newer: newerSchema,
  group: groupSchema,
} as const;

/** Any layer: the kind is looked up first, so that faults are told of that kind alone. */
export const layerSchema: z.ZodType<Layer> = z.lazy(() =>
  z.discriminatedUnion('kind', [
    textSchema,
    shapeSchema,
    pictureSchema,
    particlesSchema,
    beamSchema,
    pointsSchema,
    grainSchema,
    newerSchema,
    groupSchema,
  ]),
);

/** One line per kind of layer: a layer meets its own kind. */
export function withKind<R>(layer: Layer, use: <L extends Layer>(kind: LayerKind<L>, layer: L) => R): R {
  switch (layer.kind) {
    case 'text':
      return use(text, layer);
    case 'shape':
      return use(shape, layer);
    case 'picture':
      return use(picture, layer);
    case 'particles':
      return use(particles, layer);
    case 'beam':
      return use(beam, layer);
    case 'points':
      return use(points, layer);
    case 'grain':
      return use(grain, layer);
    case 'newer':
      return use(newer, layer);
    case 'group':
      return use(group, layer);
  }
}

/** Slots a layer shows. */
export function slotsOf(layer: Layer): string[] {
  return withKind(layer, (kind, own) => kind.slots(own));
}

/** Every layer of a list, groups before their children. */
export function* everyLayer(layers: readonly Layer[]): Generator<Layer> {
  for (const layer of layers) {
    yield layer;
    if (layer.kind === 'group') yield* everyLayer(layer.layers);
  }
}
