import { allTemplates, templateById } from '@fresh-reel/templates';
import { faultsOfFill } from '../documents/controls';
import { EMPTY_FILL, type Fill } from '../documents/fill';
import { type Reel, reelKind } from '../documents/reel';
import { freshPicture } from '../media/pictureFill';
import { templateOf, textLayer, textSlot } from '../testing/studio';
import { openDocument } from '../values/load';
import { carriedFill, setTemplate } from './anotherTemplate';
import { changeTracks, itemOf } from './items';
import { addTitle } from './newItems';
import { emptyReel } from './reel';

const PICTURE = freshPicture(`sha256:${'a'.repeat(64)}`);
const named = (id: string, name: string) => ({ ...textSlot(id), name });
const picture = (id: string, name: string, kind = 'picture') => ({
  ...{ id, kind, name, scenes: ['all'], moment: { at: 0, of: 'hold' }, sample: null },
});
const from = templateOf([textLayer('name'), textLayer('role')], {
  slots: [
    named('name', 'Name'),
    named('role', 'Second line'),
    picture('face', 'Face'),
    picture('club', 'Club', 'logo'),
  ],
  controls: [
    { id: 'ink', kind: 'colour', name: 'Ink', default: '#000000', brand: 'main' },
    { id: 'size', kind: 'number', name: 'Size', min: 0, max: 500, step: 1, default: 100 },
    { id: 'far', kind: 'number', name: 'Far', min: 0, max: 10, step: 1, default: 1 },
  ],
  looks: [{ id: 'night', name: 'Night', controls: { ink: '#FFFFFF' } }],
});
const to = {
  ...templateOf([textLayer('title'), textLayer('under')], {
    slots: [
      named('under', 'second line'),
      named('title', 'Title'),
      picture('mark', 'Mark', 'logo'),
      picture('shot', 'Shot'),
    ],
    controls: [
      { id: 'accent', kind: 'colour', name: 'Accent', default: '#111111', brand: 'main' },
      { id: 'size', kind: 'number', name: 'Size', min: 0, max: 50, step: 1, default: 10 },
    ],
  }),
  id: 'other',
};

describe('the same content in another template', () => {
  const fill: Fill = {
    look: 'night',
    slots: { name: 'Ines', role: 'Judge', face: { ...PICTURE, plain: ['x/blur'] }, club: PICTURE },
    controls: { ink: '#FF0000', size: 400, far: 3 },
  };

  it('goes along by name, then by kind in order; what a control cannot be is as the template has it', () => {
    const carried = carriedFill(from, fill, to);
    expect(carried.fill).toEqual({
      slots: { under: 'Judge', title: 'Ines', shot: PICTURE, mark: PICTURE },
      controls: { accent: '#FF0000' },
    });
    expect([carried.along, carried.behind]).toEqual([['Name', 'Second line', 'Face', 'Club'], []]);
  });

  it('what has no place is told by name', () => {
    const one = templateOf([textLayer('title')], { slots: [named('title', 'Title')] });
    const { along, behind } = carriedFill(from, fill, one);
    expect([along, behind]).toEqual([['Name'], ['Second line', 'Face', 'Club']]);
  });

  it('another edition of a template takes all of it but what it has no place for', () => {
    const all: Fill = { ...fill, hidden: ['role'], texts: { name: { size: 40 }, gone: { size: 9 } } };
    expect(carriedFill(from, all, from).fill).toEqual({ ...all, texts: { name: { size: 40 } } });
  });

  it('every built-in template takes what any other was filled with', () => {
    for (const a of allTemplates()) {
      const words = a.slots.filter((s) => s.kind === 'text' || s.kind === 'list');
      const slots = Object.fromEntries(words.map((s) => [s.id, `Words of ${s.id}`]));
      const controls = Object.fromEntries(
        a.controls.flatMap((c) => (typeof c.default === 'object' ? [] : [[c.id, c.default]])),
      );
      for (const b of allTemplates()) {
        const { fill: held, along, behind } = carriedFill(a, { slots, controls }, b);
        expect(along.length + behind.length).toBe(words.length);
        expect({ from: a.id, to: b.id, faults: faultsOfFill(b, held) }).toEqual({
          from: a.id,
          to: b.id,
          faults: [],
        });
      }
    }
  });
});

describe('a title of another template', () => {
  const made = {
    id: 'r',
    name: 'R',
    now: '',
    frame: { width: 1920, height: 1080 },
    rate: { num: 25, den: 1 },
  };
  const reelOf = (): Reel => {
    const first = addTitle(emptyReel(made), templateById('name-strap'), 0, {
      ...EMPTY_FILL,
      slots: { name: 'Ines' },
    });
    return addTitle(first.reel, templateById('mask-rise'), 200).reel;
  };

  it('stands where it stood, with its words; its template alone is kept', () => {
    const reel = reelOf();
    const id = reel.tracks[0]!.items[0]!.id;
    const { reel: swapped, carried } = setTemplate(reel, id, templateById('groove'));
    expect(itemOf(swapped, id)!.item).toMatchObject({ start: 0, template: 'groove' });
    expect(carried.along).toEqual(['Name']);
    expect(Object.keys(swapped.templates).sort()).toEqual(['groove', 'mask-rise']);
    openDocument(reelKind, JSON.parse(JSON.stringify(swapped)));
  });

  it('one that is longer than its track has room for goes on another, and the next stays', () => {
    const reel = reelOf();
    const [first, second] = reel.tracks[0]!.items as unknown as [{ id: string }, { id: string }];
    const { reel: swapped } = setTemplate(reel, first.id, templateById('marbling'));
    expect(itemOf(swapped, second.id)!.item.start).toBe(200);
    expect(itemOf(swapped, first.id)!.track.id).not.toBe(itemOf(swapped, second.id)!.track.id);
  });

  it('is not made on a locked track, nor of what is gone', () => {
    const reel = reelOf();
    const id = reel.tracks[0]!.items[0]!.id;
    const locked = changeTracks(reel, (t) => ({ ...t, locked: true }));
    expect(() => setTemplate(locked, id, templateById('groove'))).toThrow(/locked/);
    expect(() => setTemplate(reel, 'gone', templateById('groove'))).toThrow(/not in the reel/);
  });
});
