import { templateById } from '@fresh-reel/templates';
import { type Fill, isWords } from '../documents/fill';
import type { ReelItemOf } from '../documents/item';
import type { Template } from '../documents/template';
import { everyLayer } from '../layers/registry';
import { FRAMES, layoutFrame } from '../values/frame';
import { editionChanges, ofOtherEditions, setEdition } from './editions';
import { itemOf } from './items';
import { keptTemplate } from './keep';
import { addTitle } from './newItems';
import { EditError } from './place';
import { changeText, emptyReel } from './reel';

const frame = layoutFrame(FRAMES.wide);
const rate = { num: 25, den: 1 };
const strap = templateById('name-strap');
const slot = strap.slots.find((s) => s.kind === 'text')!.id;
const kept = (text: string, edition: number): Template => ({
  ...keptTemplate(strap, { slots: { [slot]: text }, controls: {} }, frame, { id: 'mine', name: 'Mine' }),
  edition,
});
const [first, second] = [kept('Once', 1), kept('Twice', 2)];

const fill: Fill = { slots: { [slot]: 'Ines Varga' }, controls: {} };
const reelOf = () => {
  const made = { id: 'r', name: 'R', now: '', frame: FRAMES.wide, rate };
  const a = addTitle(emptyReel(made), first, 0, fill);
  const b = addTitle(a.reel, first, 300);
  return addTitle(b.reel, strap, 600).reel;
};

test('titles of an older edition are found and made of the newer, with what they hold, each where it is', () => {
  const reel = reelOf();
  const ids = ofOtherEditions(reel, second);
  expect(ids).toHaveLength(2);
  const half = setEdition(reel, ids.slice(0, 1), second);
  expect(ofOtherEditions(half, second)).toEqual(ids.slice(1));
  expect(Object.values(half.templates).filter((t) => t.id === 'mine')).toHaveLength(2);
  const all = setEdition(reel, ids, second);
  expect(ofOtherEditions(all, second)).toEqual([]);
  expect(Object.values(all.templates).filter((t) => t.id === 'mine')).toEqual([second]);
  const [a] = ids.map((id) => itemOf(all, id)!.item);
  expect(a).toMatchObject({ start: 0, fill: { slots: { [slot]: 'Ines Varga' } } });
  expect(ofOtherEditions(all, first)).toHaveLength(2);
});

test('one on a locked track stays, and is told', () => {
  const reel = reelOf();
  const locked = { ...reel, tracks: reel.tracks.map((t) => ({ ...t, locked: true })) };
  expect(() => setEdition(locked, ofOtherEditions(locked, second), second)).toThrow(EditError);
});

test('what an edition has that another has not is said in sentences', () => {
  const name = strap.slots.find((s) => s.id === slot)!.name;
  expect(editionChanges(first, second)).toEqual([`A slot has changed: “${name}”.`]);
  const other: Template = {
    ...second,
    name: 'Ours',
    controls: second.controls.slice(1),
    timing: { ...second.timing, in: second.timing.in + 1 },
    layers: second.layers.slice(1),
  };
  expect(editionChanges(second, other)).toEqual([
    'It is called “Ours” now.',
    `A control is gone: “${second.controls[0]!.name}”.`,
    'How it is drawn or moves has changed.',
    'Its times have changed.',
  ]);
  expect(editionChanges(second, second)).toEqual([]);
  expect(second.slots.some((s) => s.kind === 'text' && isWords(s.sample) && s.sample === 'Twice')).toBe(true);
});

test('letters that show a picture of a slot which the newer edition has not show none, and it can be kept', () => {
  const print = templateById('freeze-print');
  const picture = print.slots.find((s) => s.kind === 'picture')!;
  const layer = [...everyLayer(print.layers)].find((l) => l.kind === 'text')!;
  const added = addTitle(reelOf(), print, 900);
  const shown = changeText(added.reel, added.id, layer.id, { fill: { picture: picture.id }, size: 40 });
  const bare = { ...print, slots: print.slots.filter((s) => s !== picture) } as Template;
  const item = itemOf(setEdition(shown, [added.id], bare), added.id)!.item as ReelItemOf<'graphic'>;
  expect(item.fill.texts).toBeUndefined();
  const before = itemOf(shown, added.id)!.item as ReelItemOf<'graphic'>;
  const again = keptTemplate(bare, before.fill, frame, { id: 'own', name: 'Own' });
  const own = [...everyLayer(again.layers)].find((l) => l.id === layer.id)!;
  expect(own).toMatchObject({ fill: (layer as typeof own & { fill: object }).fill });
});
