import { z } from 'zod';
import { property } from '../values/property';
import { layerBase, positiveProperty } from './common';
import type { LayerKind } from './kind';

export const grainSchema = z.strictObject({
  ...layerBase,
  kind: z.literal('grain'),
  amount: property(z.number().min(0).max(1)),
  /** Size of a grain in frame units. */
  size: positiveProperty.default(1.5),
  /** Frames of the template that one pattern of grain stays. */
  every: z.number().int().min(1).max(60).default(2),
});
export type GrainLayer = z.infer<typeof grainSchema>;

/** Film grain over all that lies below, laid with overlay: it moves, and keeps black and white clean. */
export const grain: LayerKind<GrainLayer> = {
  measure: (_layer, parent) => ({ size: parent }),

  paint({ layer }, { value, moment }) {
    const opacity = value(layer.amount);
    if (opacity <= 0) return [];
    return [
      {
        op: 'grain',
        seed: Math.floor(moment.time / layer.every),
        size: value(layer.size),
        area: { x: 0, y: 0, ...moment.frame },
        opacity,
        blend: 'overlay',
      },
    ];
  },

  slots: () => [],
};
