import { allTemplates } from '@fresh-reel/templates';
import { setTemplate } from '../edit/anotherTemplate';
import { copiedSchema, takeAlong } from '../edit/clipboard';
import { changeItem, itemOf } from '../edit/items';
import { addTitle } from '../edit/newItems';
import { endOf } from '../edit/place';
import { emptyReel } from '../edit/reel';
import { everyLayer } from '../layers/registry';
import { benchOf, changeMade, graphicOn } from '../make/bench';
import { templateOf, textLayer, textSlot } from '../testing/studio';
import { openDocument } from '../values/load';
import type { Fill } from './fill';
import { type Reel, reelKind } from './reel';
import type { Template } from './template';
import { templateKind } from './templateKind';

const blank = (): Reel =>
  emptyReel({
    ...{ id: 'r', name: 'R', now: '2026-06-20T09:00:00Z' },
    ...{ frame: { width: 1920, height: 1080 }, rate: { num: 25, den: 1 } },
  });

/** Opens what is written of a document, as the next day does. */
const nextDay = (reel: Reel) => openDocument(reelKind, JSON.parse(JSON.stringify(reel)));

/** A change of every text of a template that keeps what the template linked, as a hand on one margin of a plate does. */
function ownChanges(template: Template): NonNullable<Fill['texts']> {
  return Object.fromEntries(
    [...everyLayer(template.layers)].flatMap((layer) => {
      if (layer.kind !== 'text') return [];
      const { plates, outlines, effects, motion, fill, size, align } = layer;
      return [[layer.id, { plates, outlines, effects, motion, fill, size, align }]];
    }),
  );
}

it('titles of all templates stand in one reel, each changed by links of its own, and open again', () => {
  let [reel, after] = [blank(), 0];
  for (const template of allTemplates()) {
    const added = addTitle(reel, template, after);
    after = endOf(added.reel, added.id);
    reel = changeItem(added.reel, added.id, (item) =>
      item.kind === 'graphic' ? { ...item, fill: { ...item.fill, texts: ownChanges(template) } } : item,
    );
  }
  expect(nextDay(reel)).toEqual(JSON.parse(JSON.stringify(reel)));
  const copied = takeAlong(
    reel,
    reel.tracks.flatMap((t) => t.items.map((i) => i.id)),
  )!;
  expect(copiedSchema.parse(JSON.parse(JSON.stringify(copied))).tracks.flat()).toHaveLength(
    allTemplates().length,
  );
});

describe('a change of a text that is linked', () => {
  const controls = [
    {
      id: 'side',
      kind: 'choice',
      name: 'Side',
      options: ['left', 'right'].map((id) => ({ id, name: id })),
      default: 'left',
    },
    { id: 'at', kind: 'point', name: 'At', default: [0.5, 0.5] },
  ];
  const of = (list: object[]) =>
    openDocument(
      templateKind,
      templateOf([textLayer('t')], { slots: [textSlot('t')], controls: list as Template['controls'] }),
    );
  const filled = (texts: unknown, more: object = {}) => {
    const { reel, id } = addTitle(blank(), of(controls), 0);
    return changeItem(reel, id, (item) =>
      item.kind === 'graphic'
        ? { ...item, ...more, fill: { ...item.fill, texts: { t: texts } as Fill['texts'] } }
        : item,
    );
  };

  it.each([
    [
      'a control that is not there',
      { size: { control: 'gone' } },
      'linked to a control "gone" that is not there',
    ],
    ['a control of another kind', { size: { control: 'side' } }, 'does not give a number'],
    ['a table without a row', { size: { control: 'side', table: { left: 1 } } }, 'no row for "right"'],
    ['a source of another kind', { align: { frame: 'width' } }, 'does not give words'],
  ])('is not opened with %s', (_, texts, told) => {
    expect(() => nextDay(filled(texts))).toThrow(told);
  });

  it('is told where it stands', () => {
    expect(() => nextDay(filled({ plates: [{ behind: 'whole', margin: { control: 'gone' } }] }))).toThrow(
      'tracks › 0 › items › 0 › fill › texts › t › plates › 0 › margin: it is linked to a control "gone"',
    );
  });

  it('nothing goes along with a thing in a shot but points', () => {
    const way = { way: 'w', offset: [0, 0] };
    expect(() => nextDay(filled({}, { points: { side: way } }))).toThrow('"side" is no point');
  });

  it('stays behind where its control does: in another edition, and when its maker takes the control away', () => {
    const linked = { size: { control: 'side', table: { left: 90, right: 120 } } };
    const reel = nextDay(filled(linked));
    const id = reel.tracks[0]!.items[0]!.id;
    const without = { ...of([controls[1]!]), name: 'Another edition' };
    const { reel: changed } = setTemplate(reel, id, without);
    expect(nextDay(changed)).toEqual(changed);
    expect(itemOf(changed, id)!.item).not.toHaveProperty('fill.texts');

    const bench = benchOf(of(controls), { id: 'b', name: 'B', now: '' });
    const title = graphicOn(bench);
    const worked = changeItem(bench, title, (item) =>
      item.kind === 'graphic' ? { ...item, fill: { ...item.fill, texts: { t: linked } } } : item,
    );
    const made = changeMade(worked, (t) => ({ ...t, controls: t.controls.filter((c) => c.id !== 'side') }));
    expect(nextDay(made).tracks).toEqual(made.tracks);
  });
});

it('parts that need each other many times over are looked through once', () => {
  // Each of fifty shapes hugs all that came before it: 2⁴⁹ ways from the last to the first.
  const shapes = Array.from({ length: 50 }, (_, i) => ({
    ...{ id: `s${i}`, kind: 'shape', outline: { kind: 'ellipse' } },
    ...(i > 0 ? { hug: { layers: Array.from({ length: i }, (_, n) => `s${n}`) } } : {}),
  }));
  expect(openDocument(templateKind, templateOf(shapes as never, {})).layers).toHaveLength(50);
});

it('a number whose range leaves out nought and one is a number: by keys, and by a control', () => {
  const disturbed = (pitch: unknown) =>
    templateOf([textLayer('t', { effects: [{ effect: 'disturb', amount: 1, pitch }] })], {
      slots: [textSlot('t')],
      controls: [
        { id: 'lines', kind: 'number', name: 'Lines', min: 3, max: 200, step: 1, default: 8 },
        { id: 'ink', kind: 'colour', name: 'Ink', default: '#FF0000' },
      ],
    });
  const keys = [
    { at: 0, value: 8 },
    { at: 30, value: 40 },
  ];
  expect(() => disturbed({ keys })).not.toThrow();
  expect(() => disturbed({ control: 'lines' })).not.toThrow();
  expect(() => disturbed({ control: 'ink' })).toThrow('does not give a number');
});
