import { parseSvgPath } from '../geometry/path';
import { linkable, linkedControls, linkFaults } from '../values/linking';
import { frameShape } from '../values/property';
import { type ControlFill, type ControlKey, type ControlValue, type Fill, isWords } from './fill';
import type { Control, Slot, Template } from './template';

/** Whether a slot is for words rather than for a picture. */
export function takesWords(slot: Slot): slot is Extract<Slot, { kind: 'text' | 'list' }> {
  return slot.kind === 'text' || slot.kind === 'list';
}

/** Whether a slot is for something seen: a picture, a clip or a logo. */
export function takesPictures(slot: Slot): slot is Extract<Slot, { kind: 'picture' | 'logo' }> {
  return slot.kind === 'picture' || slot.kind === 'logo';
}

/** A control's default for the shape of a frame. */
export function defaultOf(control: Control, frame: { width: number; height: number }): ControlValue {
  const held = control.default;
  if (typeof held === 'object' && !Array.isArray(held)) return held[frameShape(frame)];
  return held;
}

/** The value a control has before the user touches it: the look's, or the template's default. */
export function restingValue(
  template: Template,
  look: string | undefined,
  control: Control,
  frame: { width: number; height: number },
): ControlValue {
  const held = template.looks.find((l) => l.id === look)?.controls ?? {};
  return Object.hasOwn(held, control.id) ? held[control.id]! : defaultOf(control, frame);
}

/** What a control holds before the user touches it: the look's value, or what the template has, which may be keys. */
export function restingFill(
  template: Template,
  look: string | undefined,
  control: Control,
  frame: { width: number; height: number },
): ControlFill {
  const held = template.looks.find((l) => l.id === look)?.controls ?? {};
  return control.keys && !Object.hasOwn(held, control.id)
    ? { keys: control.keys }
    : restingValue(template, look, control, frame);
}

/** Whether a control holds values over time. */
export function isKeyed(held: ControlFill | undefined): held is { keys: ControlKey[] } {
  return typeof held === 'object' && !Array.isArray(held);
}

/** Whether a control can change over time: not those that say how long something takes, nor fonts and paths. */
export function canBeKeyed(template: Template, control: Control): boolean {
  return (
    !['duration', 'font', 'path'].includes(control.kind) && !linkedControls(template.timing).has(control.id)
  );
}

/**
 * What all controls hold: the user's (one value, or keys), else the look's, else the default. What does not suit is
 * passed over.
 */
export function controlFills(
  template: Template,
  fill: Fill,
  frame: { width: number; height: number },
): Record<string, ControlFill> {
  return Object.fromEntries(
    template.controls.map((control) => {
      const own = Object.hasOwn(fill.controls, control.id) ? fill.controls[control.id] : undefined;
      const usable = own !== undefined && faultOfFill(control, own) === undefined;
      return [control.id, usable ? own : restingFill(template, fill.look, control, frame)];
    }),
  );
}

/** What is wrong with what a control is given, keys and all. */
export function faultOfFill(control: Control, held: ControlFill): string | undefined {
  if (!isKeyed(held)) return faultOfValue(control, held);
  return held.keys.map((k) => faultOfValue(control, k.value)).find((f) => f !== undefined);
}

/** What is wrong with a value for a control, in words, or nothing. */
export function faultOfValue(control: Control, value: ControlValue): string | undefined {
  switch (control.kind) {
    case 'number':
    case 'duration':
      if (typeof value !== 'number' || !Number.isFinite(value)) return `"${control.id}" takes a number`;
      return value < control.min || value > control.max
        ? `"${control.id}" takes a number from ${control.min} to ${control.max}, not ${value}`
        : undefined;
    case 'colour':
      return typeof value === 'string' && /^#[0-9a-f]{6}$/i.test(value)
        ? undefined
        : `"${control.id}" takes a colour such as #C8431C`;
    case 'point':
      return Array.isArray(value) && value.every((v) => Number.isFinite(v))
        ? undefined
        : `"${control.id}" takes a point such as [0.5, 0.5]`;
    case 'choice':
      return control.options.some((o) => o.id === value)
        ? undefined
        : `"${control.id}" takes one of ${control.options.map((o) => o.id).join(', ')}`;
    case 'switch':
      return typeof value === 'boolean' ? undefined : `"${control.id}" takes true or false`;
    case 'font':
      return typeof value === 'string' && value !== '' ? undefined : `"${control.id}" takes a font family`;
    case 'path':
      return typeof value === 'string' && isPathData(value)
        ? undefined
        : `"${control.id}" takes SVG path data such as "M 0.1 0.5 L 0.9 0.5"`;
  }
}

function isPathData(data: string): boolean {
  try {
    return parseSvgPath(data).commands.length > 0;
  } catch {
    return false;
  }
}

/** All that is wrong with a fill for a template: unknown names and unsuitable values. */
export function faultsOfFill(template: Template, fill: Fill): string[] {
  const faults: string[] = [];
  const slots = new Map(template.slots.map((s) => [s.id, s]));
  const controls = new Map(template.controls.map((c) => [c.id, c]));
  const known = (names: Iterable<string>) => [...names].join(', ') || 'none';
  for (const [id, held] of Object.entries(fill.slots)) {
    const slot = slots.get(id);
    if (!slot) faults.push(`there is no slot "${id}"; the slots are ${known(slots.keys())}`);
    else if (takesWords(slot) && held !== null && !isWords(held)) faults.push(`the slot "${id}" takes words`);
    else if (!takesWords(slot) && isWords(held)) faults.push(`the slot "${id}" takes a picture`);
  }
  for (const [id, value] of Object.entries(fill.controls)) {
    const control = controls.get(id);
    if (!control) faults.push(`there is no control "${id}"; the controls are ${known(controls.keys())}`);
    else {
      const fault = faultOfFill(control, value);
      if (fault) faults.push(fault);
    }
  }
  for (const id of fill.hidden ?? []) {
    if (!slots.has(id)) faults.push(`there is no slot "${id}" to hide; the slots are ${known(slots.keys())}`);
  }
  if (fill.look !== undefined && !template.looks.some((l) => l.id === fill.look)) {
    faults.push(`there is no look "${fill.look}"; the looks are ${known(template.looks.map((l) => l.id))}`);
  }
  for (const { path, message } of linkFaults(fill, linkable(template.controls)))
    faults.push(`${path.join(' › ')}: ${message}`);
  return faults;
}
