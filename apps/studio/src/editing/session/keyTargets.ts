import {
  type Clock,
  type ControlFill,
  type ControlValue,
  changeText,
  type Easing,
  type FramingKey,
  framingClock,
  framingHeld,
  graphicOf,
  holdFraming,
  holdTreatment,
  isKeyed,
  isPicture,
  itemOf,
  type Property,
  type Reel,
  type ReelItem,
  resetControl,
  setControl,
  type TextChange,
  TREATMENTS,
  type Treated,
  treatmentHeld,
  treatmentsOf,
} from '@fresh-reel/core';
import type { GraphicEditor, GraphicWork, ReelEditor } from './useReelEditor';

/** Properties of a text that can change over time, where they lie in a change. */
export const TEXT_KEYS = {
  size: { name: 'Size', unit: 'px', min: 4, max: 600, step: 1 },
  tracking: { name: 'Tracking', unit: '‰', min: -200, max: 1000, step: 5 },
  leading: { name: 'Leading', unit: '×', min: 0.6, max: 3, step: 0.02 },
  shift: { name: 'Baseline shift', unit: '‰', min: -1000, max: 1000, step: 10 },
  perspective: { name: 'Perspective', unit: '×', min: 0, max: 4, step: 0.05 },
  'placing.move': { name: 'Moved by', unit: 'px', min: -4000, max: 4000, step: 1 },
  'placing.scale': { name: 'Scale', unit: '×', min: 0, max: 8, step: 0.01 },
  'placing.turn': { name: 'Turned', unit: '°', min: -720, max: 720, step: 1 },
  'placing.tilt': { name: 'Tilted', unit: '°', min: -180, max: 180, step: 1 },
  'fill.colour': { name: 'Fill', unit: '', min: 0, max: 0, step: 1 },
  'along.position': { name: 'Place along the path', unit: '×', min: -1, max: 2, step: 0.01 },
} as const;
export type TextKey = keyof typeof TEXT_KEYS;

/** A value that can have keyframes: a control's, one of a text layer, how an item lies, or of a treatment. */
export type KeyTarget =
  | { readonly kind: 'control'; readonly id: string }
  | { readonly kind: 'text'; readonly layer: string; readonly key: TextKey }
  | { readonly kind: 'item'; readonly item: string; readonly key: FramingKey }
  | TreatmentTarget;

/** A value of a treatment of an item, or of what is in one of its slots. */
export interface TreatmentTarget {
  readonly kind: 'treatment';
  readonly item: string;
  readonly slot?: string;
  readonly id: string;
  readonly key: string;
}

/** What of an item's framing changes over time, by name. */
export const FRAMING_NAMES: Readonly<Record<FramingKey, string>> = {
  move: 'Place',
  scale: 'Size',
  turn: 'Turn',
  opacity: 'Opacity',
  crop: 'Cut off',
};

/** Whether it is changed where items are placed, and not where a graphic is filled. */
export const isOfItem = (target: KeyTarget): boolean =>
  target.kind === 'item' || (target.kind === 'treatment' && target.slot === undefined);

export const sameTarget = (a: KeyTarget | undefined, b: KeyTarget | undefined): boolean =>
  JSON.stringify(a) === JSON.stringify(b);

/** A key target with what it holds now and how it is written. */
export interface Keyed {
  readonly name: string;
  /** One value, or keys. */
  readonly held: ControlFill;
  /** Whether it can hold keys: a property that a template links elsewhere takes a plain value first. */
  readonly digits: number;
  /** What its keys count by. */
  readonly clock: Clock;
  /** A frame of the reel as a time of its keys, and back. */
  localAt(frame: number): number;
  frameOf(local: number): number;
  write(reel: Reel, next: ControlFill): Reel;
  reset(reel: Reel): Reel;
}

const PLACING = { move: [0, 0] as [number, number], scale: 1, turn: 0, tilt: [0, 0] as [number, number] };

/** The text layer's part that a key names, in the change. */
function changeOf(
  change: TextChange,
  key: TextKey,
  value: unknown,
  along: TextChange['along'],
): Partial<TextChange> {
  if (key.startsWith('placing.')) {
    return {
      placing: { ...PLACING, ...change.placing, [key.slice('placing.'.length)]: value },
    } as Partial<TextChange>;
  }
  if (key === 'along.position') return { along: { ...along, position: value } } as Partial<TextChange>;
  if (key === 'fill.colour') return { fill: { colour: value } } as Partial<TextChange>;
  return { [key]: value } as Partial<TextChange>;
}

/** What a target holds in a reel, and how to change it. Nothing when it is not there any more. */
export function keyedOf(target: KeyTarget, editor: Pick<ReelEditor, 'reel' | 'work'>): Keyed | undefined {
  if (target.kind === 'item') return keyedFraming(target, editor.reel);
  if (target.kind === 'treatment') return keyedTreatment(target, editor);
  return editor.work && keyedGraphic(target, editor.work);
}

function keyedFraming({ item: id, key }: KeyTarget & { kind: 'item' }, reel: Reel): Keyed | undefined {
  const item = itemOf(reel, id)?.item;
  if (!item) return undefined;
  return {
    name: FRAMING_NAMES[key],
    held: framingHeld(item, key),
    digits: key === 'turn' ? 0 : 2,
    ...itemTimes(reel, item),
    write: (r, next) => holdFraming(r, id, key, next as never),
    reset: (r) => holdFraming(r, id, key, undefined),
  };
}

