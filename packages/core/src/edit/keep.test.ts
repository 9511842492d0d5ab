import { allTemplates, templateById } from '@fresh-reel/templates';
import fc from 'fast-check';
import { canBeKeyed, restingFill } from '../documents/controls';
import { type ControlFill, EMPTY_FILL, type Fill } from '../documents/fill';
import type { Control, Template } from '../documents/template';
import { templateKind } from '../documents/templateKind';
import { GraphicScene, type Resources } from '../evaluate/graphicScene';
import { everyLayer } from '../layers/registry';
import { freshPicture } from '../media/pictureFill';
import { settingOf } from '../testing/editor/settings';
import { testStudio } from '../testing/studio';
import { FRAMES, layoutFrame } from '../values/frame';
import { openDocument } from '../values/load';
import { keptTemplate } from './keep';

const studio = testStudio();
const AS = { id: 'mine', name: 'Mine' };
const PHOTO = `sha256:${'a'.repeat(64)}`;

/** A value that a control takes, made of a number from 0 to 1. */
function valueFor(control: Control, part: number): ControlFill | undefined {
  switch (control.kind) {
    case 'number':
    case 'duration':
      return control.min + Math.round((part * (control.max - control.min)) / 3);
    case 'point':
      return [0.2 + part / 2, 0.4];
    case 'font':
    case 'path':
      return undefined;
    default:
      return settingOf(control, part);
  }
}

/** A fill with some of everything, made of numbers from 0 to 1. */
function someFill(template: Template, parts: readonly number[], keyed: boolean): Fill {
  const at = (i: number) => parts[i % parts.length]!;
  const look = template.looks[Math.floor(at(0) * (template.looks.length + 1))];
  const controls = template.controls.flatMap((control, i): [string, ControlFill][] => {
    if (at(i + 1) > 0.5) return [];
    const value = valueFor(control, at(i + 2));
    if (value === undefined) return [];
    const other = valueFor(control, at(i + 3));
    const moves = keyed && canBeKeyed(template, control) && control.kind === 'number';
    return moves
      ? [
          [
            control.id,
            {
              keys: [
                { at: 0, of: 'in', value: value as number },
                { at: 10, of: 'hold', value: other as number },
              ],
            },
          ],
        ]
      : [[control.id, value]];
  });
  const slots = template.slots.flatMap((slot, i): [string, Fill['slots'][string]][] => {
    if (at(i + 4) > 0.6) return [];
    if (slot.kind === 'text' || slot.kind === 'list')
      return [[slot.id, at(i) > 0.8 && slot.optional ? null : `Word ${i}`]];
    if (slot.kind === 'sound')
      return at(i) > 0.5 ? [[slot.id, null]] : [[slot.id, { sound: PHOTO, level: -9, from: 0.25 }]];
    return [
      [slot.id, { ...freshPicture(PHOTO), focus: [0.3, 0.6], scale: 1.5, turn: 10, flip: [true, false] }],
    ];
  });
  const text = [...everyLayer(template.layers)].find((l) => l.kind === 'text');
  const hidden = template.slots.filter((slot, i) => slot.optional && at(i + 5) > 0.8).map((s) => s.id);
  return {
    ...(look ? { look: look.id } : {}),
    ...{ slots: Object.fromEntries(slots), controls: Object.fromEntries(controls) },
    ...(hidden.length > 0 ? { hidden } : {}),
    ...(at(7) > 0.5 ? { flat: true } : {}),
    ...(text && at(8) > 0.5
      ? { texts: { [text.id]: { size: 40 + at(9) * 60, fill: { media: freshPicture(PHOTO) } } } }
      : {}),
  };
}

