import { everyLayer, type GraphicScene, type TextLayer } from '@fresh-reel/core';

/** The text layers that show a slot, in the order they are stacked. */
export function layersOf(scene: GraphicScene, slot: string): TextLayer[] {
  return [...everyLayer(scene.layers)].filter(
    (l): l is TextLayer => l.kind === 'text' && 'slot' in l.words && l.words.slot === slot,
  );
}

/** The slot a text layer shows, if it shows one. */
export function slotOf(layer: TextLayer | undefined): string | undefined {
  return layer && 'slot' in layer.words ? layer.words.slot : undefined;
}