function keyedTreatment(
  { item: itemId, slot, id, key }: TreatmentTarget,
  { reel, work }: Pick<ReelEditor, 'reel' | 'work'>,
): Keyed | undefined {
  const item = itemOf(reel, itemId)?.item;
  if (!item) return undefined;
  /** What is treated, as it stands where it is read from or written to. */
  const within = (r: Reel): Treated | undefined => {
    if (slot === undefined) return { kind: 'item', item: itemId };
    const own = graphicOf(r, itemId).fill.slots[slot];
    const shown = isPicture(own) ? own : work?.scene.slots.slotPicture(slot);
    return shown && { kind: 'slot', item: itemId, slot, shown };
  };
  const of = within(reel);
  const treatment = of && treatmentsOf(reel, of).find((t) => t.id === id);
  const held = of && treatmentHeld(reel, of, id, key);
  if (!treatment || held === undefined) return undefined;
  const times =
    slot === undefined
      ? itemTimes(reel, item)
      : work && {
          clock: work.scene.clock,
          localAt: (frame: number) => work.time.localAt(frame),
          frameOf: (local: number) => work.time.frameOfLocal(local),
        };
  if (!times) return undefined;
  const { name, fields, fresh } = TREATMENTS[treatment.effect];
  const field = fields.find((f) => f.key === key);
  const write = (r: Reel, next: ControlFill) => {
    const where = within(r);
    return where ? holdTreatment(r, where, id, key, next) : r;
  };
  return {
    name: field && field.name !== name ? `${name}, ${field.name.toLowerCase()}` : name,
    held,
    ...times,
    digits: 2,
    write,
    reset: (r) => write(r, (fresh as unknown as Record<string, ControlFill>)[key]!),
  };
}

/** What the keys of an item count by. */
function itemTimes(reel: Reel, item: ReelItem) {
  return {
    clock: framingClock(reel, item),
    localAt: (frame: number) => frame - item.start,
    frameOf: (local: number) => item.start + local,
  };
}

function keyedGraphic(
  target: Exclude<KeyTarget, { kind: 'item' | 'treatment' }>,
  { scene, graphic, time }: GraphicWork,
): Keyed | undefined {
  const times = {
    clock: scene.clock,
    localAt: (frame: number) => time.localAt(frame),
    frameOf: (local: number) => time.frameOfLocal(local),
  };
  if (target.kind === 'control') {
    const control = graphic.template.controls.find((c) => c.id === target.id);
    const held = scene.controls[target.id];
    if (!control || held === undefined) return undefined;
    return {
      name: control.name,
      held,
      ...times,
      digits: control.kind === 'number' && control.step < 1 ? 2 : 0,
      write: (reel, next) => setControl(reel, graphic.id, target.id, next),
      reset: (reel) => resetControl(reel, graphic.id, target.id),
    };
  }
  const layer = scene.textLayer(target.layer);
  if (!layer) return undefined;
  const { key } = target;
  // From the reel that is written to, not the one that was seen: two values may be written in one moment.
  const changeIn = (reel: Reel): TextChange => graphicOf(reel, graphic.id).fill.texts?.[target.layer] ?? {};
  const property = propertyOf(layer, key);
  if (property === undefined) return undefined;
  const held = isPlainKeys(property)
    ? property
    : (scene.valueAt(property as Property<number>, 0) as ControlValue);
  return {
    name: TEXT_KEYS[key].name,
    held: held as ControlFill,
    ...times,
    digits: TEXT_KEYS[key].step < 1 ? 2 : 0,
    write: (reel, next) =>
      changeText(reel, graphic.id, target.layer, changeOf(changeIn(reel), key, next, layer.along)),
    reset: (reel) => changeText(reel, graphic.id, target.layer, resetOf(changeIn(reel), key)),
  };
}

/** Takes the user's own value of a key away. */
export function resetOf(change: TextChange, key: TextKey): Partial<TextChange> {
  if (key === 'along.position') return { along: undefined } as unknown as Partial<TextChange>;
  if (key === 'fill.colour') return { fill: undefined } as unknown as Partial<TextChange>;
  if (!key.startsWith('placing.')) return { [key]: undefined } as Partial<TextChange>;
  const part = key.slice('placing.'.length) as keyof typeof PLACING;
  const placing = { ...PLACING, ...change.placing, [part]: PLACING[part] };
  const bare = JSON.stringify(placing) === JSON.stringify(PLACING);
  return { placing: bare ? undefined : placing } as Partial<TextChange>;
}

type Layer = NonNullable<ReturnType<GraphicEditor['scene']['textLayer']>>;

export function propertyOf(layer: Layer, key: TextKey): unknown {
  if (key.startsWith('placing.')) {
    return { ...PLACING, ...layer.placing }[key.slice('placing.'.length) as keyof typeof PLACING];
  }
  if (key === 'along.position') return layer.along?.position;
  if (key === 'fill.colour') {
    return typeof layer.fill === 'object' && 'colour' in layer.fill ? layer.fill.colour : undefined;
  }
  return layer[key as 'size'];
}

/** Keys whose values are plain: what the key strip can show and change. */
function isPlainKeys(property: unknown): boolean {
  return (
    isKeyed(property as ControlFill) &&
    'keys' in (property as object) &&
    (property as { keys: { value: unknown; ease?: Easing }[] }).keys.every(
      ({ value }) => typeof value !== 'object' || Array.isArray(value),
    )
  );
}
