import { allTemplates } from '@fresh-reel/templates';
import fc from 'fast-check';
import { reelKind } from '../documents/reel';
import type { Template } from '../documents/template';
import { faultsOfTemplate } from '../documents/templateFaults';
import { templateKind } from '../documents/templateKind';
import { EditError } from '../edit/place';
import { everyLayer } from '../layers/registry';
import { openDocument } from '../values/load';
import { ADDITIONS, addPart, MOVES, setMove } from './additions';
import { chooseBetween, makeAdjustable, partsToAdjust, tie } from './adjustable';
import { BEGINNINGS, beginTemplate } from './begin';
import { asSeen, benchOf, changeMade, isLocked, madeOn, setAside } from './bench';
import { fieldAt } from './fieldAt';
import { keepLook } from './looks';
import { copyPart, duplicatePart, groupParts, movePart, removeParts, stepPart, ungroup } from './parts';
import { partOf, putValue, valueIn } from './places';
import { addSoundSlot, removeSlot, TRIES, wordsToSlot } from './slots';
import { removeControl, tieSentence, tiesOf, untie } from './ties';
import { marksOf, moveMarks, shiftPart, trimPart } from './times';
import { writtenTrips } from './trips';

const strap = () => beginTemplate('strap', { id: 'mine', name: 'Mine', shape: 'wide' });
const whole = (template: Template) => openDocument(templateKind, JSON.parse(JSON.stringify(template)));
const place = (layer: string, ...path: (string | number)[]) => ({ of: { layer }, path });

describe('the workshop', () => {
  it.each(BEGINNINGS)('begins as $id, in every shape, with nothing that does not fit', ({ id }) => {
    for (const shape of ['wide', 'tall', 'square'] as const) {
      const template = beginTemplate(id, { id: 'mine', name: 'Mine', shape });
      expect(whole(template)).toEqual(template);
    }
  });

  it('opens every built-in template, changed in nothing, as the same document', () => {
    for (const template of allTemplates()) {
      const bench = benchOf(template, { id: 'b', name: template.name, now: '' });
      const stored = openDocument(reelKind, JSON.parse(JSON.stringify(bench)));
      expect(JSON.stringify(madeOn(stored as typeof bench))).toBe(JSON.stringify(template));
      expect(changeMade(bench, (t) => t)).toBe(bench);
    }
  });

  it('finds a field for every value of every built-in template', () => {
    for (const template of allTemplates())
      for (const layer of everyLayer(template.layers))
        for (const key of Object.keys(layer)) {
          if (key === 'layers') continue;
          expect([layer.id, key, fieldAt(template, place(layer.id, key))?.key]).toEqual([layer.id, key, key]);
        }
  });

  it.each(ADDITIONS)('adds $id above what is chosen, comes and goes, and takes it out again', ({ id }) => {
    const { template, id: made } = addPart(strap(), id, ['name']);
    expect(whole(template)).toEqual(template);
    expect(faultsOfTemplate(template)).toEqual([]);
    const { kind } = partOf(template, made);
    for (const move of MOVES) {
      if (kind === 'text' || kind === 'grain')
        expect(() => setMove(template, made, move.id)).toThrow(EditError);
      else expect(whole(setMove(template, made, move.id)).layers.length).toBeGreaterThan(0);
    }
    expect(removeParts(template, [made]).layers).toEqual(strap().layers);
  });

  it('puts a plate below all that it goes around', () => {
    const { template, id } = addPart(strap(), 'plate', ['role', 'name']);
    const group = partOf(template, 'strap');
    expect(group.kind === 'group' && group.layers.map((l) => l.id)).toEqual(['plate', id, 'name', 'role']);
    expect(partOf(template, id)).toMatchObject({ hug: { layers: ['role', 'name'] } });
    expect(() => addPart(strap(), 'plate')).toThrow('Choose the words or pictures');
  });

  it('duplicates, groups, orders and copies, and names within follow', () => {
    const { template, id } = duplicatePart(strap(), 'strap');
    const copy = partOf(template, id);
    expect(copy.kind === 'group' && copy.layers[0]).toMatchObject({
      id: 'plate-2',
      hug: { layers: ['name-2', 'role-2'] },
    });
    expect(() => groupParts(template, ['strap', 'name'])).toThrow('beside each other');
    const grouped = groupParts(template, ['strap', id]);
    expect(grouped.template.layers).toHaveLength(1);
    expect(ungroup(grouped.template, grouped.id).layers).toEqual(template.layers);
    expect(() => ungroup(template, 'strap')).toThrow('would be lost');
    expect(stepPart(template, 'strap', 1).layers.map((l) => l.id)).toEqual([id, 'strap']);
    expect(() => movePart(grouped.template, grouped.id, 'strap', 0)).toThrow('in itself');
    expect(() => removeParts(strap(), ['strap'])).toThrow('one part at least');
    for (const other of allTemplates().slice(0, 12)) {
      const brought = copyPart(other, other.layers.at(-1)!.id, strap()).template;
      expect(faultsOfTemplate(brought)).toEqual([]);
      expect(whole(brought)).toEqual(brought);
    }
    // What stands in a group is copied without it; what needs others beside it is not taken alone.
    for (const other of allTemplates().slice(0, 12))
      for (const group of other.layers)
        for (const { id: inner } of group.kind === 'group' ? group.layers : []) {
          const faults = faultsOfTemplate(copyPart(other, inner, strap()).template);
          expect(faults.filter((fault) => !/beside it|a slot "each" that is not there/.test(fault))).toEqual(
            [],
          );
        }
  });

  it('does not take what does not fit together', () => {
    const bench = benchOf(strap(), { id: 'b', name: 'B', now: '' });
    const outside = () => changeMade(bench, (t) => movePart(t, 'name', undefined, 0));
    expect(outside).toThrow(/needs "name" beside it/);
    expect(() => changeMade({ ...bench, making: undefined }, (t) => t)).toThrow('No template');
  });

  it('puts parts aside while one works, and not in the template', () => {
    const bench = benchOf(strap(), { id: 'b', name: 'B', now: '' });
    const aside = setAside(
      setAside(bench, ['plate'], 'hidden', true),
      ['strap'],
      'locked',
      true,
    ) as typeof bench;
    expect(madeOn(aside)).toBe(madeOn(bench));
    expect(partOf(asSeen(aside).templates.mine!, 'plate').opacity).toBe(0);
    expect(isLocked(aside, 'name')).toBe(true);
    expect(setAside(aside, ['plate'], 'hidden', false)).toMatchObject({ making: { hidden: [] } });
  });
});

