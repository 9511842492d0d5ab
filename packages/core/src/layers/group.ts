import { z } from 'zod';
import { layerBase, numberProperty, pointProperty, switchProperty } from './common';
import type { LayerKind } from './kind';
import type { Layer } from './registry';

/** Children are declared in the registry, where all kinds are known. */
export const groupBase = {
  ...layerBase,
  kind: z.literal('group'),
  /** Frame units; the parent's box when absent (a row or column takes its size from its children). */
  size: pointProperty.optional(),
  /** Sets the children side by side or one below the other; empty ones take no room. */
  row: z
    .strictObject({
      direction: z.enum(['row', 'column']),
      gap: numberProperty.default(0),
      /** Across the direction: 0 start, 0.5 middle, 1 end. */
      align: numberProperty.default(0),
      /** A slot of words: where they read from right to left, order and side are turned round. */
      reads: z.string().optional(),
      /** Whether the order is turned round, as when a strap changes sides. */
      reverse: switchProperty.default(false),
    })
    .optional(),
  /** `listed`: the last child is on top. `depth`: the nearest to the camera is. */
  order: z.enum(['listed', 'depth']).default('listed'),
} as const;

export interface GroupLayer extends z.infer<z.ZodObject<typeof groupBase>> {
  layers: Layer[];
}

/** Layers that share a place, a motion and an opacity. */
export const group: LayerKind<GroupLayer> = {
  measure(layer, parent, { value }) {
    const [width, height] = layer.size ? value(layer.size) : [parent.width, parent.height];
    return { size: { width, height } };
  },

  paint(node, { paintChild, depth }) {
    const children =
      node.layer.order === 'depth' ? [...node.children].sort((a, b) => depth(b) - depth(a)) : node.children;
    return children.flatMap(paintChild);
  },

  slots: () => [],
};
