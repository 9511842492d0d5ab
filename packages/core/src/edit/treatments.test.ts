import fc from 'fast-check';
import type { ReelItem } from '../documents/item';
import { type Reel, reelKind } from '../documents/reel';
import type { TreatmentKind } from '../effects/treatment';
import { documentOnly } from '../evaluate/documentOnly';
import { freshPicture } from '../media/pictureFill';
import type { Op } from '../paint/ops';
import { ReelScene } from '../reel/reelScene';
import { templateOf } from '../testing/studio';
import { openDocument } from '../values/load';
import { freezeItem } from './freeze';
import { itemOf } from './items';
import { cutItem, EditError, trimItem } from './place';
import { graphicOf, newReel } from './reel';
import { setRate } from './setRate';
import { TREATMENTS } from './treatmentKinds';
import {
  addTreatment,
  effectsOnSlot,
  holdTreatment,
  moveTreatment,
  removeTreatment,
  switchTemplateEffect,
  switchTreatment,
  type Treated,
  treatmentHeld,
  treatmentsOf,
} from './treatments';

const RATE = { num: 25, den: 1 };
const template = templateOf(
  [
    {
      id: 'stack',
      kind: 'group',
      layers: [
        {
          ...{ id: 'ghost', kind: 'picture', slot: 'logo', size: [400, 400], name: 'Ghost' },
          effects: [
            { effect: 'blur', radius: 9 },
            { effect: 'shadow', radius: 4, distance: 10, colour: '#000000', opacity: 0.5 },
          ],
        },
      ],
    },
  ],
  {
    slots: [
      {
        id: 'logo',
        kind: 'logo',
        name: 'Logo',
        scenes: ['all'],
        moment: { at: 0, of: 'hold' },
        sample: null,
        optional: true,
      },
    ],
  },
);
const resources = {
  ...documentOnly(),
  mediaFacts: () => ({ width: 1600, height: 900, duration: 8 }),
};
const clip: ReelItem = { kind: 'clip', id: 'c', start: 50, length: 100, media: 'sha256:c', clip: {} };

function reelOf(part: object = {}): Reel {
  const reel = newReel(template, { id: 'r', name: 'R', now: '', shape: 'wide', rate: RATE });
  return { ...reel, tracks: [...reel.tracks, { id: 'clips', items: [{ ...clip, ...part } as ReelItem] }] };
}
const OF: Treated = { kind: 'item', item: 'c' };
const names = (reel: Reel) => treatmentsOf(reel, OF).map((t) => t.id);
const keys = (...at: number[]) => ({
  keys: at.map((a) => ({ at: a, of: 'in' as const, value: a / 100, ease: 'linear' as const })),
});
const effectsAt = (reel: Reel, frame: number) =>
  new ReelScene(reel, resources)
    .frameAt(frame, RATE)
    .ops.filter((op): op is Extract<Op, { op: 'open' }> => op.op === 'open')
    .flatMap((op) => op.effects);