describe('made adjustable', () => {
  it('refuses names that say nothing, with one that does', () => {
    const at = place('name', 'opacity');
    expect(() => makeAdjustable(strap(), at, { name: 'Opacity' })).toThrow('Call it “Name opacity”');
    expect(() => makeAdjustable(strap(), at, { name: ' ' })).toThrow('Give it a name');
    expect(() => makeAdjustable(strap(), at, { name: 'x'.repeat(5000) })).toThrow('80 letters at most');
    expect(() => makeAdjustable(strap(), at, { name: 'Accent colour' })).toThrow('already');
  });

  it('makes of each property of each part a control that changes nothing by itself', () => {
    for (const begun of [strap(), beginTemplate('title', { id: 'a', name: 'A', shape: 'tall' })])
      for (const layer of everyLayer(begun.layers))
        for (const key of ['opacity', 'skew', 'visible', 'move', 'scale', 'size', 'weight', 'at', 'turn']) {
          const at = place(layer.id, key);
          const field = fieldAt(begun, at);
          if (field?.kind !== 'value' || valueIn(begun, at) === undefined) continue;
          const parts = partsToAdjust(begun, at);
          for (const which of parts.length > 0 ? parts : [undefined]) {
            let made: ReturnType<typeof makeAdjustable>;
            try {
              made = makeAdjustable(begun, at, {
                name: 'Kite by the gate',
                ...(which === undefined ? {} : { which }),
              });
            } catch (error) {
              expect(error).toBeInstanceOf(EditError);
              continue;
            }
            expect(whole(made.template)).toEqual(made.template);
            expect(tiesOf(made.template, made.id).length).toBeGreaterThan(0);
            // Taken away again, it is what it was, or comes to the same.
            const back = removeControl(made.template, made.id);
            expect(tiesOf(back, made.id)).toEqual([]);
            expect(whole(back)).toEqual(back);
          }
        }
  });

  it('ties one control to two parts, says so in sentences, and unties', () => {
    const { template, id } = makeAdjustable(strap(), place('name', 'turn'), { name: 'Strap tilt', which: 2 });
    const both = tie(template, place('role', 'turn'), id, 2);
    const sentences = tiesOf(both, id).map((t) => tieSentence(both, t));
    expect(sentences).toEqual([
      '“Strap tilt” sets Name, turned by, in the picture.',
      '“Strap tilt” sets Role, turned by, in the picture.',
    ]);
    const [first] = tiesOf(both, id);
    const freed = untie(both, first!.place);
    expect(valueIn(freed, place('name', 'turn'))).toEqual([0, 0, 0]);
    expect(tiesOf(freed, id)).toHaveLength(1);
  });

  it('says what becomes of a value, whatever is made of it', () => {
    for (const template of allTemplates())
      for (const t of tiesOf(template)) expect(tieSentence(template, t)).toMatch(/^“.+” sets .+\.$/);
  });

  it('lets a choice show one part and hide the others', () => {
    const { template, id } = chooseBetween(strap(), 'Which line shows', [
      { name: 'Name', parts: ['name'] },
      { name: 'Role', parts: ['role'] },
    ]);
    expect(whole(template)).toEqual(template);
    expect(valueIn(template, place('role', 'visible'))).toEqual({
      control: id,
      table: { name: false, role: true },
    });
    expect(() => chooseBetween(template, 'Other', [{ name: 'A', parts: [] }])).toThrow('two parts');
  });

  it('keeps what is adjustable whole under any row of edits', () => {
    const paths = ['opacity', 'skew', 'visible', 'turn', 'scale', 'move'];
    fc.assert(
      fc.property(fc.array(fc.tuple(fc.nat(5), fc.nat(20), fc.nat(4)), { maxLength: 8 }), (steps) => {
        let template = strap();
        for (const [what, which, how] of steps) {
          const layers = [...everyLayer(template.layers)];
          const layer = layers[which % layers.length]!;
          const at = place(layer.id, paths[how % paths.length]!);
          try {
            if (what === 0)
              template = makeAdjustable(template, at, { name: `Kite ${which} ${how}` }).template;
            if (what === 1)
              template = removeControl(
                template,
                template.controls[which % template.controls.length]?.id ?? '',
              );
            if (what === 2) template = duplicatePart(template, layer.id).template;
            if (what === 3) template = removeParts(template, [layer.id]);
            if (what === 4)
              template = addPart(template, ADDITIONS[which % ADDITIONS.length]!.id, [layer.id]).template;
            if (what === 5) template = setMove(template, layer.id, MOVES[how]!.id);
          } catch (error) {
            expect(error).toBeInstanceOf(EditError);
          }
          expect(faultsOfTemplate(template)).toEqual([]);
        }
        expect(whole(template)).toEqual(template);
      }),
      { numRuns: 60 },
    );
  });
});

