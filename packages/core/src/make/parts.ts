import type { Control, Slot, Template } from '../documents/template';
import { EditError } from '../edit/place';
import type { GroupLayer } from '../layers/group';
import { everyLayer, LAYER_SCHEMAS, type Layer, slotsOf } from '../layers/registry';
import { sameData } from '../paint/ops';
import { freeName } from '../values/freeName';
import { linkedControls } from '../values/linking';
import { changePart, nameOfPart, partOf } from './places';

/** Where a layer stands: the group it is in, if it is in one, the layers beside it, and which of them it is. */
export interface Standing {
  readonly group: GroupLayer | undefined;
  readonly beside: readonly Layer[];
  readonly at: number;
}

/** @throws {EditError} when it is not there any more */
export function standingOf(template: Template, id: string): Standing {
  const find = (layers: readonly Layer[], group: GroupLayer | undefined): Standing | undefined => {
    const at = layers.findIndex((l) => l.id === id);
    if (at >= 0) return { group, beside: layers, at };
    for (const layer of layers) {
      const found = layer.kind === 'group' ? find(layer.layers, layer) : undefined;
      if (found) return found;
    }
    return undefined;
  };
  const found = find(template.layers, undefined);
  if (!found) throw new EditError('This part is not in the template any more.');
  return found;
}

/** Every group a layer stands in, the outermost first. */
export function groupsAround(template: Template, id: string): string[] {
  const around = standingOf(template, id).group;
  return around ? [...groupsAround(template, around.id), around.id] : [];
}

/** A template whose layers in a group, or outside of all groups, are others. */
function withLayers(template: Template, group: string | undefined, layers: readonly Layer[]): Template {
  if (group === undefined) return { ...template, layers: [...layers] };
  return changePart(template, group, (held) =>
    held.kind === 'group' ? { ...held, layers: [...layers] } : held,
  );
}

/** An id that no layer of a template has. */
export function freePartId(
  template: Template,
  wanted: string,
  also: ReadonlySet<string> = new Set(),
): string {
  const taken = new Set([...everyLayer(template.layers)].map((l) => l.id));
  return freeName(idOf(wanted) || 'part', (id) => taken.has(id) || also.has(id));
}

/** Words as an id: `Left kite` is `left-kite`. */
export const idOf = (words: string): string =>
  words
    .normalize('NFKD')
    .toLowerCase()
    .replace(/[^a-z0-9]+/g, '-')
    .replace(/^-+|-+$/g, '')
    .slice(0, 60);

/**
 * Puts a layer into a template: above another one, or, when that is a group, as the topmost in it.
 * @param over id of a layer; on top of all, when absent
 */
export function putPart(template: Template, layer: Layer, over?: string): Template {
  if (over === undefined) return withLayers(template, undefined, [...template.layers, layer]);
  const above = partOf(template, over);
  if (above.kind === 'group') return withLayers(template, over, [...above.layers, layer]);
  const { group, beside, at } = standingOf(template, over);
  return withLayers(template, group?.id, [...beside.slice(0, at + 1), layer, ...beside.slice(at + 1)]);
}

/**
 * Takes layers out. What fitted around them fits around the others, what they were a matte of is whole.
 * @throws {EditError} when nothing would be left, or another needs one of them
 */
export function removeParts(template: Template, ids: readonly string[]): Template {
  const away = new Set(ids.flatMap((id) => [...everyLayer([partOf(template, id)])].map((l) => l.id)));
  for (const layer of everyLayer(template.layers)) {
    if (away.has(layer.id) || layer.kind !== 'particles' || !('text' in layer.from)) continue;
    if (away.has(layer.from.text))
      throw new EditError(
        `“${nameOfPart(layer)}” comes from these letters. Let it come from elsewhere, or take it out first.`,
      );
  }
  const left = (layers: readonly Layer[]): Layer[] =>
    layers.flatMap((layer) => {
      if (away.has(layer.id)) return [];
      const own = withoutNames(layer, away);
      return [own.kind === 'group' ? { ...own, layers: left(own.layers) } : own];
    });
  const layers = left(template.layers);
  if (layers.length === 0) throw new EditError('A template has one part at least.');
  return { ...template, layers };
}

/** A layer that names others beside it no more. */
function withoutNames(layer: Layer, away: ReadonlySet<string>): Layer {
  let own = layer;
  if (own.matte && away.has(own.matte.layer)) {
    const { matte: _, ...rest } = own;
    own = rest as Layer;
  }
  if (own.kind !== 'shape' || !own.hug || !own.hug.layers.some((id) => away.has(id))) return own;
  const held = own.hug.layers.filter((id) => !away.has(id));
  const { hug, ...rest } = own;
  if (held.length > 0) return { ...own, hug: { ...hug, layers: held } };
  return { ...rest, size: own.size ?? [400, 160] };
}

