import { parseSvgPath } from '../geometry/path';
import { EACH } from '../layers/common';
import { everyLayer, type Layer, slotsOf } from '../layers/registry';
import { controlsOfLayers, linkedControls } from '../values/linking';
import { isConstant } from '../values/property';
import { defaultOf, faultOfValue } from './controls';
import type { Control, Template } from './template';

/** Layers in all that a template may have: more cannot be painted in time. */
const MOST_LAYERS = 3000;

const SHAPES = [
  { width: 1920, height: 1080 },
  { width: 1080, height: 1920 },
  { width: 1080, height: 1080 },
];

/** What is wrong with a template that a schema cannot see, in words: names that are not there, values that do not suit. */
export function faultsOfTemplate(template: Template): readonly string[] {
  const known = FAULTS.get(template) ?? foundFaults(template);
  FAULTS.set(template, known);
  return known;
}

/** A template never changes once it is made, and each step of a maker's work asks more than once. */
const FAULTS = new WeakMap<Template, readonly string[]>();

function foundFaults(template: Template): readonly string[] {
  const faults: string[] = [];
  const layers = [...everyLayer(template.layers)];
  if (layers.length > MOST_LAYERS) return [`it has ${layers.length} layers; ${MOST_LAYERS} is the most`];
  const lists = { layers, ...{ slots: template.slots, controls: template.controls } };
  for (const [what, list] of Object.entries({ ...lists, scenes: template.scenes, cues: template.cues })) {
    const ids = (list as readonly { id: string }[]).map((x) => x.id);
    const twice = ids.find((x, i) => ids.indexOf(x) !== i);
    if (twice) faults.push(`two ${what} are called "${twice}"`);
  }
  return [
    ...faults,
    ...missingControls(template),
    ...controlFaults(template),
    ...slotFaults(template, layers),
    ...siblingFaults(template.layers),
    ...layers.flatMap(pathFaults),
    ...layers.flatMap(grainFaults),
    ...layers.flatMap(copiesFaults),
  ];
}

/** Names of controls that are not there. Whether those that are suit what is linked to them is for `linkFaults`. */
function missingControls(template: Template): string[] {
  const controls = new Set(template.controls.map((c) => c.id));
  const { layers, timing, camera, transparent } = template;
  const linked = linkedControls([timing, camera, transparent], controlsOfLayers(layers));
  const missing = [...linked].filter((id) => !controls.has(id));
  return [
    ...missing.map((id) => `a layer is linked to a control "${id}" that is not there`),
    ...template.controls.flatMap(({ id, when }) =>
      when && !controls.has(when.control)
        ? [`the control "${id}" depends on a control "${when.control}" that is not there`]
        : [],
    ),
  ];
}

/** Ranges that hold nothing, defaults and looks that do not suit. */
function controlFaults(template: Template): string[] {
  const controls = new Map(template.controls.map((c) => [c.id, c]));
  const rangeFault = (c: Control) =>
    (c.kind === 'number' || c.kind === 'duration') && c.min > c.max
      ? [`the control "${c.id}" goes from ${c.min} to ${c.max}, which is no range`]
      : [];
  const defaults = template.controls.flatMap((c) => {
    const resting = [...SHAPES.map((frame) => defaultOf(c, frame)), ...(c.keys ?? []).map((k) => k.value)];
    const wrong = resting.map((value) => faultOfValue(c, value)).find((f) => f !== undefined);
    return [...rangeFault(c), ...(wrong ? [`the default of a control is wrong: ${wrong}`] : [])];
  });
  const looks = template.looks.flatMap((look) =>
    Object.entries(look.controls).flatMap(([id, value]) => {
      const control = controls.get(id);
      if (!control) return [`the look "${look.name}" sets a control "${id}" that is not there`];
      const wrong = faultOfValue(control, value);
      return wrong ? [`the look "${look.name}" is wrong: ${wrong}`] : [];
    }),
  );
  return [...defaults, ...looks];
}

function slotFaults(template: Template, layers: readonly Layer[]): string[] {
  const slots = new Set(template.slots.map((s) => s.id));
  const scenes = new Set(template.scenes.map((s) => s.id));
  const cues = new Set(template.cues.map((c) => c.id));
  const repeated = new Set(
    layers.flatMap((layer) => (layer.kind === 'group' && layer.repeat ? [...everyLayer([layer])] : [])),
  );
  const shown = layers.flatMap((layer) =>
    [...slotsOf(layer), ...(layer.needs ?? []), ...readBy(layer), ...repeatedBy(layer)]
      .filter((slot) => !slots.has(slot) && !(slot === EACH && repeated.has(layer)))
      .map((slot) => `the layer "${layer.id}" shows a slot "${slot}" that is not there`),
  );
  return [
    ...shown,
    ...template.slots.flatMap((slot) => [
      ...slot.scenes
        .filter((scene) => !scenes.has(scene))
        .map((scene) => `the slot "${slot.id}" is in a scene "${scene}" that is not there`),
      ...(slot.kind !== 'text' &&
      slot.kind !== 'list' &&
      slot.sample !== null &&
      !Object.hasOwn(template.assets, slot.sample)
        ? [`the slot "${slot.id}" has a sample "${slot.sample}" that is not among the assets`]
        : []),
      ...(slot.kind === 'sound' && !cues.has(slot.cue)
        ? [`the sound "${slot.id}" belongs to a cue "${slot.cue}" that is not there`]
        : []),
    ]),
  ];
}

