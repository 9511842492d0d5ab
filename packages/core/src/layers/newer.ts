import { z } from 'zod';
import { layerBase, pointProperty } from './common';
import type { LayerKind } from './kind';

/** A part of a kind that this version does not know, kept as it came. */
export const newerSchema = z.strictObject({
  ...layerBase,
  kind: z.literal('newer'),
  /** Frame units, for what stands for it; its parent's box when absent. */
  size: pointProperty.optional(),
  /** The part as it was read. */
  was: z.record(z.string(), z.unknown()),
});
export type NewerLayer = z.infer<typeof newerSchema>;

/** It takes the room of what stands for it, which is painted as of any layer, and none when there is nothing. */
export const newer: LayerKind<NewerLayer> = {
  measure(layer, parent, { value, notice, standIn }) {
    const stands = layer.standIn !== undefined && standIn(layer.standIn) !== undefined;
    notice({ kind: 'newer-part', slot: '', part: layer.name ?? layer.id, stands });
    if (!stands) return undefined;
    const [width, height] = layer.size ? value(layer.size) : [parent.width, parent.height];
    return { size: { width, height } };
  },

  paint: () => [],

  slots: () => [],
};
