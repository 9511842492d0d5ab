import type { EffectDocument } from '../effects/registry';
import type { KnownLayers } from './kind';

/** A layer's effects; a text's own shadow is one of them. */
export function layerEffects(layer: KnownLayers['any']): readonly EffectDocument[] {
  if (layer.kind !== 'text' || !layer.shadow) return layer.effects;
  const { angle, distance, blur, strength, colour, only } = layer.shadow;
  return [
    ...layer.effects,
    {
      effect: 'shadow',
      offset: [0, 0],
      angle,
      distance,
      radius: blur,
      opacity: strength,
      colour,
      ...(only ? { only } : {}),
    },
  ];
}
