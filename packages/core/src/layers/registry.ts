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

const groupSchema: z.ZodType<GroupLayer> = z.lazy(() =>
  z.strictObject({ ...groupBase, layers: z.array(layerSchema).max(400) }),
) as z.ZodType<GroupLayer>;

const schemas: Record<Layer['kind'], z.ZodType<Layer>> = {
  text: textSchema as unknown as z.ZodType<Layer>,
  shape: shapeSchema as unknown as z.ZodType<Layer>,
  picture: pictureSchema as unknown as z.ZodType<Layer>,
  grain: grainSchema as unknown as z.ZodType<Layer>,
  group: groupSchema as unknown as z.ZodType<Layer>,
};

/** Any layer: the kind is looked up first, so that faults are told of that kind alone. */
export const layerSchema: z.ZodType<Layer> = z
  .looseObject({ kind: z.enum(Object.keys(schemas) as [Layer['kind'], ...Layer['kind'][]]) })
  .transform((input, context): Layer => {
    const result = schemas[input.kind].safeParse(input);
    if (result.success) return result.data;
    for (const issue of result.error.issues) context.issues.push({ ...issue, input } as never);
    return z.NEVER;
  });

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
