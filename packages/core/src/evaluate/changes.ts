import type { Fill } from '../documents/fill';
import type { Template } from '../documents/template';
import { everyLayer, type Layer } from '../layers/registry';
import type { TextLayer } from '../layers/textSchema';
import type { TextChange } from '../layers/textStyle';

/** A text layer with what the user changed of it. */
export function changedText(layer: TextLayer, change: TextChange): TextLayer {
  const { motion, fit, shadow, along, ...rest } = change;
  const { shadow: ownShadow, along: ownAlong, ...own } = layer;
  const newShadow = shadow === undefined ? ownShadow : shadow;
  const newAlong = along === undefined ? ownAlong : along;
  const given = Object.fromEntries(Object.entries(rest).filter(([, v]) => v !== undefined));
  return {
    ...own,
    ...given,
    fit: { ...layer.fit, ...(fit as object | undefined) },
    motion: { ...layer.motion, ...(motion as object | undefined) },
    ...(newShadow ? { shadow: newShadow } : {}),
    ...(newAlong ? { along: newAlong } : {}),
  };
}

/** Whether a layer has depth of its own that can be done without: sides of letters, or a lens. */
const hasDepth = (layer: Layer): boolean =>
  layer.kind === 'text'
    ? layer.depth !== undefined && layer.depth.fronts === undefined
    : layer.kind === 'group' && layer.focus !== undefined;

/** Whether a template's graphics can do without depth. */
export const canBeFlat = ({ layers }: Pick<Template, 'layers'>): boolean =>
  [...everyLayer(layers)].some(hasDepth);

/** Layers without depth: letters flat, everything as sharp as what is near. Letters that bear pictures stay solid. */
export const flatLayers = (layers: readonly Layer[]): Layer[] =>
  layers.map((layer): Layer => {
    if (layer.kind === 'group') {
      const { focus: _, ...flat } = layer;
      return { ...flat, layers: flatLayers(layer.layers) };
    }
    if (layer.kind !== 'text' || !hasDepth(layer)) return layer;
    const { depth: _, ...flat } = layer;
    return flat;
  });

/** The template's layers with the user's changes of its texts. The same array when there are none. */
export function changedLayers(layers: readonly Layer[], texts: Fill['texts'] = {}): readonly Layer[] {
  if (Object.keys(texts).length === 0) return layers;
  return layers.map((layer): Layer => {
    if (layer.kind === 'group') return { ...layer, layers: [...changedLayers(layer.layers, texts)] };
    const change = layer.kind === 'text' && Object.hasOwn(texts, layer.id) ? texts[layer.id] : undefined;
    return layer.kind === 'text' && change ? changedText(layer, change) : layer;
  });
}
