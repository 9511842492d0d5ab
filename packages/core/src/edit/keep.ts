import { controlFills, defaultOf, isKeyed, takesWords } from '../documents/controls';
import { type ControlFill, type Fill, isPicture, isSound, isWords, type SlotFill } from '../documents/fill';
import { suitingTexts } from '../documents/suiting';
import type { Control, Slot, Template } from '../documents/template';
import { changedLayers, flatLayers } from '../evaluate/changes';
import { lettersMedia } from '../evaluate/slotFills';
import { sameData } from '../paint/ops';
import type { Mark } from '../time/clock';
import { freeName } from '../values/freeName';
import { frameShape } from '../values/property';
import { given } from './items';

/** What a template is kept as. */
export interface KeptAs {
  readonly id: string;
  readonly name: string;
  readonly set?: string | undefined;
  readonly moods?: readonly string[] | undefined;
  /** The moment its picture shows; as the template it comes from has it, when absent. */
  readonly still?: Mark | undefined;
}

/** The look that a kept template has besides those it comes from had: as it was when it was kept. */
const AS_KEPT = 'as-kept';

/**
 * A graphic as a template: what stands in its slots becomes the samples, what its controls hold the defaults, and what
 * was changed of its texts is as the maker's. It paints what the graphic painted, frame by frame. Of a control whose
 * default differs by the shape of the frame, that of the graphic's own shape alone is set.
 * @param frame of the reel in which it stands
 */
export function keptTemplate(
  template: Template,
  fill: Fill,
  frame: { readonly width: number; readonly height: number },
  { id, name, set, moods, still }: KeptAs,
): Template {
  const held = controlFills(template, fill, frame);
  const layers = changedLayers(
    fill.flat ? flatLayers(template.layers) : template.layers,
    fill.texts && suitingTexts(fill.texts, template),
  );
  const assets: Record<string, string> = {};
  /** The name of a file among the template's own, new where it is not there. */
  const named = (wanted: string, media: string): string => {
    const there = Object.entries(assets).find(([, other]) => other === media);
    const free = there?.[0] ?? freeName(wanted, (n) => Object.hasOwn(assets, n));
    assets[free] = media;
    return free;
  };
  const slots = template.slots.map((slot) =>
    withSample(slot, fill.hidden?.includes(slot.id) ? null : fill.slots[slot.id], template, named),
  );
  for (const media of lettersMedia(layers)) named('letters', media);
  const { set: _, edition: __, ...rest } = template;
  return given({
    ...rest,
    ...{ id, name, from: template.from ?? template.id, set },
    ...(moods ? { moods: [...moods] } : {}),
    ...(still ? { still } : {}),
    slots,
    controls: template.controls.map((control) =>
      withDefault(control, held[control.id]!, Object.hasOwn(fill.controls, control.id), frame),
    ),
    looks: withKeptLook(template, held),
    layers: [...layers],
    assets,
  }) as Template;
}

/** A slot with what the user put there as its sample. */
function withSample(
  slot: Slot,
  held: SlotFill | undefined,
  template: Template,
  named: (wanted: string, media: string) => string,
): Slot {
  if (takesWords(slot)) return held === undefined ? slot : { ...slot, sample: isWords(held) ? held : '' };
  if (held === null) return { ...slot, sample: null };
  if (slot.kind === 'sound') {
    if (!isSound(held)) return withOwnSample(slot, template, named);
    const { sound, ...sampleAs } = held;
    return { ...slot, sample: named(slot.id, sound), sampleAs };
  }
  if (!isPicture(held)) return withOwnSample(slot, template, named);
  const { media, ...logoAs } = held;
  const sample = named(slot.id, media);
  if (slot.kind === 'logo') return { ...slot, sample, sampleAs: logoAs };
  const { focus: sampleFocus, ...sampleAs } = logoAs;
  return { ...slot, sample, sampleFocus, sampleAs };
}

/** A slot that keeps its sample, which stays among the template's files. */
function withOwnSample<S extends Exclude<Slot, { kind: 'text' | 'list' }>>(
  slot: S,
  { assets }: Template,
  named: (wanted: string, media: string) => string,
): S {
  const media = slot.sample === null ? undefined : assets[slot.sample];
  return media === undefined ? slot : { ...slot, sample: named(slot.sample!, media) };
}

/** A control with what it holds as its default. */
function withDefault(
  control: Control,
  held: ControlFill,
  isOwn: boolean,
  frame: { readonly width: number; readonly height: number },
): Control {
  const { keys: _, ...plain } = control;
  if (isKeyed(held)) return { ...plain, keys: held.keys } as Control;
  if (sameData(held, defaultOf(control, frame))) return plain as Control;
  const { default: base } = control;
  const isByShape = typeof base === 'object' && !Array.isArray(base);
  // A look counts in frames of all shapes.
  const value = isByShape && isOwn ? { ...base, [frameShape(frame)]: held } : held;
  return { ...plain, default: value } as Control;
}

/** The looks, before them the one that was kept, so that one can come back to it. */
function withKeptLook(template: Template, held: Readonly<Record<string, ControlFill>>): Template['looks'] {
  const others = template.looks.filter((l) => l.id !== AS_KEPT);
  const set = new Set(others.flatMap((l) => Object.keys(l.controls)));
  const controls = Object.entries(held).flatMap(([id, value]) =>
    set.has(id) && !isKeyed(value) ? [[id, value] as const] : [],
  );
  if (controls.length === 0) return others;
  return [{ id: AS_KEPT, name: 'As kept', controls: Object.fromEntries(controls) }, ...others].slice(0, 40);
}
