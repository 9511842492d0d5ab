import { type Reel, reelKind } from '../documents/reel';
import { templateOf, textLayer, textSlot } from '../testing/studio';
import { openDocument } from '../values/load';
import { holdFraming } from './framing';
import { itemOf } from './items';
import { familiesOf, makeAlike, sameKind, swapFamily, whatChanges } from './many';
import { addTitle } from './newItems';
import { changeText, chooseLook, emptyReel, setControl, setSlot } from './reel';

const strap = templateOf([textLayer('name', { family: { control: 'face' } }), textLayer('role')], {
  slots: [textSlot('name', 'A'), textSlot('role', 'B')],
  timing: { in: 10, hold: { control: 'hold' }, out: 10 },
  controls: [
    { id: 'face', kind: 'font', name: 'Face', default: 'Figtree' },
    { id: 'hold', kind: 'duration', name: 'Hold', min: 0, max: 500, default: 100 },
    { id: 'ink', kind: 'colour', name: 'Ink', default: '#000000' },
  ],
  looks: [{ id: 'night', name: 'Night', controls: { ink: '#FFFFFF' } }],
});
const other = { ...templateOf([textLayer('name')], { slots: [textSlot('name', 'A')] }), id: 'other' };
const made = { id: 'r', name: 'R', now: '', frame: { width: 1920, height: 1080 }, rate: { num: 25, den: 1 } };

/** Three straps and another title; the first strap is changed in every way. */
function reelOf(): Reel {
  let reel = emptyReel(made);
  const ids: string[] = [];
  for (const template of [strap, strap, other, strap]) {
    const added = addTitle(reel, template, ids.length * 300);
    ({ reel } = added);
    ids.push(added.id);
  }
  reel = setSlot(reel, ids[1]!, 'name', 'Marit');
  reel = chooseLook(reel, ids[0]!, 'night');
  reel = setControl(reel, ids[0]!, 'ink', '#FF0000');
  reel = setControl(reel, ids[0]!, 'hold', 250);
  reel = changeText(reel, ids[0]!, 'role', { size: 90 });
  return holdFraming(reel, ids[0]!, 'scale', 0.5);
}
const ids = reelOf().tracks.flatMap((t) => t.items.map((i) => i.id));

describe('titles of one template', () => {
  it('are found, and take over what is asked for and nothing else', () => {
    const reel = reelOf();
    expect(sameKind(reel, ids[0]!)).toEqual([ids[1], ids[3]]);
    const looks = makeAlike(reel, ids[0]!, sameKind(reel, ids[0]!), ['look']);
    expect(itemOf(looks, ids[1]!)!.item).toMatchObject({
      fill: { look: 'night', controls: { ink: '#FF0000' }, slots: { name: 'Marit' } },
    });
    expect(JSON.stringify(itemOf(looks, ids[1]!)!.item)).not.toMatch(/"hold"|framing|"size":90/);
    const all = makeAlike(reel, ids[0]!, [ids[1]!], ['look', 'letters', 'times', 'place']);
    expect(itemOf(all, ids[1]!)!.item).toMatchObject({
      framing: { scale: 0.5 },
      fill: { controls: { hold: 250 }, texts: { role: { size: 90 } }, slots: { name: 'Marit' } },
    });
    // One of another template is left alone, and so is the third.
    for (const id of [ids[2]!, ids[3]!]) expect(itemOf(all, id)!.item).toEqual(itemOf(reel, id)!.item);
    openDocument(reelKind, JSON.parse(JSON.stringify(all)));
  });

  it('that would change are told first; those that are alike are not among them', () => {
    const reel = reelOf();
    const others = sameKind(reel, ids[0]!);
    expect(whatChanges(reel, ids[0]!, others, ['times'])).toEqual(others);
    const once = makeAlike(reel, ids[0]!, [ids[1]!], ['times']);
    expect(whatChanges(once, ids[0]!, others, ['times'])).toEqual([ids[3]]);
    expect(whatChanges(reel, ids[1]!, [ids[3]!], ['look', 'times', 'place', 'letters'])).toEqual([]);
  });
});

describe('fonts of a reel', () => {
  it('are told with where they show, and swapped everywhere at once', () => {
    const reel = changeText(reelOf(), ids[2]!, 'name', { family: 'Bricolage' });
    expect([...familiesOf(reel)]).toEqual([
      ['Bricolage', [ids[2]]],
      ['Figtree', [ids[0], ids[1], ids[3]]],
    ]);
    const swapped = swapFamily(reel, 'Figtree', 'Lora');
    expect([...familiesOf(swapped).keys()]).toEqual(['Bricolage', 'Lora']);
    // By the control where it says so, in the text where it does not.
    expect(itemOf(swapped, ids[1]!)!.item).toMatchObject({
      fill: { controls: { face: 'Lora' }, texts: { role: { family: 'Lora' } } },
    });
    expect([...familiesOf(swapFamily(swapped, 'Lora', 'Figtree')).keys()]).toEqual(['Bricolage', 'Figtree']);
    openDocument(reelKind, JSON.parse(JSON.stringify(swapped)));
  });
});
