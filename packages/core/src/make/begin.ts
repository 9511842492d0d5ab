import type { Template, Use } from '../documents/template';
import { templateKind } from '../documents/templateKind';
import { openDocument } from '../values/load';
import type { FrameShape } from '../values/property';

/** What a template can begin as. */
export const BEGINNINGS = [
  { id: 'blank', name: 'Blank', about: 'An empty frame', use: 'overlay' },
  { id: 'strap', name: 'Strap', about: 'A name and a role at the foot of the picture', use: 'lower-third' },
  { id: 'title', name: 'Title', about: 'Large words in the middle, a line below', use: 'title' },
  { id: 'sting', name: 'Sting', about: 'A logo that arrives', use: 'logo-sting' },
  { id: 'opener', name: 'Opener', about: 'A picture, a title over it', use: 'opener' },
  { id: 'callout', name: 'Callout', about: 'A bubble that points at something', use: 'callout' },
  { id: 'card', name: 'Card', about: 'Words on a card of its own', use: 'card' },
] as const satisfies readonly { id: string; name: string; about: string; use: Use }[];
export type BeginningId = (typeof BEGINNINGS)[number]['id'];

const AT_REST = { at: 30, of: 'hold' };
const colour = (id: string, name: string, value: string, brand: string) => ({
  ...{ kind: 'colour', id, name, group: 'Colours', default: value, brand },
});
const PAPER = '#FBF8F2';
const words = (id: string, name: string, sample: string) => ({
  ...{ kind: 'text', id, name, sample, scenes: ['all'], moment: AT_REST },
});
const COMES = { bezier: [0.16, 1, 0.3, 1] };
const GOES = { bezier: [0.7, 0, 0.84, 0] };
const rising = (start: number) => ({
  in: [
    {
      ...{ unit: 'word', stagger: 4, start: { at: start }, length: 26, ease: COMES, behind: true },
      away: { move: [0, 1.1, 0] },
    },
  ],
  out: [{ unit: 'whole', start: { at: 0, of: 'out' }, length: 16, ease: GOES, away: { opacity: 0 } }],
});
/** Frame units of a line, in a wide frame and in others. */
const roomOf = (wide: number) => {
  const other = Math.min(wide, 880);
  return wide === other ? wide : { shape: { wide, tall: other, square: other } };
};
const text = (id: string, slot: string, name: string, size: number, weight: number, width: number) => ({
  ...{ kind: 'text', id, name, words: { slot }, size, weight, leading: 1.08 },
  ...{ family: { control: 'font' }, fit: { width: roomOf(width), lines: 2, least: 0.4 } },
});
/** From nothing to all of it, and back. */
const growing = (from: number, length: number, empty: readonly number[]) => ({
  keys: [
    { at: from, of: 'in', value: empty, ease: COMES },
    { at: from + length, of: 'in', value: [1, 1] },
    { at: 6, of: 'out', value: [1, 1], ease: GOES },
    { at: 24, of: 'out', value: empty },
  ],
});
const GROUND = colour('ground', 'Ground colour', '#1E4D3B', 'dark');
const INK = colour('ink', 'Words colour', PAPER, 'light');
const ACCENT = colour('accent', 'Accent colour', '#F2A541', 'main');
const FONT = {
  kind: 'font',
  id: 'font',
  name: 'Words font',
  group: 'Letters',
  default: 'Bricolage Grotesque',
};
const position = (wide: readonly number[], tall: readonly number[]) => ({
  ...{ kind: 'point', id: 'position', name: 'Strap position', group: 'Place' },
  default: { wide, tall, square: tall },
});