/** A layer and all that is in it with ids of their own, which names among them follow. */
function withNewIds(layer: Layer, free: (wanted: string) => string): Layer {
  const ids = new Map([...everyLayer([layer])].map((l) => [l.id, free(l.id)]));
  const name = (id: string) => ids.get(id) ?? id;
  const renamed = (held: Layer): Layer => {
    const own = { ...held, id: name(held.id) };
    if (own.matte) own.matte = { ...own.matte, layer: name(own.matte.layer) };
    if (own.kind === 'shape' && own.hug) own.hug = { ...own.hug, layers: own.hug.layers.map(name) };
    if (own.kind === 'particles' && 'text' in own.from) own.from = { ...own.from, text: name(own.from.text) };
    if (own.kind === 'text' && 'slot' in own.words && own.words.beside)
      own.words = { ...own.words, beside: own.words.beside.map(name) };
    if (own.kind === 'group') own.layers = own.layers.map(renamed);
    return own;
  };
  return renamed(layer);
}

/** A maker of ids that neither a template nor what was asked before has. */
function freeIds(template: Template): (wanted: string) => string {
  const given = new Set<string>();
  return (wanted) => {
    const id = freePartId(template, wanted.replace(/-\d+$/, ''), given);
    given.add(id);
    return id;
  };
}

/** Puts a copy of a layer above it. @returns the template, and the copy's id */
export function duplicatePart(template: Template, id: string): { template: Template; id: string } {
  const layer = partOf(template, id);
  const copy = withNewIds(layer, freeIds(template));
  const named = { ...copy, name: `${nameOfPart(layer)} again`.slice(0, 80) };
  const { group, beside, at } = standingOf(template, id);
  return {
    template: withLayers(template, group?.id, [...beside.slice(0, at + 1), named, ...beside.slice(at + 1)]),
    id: named.id,
  };
}

/** Moves a layer among those beside it: by 1 upwards, by −1 downwards. */
export function stepPart(template: Template, id: string, by: number): Template {
  const { group, beside, at } = standingOf(template, id);
  return movePart(template, id, group?.id, Math.min(beside.length - 1, Math.max(0, at + by)));
}

/**
 * Moves a layer to a place among those of a group, or among those in none.
 * @param at counted from the lowest, without the layer itself
 * @throws {EditError} when a group would stand in itself
 */
export function movePart(template: Template, id: string, group: string | undefined, at: number): Template {
  const layer = partOf(template, id);
  if (group !== undefined && [...everyLayer([layer])].some((l) => l.id === group))
    throw new EditError('A group cannot stand in itself.');
  const from = standingOf(template, id);
  const taken = withLayers(
    template,
    from.group?.id,
    from.beside.filter((l) => l.id !== id),
  );
  const held = group === undefined ? taken.layers : (partOf(taken, group) as GroupLayer).layers;
  const next = withLayers(taken, group, [...held.slice(0, at), layer, ...held.slice(at)]);
  if (next.layers.length === 0) throw new EditError('A template has one part at least.');
  return next;
}

/** A group that changes nothing of what is in it. */
const plainGroup = (id: string, name: string, layers: Layer[]): GroupLayer => ({
  ...LAYER_SCHEMAS.group.parse({ id, name, kind: 'group', layers: [] }),
  layers,
});

/**
 * Puts layers that stand beside each other in a group of their own, where the topmost of them was.
 * @throws {EditError} when they do not stand beside each other
 */
export function groupParts(template: Template, ids: readonly string[]): { template: Template; id: string } {
  const [first] = ids;
  if (first === undefined) throw new EditError('Choose the parts that belong together first.');
  const { group, beside } = standingOf(template, first);
  const chosen = beside.filter((l) => ids.includes(l.id));
  if (chosen.length < ids.length)
    throw new EditError('Only parts that stand beside each other can be grouped.');
  const id = freePartId(template, 'group');
  const top = beside.indexOf(chosen.at(-1)!);
  const made = plainGroup(id, 'Group', chosen);
  const others = beside.flatMap((l, i) => (i === top ? [made] : chosen.includes(l) ? [] : [l]));
  return { template: withLayers(template, group?.id, others), id };
}

/**
 * Puts what is in a group where the group was.
 * @throws {EditError} when the group does something to what is in it, which would be lost
 */
