import type { Reel } from '../documents/reel';
import { changeItem } from '../edit/items';
import { changedLayers } from '../evaluate/changes';
import { everyLayer } from '../layers/registry';
import { changeMade, graphicOn, isBench } from './bench';
import { changePart } from './places';

/**
 * What was changed of a text on a bench, by the tools that a user has for it, as the template's own.
 * @param layer id of the text
 */
export function textKept(reel: Reel, layer: string): Reel {
  if (!isBench(reel)) return reel;
  const id = graphicOn(reel);
  const item = reel.tracks.flatMap((t) => t.items).find((i) => i.id === id);
  const change = item?.kind === 'graphic' ? item.fill.texts?.[layer] : undefined;
  if (!change) return reel;
  const kept = changeMade(reel, (template) => {
    const changed = [...everyLayer(changedLayers(template.layers, { [layer]: change }))];
    return changePart(template, layer, (held) => changed.find((l) => l.id === layer) ?? held);
  });
  return changeItem(kept, id, (held) => {
    if (held.kind !== 'graphic') return held;
    const { texts = {}, ...fill } = held.fill;
    const others = Object.entries(texts).filter(([other]) => other !== layer);
    return { ...held, fill: others.length > 0 ? { ...fill, texts: Object.fromEntries(others) } : fill };
  });
}
