import { EMPTY_FILL } from '../documents/fill';
import type { Template } from '../documents/template';
import { EditError } from '../edit/place';
import { documentOnly } from '../evaluate/documentOnly';
import { GraphicScene } from '../evaluate/graphicScene';
import { everyLayer } from '../layers/registry';
import { FRAMES, layoutFrame } from '../values/frame';
import { type ControlLink, type FrameShape, isConstant, type Property, type Value } from '../values/property';
import { nameOfKey } from './fields';
import { nameOfPart, type Place, partOf, putValue, valueIn } from './places';

/** What is tied to what: a control, the place it sets, and what is made of its value there. */
export interface Tie {
  readonly control: string;
  readonly place: Place;
  readonly link: ControlLink<Value>;
}

const isPlain = (v: unknown): v is Record<string, unknown> =>
  typeof v === 'object' && v !== null && !Array.isArray(v);

function* linksIn(
  data: unknown,
  path: readonly (string | number)[],
): Generator<[typeof path, ControlLink<Value>]> {
  if (Array.isArray(data)) {
    for (const [i, part] of data.entries()) yield* linksIn(part, [...path, i]);
  } else if (isPlain(data)) {
    if (typeof data.control === 'string') yield [path, data as unknown as ControlLink<Value>];
    for (const [key, value] of Object.entries(data)) yield* linksIn(value, [...path, key]);
  }
}

/** All ties of a template, in the order of its layers; those of one control, where that is said. */
export function tiesOf(template: Template, control?: string): Tie[] {
  const { timing, camera } = template;
  const own = [...linksIn({ timing, camera }, [])].map(
    ([path, link]): Tie => ({ control: link.control, place: { of: 'template', path }, link }),
  );
  const ofLayers = [...everyLayer(template.layers)].flatMap((layer) => {
    const { layers: _, ...rest } = layer as typeof layer & { layers?: unknown };
    const place = (path: readonly (string | number)[]): Place => ({ of: { layer: layer.id }, path });
    return [...linksIn(rest, [])].map(
      ([path, link]): Tie => ({ control: link.control, place: place(path), link }),
    );
  });
  const all = [...own, ...ofLayers];
  return control === undefined ? all : all.filter((tie) => tie.control === control);
}

/** Keys of a source that say how a value is made, and not of what it is. */
const MAKING: Readonly<Record<string, string>> = {
  keys: 'at a key',
  value: '',
  sum: 'in a sum',
  product: 'times others',
  parts: '',
  wave: 'as it swings',
  shape: 'by the shape of the frame',
  table: 'by a choice',
};

/** What stands at a place, in words: “Plate, fill, colour”. */
export function placeWords(template: Template, { of, path }: Place): string {
  const part = of === 'template' ? '' : nameOfPart(partOf(template, of.layer));
  const words = path.flatMap((key, i): string[] => {
    if (typeof key === 'number')
      return path[i - 1] === 'parts' ? [partName(keyOf({ of, path: path.slice(0, i) }), key)] : [];
    const making = MAKING[key];
    return making === undefined ? [nameOfKey(key).toLowerCase()] : making === '' ? [] : [making];
  });
  const [first = '', ...rest] = part === '' ? words : [part, ...words];
  return [first.charAt(0).toUpperCase() + first.slice(1), ...new Set(rest)].join(', ');
}

const POINT = ['across', 'down', 'in depth', 'fourth'];
/** Of values whose parts are no places. */
const PARTS: Readonly<Record<string, readonly string[]>> = {
  turn: ['tipped over', 'swung open', 'in the picture'],
  tilt: ['tipped over', 'swung open'],
  spin: ['over', 'round', 'in the picture'],
  box: ['from the left', 'from the top', 'wide', 'high'],
  margin: ['above', 'on the right', 'below', 'on the left'],
  scale: ['wide', 'high'],
  size: ['wide', 'high'],
  width: ['at its start', 'at its end'],
  flares: ['at its start', 'at its end'],
};

/** A part of a value of several numbers, in words. @param key the value’s name in the document */
export const partName = (key: string | number | undefined, part: number): string =>
  (PARTS[String(key)] ?? POINT)[part] ?? String(part + 1);

/** The name of the value that a place is of, or lies in. */
export const keyOf = ({ path }: Place): string | number | undefined =>
  path.findLast((k) => typeof k === 'string' && !Object.hasOwn(MAKING, k));

const percent = (part: number) => `${Math.round(part * 100)}%`;