test('what is kept paints what the graphic did, and opens as any template does', async () => {
  const held = await studio;
  const facts = { width: 800, height: 600 };
  const resources: Resources = {
    ...{ layouts: held.layouts, memo: held.memo },
    mediaFacts: (id) => (id === PHOTO ? facts : held.mediaFacts(id)),
  };
  const numbers = fc.array(fc.double({ min: 0, max: 0.999, noNaN: true }), { minLength: 12, maxLength: 12 });
  fc.assert(
    fc.property(
      ...[
        fc.constantFrom(...allTemplates()),
        numbers,
        fc.boolean(),
        fc.constantFrom('wide', 'tall', 'square'),
      ],
      (template, parts, keyed, shape) => {
        const frame = layoutFrame(FRAMES[shape as 'wide']);
        const fill = someFill(template as Template, parts as number[], keyed as boolean);
        const kept = keptTemplate(template as Template, fill, frame, AS);
        const opened = openDocument(templateKind, JSON.parse(JSON.stringify(kept)));
        const was = new GraphicScene(template as Template, fill, frame, resources);
        const is = new GraphicScene(opened, EMPTY_FILL, frame, resources);
        expect(is.length).toBe(was.length);
        for (const part of [0.1, 0.5, 0.9]) {
          const time = Math.floor(was.length * part);
          expect(JSON.stringify(is.evaluate(time).ops)).toBe(JSON.stringify(was.evaluate(time).ops));
        }
        expect(is.slots.sounds()).toEqual(was.slots.sounds());
        expect(new Set(is.slots.media())).toEqual(new Set(was.slots.media()));
      },
    ),
    { numRuns: 120, seed: 20261127 },
  );
});

describe('a title that is kept', () => {
  const strap = templateById('name-strap');
  const frame = layoutFrame(FRAMES.wide);

  it('stands beside the template it came from, whichever it was kept from since', () => {
    const once = keptTemplate(strap, EMPTY_FILL, frame, AS);
    const twice = keptTemplate(once, EMPTY_FILL, frame, { id: 'again', name: 'Again', set: 'Series' });
    expect([once.from, twice.from, twice.set]).toEqual([strap.id, strap.id, 'Series']);
  });

  it('comes back to how it was kept by a look, and a look counts before its keys', () => {
    const { template, control } = allTemplates().flatMap((t) =>
      t.controls.flatMap((c) =>
        c.kind === 'number' && t.looks.some((l) => Object.hasOwn(l.controls, c.id))
          ? [{ template: t, control: c }]
          : [],
      ),
    )[0]!;
    const keys = [{ at: 0, of: 'in' as const, value: control.max }];
    const keyed = keptTemplate(template, { slots: {}, controls: { [control.id]: { keys } } }, frame, AS);
    const look = keyed.looks.find((l) => Object.hasOwn(l.controls, control.id))!;
    const found = keyed.controls.find((c) => c.id === control.id)!;
    expect(restingFill(keyed, undefined, found, frame)).toEqual({ keys });
    expect(restingFill(keyed, look.id, found, frame)).toBe(look.controls[control.id]);
  });

  it('changes the default of its own shape alone where shapes differ', () => {
    const { template, control } = allTemplates().flatMap((t) =>
      t.controls.flatMap((c) =>
        c.kind === 'number' && typeof c.default === 'object' ? [{ template: t, control: c }] : [],
      ),
    )[0]!;
    const before = control.default as { wide: number; tall: number; square: number };
    const fill = { slots: {}, controls: { [control.id]: control.min } };
    const after = keptTemplate(template, fill, frame, AS).controls.find((c) => c.id === control.id)!;
    expect(after.default).toEqual({ ...before, wide: control.min });
  });

  it('keeps the files it shows and lets go of those it does not', () => {
    const withFace = allTemplates().find((t) =>
      t.slots.some((s) => s.kind === 'picture' && s.sample !== null),
    )!;
    const slot = withFace.slots.find((s) => s.kind === 'picture' && s.sample !== null)!;
    const kept = keptTemplate(
      withFace,
      { slots: { [slot.id]: freshPicture(PHOTO) }, controls: {} },
      frame,
      AS,
    );
    const samples = kept.slots.flatMap((s) =>
      'sample' in s && s.kind !== 'text' && s.kind !== 'list' ? (s.sample ?? []) : [],
    );
    expect(Object.values(kept.assets)).toContain(PHOTO);
    expect(new Set(Object.keys(kept.assets))).toEqual(new Set(samples));
  });
});