/** Slots that a layer comes once for each of, or for each line of. */
const repeatedBy = (layer: Layer): readonly string[] => {
  const over = layer.kind === 'group' ? layer.repeat?.over : undefined;
  if (!over) return [];
  return 'slots' in over ? over.slots : [over.lines];
};

/** Slots whose direction a layer goes by. */
const readBy = (layer: Layer): readonly string[] => [
  ...(layer.reads === undefined ? [] : [layer.reads]),
  ...(layer.kind === 'group' && layer.row?.reads !== undefined ? [layer.row.reads] : []),
];

/** Names of the siblings a layer needs. */
const neededBy = (layer: Layer): readonly string[] => [
  ...(layer.matte ? [layer.matte.layer] : []),
  ...(layer.kind === 'shape' && layer.hug ? layer.hug.layers : []),
  ...(layer.kind === 'particles' && 'text' in layer.from ? [layer.from.text] : []),
];

/** Hugs and mattes reach siblings only, so that a group can be moved or copied whole, and never go round. */
function siblingFaults(layers: readonly Layer[]): string[] {
  const byId = new Map(layers.map((l) => [l.id, l]));
  const round = goingRound(new Map(layers.map((l) => [l.id, neededBy(l)])));
  return layers.flatMap((layer) => [
    ...neededBy(layer)
      .filter((other) => !byId.has(other))
      .map((other) => `the layer "${layer.id}" needs "${other}" beside it`),
    ...(round.has(layer.id) ? [`the layer "${layer.id}" needs itself, by way of others`] : []),
    ...(layer.kind === 'group' ? siblingFaults(layer.layers) : []),
  ]);
}

/** Those of some that need each other in a circle, or need such a one. Each is gone into once. */
function goingRound(needs: ReadonlyMap<string, readonly string[]>): ReadonlySet<string> {
  const round = new Set<string>();
  const done = new Set<string>();
  const open = new Set<string>();
  const isRound = (id: string): boolean => {
    if (done.has(id)) return round.has(id);
    if (open.has(id)) return true;
    open.add(id);
    const found = (needs.get(id) ?? []).map(isRound).some(Boolean);
    open.delete(id);
    done.add(id);
    if (found) round.add(id);
    return found;
  };
  for (const id of needs.keys()) isRound(id);
  return round;
}

/** Drawn paths that cannot be read. */
function pathFaults(layer: Layer): string[] {
  const outlines = [
    ...(layer.kind === 'shape' ? [layer.outline] : []),
    ...(layer.kind === 'picture' && layer.outline ? [layer.outline] : []),
    ...(layer.kind === 'particles' && 'outline' in layer.from ? [layer.from.outline] : []),
    ...(layer.kind === 'particles' && 'outline' in layer.looks ? [layer.looks.outline] : []),
    ...(layer.mask ? [layer.mask.outline] : []),
  ];
  return outlines.flatMap((outline) => {
    if (outline.kind !== 'path' || !isConstant(outline.data)) return [];
    try {
      parseSvgPath(outline.data);
      return [];
    } catch (error) {
      return [`the layer "${layer.id}": ${(error as Error).message}`];
    }
  });
}

/** Copies are of fills alone. */
function copiesFaults(layer: Layer): string[] {
  if (layer.kind !== 'shape' || !layer.copies || (layer.fill && !layer.stroke)) return [];
  return [`the shape "${layer.id}" has copies: it needs a fill, and takes no stroke`];
}

/** How the values of grain rest, as text: it lies over the whole picture, and what would place it or set it apart does nothing good. */
const GRAIN_RESTS: Readonly<Record<string, string>> = {
  ...{ at: '0,0', offset: '0,0', origin: '0,0', move: '0,0,0', turn: '0,0,0', scale: '1,1', skew: '0' },
  ...{ blend: 'normal', placing: 'undefined', mask: 'undefined', matte: 'undefined', effects: '' },
};

/** What grain does not take. */
export const NOT_OF_GRAIN: ReadonlySet<string> = new Set([...Object.keys(GRAIN_RESTS), 'pivot']);

function grainFaults(layer: Layer): string[] {
  if (layer.kind !== 'grain') return [];
  const held = new Map(Object.entries(layer));
  return Object.entries(GRAIN_RESTS).every(([key, rest]) => String(held.get(key)) === rest)
    ? []
    : [
        `the grain "${layer.id}" covers the whole picture: it takes no place, turn, size, blend, mask or effects`,
      ];
}
