import { EMPTY_FILL, type Fill } from '../documents/fill';
import type { ReelItem } from '../documents/item';
import type { Reel } from '../documents/reel';
import type { Template } from '../documents/template';
import { newReel } from '../edit/reel';
import { draftSize } from '../formats/plan';
import { sameOps } from '../paint/ops';
import { graphicsOf } from '../reel/graphicTime';
import { templateOf, testStudio, textLayer, textSlot } from '../testing/studio';
import { FRAMES } from '../values/frame';
import { costlyParts } from './costs';

const template = templateOf([textLayer('t')], { slots: [textSlot('t', 'Words')] });
const still = (id: string, length: number, part: object = {}): ReelItem =>
  ({ kind: 'still', id, start: 0, length, media: 'sha256:p', ...part }) as ReelItem;
const reelOf = (...items: ReelItem[]): Reel => {
  const made = newReel(template, { id: 'r', name: 'R', now: '', shape: 'wide' });
  return { ...made, tracks: [...made.tracks, { id: 'more', items }] };
};
const sepia = { id: 'a', effect: 'sharpen' };

describe('what may take the time of a render', () => {
  it('are the longest things that show, motion blur, and treatments that are on', () => {
    const reel = reelOf(
      still('long', 500, { treatments: [sepia, { ...sepia, id: 'b', off: true }] }),
      still('plain', 400),
      { kind: 'colour', id: 'flat', start: 0, length: 900, colour: '#102030' },
      { kind: 'sound', id: 'bed', start: 0, length: 900, media: 'sha256:s' },
    );
    expect(costlyParts(reel).map((p) => p.id)).toEqual(['treatments/long', 'long', 'plain', 'r-1']);
    const blurred = { ...reel, motionBlur: { samples: 8, shutter: 0.5 } };
    expect(costlyParts(blurred)[0]).toMatchObject({ id: 'blur', kind: 'blur' });
    const hidden = { ...reel, tracks: reel.tracks.map((t) => ({ ...t, hidden: true })) };
    expect(costlyParts(hidden)).toEqual([]);
  });

  it('are left out one by one, and switched off and on as they were', () => {
    const reel = {
      ...reelOf(still('long', 500, { treatments: [sepia, { ...sepia, id: 'b', off: true }] })),
      motionBlur: { samples: 8, shutter: 0.25 },
    };
    for (const { without, turn, id } of costlyParts(reel)) {
      const less = without(reel);
      expect(costlyParts(less).map((p) => p.id)).not.toContain(id);
      if (!turn) continue;
      expect([turn.isOn(reel), turn.isOn(less)]).toEqual([true, false]);
      const again = turn.set(less, true);
      expect(again.motionBlur).toEqual(reel.motionBlur);
      expect(costlyParts(again).map((p) => p.id)).toEqual(costlyParts(reel).map((p) => p.id));
      expect(again.tracks[1]!.items[0]!.treatments!.map((t) => !t.off)).toEqual([true, false]);
    }
  });
});

it('the depth of letters and of a lens can be done without, and is there again as it was', async () => {
  const studio = await testStudio();
  const words = textLayer('t');
  const far = { ...textLayer('t'), id: 'far', move: [0, 0, 400] };
  const group = { kind: 'group', id: 'g', layers: [far] };
  const open = (layers: readonly object[]) => templateOf(layers, { slots: [textSlot('t', 'Words')] });
  const deep = open([
    { ...words, depth: { thickness: 0.4 } },
    { ...group, focus: { at: 0 } },
  ]);
  const reel = newReel(deep, { id: 'r', name: 'R', now: '', shape: 'wide' });
  const part = costlyParts(reel).find((p) => p.kind === 'depth')!;
  const less = part.without(reel);
  const opsOf = (of: Template, fill: Fill) =>
    studio.scene(of, fill, FRAMES.wide).then((s) => s.evaluate(90).ops);
  const flat = await opsOf(deep, graphicsOf(less)[0]!.fill);
  expect(sameOps(flat, await opsOf(deep, graphicsOf(reel)[0]!.fill))).toBe(false);
  // As it would be without depth in the template.
  expect(sameOps(flat, await opsOf(open([words, group]), EMPTY_FILL))).toBe(true);
  expect([part.turn!.isOn(reel), part.turn!.isOn(less)]).toEqual([true, false]);
  expect(costlyParts(less).some((p) => p.kind === 'depth')).toBe(false);
  expect(part.turn!.set(less, true)).toEqual(reel);
  studio.close();
});

it('a draft has about half of the side, of what is offered', () => {
  const wide = { width: 1920, height: 1080 };
  expect([2160, 1440, 1080, 720, 540].map((side) => draftSize(wide, side).height)).toEqual([
    1080, 720, 540, 360, 270,
  ]);
  expect(draftSize({ width: 1080, height: 1920 }, 1080)).toEqual({ width: 540, height: 960 });
});
