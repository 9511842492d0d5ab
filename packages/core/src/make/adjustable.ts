import svgpath from 'svgpath';
import { type Control, controlSchema, type Template } from '../documents/template';
import { NOT_OF_GRAIN } from '../documents/templateFaults';
import { EditError } from '../edit/place';
import { FRAMES, layoutFrame } from '../values/frame';
import { freeName } from '../values/freeName';
import type { ControlLink, FrameShape, Property, Value } from '../values/property';
import { faultOfControlName } from './controlNames';
import { fieldAt } from './fieldAt';
import { nameOfKey, type ValueField } from './fields';
import { idOf, standingOf } from './parts';
import { nameOfPart, type Place, partOf, putValue, valueIn } from './places';
import { isFree, keyOf, partName, placeWords, restingAt } from './ties';

/** Which of several numbers a control sets: one of them, all alike, or the place as a point on the picture. */
export type WhichPart = 0 | 1 | 2 | 3 | 'all' | 'point';

/** What a property is made adjustable as. */
export interface Adjustable {
  readonly name: string;
  readonly group?: string;
  readonly which?: WhichPart;
}

/** The part and the property of a place, from which the name of a control is made. */
export function subjectOf(template: Template, place: Place, which?: WhichPart) {
  const key = place.path.findLast((k) => typeof k === 'string' && !['value', 'colour', 'paint'].includes(k));
  const last = place.path.at(-1);
  const property = key === undefined ? String(last) : nameOf(String(key));
  const aside = typeof which === 'number' ? ` ${partName(keyOf(place), which)}` : '';
  const part =
    place.of === 'template' ? nameOfKey(place.path[0]!) : nameOfPart(partOf(template, place.of.layer));
  const colour = last === 'colour' && property !== 'colour' ? ' colour' : '';
  return { part, property: `${property}${colour}${aside}` };
}

/** Properties whose name in the workshop is a sentence have a word here. */
const WORDS: Readonly<Record<string, string>> = {
  at: 'position',
  offset: 'place',
  move: 'movement',
  turn: 'turn',
  extent: 'extent',
  family: 'font',
  corner: 'corners',
};
const nameOf = (key: string) => WORDS[key] ?? nameOfKey(key).toLowerCase();

/** Which parts of a value can be made adjustable, each by itself. */
export function partsToAdjust(template: Template, place: Place): readonly WhichPart[] {
  const field = fieldAt(template, place);
  if (field?.kind !== 'value' || field.holds !== 'numbers') return [];
  const each = ([0, 1, 2, 3] as const).slice(0, field.parts);
  const isPlace =
    place.of !== 'template' && place.path.join() === 'at' && liesInFrame(template, place.of.layer);
  return [...(isPlace ? (['point'] as const) : []), ...each, 'all'];
}

/** Whether the box a layer lies in is the frame. */
function liesInFrame(template: Template, id: string): boolean {
  const { group } = standingOf(template, id);
  return group === undefined || (!group.size && !group.row && liesInFrame(template, group.id));
}

/**
 * Makes a control of a value: it takes the value as its default, and the value comes from it.
 * @returns the template, and the id of the control
 * @throws {EditError} when the name will not do, or the value cannot come from a control
 */
export function makeAdjustable(
  template: Template,
  place: Place,
  { name, group = 'Settings', which }: Adjustable,
): { template: Template; id: string } {
  const fault = faultOfControlName(template, name, subjectOf(template, place, which));
  if (fault) throw new EditError(fault.text);
  if (template.controls.length >= 100) throw new EditError('A template has a hundred controls at most.');
  const isGrain = place.of !== 'template' && partOf(template, place.of.layer).kind === 'grain';
  if (isGrain && NOT_OF_GRAIN.has(String(place.path[0])))
    throw new EditError('Grain covers the whole picture: it is not placed, turned or set apart.');
  const field = fieldAt(template, place);
  if (field?.kind !== 'value' || !field.isProperty)
    throw new EditError(`${placeWords(template, place)} stays as it is made: no control can set it.`);
  const id = freeName(idOf(name) || 'control', (wanted) => template.controls.some((c) => c.id === wanted));
  const made = madeFrom(template, place, field, which);
  const control = controlSchema.parse({ ...made.control, id, name: name.trim(), group });
  const linked = putValue(template, place, made.linked(id));
  return { template: { ...made.also(linked), controls: [...template.controls, control] }, id };
}

