import { faultOfFill } from '../documents/controls';
import type { Fill, SlotFill } from '../documents/fill';
import type { ReelItemOf } from '../documents/item';
import type { Reel } from '../documents/reel';
import { suitingPoints, suitingTexts } from '../documents/suiting';
import type { Control, Slot, Template } from '../documents/template';
import { everyLayer } from '../layers/registry';
import { changeTracks, given, itemOf } from './items';
import { EditError, mayChange, putItem, withoutUnused, withTemplate } from './place';

/** What becomes of a fill in another template. */
export interface Carried {
  readonly fill: Fill;
  /** Names of slots, as the first template has them, whose content goes along, and of those it stays behind of. */
  readonly along: readonly string[];
  readonly behind: readonly string[];
}

/** What can hold each other's content: words words, pictures pictures. */
const LIKE: Readonly<Record<Slot['kind'], 'words' | 'pictures' | 'sounds'>> = {
  text: 'words',
  list: 'words',
  picture: 'pictures',
  logo: 'pictures',
  sound: 'sounds',
};

const sameName = (a: { name: string }, b: { name: string }) => a.name.toLowerCase() === b.name.toLowerCase();

/**
 * Finds for each of some things its like among others, each once: of one id, then of one name, then of one kind in their
 * order, and last whatever can stand for it.
 */
function matched<T extends { id: string; name: string; kind: string }>(
  things: readonly T[],
  others: readonly T[],
  like: (a: T, b: T) => boolean,
): Map<T, T> {
  const found = new Map<T, T>();
  const free = new Set(others);
  const rounds: ((a: T, b: T) => boolean)[] = [
    (a, b) => a.id === b.id && like(a, b),
    (a, b) => sameName(a, b) && like(a, b),
    (a, b) => a.kind === b.kind && like(a, b),
    like,
  ];
  for (const round of rounds)
    for (const thing of things) {
      if (found.has(thing)) continue;
      const other = [...free].find((o) => round(thing, o));
      if (!other) continue;
      found.set(thing, other);
      free.delete(other);
    }
  return found;
}

/**
 * The content of a graphic as another template takes it: by name, kind and order. Colours and fonts go along by their
 * part in the brand, other controls where both templates have them. What text layers were changed by goes along to
 * another edition of the same template, and stays behind otherwise, since it belongs to them.
 */
export function carriedFill(from: Template, fill: Fill, to: Template): Carried {
  const hidden = new Set(fill.hidden);
  const filled = from.slots.filter((s) => Object.hasOwn(fill.slots, s.id));
  const slots = matched(filled, to.slots, (a, b) => LIKE[a.kind] === LIKE[b.kind]);
  // Slots that were only hidden are hidden where the very same is in the other.
  const away = from.slots.flatMap((s) => {
    const other = slots.get(s) ?? to.slots.find((o) => o.id === s.id && o.kind === s.kind);
    return hidden.has(s.id) && other ? [other.id] : [];
  });
  const chosen = from.controls.filter((c) => Object.hasOwn(fill.controls, c.id));
  const controls = matched(
    chosen,
    to.controls,
    (a, b) => a.kind === b.kind && (a.id === b.id || sameName(a, b) || sameRole(a, b)),
  );
  const values = [...controls].flatMap(([a, b]) => {
    const value = fill.controls[a.id]!;
    return faultOfFill(b, value) === undefined ? [[b.id, value] as const] : [];
  });
  const isEdition = from.id === to.id;
  const layers = new Set([...everyLayer(to.layers)].flatMap((l) => (l.kind === 'text' ? [l.id] : [])));
  const held = isEdition ? suitingTexts(fill.texts ?? {}, to) : {};
  const texts = Object.entries(held).filter(([id]) => layers.has(id));
  const look = fill.look !== undefined && to.looks.some((l) => l.id === fill.look) ? { look: fill.look } : {};
  return {
    fill: {
      ...look,
      slots: Object.fromEntries(
        [...slots].map(([a, b]) => [b.id, isEdition ? fill.slots[a.id]! : heldIn(fill.slots[a.id]!)]),
      ),
      controls: Object.fromEntries(values),
      ...(away.length > 0 ? { hidden: away } : {}),
      ...(fill.flat ? { flat: true as const } : {}),
      ...(texts.length > 0 ? { texts: Object.fromEntries(texts) } : {}),
    },
    along: filled.filter((s) => slots.has(s)).map((s) => s.name),
    behind: filled.filter((s) => !slots.has(s)).map((s) => s.name),
  };
}

const sameRole = (a: Control, b: Control) => a.brand !== undefined && a.brand === b.brand;

/** What was in a slot as one of another template holds it: effects that were switched off belonged to the template before. */
function heldIn(held: SlotFill): SlotFill {
  if (typeof held !== 'object' || held === null || !('plain' in held)) return held;
  const { plain: _, ...rest } = held;
  return rest;
}

/**
 * Makes a graphic of another template, where and when it is, with what can go along of its fill. Where it is longer now
 * and its track has no room for it, it goes on one that has.
 * @throws {EditError} when there is no such graphic, or its track is locked
 */
export function setTemplate(reel: Reel, id: string, template: Template): { reel: Reel; carried: Carried } {
  const standing = itemOf(reel, id);
  const from = standing?.item.kind === 'graphic' ? reel.templates[standing.item.template] : undefined;
  if (standing?.item.kind !== 'graphic' || !from)
    throw new EditError('This title is not in the reel any more.');
  mayChange([standing.track]);
  const carried = carriedFill(from, standing.item.fill, template);
  const { reel: taken, key } = withTemplate(reel, template);
  const { item } = standing;
  const cues = new Set(template.cues.map((c) => c.id));
  const made: ReelItemOf<'graphic'> = given({
    ...item,
    template: key,
    fill: carried.fill,
    points: suitingPoints(item.points, template),
    meets: item.meets && cues.has(item.meets.cue) ? item.meets : undefined,
  }) as ReelItemOf<'graphic'>;
  const without = changeTracks(taken, (t) =>
    t.id === standing.track.id ? { ...t, items: t.items.filter((i) => i.id !== id) } : t,
  );
  return { reel: withoutUnused(putItem(without, made, standing.track.id)), carried };
}