/** What each has besides what all have. */
const PARTS: Readonly<Record<BeginningId, object>> = {
  blank: { layers: [{ kind: 'group', id: 'all', name: 'All of it', layers: [] }] },
  strap: {
    slots: [
      words('name', 'Name', 'Marit Oyelaran'),
      { ...words('role', 'Role', 'Kite maker'), optional: true },
    ],
    controls: [position([0.08, 0.86], [0.08, 0.8]), GROUND, INK, ACCENT, FONT],
    layers: [
      {
        ...{ kind: 'group', id: 'strap', name: 'Strap' },
        ...{ at: { control: 'position' }, origin: [0, 1], row: { direction: 'column', gap: 30 } },
        layers: [
          {
            ...{ kind: 'shape', id: 'plate', name: 'Plate', outline: { kind: 'rectangle', corner: 6 } },
            hug: { layers: ['name', 'role'], margin: [30, 56, 32, 44] },
            ...{
              fill: { colour: { control: 'ground' } },
              extentFrom: [0, 0.5],
              extent: growing(0, 30, [0, 1]),
            },
          },
          {
            ...text('name', 'name', 'Name', 76, 700, 1200),
            ...{ fill: { colour: { control: 'ink' } }, motion: rising(10) },
          },
          {
            ...text('role', 'role', 'Role', 38, 500, 1200),
            ...{ fill: { colour: { control: 'accent' } }, motion: rising(18) },
          },
        ],
      },
    ],
  },
  title: {
    slots: [
      words('title', 'Title', 'Three days of wind'),
      { ...words('below', 'Line below', 'The hill above Marram'), optional: true },
    ],
    controls: [INK, ACCENT, FONT],
    layers: [
      {
        ...{ kind: 'group', id: 'words', name: 'Words', at: [0.5, 0.5], origin: [0.5, 0.5] },
        row: { direction: 'column', gap: 58, align: 0.5 },
        layers: [
          {
            ...text('title', 'title', 'Title', 148, 800, 1500),
            ...{ align: 'middle', fill: { colour: { control: 'ink' } }, motion: rising(0) },
          },
          {
            ...{ kind: 'shape', id: 'line', name: 'Line', size: [220, 8], needs: ['below'] },
            ...{ outline: { kind: 'rectangle', corner: 4 }, fill: { colour: { control: 'accent' } } },
            ...{ extentFrom: [0.5, 0.5], extent: growing(16, 26, [0, 1]) },
          },
          {
            ...text('below', 'below', 'Line below', 46, 500, 1500),
            ...{ align: 'middle', fill: { colour: { control: 'ink' } }, motion: rising(20) },
          },
        ],
      },
    ],
  },
  sting: {
    slots: [{ kind: 'logo', id: 'logo', name: 'Logo', sample: null, scenes: ['all'], moment: AT_REST }],
    controls: [GROUND, ACCENT],
    transparent: false,
    layers: [
      {
        ...{ kind: 'shape', id: 'ground', name: 'Ground', outline: { kind: 'rectangle' } },
        fill: { colour: { control: 'ground' } },
      },
      {
        ...{ kind: 'shape', id: 'disc', name: 'Disc', outline: { kind: 'ellipse' }, size: [620, 620] },
        ...{ at: [0.5, 0.5], origin: [0.5, 0.5], fill: { colour: { control: 'accent' } } },
        scale: growing(0, 34, [0, 0]),
      },
      {
        ...{ kind: 'picture', id: 'logo', name: 'Logo', slot: 'logo', size: [420, 420], fit: 'fit' },
        ...{ at: [0.5, 0.5], origin: [0.5, 0.5], scale: growing(10, 34, [0, 0]) },
      },
    ],
  },
  opener: {
    slots: [
      { kind: 'picture', id: 'picture', name: 'Picture', sample: null, scenes: ['all'], moment: AT_REST },
      words('title', 'Title', 'The wind has come up'),
    ],
    controls: [GROUND, INK, FONT],
    transparent: false,
    layers: [
      {
        ...{ kind: 'shape', id: 'ground', name: 'Ground', outline: { kind: 'rectangle' } },
        fill: { colour: { control: 'ground' } },
      },
      {
        ...{ kind: 'picture', id: 'picture', name: 'Picture', slot: 'picture' },
        size: { parts: [{ frame: 'width' }, { frame: 'height' }] },
        zoom: {
          keys: [
            { at: 0, value: 1.12, ease: 'linear' },
            { at: 30, of: 'out', value: 1 },
          ],
        },
        opacity: {
          keys: [
            { at: 0, value: 0, ease: 'ease-out' },
            { at: 24, value: 1 },
          ],
        },
      },
      {
        ...{ kind: 'shape', id: 'shade', name: 'Shade', outline: { kind: 'rectangle' } },
        fill: {
          ...{ gradient: 'linear', angle: 90 },
          stops: [
            [0.35, '#00000000'],
            [1, '#000000B0'],
          ],
        },
      },
      {
        ...text('title', 'title', 'Title', 132, 800, 1400),
        ...{ at: [0.08, 0.9], origin: [0, 1], fill: { colour: { control: 'ink' } }, motion: rising(18) },
      },
    ],
  },
  callout: {
    slots: [words('words', 'Words', 'Hold the line here')],
    controls: [
      { kind: 'point', id: 'points-at', name: 'What it points at', group: 'Place', default: [0.62, 0.62] },
      { kind: 'point', id: 'stands', name: 'Bubble position', group: 'Place', default: [0.34, 0.34] },
      { ...GROUND, default: PAPER, brand: 'light' },
      { ...INK, default: '#16202B', brand: 'dark' },
      FONT,
    ],
    layers: [
      {
        ...{ kind: 'group', id: 'bubble', name: 'Bubble', at: { control: 'stands' }, origin: [0.5, 0.5] },
        ...{ row: { direction: 'row' }, scale: growing(0, 24, [0, 0]) },
        layers: [
          {
            ...{
              kind: 'shape',
              id: 'plate',
              name: 'Plate',
              hug: { layers: ['words'], margin: [30, 44, 30, 44] },
            },
            outline: {
              kind: 'bubble',
              corner: 28,
              to: { control: 'points-at' },
              width: 96,
              reach: 0.92,
              bow: 0.08,
            },
            fill: { colour: { control: 'ground' } },
          },
          {
            ...text('words', 'words', 'Words', 56, 600, 620),
            ...{ align: 'middle', fill: { colour: { control: 'ink' } }, motion: rising(14) },
          },
        ],
      },
    ],
  },
  card: {
    slots: [
      words('title', 'Title', 'Tomorrow on the hill'),
      { ...words('text', 'Text', 'Kites from nine, tea at four'), manyLines: true, optional: true },
    ],
    controls: [GROUND, INK, ACCENT, FONT],
    transparent: false,
    layers: [
      {
        ...{ kind: 'shape', id: 'ground', name: 'Ground', outline: { kind: 'rectangle' } },
        fill: { colour: { control: 'ground' } },
      },
      {
        ...{ kind: 'shape', id: 'band', name: 'Band', outline: { kind: 'rectangle' } },
        ...{ size: { parts: [28, { frame: 'height' }] }, fill: { colour: { control: 'accent' } } },
        ...{ extentFrom: [0, 0], extent: growing(0, 34, [1, 0]) },
      },
      {
        ...{ kind: 'group', id: 'words', name: 'Words', at: [0.12, 0.5], origin: [0, 0.5] },
        row: { direction: 'column', gap: 62 },
        layers: [
          {
            ...text('title', 'title', 'Title', 124, 800, 1400),
            ...{ fill: { colour: { control: 'ink' } }, motion: rising(8) },
          },
          {
            ...text('text', 'text', 'Text', 50, 500, 820),
            ...{ fill: { colour: { control: 'ink' } }, motion: rising(20) },
            fit: { width: 820, lines: 8, least: 0.5 },
          },
        ],
      },
    ],
  },
};

/**
 * A template to begin from.
 * @param shape of the frame it is made for first
 */
export function beginTemplate(
  kind: BeginningId,
  { id, name, shape }: { readonly id: string; readonly name: string; readonly shape: FrameShape },
): Template {
  const { use } = BEGINNINGS.find((b) => b.id === kind)!;
  const parts = PARTS[kind] as { controls?: readonly object[]; slots?: readonly object[] };
  return openDocument(templateKind, {
    ...{ format: 'freshreel/template', version: templateKind.version },
    ...{ id, name, shape, use, moods: [], transparent: true, looks: [] },
    about: 'Say in one sentence what it looks like and what it is for.',
    rate: { num: 60, den: 1 },
    timing: { in: 48, hold: { control: 'hold' }, out: 30 },
    still: AT_REST,
    scenes: [{ id: 'all', name: 'All of it', from: { at: 0 }, to: { at: 30, of: 'out' }, still: AT_REST }],
    guide: ['Put in your words.'],
    ...parts,
    slots: parts.slots ?? [],
    controls: [
      ...(parts.controls ?? []),
      {
        kind: 'duration',
        id: 'hold',
        name: 'Time it stands',
        group: 'Time',
        min: 30,
        max: 1800,
        default: 180,
      },
    ],
  });
}