interface Made {
  readonly control: object;
  readonly linked: (id: string) => unknown;
  readonly also: (template: Template) => Template;
}

const asIs = (template: Template) => template;

function madeFrom(template: Template, place: Place, field: ValueField, which: WhichPart | undefined): Made {
  const value = valueIn(template, place) ?? field.rest;
  const link = (id: string) => ({ control: id });
  if (field.holds === 'numbers') return fromNumbers(template, place, field, which ?? 'all');
  if (!isFree(value) && field.holds !== 'number')
    throw new EditError(
      `${placeWords(template, place)} comes from elsewhere already. Untie it or give it one value first.`,
    );
  switch (field.holds) {
    case 'number': {
      if (!isFree(value)) {
        // What changes by itself goes on doing so, and the control adds to it.
        const { control, scaled } = rangeFor(field, 0, place);
        return { control, linked: (id) => ({ sum: [value, scaled(id)] }), also: asIs };
      }
      const { control, scaled } = rangeFor(field, value as number, place);
      return { control, linked: scaled, also: asIs };
    }
    case 'colour':
      return { control: { kind: 'colour', default: String(value).slice(0, 7) }, linked: link, also: asIs };
    case 'switch':
      return { control: { kind: 'switch', default: value }, linked: link, also: asIs };
    case 'choice':
      return { control: choiceOf(field, value as string), linked: link, also: asIs };
    case 'words':
      return fromWords(template, place, value as string);
    default:
      throw new EditError(`${placeWords(template, place)} stays as it is made: no control can set it.`);
  }
}

/** Options of a choice at most. */
const MOST_OPTIONS = 12;

function choiceOf({ options }: ValueField, value: string): object {
  const others = options.filter((o) => o !== value);
  const offered = [value, ...others].slice(0, MOST_OPTIONS);
  if (offered.length < 2) throw new EditError('There is only one thing this can be.');
  return {
    kind: 'choice',
    options: options
      .filter((o) => offered.includes(o))
      .map((o) => ({ id: o, name: nameOfKey(o.replaceAll('-', ' ')) })),
    default: value,
  };
}

function fromWords(template: Template, place: Place, value: string): Made {
  const key = place.path.at(-1);
  if (key === 'family')
    return { control: { kind: 'font', default: value }, linked: (id) => ({ control: id }), also: asIs };
  if (key !== 'data') throw new EditError('Words become a slot: use “Make it a slot” where the words stand.');
  // The user's paths are in parts of the frame, so the box it is drawn in becomes one by one.
  const size: Place = { of: place.of, path: [...place.path.slice(0, -1), 'size'] };
  const [width, height] = valueIn(template, size) as [number, number];
  const drawn = svgpath(value)
    .scale(1 / width, 1 / height)
    .round(5)
    .toString();
  return {
    control: { kind: 'path', default: drawn },
    linked: (id) => ({ control: id }),
    also: (t) => putValue(t, size, [1, 1]),
  };
}

function fromNumbers(template: Template, place: Place, field: ValueField, which: WhichPart): Made {
  const value = (valueIn(template, place) ?? field.rest) as Property<Value>;
  if (which === 'point') return asPoint(template, place);
  const parts = partsOf(value);
  const chosen = (i: number) => which === 'all' || which === i;
  const now = parts?.[which === 'all' ? 0 : which];
  const fixed = typeof now === 'number';
  const { control, scaled } = rangeFor(field, fixed ? now : 0, place);
  const linked = (id: string) => {
    // What comes as a whole, or moves by itself, goes on doing so, and the control adds to it.
    if (!parts)
      return { sum: [value, { parts: range(field.parts).map((i) => (chosen(i) ? scaled(id) : 0)) }] };
    return {
      parts: parts.map((p, i) =>
        !chosen(i) ? p : typeof p === 'number' ? scaled(id) : { sum: [p, scaled(id)] },
      ),
    };
  };
  return { control, linked, also: asIs };
}

const range = (count: number) => Array.from({ length: count }, (_, i) => i);

/** The numbers a point is made of; nothing where they are not apart. */
function partsOf(value: Property<Value>): unknown[] | undefined {
  if (Array.isArray(value)) return [...(value as unknown[])];
  return typeof value === 'object' && 'parts' in value ? value.parts : undefined;
}

