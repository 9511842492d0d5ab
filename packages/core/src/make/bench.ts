import type { ReelItem, Track } from '../documents/item';
import type { Reel } from '../documents/reel';
import { suitingPoints, suitingTexts } from '../documents/suiting';
import type { Template } from '../documents/template';
import { faultsOfTemplate } from '../documents/templateFaults';
import { changeTracks, given } from '../edit/items';
import { EditError } from '../edit/place';
import { newReel } from '../edit/reel';
import type { LaidPart } from '../evaluate/paintPass';
import { boundsOf } from '../geometry/rect';
import { everyLayer, type Layer } from '../layers/registry';
import { graphicsOf } from '../reel/graphicTime';
import { layoutFrame } from '../values/frame';

/** A reel on which a template is made: one graphic of it, filled as its user would. */
export type Bench = Reel & { readonly making: NonNullable<Reel['making']> };

export const isBench = (reel: Reel): reel is Bench => reel.making !== undefined;

/** A bench for a template. Time and id are handed in. */
export function benchOf(
  template: Template,
  made: { readonly id: string; readonly name: string; readonly now: string },
): Bench {
  const reel = newReel(template, { ...made, shape: template.shape });
  return { ...reel, making: { template: template.id, hidden: [], locked: [] } };
}

/** The template that is made on a bench. */
export const madeOn = ({ templates, making }: Bench): Template => templates[making.template]!;

/** The id of the graphic that stands on a bench. */
export const graphicOn = (bench: Bench): string => graphicsOf(bench)[0]!.id;

/**
 * Changes the template that is made. What does not fit together is not taken.
 * @throws {EditError} naming what would not fit
 */
export function changeMade(reel: Reel, by: (template: Template) => Template): Reel {
  if (!isBench(reel)) throw new EditError('No template is made here.');
  const template = madeOn(reel);
  const next = by(template);
  if (next === template) return reel;
  const [fault] = faultsOfTemplate(next);
  if (fault) throw new EditError(`That does not fit: ${fault}.`);
  const made = { ...reel, templates: { ...reel.templates, [reel.making.template]: next } };
  return next.controls === template.controls ? made : changeTracks(made, (track) => suiting(track, next));
}

/** A track whose titles hold nothing that a template they are made of does not have any more. */
function suiting(track: Track, template: Template): Track {
  const items = track.items.map((item) => {
    if (item.kind !== 'graphic' || (!item.fill.texts && !item.points)) return item;
    const { texts, ...fill } = item.fill;
    return given({
      ...item,
      fill: { ...fill, ...(texts ? { texts: suitingTexts(texts, template) } : {}) },
      points: suitingPoints(item.points, template),
    }) as ReelItem;
  });
  return { ...track, items };
}

/** Puts parts out of sight, or locks them, while one works; or takes that back. */
export function setAside(reel: Reel, ids: readonly string[], what: 'hidden' | 'locked', on: boolean): Reel {
  if (!isBench(reel)) throw new EditError('No template is made here.');
  const others = reel.making[what].filter((id) => !ids.includes(id));
  return { ...reel, making: { ...reel.making, [what]: on ? [...others, ...ids] : others } };
}

/** A bench as it is looked at: without what is out of sight. */
export function asSeen(bench: Bench): Reel {
  const hidden = new Set(bench.making.hidden);
  if (hidden.size === 0) return bench;
  const template = madeOn(bench);
  return {
    ...bench,
    templates: {
      ...bench.templates,
      [template.id]: { ...template, layers: without(template.layers, hidden) },
    },
  };
}

/** Layers with some that are not seen; what fits around those still does. */
function without(layers: readonly Layer[], hidden: ReadonlySet<string>): Layer[] {
  return layers.map((layer) => {
    if (hidden.has(layer.id)) return { ...layer, opacity: 0 };
    return layer.kind === 'group' ? { ...layer, layers: without(layer.layers, hidden) } : layer;
  });
}

/** Whether a part cannot be changed: it is locked, or a group it stands in is. */
export function isLocked({ making, templates }: Bench, id: string): boolean {
  const locked = new Set(making.locked);
  if (locked.size === 0) return false;
  if (locked.has(id)) return true;
  return templates[making.template]!.layers.some((layer) => holdsLocked(layer, id, locked));
}

function holdsLocked(layer: Layer, id: string, locked: ReadonlySet<string>): boolean {
  if (layer.kind !== 'group') return false;
  if (locked.has(layer.id)) return [...everyLayer(layer.layers)].some((l) => l.id === id);
  return layer.layers.some((inner) => holdsLocked(inner, id, locked));
}

/** The part of its frame that a part takes in its small picture, and how much larger than it is it may be there. */
const FILLS = 0.84;
const LARGEST = 12;

/**
 * A reel that shows one part of a template alone, with all that is in it and the groups it stands in, as large as the
 * frame allows.
 * @param lies where it lies in the frame when the template is best seen; as it comes, when absent
 */
export function partAlone(template: Template, id: string, lies?: LaidPart['quad']): Reel {
  const seen = (layers: readonly Layer[]): Layer[] =>
    layers.map((layer) => {
      if (layer.id === id) return layer;
      if (layer.kind === 'group' && [...everyLayer(layer.layers)].some((l) => l.id === id))
        return { ...layer, layers: seen(layer.layers) };
      return { ...layer, opacity: 0 };
    });
  const alone = { ...template, layers: seen(template.layers) };
  const reel = newReel(alone, { id: `part-${id}`, name: id, now: '', shape: template.shape });
  if (!lies) return reel;
  const frame = layoutFrame(reel.frame);
  const { x, y, width, height } = boundsOf(lies);
  if (width <= 0 && height <= 0) return reel;
  const scale = Math.min(
    LARGEST,
    (frame.width * FILLS) / Math.max(1, width),
    (frame.height * FILLS) / Math.max(1, height),
  );
  const away = (middle: number, side: number) => -(middle - side / 2) * scale;
  const move: [number, number] = [away(x + width / 2, frame.width), away(y + height / 2, frame.height)];
  return {
    ...reel,
    tracks: reel.tracks.map((track) => ({
      ...track,
      items: track.items.map((item) => ({ ...item, framing: { move, scale } })),
    })),
  };
}
