import type { Treatment, TreatmentKind } from '../effects/treatment';

/** A number or a colour of a treatment, as it is shown. */
export interface TreatmentField {
  readonly key: string;
  readonly name: string;
  /** Shown times `times`, in `unit`; a colour has none of these. */
  readonly number?: {
    readonly min: number;
    readonly max: number;
    readonly step: number;
    readonly unit: string;
    readonly times: number;
  };
}

type Fresh = Treatment extends infer T ? (T extends Treatment ? Omit<T, 'id'> : never) : never;

/** A kind of treatment: what it is called, what it takes, and how it begins. */
export interface TreatmentOffer {
  readonly name: string;
  readonly fields: readonly TreatmentField[];
  readonly fresh: Fresh;
}

const percent = (key: string, name: string, max: number, min = 0): TreatmentField => ({
  key,
  name,
  number: { min, max, step: 1, unit: '%', times: 100 },
});
const pixels = (key: string, name: string, min: number, max: number, step: number): TreatmentField => ({
  key,
  name,
  number: { min, max, step, unit: 'px', times: 1 },
});
const amount = (name: string, max = 1) => percent('amount', name, max);

/** The kinds of treatment, in the order in which they are offered. */
export const TREATMENTS: Readonly<Record<TreatmentKind, TreatmentOffer>> = {
  brightness: {
    name: 'Brightness',
    fields: [amount('Brightness', 2)],
    fresh: { effect: 'brightness', amount: 1.2 },
  },
  contrast: {
    name: 'Contrast',
    fields: [amount('Contrast', 2)],
    fresh: { effect: 'contrast', amount: 1.25 },
  },
  saturation: {
    name: 'Saturation',
    fields: [amount('Saturation', 2)],
    fresh: { effect: 'saturation', amount: 0.5 },
  },
  tint: {
    name: 'Tint',
    fields: [{ key: 'colour', name: 'Colour' }, amount('How strongly')],
    fresh: { effect: 'tint', colour: '#C8742C', amount: 0.6 },
  },
  blur: {
    name: 'Blur',
    fields: [pixels('radius', 'Softness', 0, 100, 0.5)],
    fresh: { effect: 'blur', radius: 12 },
  },
  sharpen: {
    name: 'Sharpen',
    fields: [amount('How strongly', 2), pixels('radius', 'Breadth of edges', 0.2, 10, 0.1)],
    fresh: { effect: 'sharpen', amount: 0.8, radius: 2 },
  },
  grain: {
    name: 'Grain',
    fields: [amount('How strongly'), pixels('size', 'Size of a grain', 0.5, 8, 0.1)],
    fresh: { effect: 'grain', amount: 0.35, size: 2 },
  },
  vignette: {
    name: 'Vignette',
    fields: [amount('How dark'), percent('clear', 'What stays clear', 0.95)],
    fresh: { effect: 'vignette', amount: 0.6, clear: 0.4 },
  },
  glow: {
    name: 'Glow',
    fields: [amount('How strongly'), pixels('radius', 'How far', 0, 200, 1)],
    fresh: { effect: 'glow', amount: 0.6, radius: 40 },
  },
  disturb: {
    name: 'Broken link',
    fields: [
      amount('How strongly'),
      percent('bursts', 'How often', 1),
      pixels('apart', 'Colours apart', 0, 200, 1),
      pixels('thrown', 'Slices thrown', 0, 600, 1),
      percent('blocks', 'Blocks', 1),
      percent('lines', 'Lines of a screen', 1),
      pixels('pitch', 'From line to line', 3, 60, 0.5),
    ],
    fresh: {
      effect: 'disturb',
      amount: 0.7,
      bursts: 0.4,
      apart: 16,
      thrown: 90,
      blocks: 0.3,
      lines: 0,
      pitch: 8,
      every: 3,
      seed: 1,
    },
  },
  bulge: {
    name: 'Lens',
    fields: [percent('amount', 'Nearer, or drawn in', 1, -1), pixels('radius', 'How large', 20, 1500, 5)],
    fresh: { effect: 'bulge', amount: 0.6, at: [0.5, 0.5], radius: 420 },
  },
  tape: {
    name: 'Worn tape',
    fields: [
      amount('How worn'),
      percent('tracking', 'Band of bad tracking', 2, -1),
      percent('noise', 'Drop-outs', 1),
      pixels('run', 'Colours run', 0, 80, 1),
    ],
    fresh: { effect: 'tape', amount: 0.6, tracking: 0.8, noise: 0.4, run: 10, seed: 1 },
  },
  halftone: {
    name: 'Printed dots',
    fields: [
      amount('How strongly'),
      pixels('cell', 'From dot to dot', 6, 100, 1),
      { key: 'angle', name: 'Turned', number: { min: -90, max: 90, step: 1, unit: '°', times: 1 } },
    ],
    fresh: { effect: 'halftone', amount: 1, cell: 14, angle: 45 },
  },
  tremble: {
    name: 'Trembling edges',
    fields: [pixels('amount', 'How far', 0, 60, 0.5), pixels('size', 'From bend to bend', 4, 300, 1)],
    fresh: { effect: 'tremble', amount: 6, size: 60, every: 7, seed: 1 },
  },
  crumple: {
    name: 'Crumpled paper',
    fields: [amount('How deep'), pixels('size', 'From crease to crease', 20, 600, 5)],
    fresh: { effect: 'crumple', amount: 0.6, size: 160, seed: 1 },
  },
  chalk: {
    name: 'Chalk',
    fields: [amount('How much is missing'), pixels('size', 'Size of a grain', 1, 30, 0.5)],
    fresh: { effect: 'chalk', amount: 0.35, size: 4, every: 0, seed: 1 },
  },
  bleed: {
    name: 'Running ink',
    fields: [pixels('amount', 'How far', 0, 40, 0.5), percent('uneven', 'Uneven', 1)],
    fresh: { effect: 'bleed', amount: 6, uneven: 0.5, seed: 1 },
  },
  'long-shadow': {
    name: 'Long shadow',
    fields: [
      pixels('length', 'How long', 0, 1500, 5),
      { key: 'angle', name: 'Falls to', number: { min: 0, max: 360, step: 1, unit: '°', times: 1 } },
      { key: 'colour', name: 'Colour' },
      percent('opacity', 'How dark', 1),
    ],
    fresh: { effect: 'long-shadow', length: 240, angle: 40, colour: '#000000', opacity: 0.35 },
  },
  neon: {
    name: 'Neon',
    fields: [
      amount('Switched on'),
      { key: 'colour', name: 'Colour' },
      pixels('radius', 'How far it shines', 0, 150, 1),
      percent('flicker', 'Flicker', 1),
    ],
    fresh: { effect: 'neon', amount: 1, colour: '#FF4F79', radius: 30, hum: 0.04, flicker: 0.1, seed: 1 },
  },
};