const SHAPES = ['wide', 'tall', 'square'] as const satisfies readonly FrameShape[];

/** The place of a layer as a point of the frame, wherever it lies now: with its distance from there taken in. */
function asPoint(template: Template, place: Place): Made {
  const offset: Place = { of: place.of, path: ['offset'] };
  const at = valueIn(template, place) as Property<Value>;
  const away = valueIn(template, offset) as Property<Value>;
  if (!isFree(away) || (typeof at === 'object' && 'control' in at))
    throw new EditError('Its place comes from elsewhere already. Untie it first.');
  const [dx, dy] = away as [number, number];
  const lies = SHAPES.map((shape) => {
    const { width, height } = layoutFrame(FRAMES[shape]);
    const [x, y] = restingAt(template, at, shape) as [number, number];
    return [round(x + dx / width), round(y + dy / height)] as const;
  });
  const [wide, tall, square] = lies;
  const alike = lies.every((p) => p.join() === wide!.join());
  return {
    control: { kind: 'point', default: alike ? wide : { wide, tall, square } },
    linked: (id) => ({ control: id }),
    also: (t) => putValue(t, offset, [0, 0]),
  };
}

const round = (v: number) => Math.round(v * 10000) / 10000;

/** Properties in degrees. */
const DEGREES = ['turn', 'angle', 'skew', 'tilt', 'direction', 'start'];

/** The range of a control for a number: narrow ones as they are, parts as hundredths, others around the value. */
function rangeFor(
  { min, max, whole }: ValueField,
  value: number,
  { path }: Place,
): { control: object; scaled: (id: string) => ControlLink<Value> } {
  const key = String(path.findLast((k) => typeof k === 'string'));
  const control = (part: object) => ({ kind: 'number', default: value, ...part });
  if (!whole && (max - min <= 1 || key === 'scale' || key === 'zoom')) {
    const most = max - min <= 1 ? max * 100 : Math.max(300, Math.ceil(value) * 200);
    const least = Math.max(min * 100, key === 'scale' ? 0 : min * 100);
    return {
      control: control({ min: least, max: most, step: 1, unit: '%', default: round(value * 100) }),
      scaled: (id) => ({ control: id, scale: 0.01 }),
    };
  }
  const plain = (id: string) => ({ control: id });
  if (DEGREES.includes(key))
    return {
      control: control({ min: Math.min(-180, value), max: Math.max(180, value), step: 1, unit: '°' }),
      scaled: plain,
    };
  if (max - min <= 1000)
    return { control: control({ min, max, step: whole ? 1 : stepOf(max - min) }), scaled: plain };
  const reach = Math.max(100, 10 ** Math.ceil(Math.log10(Math.abs(value) * 2 || 1)));
  return {
    control: control({
      min: Math.max(min, value < 0 || min < 0 ? -reach : 0),
      max: Math.min(max, reach),
      step: 1,
      unit: 'px',
    }),
    scaled: plain,
  };
}

const stepOf = (range: number) => 10 ** Math.floor(Math.log10(range / 100));

/** Ties a value to a control that is there. @throws {EditError} when it cannot come from it */
export function tie(template: Template, place: Place, id: string, which: WhichPart = 'all'): Template {
  const control = template.controls.find((c) => c.id === id);
  const field = fieldAt(template, place);
  if (!control || field?.kind !== 'value' || !field.isProperty)
    throw new EditError(`${placeWords(template, place)} cannot be tied to a control.`);
  if (field.holds !== 'numbers' || which === 'point')
    return putValue(template, place, linkTo(control, field));
  const value = (valueIn(template, place) ?? field.rest) as Property<Value>;
  if (control.kind === 'point' && field.parts === 2) return putValue(template, place, linkTo(control, field));
  const linked = linkTo(control, field);
  const parts = partsOf(value) ?? range(field.parts).map(() => linked);
  return putValue(template, place, {
    parts: parts.map((p, i) => (which === 'all' || which === i ? linked : p)),
  });
}

/** A plain link, in hundredths where the control counts so and the value does not. */
function linkTo(control: Control, field: ValueField): object {
  const { id } = control;
  if (control.kind === 'number' && control.unit === '%' && field.max <= 10)
    return { control: id, scale: 0.01 };
  if ((control.kind === 'choice' || control.kind === 'switch') && !suits(control, field)) {
    const values = control.kind === 'choice' ? control.options.map((o) => o.id) : ['true', 'false'];
    const now = field.rest ?? (field.holds === 'colour' ? '#FFFFFF' : field.holds === 'switch' ? true : 0);
    return { control: id, table: Object.fromEntries(values.map((v) => [v, now])) };
  }
  return { control: id };
}

