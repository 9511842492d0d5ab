import { type Fill, isWords } from '../documents/fill';
import { isConstant, type Property, type Source, type Value } from '../documents/property';
import type { Template } from '../documents/template';
import { everyLayer } from '../layers/registry';
import { type Script, scriptsIn } from '../text/scripts';
import { changedLayers } from './changes';
import { takesWords } from './controls';

/** The fonts a graphic may use: every family and weight its layers name, and the scripts of its words. */
export interface FontNeeds {
  readonly faces: readonly { readonly family: string; readonly weight: number }[];
  readonly scripts: readonly Script[];
}

/** Every constant a property can come to. */
function leaves<T extends Value>(p: Property<T>): T[] {
  return isConstant(p) ? [p] : sourceParts(p as Source<T>).flatMap(leaves);
}

function sourceParts<T>(source: Source<T>): Property<T>[] {
  if ('keys' in source) return source.keys.map((k) => k.value);
  if ('shape' in source) return Object.values(source.shape);
  if ('parts' in source) return [];
  if ('sum' in source) return source.sum;
  if ('product' in source) return source.product;
  if ('control' in source) return Object.values(source.table ?? {});
  return [];
}

export function fontNeeds(template: Template, fill: Fill): FontNeeds {
  const faces = new Map<string, { family: string; weight: number }>();
  const add = (family: string, weight: number) => faces.set(`${family}/${weight}`, { family, weight });
  const words: string[] = [];
  const weights = new Set<number>();
  for (const slot of template.slots) {
    if (!takesWords(slot)) continue;
    const held = fill.slots[slot.id];
    const shown = isWords(held) ? held : slot.sample;
    words.push(typeof shown === 'string' ? shown : shown.text);
    if (typeof shown !== 'string') for (const run of shown.runs) if (run.weight) weights.add(run.weight);
  }
  const fonts = fontControls(template, fill);
  for (const layer of everyLayer(changedLayers(template.layers, fill.texts))) {
    if (layer.kind !== 'text') continue;
    if ('text' in layer.words) words.push(layer.words.text);
    const own = [
      ...leaves(layer.weight),
      ...(layer.marked.weight ? leaves(layer.marked.weight) : []),
      ...weights,
    ];
    for (const family of familiesOf(layer.family, fonts)) for (const weight of own) add(family, weight);
  }
  return { faces: [...faces.values()], scripts: [...scriptsIn(words.join(' '))] };
}

/** The families each font control may come to. */
function fontControls(template: Template, fill: Fill): ReadonlyMap<string, readonly string[]> {
  return new Map(
    template.controls
      .filter((c) => c.kind === 'font')
      .map((control) => {
        const looks = template.looks.flatMap((l) => l.controls[control.id] ?? []);
        const own = fill.controls[control.id];
        const base = typeof control.default === 'string' ? [control.default] : Object.values(control.default);
        return [control.id, [...(own === undefined ? [...base, ...looks] : [own])].map(String)] as const;
      }),
  );
}

function familiesOf(
  family: Property<string>,
  controls: ReadonlyMap<string, readonly string[]>,
): readonly string[] {
  if (typeof family === 'object' && 'control' in family && !family.table) {
    return controls.get(family.control) ?? [];
  }
  return leaves(family);
}
