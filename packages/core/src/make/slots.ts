import type { Slot, Template } from '../documents/template';
import { EditError } from '../edit/place';
import { everyLayer, type Layer, slotsOf } from '../layers/registry';
import type { Mark } from '../time/clock';
import { freeName } from '../values/freeName';
import { idOf } from './parts';
import { changePart, nameOfPart, partOf } from './places';

const nameFault = (template: Template, name: string, own?: string): string | undefined => {
  const words = name.trim();
  if (words === '') return 'Give the slot a name that says what belongs in it.';
  if (words.length > 80) return `A name has 80 letters at most; this one has ${words.length}.`;
  const other = template.slots.some((s) => s.id !== own && s.name.toLowerCase() === words.toLowerCase());
  return other ? `There is a slot called “${words}” already.` : undefined;
};

/** An id that no slot has. */
const freeSlot = (template: Template, name: string): string =>
  freeName(idOf(name) || 'slot', (id) => template.slots.some((s) => s.id === id));

/** What every slot has: it is in all scenes, and best seen when the template is. */
const slotBase = (template: Template, name: string) => ({
  id: freeSlot(template, name),
  name: name.trim(),
  scenes: template.scenes.map((s) => s.id),
  moment: template.still as Mark & { of: 'in' | 'hold' | 'out' },
  optional: false,
});

/**
 * Makes the words of a text a slot, which they are the sample of.
 * @throws {EditError} when the name will not do, or the text shows a slot already
 */
export function wordsToSlot(
  template: Template,
  id: string,
  name: string,
): { template: Template; slot: string } {
  const fault = nameFault(template, name);
  if (fault) throw new EditError(fault);
  const layer = partOf(template, id);
  if (layer.kind !== 'text' || !('text' in layer.words))
    throw new EditError(`“${nameOfPart(layer)}” shows a slot already.`);
  const slot: Slot = {
    ...slotBase(template, name),
    kind: 'text',
    sample: layer.words.text,
    manyLines: layer.words.text.includes('\n'),
  };
  const shown = changePart(template, id, (held) => ({ ...held, words: { slot: slot.id } }) as Layer);
  return { template: { ...shown, slots: [...template.slots, slot] }, slot: slot.id };
}

/** A new slot for pictures and clips, or for a logo, with nothing in it. */
export function addPictureSlot(
  template: Template,
  name: string,
  kind: 'picture' | 'logo',
): { template: Template; slot: string } {
  const wanted = freeName(name, (n) => nameFault(template, n) !== undefined, ' ');
  const base = slotBase(template, wanted);
  const slot: Slot =
    kind === 'logo'
      ? { ...base, kind, sample: null, brand: 'main' }
      : { ...base, kind, sample: null, sampleFocus: [0.5, 0.5], crops: true, heard: false };
  return { template: { ...template, slots: [...template.slots, slot] }, slot: slot.id };
}

/** A new slot for a sound, on the first cue; where there is none yet, on one at the beginning. */
export function addSoundSlot(template: Template, name: string): { template: Template; slot: string } {
  const cues = template.cues.length > 0 ? template.cues : [FIRST_CUE];
  const wanted = freeName(name, (n) => nameFault(template, n) !== undefined, ' ');
  const slot: Slot = {
    ...slotBase(template, wanted),
    ...{ kind: 'sound', sample: null, cue: cues[0]!.id, optional: true },
    ...{ offset: 0, level: 0, fadeIn: 0, fadeOut: 0, loops: false },
  };
  return { template: { ...template, cues: [...cues], slots: [...template.slots, slot] }, slot: slot.id };
}

const FIRST_CUE: Template['cues'][number] = { id: 'start', name: 'It begins', at: { at: 0, of: 'in' } };

/** Names of the layers that show a slot. */
export function shownBy(template: Template, slot: string): string[] {
  return partsWithSlot(template, slot).map((id) => nameOfPart(partOf(template, id)));
}

/**
 * Takes a slot away: words that showed it keep its sample as their own.
 * @throws {EditError} when a picture or something else still shows it
 */
export function removeSlot(template: Template, id: string): Template {
  const slot = template.slots.find((s) => s.id === id);
  if (!slot) throw new EditError('This slot is not in the template any more.');
  const sample = slot.kind === 'text' || slot.kind === 'list' ? slot.sample : '';
  const text = typeof sample === 'string' ? sample : sample.text;
  let next = template;
  for (const layer of everyLayer(template.layers)) {
    if (layer.kind === 'text' && 'slot' in layer.words && layer.words.slot === id)
      next = changePart(next, layer.id, (held) => ({ ...held, words: { text } }) as Layer);
    if (layer.needs?.includes(id)) {
      const needs = layer.needs.filter((s) => s !== id);
      next = changePart(next, layer.id, ({ needs: _, ...held }) =>
        needs.length > 0 ? ({ ...held, needs } as Layer) : (held as Layer),
      );
    }
    if (layer.reads === id) next = changePart(next, layer.id, ({ reads: _, ...held }) => held as Layer);
  }
  const by = shownBy(next, id);
  if (by.length > 0)
    throw new EditError(`“${by.join('”, “')}” shows this slot. Take that out first, or let it show another.`);
  return { ...next, slots: next.slots.filter((s) => s.id !== id) };
}

/** Words to try a slot with: the shortest, long ones, and scripts that are set in other ways. Ours, of the festival. */
export const TRIES = [
  { id: 'as-is', name: 'As it is', words: undefined },
  { id: 'one', name: 'One letter', words: 'I' },
  {
    id: 'sixty',
    name: 'Sixty letters',
    words: 'Wilhelmina Thistlethwaite-Oyelaran, keeper, the old windmill',
  },
  { id: 'arabic', name: 'Arabic', words: 'مهرجان الطائرات الورقية' },
  { id: 'hindi', name: 'Devanagari', words: 'पतंग महोत्सव का पहला दिन' },
  { id: 'japanese', name: 'Japanese', words: '凧あげ祭りの三日間' },
  { id: 'empty', name: 'Nothing', words: '' },
] as const;
export type TryId = (typeof TRIES)[number]['id'];

/** Ids of the layers that show a slot. */
export const partsWithSlot = (template: Template, slot: string): string[] =>
  [...everyLayer(template.layers)].flatMap((l) => (slotsOf(l).includes(slot) ? [l.id] : []));
