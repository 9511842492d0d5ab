import type { ControlFill } from '../documents/fill';
import type { ReelItem } from '../documents/item';
import type { Reel } from '../documents/reel';
import type { Template } from '../documents/template';
import { effectKey } from '../effects/registry';
import { MOST_TREATMENTS, type Treatment, type TreatmentKind } from '../effects/treatment';
import { everyLayer } from '../layers/registry';
import type { PictureFill } from '../media/pictureFill';
import { freeName } from '../values/freeName';
import { changeItem, given, itemOf } from './items';
import { EditError, mayChange } from './place';
import { adjustPicture } from './reel';
import { TREATMENTS } from './treatmentKinds';

/** What is treated: an item of the reel, or what is in a slot of one of its graphics. */
export type Treated =
  | { readonly kind: 'item'; readonly item: string }
  | {
      readonly kind: 'slot';
      readonly item: string;
      readonly slot: string;
      /** What the slot shows now, its sample too. */
      readonly shown: PictureFill;
    };

/** The treatments of an item or of a slot, in the order in which they are applied. */
export function treatmentsOf(reel: Reel, of: Treated): readonly Treatment[] {
  if (of.kind === 'slot') return of.shown.treatments ?? [];
  return itemOf(reel, of.item)?.item.treatments ?? [];
}

/** @throws {EditError} when its track is locked */
function put(reel: Reel, of: Treated, change: (held: readonly Treatment[]) => readonly Treatment[]): Reel {
  const standing = itemOf(reel, of.item);
  if (!standing) return reel;
  mayChange([standing.track]);
  if (of.kind === 'slot')
    return adjustPicture(reel, of.item, of.slot, of.shown, (held) =>
      given({ ...held, treatments: some(change(held.treatments ?? [])) }),
    );
  return changeItem(
    reel,
    of.item,
    (item) => given({ ...item, treatments: some(change(item.treatments ?? [])) }) as ReelItem,
  );
}

const some = (list: readonly Treatment[]) => (list.length > 0 ? [...list] : undefined);

/**
 * Adds a treatment after those that are there.
 * @param inside whether what is treated keeps its edge when it is blurred, as pictures and clips do
 * @throws {EditError} when there are as many as there may be
 */
export function addTreatment(reel: Reel, of: Treated, kind: TreatmentKind, inside: boolean): Reel {
  return put(reel, of, (held) => {
    if (held.length >= MOST_TREATMENTS)
      throw new EditError(`There are ${MOST_TREATMENTS} treatments already. Take one away first.`);
    const id = freeName(kind, (name) => held.some((t) => t.id === name));
    const { fresh } = TREATMENTS[kind];
    return [...held, { id, ...fresh, ...(kind === 'blur' && inside ? { inside } : {}) } as Treatment];
  });
}

export function removeTreatment(reel: Reel, of: Treated, id: string): Reel {
  return put(reel, of, (held) => held.filter((t) => t.id !== id));
}

/** Switches a treatment off, or on again; what is set of it stays. */
export function switchTreatment(reel: Reel, of: Treated, id: string, on: boolean): Reel {
  return changed(reel, of, id, (t) => given({ ...t, off: on ? undefined : true }) as Treatment);
}

/** Puts a treatment one place earlier or later. */
export function moveTreatment(reel: Reel, of: Treated, id: string, by: -1 | 1): Reel {
  return put(reel, of, (held) => {
    const at = held.findIndex((t) => t.id === id);
    const to = at + by;
    if (at < 0 || to < 0 || to >= held.length) return held;
    const next = [...held];
    [next[at], next[to]] = [next[to]!, next[at]!];
    return next;
  });
}

/** What is set of a value of a treatment: one value, or keys. */
export function treatmentHeld(reel: Reel, of: Treated, id: string, key: string): ControlFill | undefined {
  const found = treatmentsOf(reel, of).find((t) => t.id === id);
  return found && ((found as unknown as Record<string, ControlFill>)[key] as ControlFill);
}

/** Sets a value of a treatment: one value, or keys. */
export function holdTreatment(reel: Reel, of: Treated, id: string, key: string, value: ControlFill): Reel {
  return changed(reel, of, id, (t) => ({ ...t, [key]: value }) as Treatment);
}

function changed(reel: Reel, of: Treated, id: string, by: (t: Treatment) => Treatment): Reel {
  return put(reel, of, (held) => held.map((t) => (t.id === id ? by(t) : t)));
}

/** An effect that a template has put on what is in a slot. */
export interface TemplateEffect {
  /** `layer/effect`, as it is kept when it is switched off. */
  readonly key: string;
  /** What the layer is called. */
  readonly layer: string;
  readonly effect: string;
}

/** What a template has put on the layers that show a slot. */
export function effectsOnSlot(template: Template, slot: string): TemplateEffect[] {
  const found = [...everyLayer(template.layers)].flatMap((layer) =>
    layer.kind === 'picture' && layer.slot === slot
      ? layer.effects.map((effect) => ({
          key: effectKey(layer.id, effect),
          layer: layer.name ?? layer.id.replaceAll('-', ' '),
          effect: effect.effect,
        }))
      : [],
  );
  return found.filter(({ key }, i) => found.findIndex((f) => f.key === key) === i);
}

/** Switches an effect of the template on a slot off, or on again. */
export function switchTemplateEffect(
  reel: Reel,
  { item, slot, shown }: Treated & { kind: 'slot' },
  key: string,
  on: boolean,
): Reel {
  const standing = itemOf(reel, item);
  if (!standing) return reel;
  mayChange([standing.track]);
  return adjustPicture(reel, item, slot, shown, (held) => {
    const others = (held.plain ?? []).filter((k) => k !== key);
    const plain = on ? others : [...others, key];
    return given({ ...held, plain: plain.length > 0 ? plain : undefined });
  });
}