describe('slots and looks', () => {
  it('makes words a slot and its own again', () => {
    const { template, id } = addPart(strap(), 'words', ['strap']);
    const made = wordsToSlot(template, id, 'Place');
    expect(whole(made.template)).toEqual(made.template);
    expect(made.template.slots.at(-1)).toMatchObject({ name: 'Place', sample: 'Your words' });
    expect(() => wordsToSlot(made.template, id, 'Other')).toThrow('a slot already');
    expect(() => wordsToSlot(template, id, 'Role')).toThrow('already');
    expect(removeSlot(made.template, made.slot)).toEqual(template);
  });

  it('adds sounds, on a cue', () => {
    const { template, slot } = addSoundSlot(addSoundSlot(strap(), 'Sound').template, 'Sound');
    expect(whole(template)).toEqual(template);
    expect(template.cues).toHaveLength(1);
    expect(template.slots.at(-1)).toMatchObject({ id: slot, name: 'Sound 2', cue: 'start' });
    expect(removeSlot(template, slot).slots).toHaveLength(3);
  });

  it('tries slots with sixty letters', () => {
    expect(TRIES.find((t) => t.id === 'sixty')!.words).toHaveLength(60);
  });

  it('keeps looks of what controls hold', () => {
    const held = { ground: '#000000', ink: '#FFFFFF', hold: 60 };
    const kept = keepLook(strap(), 'Night', held);
    expect(kept.looks).toEqual([
      { id: 'night', name: 'Night', controls: { ground: '#000000', ink: '#FFFFFF' } },
    ]);
    expect(() => keepLook(kept, 'night', held)).toThrow('already');
  });

  it('tells what a user would trip over', () => {
    const plain = strap();
    const odd: Template = {
      ...plain,
      controls: [
        ...plain.controls,
        { kind: 'switch', id: 'idle', name: 'Position', group: 'A', default: true },
      ],
    };
    const texts = writtenTrips(odd).map((t) => t.text);
    expect(texts).toContain('“Position” changes nothing: no part is tied to it.');
    expect(texts.some((t) => t.startsWith('“Position” does not say of what.'))).toBe(true);
    expect(
      writtenTrips(putValue(plain, place('name', 'effects'), [{ effect: 'blur', radius: 60 }]) as Template)
        .map((t) => t.text)
        .join(),
    ).toContain('takes long to paint');
  });
});

describe('times', () => {
  it('moves all that a part does, trims when it is there, and moves keys that stand together', () => {
    const begun = strap();
    const later = shiftPart(begun, 'strap', 12);
    expect(marksOf(partOf(later, 'plate')).map((m) => m.mark.at)).toEqual(
      marksOf(partOf(begun, 'plate')).map((m) => m.mark.at + 12),
    );
    expect(shiftPart(later, 'strap', -12)).toEqual(begun);
    const trimmed = trimPart(begun, 'name', 'from', { at: 30, of: 'in' });
    expect(partOf(trimmed, 'name').span).toEqual({ from: { at: 30, of: 'in' }, to: { at: 30, of: 'out' } });
    expect(trimPart(trimmed, 'name', 'from', { at: 0, of: 'in' })).toEqual(begun);
    const clock = { in: 48, hold: 180, out: 30, pace: 1 };
    const moved = moveMarks(begun, 'plate', clock, 30, 40);
    expect(marksOf(partOf(moved, 'plate')).map((m) => m.mark.at)).toEqual([0, 40, 6, 24]);
    expect(whole(moved)).toEqual(moved);
  });
});