/** Whether a choice or a switch gives just what a value may be, so that no table is needed. */
function suits(control: Control, { holds, options }: ValueField): boolean {
  if (control.kind === 'switch') return holds === 'switch';
  return (
    control.kind === 'choice' && holds === 'choice' && control.options.every((o) => options.includes(o.id))
  );
}

/**
 * A control that shows one set of parts and hides the others.
 * @param sets each with its name and the ids of the layers in it
 * @throws {EditError} when the name will not do, there are fewer than two sets, or a part comes and goes already
 */
export function chooseBetween(
  template: Template,
  name: string,
  sets: readonly { readonly name: string; readonly parts: readonly string[] }[],
): { template: Template; id: string } {
  if (sets.length < 2) throw new EditError('Choose two parts at least, of which one is to show.');
  if (sets.length > MOST_OPTIONS) throw new EditError(`A choice has ${MOST_OPTIONS} options at most.`);
  const fault = faultOfControlName(template, name, { part: sets[0]!.name, property: 'or another' });
  if (fault) throw new EditError(fault.text);
  const id = freeName(idOf(name) || 'choice', (wanted) => template.controls.some((c) => c.id === wanted));
  const options = sets.map((set, i) => ({ id: idOf(set.name) || `set-${i + 1}`, name: set.name }));
  for (const [i, o] of options.entries())
    o.id = freeName(o.id, (wanted) => options.slice(0, i).some((other) => other.id === wanted));
  const control: Control = {
    kind: 'choice',
    group: 'Settings',
    ...{ id, name: name.trim(), options, default: options[0]!.id },
  };
  const shown = sets.reduce(
    (t, { parts }, i) =>
      parts.reduce((held, part) => {
        const place: Place = { of: { layer: part }, path: ['visible'] };
        if (!isFree(valueIn(held, place)))
          throw new EditError(
            `“${nameOfPart(partOf(held, part))}” comes and goes by something else already.`,
          );
        const table = Object.fromEntries(options.map((o, n) => [o.id, n === i]));
        return putValue(held, place, { control: id, table });
      }, t),
    template,
  );
  return { template: { ...shown, controls: [...template.controls, control] }, id };
}

/** Changes a control. @throws {EditError} when its new name will not do, or its range holds nothing */
export function changeControl(
  template: Template,
  id: string,
  part: Partial<Record<string, unknown>>,
): Template {
  const control = template.controls.find((c) => c.id === id);
  if (!control) throw new EditError('This control is not in the template any more.');
  if (typeof part.name === 'string') {
    const subject = { part: control.group, property: control.name };
    const fault = faultOfControlName(template, part.name, subject, id);
    if (fault) throw new EditError(fault.text);
  }
  const merged = Object.fromEntries(
    Object.entries({ ...control, ...part }).filter(([, value]) => value !== undefined),
  );
  const { data, error } = controlSchema.safeParse(merged);
  if (!data)
    throw new EditError(`That does not suit a control: ${error.issues[0]?.message ?? 'it is none'}.`);
  const next = withinRange(data);
  return { ...template, controls: template.controls.map((c) => (c.id === id ? next : c)) };
}

/** A number whose default lies in its range. */
function withinRange(control: Control): Control {
  if (control.kind !== 'number' && control.kind !== 'duration') return control;
  if (control.min > control.max) throw new EditError('The least of a range is not more than its most.');
  const held = (v: number) => Math.min(control.max, Math.max(control.min, v));
  const { default: base } = control;
  const next =
    typeof base === 'number'
      ? held(base)
      : { wide: held(base.wide), tall: held(base.tall), square: held(base.square) };
  return { ...control, default: next };
}

/** Moves a control among the others, by so many places. */
export function moveControl(template: Template, id: string, by: number): Template {
  const from = template.controls.findIndex((c) => c.id === id);
  const to = Math.min(template.controls.length - 1, Math.max(0, from + by));
  if (from < 0 || from === to) return template;
  const controls = template.controls.filter((c) => c.id !== id);
  controls.splice(to, 0, template.controls[from]!);
  return { ...template, controls };
}
