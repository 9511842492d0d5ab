import type { Template } from '../documents/template';
import { EditError } from '../edit/place';
import { everyLayer, type Layer } from '../layers/registry';

/** A place in a template where a value stands: of a layer, by its id, or of the template itself. */
export interface Place {
  readonly of: { readonly layer: string } | 'template';
  readonly path: readonly (string | number)[];
}

/** What a part is called in messages and lists: by its name, else by its id as words. */
export function nameOfPart({ name, id }: Pick<Layer, 'id' | 'name'>): string {
  const words = id.replaceAll('-', ' ');
  return name ?? words.charAt(0).toUpperCase() + words.slice(1);
}

/** A layer of a template by its id. @throws {EditError} when it is not there any more */
export function partOf(template: Template, id: string): Layer {
  for (const layer of everyLayer(template.layers)) if (layer.id === id) return layer;
  throw new EditError('This part is not in the template any more.');
}

/** A template with one of its layers changed. */
export function changePart(template: Template, id: string, by: (layer: Layer) => Layer): Template {
  return { ...template, layers: changedIn(template.layers, id, by) };
}

function changedIn(layers: Layer[], id: string, by: (layer: Layer) => Layer): Layer[] {
  const changed = layers.map((layer) => {
    if (layer.id === id) return by(layer);
    if (layer.kind !== 'group') return layer;
    const inside = changedIn(layer.layers, id, by);
    return inside === layer.layers ? layer : { ...layer, layers: inside };
  });
  return changed.every((layer, i) => layer === layers[i]) ? layers : changed;
}

/** The value at a place; nothing where there is none. */
export function valueIn(template: Template, { of, path }: Place): unknown {
  const root: unknown = of === 'template' ? template : partOf(template, of.layer);
  return path.reduce<unknown>(
    (held, key) => (held as Readonly<Record<string | number, unknown>> | undefined)?.[key],
    root,
  );
}

/** A template with another value at a place; nothing takes what is there away. */
export function putValue(template: Template, { of, path }: Place, value: unknown): Template {
  const put = <T>(held: T): T => withValue(held, path, value) as T;
  if (of === 'template') return put(template);
  return changePart(template, of.layer, put);
}

function withValue(held: unknown, path: readonly (string | number)[], value: unknown): unknown {
  const [key, ...rest] = path;
  if (key === undefined) return value;
  if (Array.isArray(held) || typeof key === 'number') {
    const list = Array.isArray(held) ? [...(held as unknown[])] : [];
    const next = withValue(list[key as number], rest, value);
    if (next === undefined) list.splice(key as number, 1);
    else list[key as number] = next;
    return list;
  }
  const { [key]: before, ...others } = (held ?? {}) as Record<string, unknown>;
  const next = withValue(before, rest, value);
  // Keys keep their order, so that what is put back is the very same.
  if (next === undefined) return others;
  return before === undefined ? { ...others, [key]: next } : { ...(held as object), [key]: next };
}
