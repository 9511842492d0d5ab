import { z } from 'zod';
import type { LayerBase } from './common';
import { type GrainLayer, grain, grainSchema } from './grain';
import { type GroupLayer, group, groupBase } from './group';
import type { LayerKind } from './kind';
import { type PictureLayer, picture, pictureSchema } from './picture';
import { type ShapeLayer, shape, shapeSchema } from './shape';
import { type TextLayer, text, textSchema } from './text';

export type Layer = TextLayer | ShapeLayer | PictureLayer | GrainLayer | GroupLayer;

/** One line per kind of layer. */
const KINDS = { text, shape, picture, grain, group } as const;

const groupSchema = z.strictObject({
  ...groupBase,
  get layers(): z.ZodArray<z.ZodType<Layer>> {
    return z.array(layerSchema).max(400);
  },
});

/** Any layer: the kind is looked up first, so that faults are told of that kind alone. */
export const layerSchema: z.ZodType<Layer> = z.lazy(() =>
  z.discriminatedUnion('kind', [textSchema, shapeSchema, pictureSchema, grainSchema, groupSchema]),
) as z.ZodType<Layer>;

export function kindOf(layer: LayerBase & { kind: Layer['kind'] }): LayerKind<Layer> {
  return KINDS[layer.kind] as unknown as LayerKind<Layer>;
}

/** Every layer of a list, groups before their children. */
export function* everyLayer(layers: readonly Layer[]): Generator<Layer> {
  for (const layer of layers) {
    yield layer;
    if (layer.kind === 'group') yield* everyLayer(layer.layers);
  }
}
