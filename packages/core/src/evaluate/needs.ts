import { isKeyed, takesWords } from '../documents/controls';
import { type Fill, isWords } from '../documents/fill';
import type { Template } from '../documents/template';
import { everyLayer } from '../layers/registry';
import { type Script, scriptsIn } from '../text/scripts';
import { type ControlLink, isConstant, type Property, type Source, type Value } from '../values/property';
import { changedLayers } from './changes';

/** The fonts a graphic may use: every family and weight its layers name, and the scripts of its words. */
export interface FontNeeds {
  readonly faces: readonly { readonly family: string; readonly weight: number }[];
  readonly scripts: readonly Script[];
}

/** What the controls of a graphic may hold, by their ids. */
type Held = ReadonlyMap<string, readonly Value[]>;

/** Values that a property is followed to; a document made to have endless ones is not followed on. */
const MOST_VALUES = 200;

/** Every value a property can come to, whichever way it takes: tables, frames of other shapes, sums, keys. */
function valuesOf(p: Property<Value>, held: Held): Value[] {
  if (isConstant(p)) return [p];
  const source = p as Source<Value>;
  if ('keys' in source) return source.keys.flatMap((k) => valuesOf(k.value, held)).slice(0, MOST_VALUES);
  if ('shape' in source) return Object.values(source.shape).flatMap((q) => valuesOf(q, held));
  if ('control' in source) return linkedValues(source, held);
  if ('sum' in source || 'product' in source) {
    const by = 'sum' in source ? (a: number, b: number) => a + b : (a: number, b: number) => a * b;
    const list = 'sum' in source ? source.sum : source.product;
    return list
      .map((q) => valuesOf(q, held))
      .reduce((all, next) =>
        all.flatMap((a) => next.map((b) => by(Number(a), Number(b)))).slice(0, MOST_VALUES),
      );
  }
  if ('wave' in source) {
    const { size, middle = 0 } = source.wave;
    return valuesOf(size, held).flatMap((v) => [-1, 0, 1].map((side) => Number(middle) + side * Number(v)));
  }
  return [];
}

function linkedValues(link: ControlLink<Value>, held: Held): Value[] {
  if (link.table) return Object.values(link.table).flatMap((q) => valuesOf(q, held));
  const { invert, scale = 1, offset = 0 } = link;
  return (held.get(link.control) ?? []).map((v) =>
    typeof v === 'number' ? (invert ? 1 - v : v) * scale + offset : v,
  );
}

/** What each control holds: the user's value or keys, else the defaults for any shape of frame and those of looks. */
function heldValues(template: Template, fill: Fill): Held {
  return new Map(
    template.controls.map((control) => {
      const own = Object.hasOwn(fill.controls, control.id) ? fill.controls[control.id] : undefined;
      if (own !== undefined)
        return [control.id, isKeyed(own) ? own.keys.map((k) => k.value) : [own]] as const;
      const looks = template.looks.flatMap((l) => l.controls[control.id] ?? []);
      const base = control.default;
      const plain = typeof base !== 'object' || Array.isArray(base);
      const moving = (control.keys ?? []).map((k) => k.value);
      return [
        control.id,
        [...(plain ? [base] : Object.values(base)), ...moving, ...looks] as Value[],
      ] as const;
    }),
  );
}

/** The fonts a graphic may use: every family and weight its texts can come to, and the scripts of its words. */
export function fontNeeds(template: Template, fill: Fill): FontNeeds {
  const faces = new Map<string, { family: string; weight: number }>();
  const held = heldValues(template, fill);
  const words: string[] = [];
  const ofRuns = new Set<number>();
  for (const slot of template.slots) {
    if (!takesWords(slot)) continue;
    const own = fill.slots[slot.id];
    const shown = isWords(own) ? own : slot.sample;
    words.push(typeof shown === 'string' ? shown : shown.text);
    if (typeof shown !== 'string') for (const run of shown.runs) if (run.weight) ofRuns.add(run.weight);
  }
  for (const layer of everyLayer(changedLayers(template.layers, fill.texts))) {
    if (layer.kind !== 'text') continue;
    if ('text' in layer.words) words.push(layer.words.text);
    const { weight: marked } = layer.marked;
    const weights = [
      ...valuesOf(layer.weight, held),
      ...(marked === undefined ? [] : valuesOf(marked, held)),
      ...ofRuns,
    ];
    for (const family of valuesOf(layer.family, held).map(String)) {
      for (const weight of weights.map(Number)) faces.set(`${family}/${weight}`, { family, weight });
    }
  }
  return { faces: [...faces.values()], scripts: [...scriptsIn(words.join(' '))] };
}