export function ungroup(template: Template, id: string): Template {
  const layer = partOf(template, id);
  if (layer.kind !== 'group') throw new EditError('This is not a group.');
  const { id: _, name: __, layers, ...own } = layer;
  const { id: ___, name: ____, layers: _____, ...rest } = plainGroup(id, '', []);
  if (!sameData(own, rest))
    throw new EditError(
      `“${nameOfPart(layer)}” places, moves or fades what is in it, which would be lost. Put those values back first.`,
    );
  const { group, beside, at } = standingOf(template, id);
  return withLayers(template, group?.id, [...beside.slice(0, at), ...layers, ...beside.slice(at + 1)]);
}

/**
 * Puts a copy of a layer of another template on top, with the controls it is tied to, the slots it shows and what is in
 * them.
 * @returns the template, and the copy's id
 */
export function copyPart(from: Template, id: string, into: Template): { template: Template; id: string } {
  const copy = withNewIds(partOf(from, id), freeIds(into));
  const controls = broughtAlong(withAsked(linkedControls(copy), from.controls), from.controls, into.controls);
  const inside = [...everyLayer([copy])];
  const shown = new Set(
    inside.flatMap((l) => [...slotsOf(l), ...(l.needs ?? []), ...(l.reads ? [l.reads] : [])]),
  );
  const slots = broughtAlong(shown, from.slots, into.slots);
  const scenes = into.scenes.map((s) => s.id);
  const assets = { ...into.assets };
  const added = slots.added.map((slot): Slot => {
    const own = { ...slot, scenes } as Slot;
    if (own.kind === 'text' || own.kind === 'list' || own.sample === null) return own;
    const media = from.assets[own.sample]!;
    const name = freeName(own.sample, (n) => Object.hasOwn(assets, n) && assets[n] !== media);
    assets[name] = media;
    return { ...own, sample: name };
  });
  const layer = renameIn(renameIn(copy, 'control', controls.names), 'slot', slots.names) as Layer;
  for (const { standIn } of inside)
    if (standIn && from.assets[standIn]) assets[standIn] ??= from.assets[standIn];
  return {
    template: {
      ...into,
      assets,
      controls: [
        ...into.controls,
        ...controls.added.map((c) =>
          c.when ? { ...c, when: { ...c.when, control: controls.names.get(c.when.control)! } } : c,
        ),
      ],
      slots: [...into.slots, ...added],
      layers: [...into.layers, layer],
    },
    id: layer.id,
  };
}

/** Controls with those that they are offered by. */
function withAsked(needed: ReadonlySet<string>, controls: readonly Control[]): Set<string> {
  const all = new Set(needed);
  // Each is come to once: what is added is gone through as well.
  for (const id of all) {
    const asked = controls.find((c) => c.id === id)?.when?.control;
    if (asked !== undefined) all.add(asked);
  }
  return all;
}

/** What of a list is needed elsewhere: what is there already is taken, all else comes along under a free name. */
function broughtAlong<T extends Control | Slot>(
  needed: ReadonlySet<string>,
  from: readonly T[],
  into: readonly T[],
): { readonly added: T[]; readonly names: ReadonlyMap<string, string> } {
  const names = new Map<string, string>();
  const taken = new Set(into.map((c) => c.id));
  const added = from.flatMap((held) => {
    if (!needed.has(held.id)) return [];
    const there = into.find((c) => c.id === held.id && sameData(c, held));
    const id = there?.id ?? freeName(held.id, (name) => taken.has(name));
    taken.add(id);
    names.set(held.id, id);
    return there ? [] : [{ ...held, id }];
  });
  return { added, names };
}

/** Names of slots stand under several keys. */
const KEYS: Readonly<Record<'control' | 'slot', readonly string[]>> = {
  control: ['control'],
  slot: ['slot', 'slots', 'needs', 'reads', 'lines', 'picture'],
};

function renameIn(data: unknown, what: 'control' | 'slot', names: ReadonlyMap<string, string>): unknown {
  if (Array.isArray(data)) return data.map((part) => renameIn(part, what, names));
  if (typeof data !== 'object' || data === null) return data;
  const name = (held: unknown): unknown =>
    typeof held === 'string'
      ? (names.get(held) ?? held)
      : Array.isArray(held)
        ? held.map(name)
        : renameIn(held, what, names);
  return Object.fromEntries(
    Object.entries(data).map(([key, value]) => [
      key,
      KEYS[what].includes(key) ? name(value) : renameIn(value, what, names),
    ]),
  );
}