/** A tie as a sentence: “Strap size sets Strap, scale: times 0.01.” */
export function tieSentence(template: Template, { control, place, link }: Tie): string {
  const name = template.controls.find((c) => c.id === control)?.name ?? control;
  const how = [
    link.part === undefined ? '' : `its part ${POINT[link.part]}`,
    link.invert ? 'turned round' : '',
    link.curve ? 'by a curve' : '',
    link.scale === undefined ? '' : `times ${link.scale}`,
    link.offset === undefined ? '' : `${link.offset < 0 ? 'less' : 'plus'} ${Math.abs(link.offset)}`,
    link.table ? tableWords(template, control, link.table) : '',
    link.readable ? `whichever of ${link.readable.join(', ')} reads best on it` : '',
    link.mix ? `mixed with ${percent(link.mix.amount)} of ${link.mix.with}` : '',
    link.alpha === undefined ? '' : `${percent(link.alpha)} opaque`,
  ].filter((w) => w !== '');
  return `“${name}” sets ${placeWords(template, place)}${how.length > 0 ? `: ${how.join(', ')}` : ''}.`;
}

function tableWords(template: Template, control: string, table: Readonly<Record<string, unknown>>): string {
  const held = template.controls.find((c) => c.id === control);
  const optionName = (id: string) =>
    held?.kind === 'choice'
      ? (held.options.find((o) => o.id === id)?.name ?? id)
      : id === 'true'
        ? 'On'
        : 'Off';
  const rows = Object.entries(table).map(([id, value]) => `${optionName(id)} is ${valueWords(value)}`);
  return rows.length > 4 ? `${rows.slice(0, 4).join(', ')} and so on` : rows.join(', ');
}

/** A value of a property in a few words. */
export function valueWords(value: unknown): string {
  if (typeof value === 'boolean') return value ? 'on' : 'off';
  if (typeof value === 'number') return String(Math.round(value * 1000) / 1000);
  if (typeof value === 'string') return value;
  if (Array.isArray(value)) return value.map(valueWords).join(', ');
  if (!isPlain(value)) return 'nothing';
  if (Array.isArray(value.keys)) return `${value.keys.length} keys`;
  if (typeof value.control === 'string') return `set by ${value.control}`;
  if ('wave' in value) return 'a swing';
  if ('shape' in value) return 'by the shape of the frame';
  if ('frame' in value) return `a part of the frame’s ${String(value.frame)} side`;
  if ('sum' in value) return 'a sum';
  if ('product' in value) return 'a product';
  if ('parts' in value) return (value.parts as unknown[]).map(valueWords).join(', ');
  return 'made of others';
}

/** A template with nothing filled or changed: for values and times alone. */
export const restingScene = (template: Template, shape: FrameShape = template.shape): GraphicScene =>
  new GraphicScene(template, EMPTY_FILL, layoutFrame(FRAMES[shape]), documentOnly());

/** What a property comes to before anything is changed, in a shape of frame, when the template is best seen. */
export function restingAt(
  template: Template,
  property: Property<Value>,
  shape: FrameShape = template.shape,
): Value {
  const scene = restingScene(template, shape);
  return scene.valueAt(property, scene.timeOf(template.still));
}

/**
 * Takes a tie away: what it set keeps the value it has before anything is changed.
 * @throws {EditError} when there is none at that place
 */
export function untie(template: Template, place: Place): Template {
  const held = valueIn(template, place);
  if (!isPlain(held) || typeof held.control !== 'string')
    throw new EditError('Nothing is tied to a control here any more.');
  return settled(putValue(template, place, restingAt(template, held as unknown as Property<Value>)), place);
}

/** Sources around a place that hold plain values alone, as one plain value: what was made of parts is a point again. */
function settled(template: Template, { of, path }: Place): Template {
  const at = path.lastIndexOf('parts');
  if (at < 0 || at !== path.length - 2) return template;
  const around: Place = { of, path: path.slice(0, at) };
  const { parts } = valueIn(template, around) as { parts: unknown[] };
  return parts.every((p) => typeof p === 'number') ? putValue(template, around, parts) : template;
}

/** Takes a control away, with its ties, its part in looks, and what depended on it. */
export function removeControl(template: Template, id: string): Template {
  // The innermost go first, so that a place is still there when it is come to.
  const ties = tiesOf(template, id).sort((a, b) => b.place.path.length - a.place.path.length);
  const free = ties.reduce((t, { place }) => {
    const held = valueIn(t, place);
    return isPlain(held) && held.control === id ? untie(t, place) : t;
  }, template);
  const { transparent } = free;
  const isOpen = typeof transparent === 'object' && transparent.control === id;
  return {
    ...free,
    ...(isOpen ? { transparent: restingScene(template).transparent } : {}),
    controls: free.controls
      .filter((c) => c.id !== id)
      .map((c) => {
        if (c.when?.control !== id) return c;
        const { when: _, ...rest } = c;
        return rest as typeof c;
      }),
    looks: free.looks.map((look) => ({
      ...look,
      controls: Object.fromEntries(Object.entries(look.controls).filter(([control]) => control !== id)),
    })),
  };
}

/** Whether a property is a plain value at a place, so that a control can take its part. */
export const isFree = (value: unknown): boolean =>
  value === undefined || isConstant(value as Property<Value>);