describe('treatments of an item', () => {
  it('are added at the end, each under a name of its own, put in order, and taken away', () => {
    let reel = reelOf();
    for (const kind of ['contrast', 'blur', 'contrast'] as const) reel = addTreatment(reel, OF, kind, true);
    expect(names(reel)).toEqual(['contrast', 'blur', 'contrast-2']);
    expect(treatmentsOf(reel, OF)[1]).toMatchObject({ effect: 'blur', inside: true });
    reel = moveTreatment(reel, OF, 'blur', 1);
    expect(names(reel)).toEqual(['contrast', 'contrast-2', 'blur']);
    expect(moveTreatment(reel, OF, 'blur', 1)).toEqual(reel);
    reel = ['contrast', 'contrast-2', 'blur'].reduce((r, id) => removeTreatment(r, OF, id), reel);
    expect(itemOf(reel, 'c')!.item).toEqual(clip);
  });

  it('are painted while they are on, about the picture and not about the frame', () => {
    let reel = addTreatment(reelOf(), OF, 'vignette', true);
    const [vignette] = effectsAt(reel, 60);
    // The clip is 16:9 like the frame: its ellipse goes through the corners of it.
    expect(vignette).toMatchObject({
      effect: 'vignette',
      map: [1920 / Math.SQRT2, 0, 0, 1080 / Math.SQRT2, 960, 540],
    });
    reel = switchTreatment(reel, OF, 'vignette', false);
    expect(effectsAt(reel, 60)).toEqual([]);
    expect(effectsAt(switchTreatment(reel, OF, 'vignette', true), 60)).toEqual([vignette]);
  });

  it('change over time, and stay in time when the item is trimmed, cut, frozen or at another rate', () => {
    const moving = holdTreatment(
      addTreatment(reelOf(), OF, 'brightness', true),
      OF,
      'brightness',
      'amount',
      keys(0, 80),
    );
    const amount = (reel: Reel, frame: number) => (effectsAt(reel, frame)[0] as { amount: number }).amount;
    expect(amount(moving, 50 + 40)).toBeCloseTo(0.4, 6);
    const later = trimItem(moving, 'c', 'start', 70);
    expect(amount(later, 90)).toBeCloseTo(0.4, 6);
    const cut = cutItem(moving, 'c', 80);
    expect([amount(cut, 79), amount(cut, 90)].map((v) => Math.round(v * 1e6) / 1e6)).toEqual([0.29, 0.4]);
    const { reel: frozen } = freezeItem(moving, 'c', 90, 50, 60);
    expect(
      [
        amount(frozen, 89),
        amount(frozen, 91),
        amount(frozen, 139),
        amount(frozen, 140),
        amount(frozen, 150),
      ].map((v) => Math.round(v * 1e6) / 1e6),
    ).toEqual([0.39, 0.4, 0.4, 0.4, 0.5]);
    const doubled = setRate(moving, { num: 50, den: 1 });
    expect(treatmentHeld(doubled, OF, 'brightness', 'amount')).toEqual({
      keys: [0, 160].map((at, i) => ({ at, of: 'in', value: [0, 0.8][i], ease: 'linear' })),
    });
  });

  it('cannot be changed on a locked track, and are twelve at most', () => {
    const locked = { ...reelOf(), tracks: reelOf().tracks.map((t) => ({ ...t, locked: true })) };
    expect(() => addTreatment(locked, OF, 'tint', true)).toThrow(EditError);
    let reel = reelOf();
    for (let i = 0; i < 12; i++) reel = addTreatment(reel, OF, 'grain', true);
    expect(() => addTreatment(reel, OF, 'grain', true)).toThrow(/Take one away/);
  });

  it('of every kind open again as they were saved', () => {
    const kind = fc.constantFrom(...(Object.keys(TREATMENTS) as TreatmentKind[]));
    fc.assert(
      fc.property(fc.array(kind, { maxLength: 12 }), (list) => {
        const reel = list.reduce((r, k) => addTreatment(r, OF, k, k === 'blur'), reelOf());
        expect(openDocument(reelKind, JSON.parse(JSON.stringify(reel)))).toEqual(reel);
      }),
      { numRuns: 20 },
    );
  });
});

describe('treatments of a slot', () => {
  const filled = () => {
    const reel = reelOf();
    const id = reel.tracks[0]!.items[0]!.id;
    const shown = freshPicture('sha256:logo');
    return { reel, of: { kind: 'slot', item: id, slot: 'logo', shown } as const, id };
  };
  const held = (reel: Reel, id: string) =>
    graphicOf(reel, id).fill.slots.logo as ReturnType<typeof freshPicture>;

  it('come before what the template does to it, in every layer that shows it', () => {
    const { reel, of, id } = filled();
    const next = addTreatment(reel, of, 'saturation', false);
    expect(held(next, id).treatments).toMatchObject([{ id: 'saturation', effect: 'saturation' }]);
    expect(effectsAt(next, 40).map((e) => e.effect)).toEqual(['saturation', 'blur', 'shadow']);
  });

  it('what the template has put there is named, and each can be switched off and on', () => {
    const { reel, of, id } = filled();
    const effects = effectsOnSlot(template, 'logo');
    expect(effects).toEqual([
      { key: 'ghost/blur', layer: 'Ghost', effect: 'blur' },
      { key: 'ghost/shadow', layer: 'Ghost', effect: 'shadow' },
    ]);
    const off = switchTemplateEffect(reel, of, 'ghost/blur', false);
    expect(effectsAt(off, 40).map((e) => e.effect)).toEqual(['shadow']);
    const again = switchTemplateEffect(off, { ...of, shown: held(off, id) }, 'ghost/blur', true);
    expect(effectsAt(again, 40).map((e) => e.effect)).toEqual(['blur', 'shadow']);
    expect(held(again, id).plain).toBeUndefined();
  });
});
