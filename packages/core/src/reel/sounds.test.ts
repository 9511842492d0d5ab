import type { Fill } from '../documents/fill';
import { newReel } from '../edit/reel';
import { Memo } from '../memo';
import { gainOf } from '../sound/play';
import { templateOf, textLayer, textSlot } from '../testing/studio';
import { LayoutCache } from '../text/cache';
import { ReelScene } from './reelScene';

const resources = {
  layouts: new LayoutCache({ version: 0 } as never),
  memo: new Memo(),
  mediaFacts: () => undefined,
};
const sound = (id: string, cue: string, part: object = {}) => ({
  id,
  kind: 'sound',
  name: id,
  scenes: ['all'],
  moment: { at: 0 },
  sample: 'noise',
  cue,
  ...part,
});
const template = templateOf([textLayer('t')], {
  timing: { in: 60, hold: { control: 'hold' }, out: 60, pace: { control: 'pace' } },
  controls: [
    { id: 'hold', kind: 'duration', name: 'Hold', min: 0, max: 600, default: 120 },
    { id: 'pace', kind: 'number', name: 'Pace', min: 0.5, max: 2, step: 0.1, default: 1 },
  ],
  assets: { noise: 'shared/whoosh.ogg' },
  cues: [
    { id: 'land', name: 'It lands', at: { at: 30, of: 'in' } },
    { id: 'go', name: 'It goes', at: { at: 0, of: 'out' } },
    { id: 'start', name: 'It begins', at: { at: 0, of: 'in' } },
  ],
  slots: [
    textSlot('t', 'Words'),
    sound('hit', 'land', { level: -6 }),
    sound('whoosh', 'go', { offset: -30 }),
    sound('bed', 'start', { loops: true, fadeOut: 1 }),
    {
      id: 'clip',
      kind: 'picture',
      name: 'Clip',
      scenes: ['all'],
      moment: { at: 0 },
      sample: null,
      heard: true,
    },
  ],
});
const planned = (fill: Partial<Fill> = {}) => {
  const whole = { slots: {}, controls: {}, ...fill };
  const reel = newReel(template, { id: 'r', name: 'R', now: '', shape: 'wide', fill: whole });
  return new ReelScene(reel, resources).plays((media) => ({
    duration: media.startsWith('asset') ? 1.5 : 2,
  }));
};
const at = (plays: ReturnType<typeof planned>) => plays.map((p) => [p.start, p.length]);

describe('sounds at their cues', () => {
  it('begin at the cue and its offset, and end with the graphic', () => {
    // In is 1 s, hold 2 s, out 1 s.
    const [hit, whoosh, ...bed] = planned();
    expect([hit!.start, hit!.length, hit!.gain]).toEqual([0.5, 1.5, gainOf(-6)]);
    expect([whoosh!.start, whoosh!.length]).toEqual([2.5, 1.5]);
    // The bed goes round to the end.
    expect(at(bed)).toEqual([
      [0, 1.5],
      [1.5, 1.5],
      [3, 1],
    ]);
    expect(bed.map((p) => p.fadeOut)).toEqual([0.004, 0.004, 1]);
  });

  it('move with it when times change', () => {
    const [hit, whoosh] = planned({ controls: { hold: 300, pace: 2 } });
    expect(hit!.start).toBe(0.25);
    expect(whoosh!.start).toBe(0.5 + 5 - 0.5);
  });

  it('are replaced, levelled, faded, cut at the front, silenced, hidden and emptied', () => {
    const own = { sound: 'sha256:a', level: 3, fadeIn: 0.5, from: 0.4 };
    const [hit] = planned({ slots: { hit: own } });
    expect(hit).toMatchObject({ media: 'sha256:a', gain: gainOf(3), fadeIn: 0.5, from: 0.4, length: 1.6 });
    expect(planned({ slots: { hit: { ...own, silent: true }, bed: null }, hidden: ['whoosh'] })).toEqual([]);
  });

  it('a sound that would begin before the graphic has lost its beginning', () => {
    const early = templateOf(template.layers, {
      ...template,
      slots: [textSlot('t'), sound('x', 'start', { offset: -60 })],
    });
    const reel = newReel(early, { id: 'r', name: 'R', now: '', shape: 'wide' });
    const [play] = new ReelScene(reel, resources).plays(() => ({ duration: 3 }));
    expect(play).toMatchObject({ start: 0, from: 1, length: 2 });
  });
});

describe('the sound of clips', () => {
  const clip = (part: object) =>
    planned({
      hidden: ['hit', 'whoosh', 'bed'],
      slots: { clip: { media: 'sha256:c', focus: [0.5, 0.5], scale: 1, turn: 0, clip: part } },
    });
  it('plays where they show, from their in point, at their speed and level', () => {
    expect(clip({ in: 0.5, speed: 2, level: -6 })).toMatchObject([
      { start: 0, from: 0.5, length: 0.75, speed: 2, gain: gainOf(-6) },
    ]);
  });
  it('goes round with them, and slower with them', () => {
    expect(at(clip({ end: 'loop', length: 1.5 }))).toEqual([
      [0, 1.5],
      [1.5, 1.5],
      [3, 1],
    ]);
    expect(clip({ end: 'stretch' })).toMatchObject([{ length: 4, speed: 0.5 }]);
  });
  it('is off unless the template wants it, and is as the editor says', () => {
    const own = (heard: boolean, part: object) => {
      const slots = template.slots.map((s) => (s.kind === 'picture' ? { ...s, heard } : s));
      const made = templateOf(template.layers, { ...template, slots });
      const fill = {
        ...{ controls: {}, hidden: ['hit', 'whoosh', 'bed'] },
        slots: { clip: { media: 'sha256:c', focus: [0.5, 0.5], scale: 1, turn: 0, clip: part } } as never,
      };
      const reel = newReel(made, { id: 'r', name: 'R', now: '', shape: 'wide', fill });
      return new ReelScene(reel, resources).plays(() => ({ duration: 2 })).length;
    };
    expect([
      own(false, {}),
      own(false, { silent: false }),
      own(true, {}),
      own(true, { silent: true }),
    ]).toEqual([0, 1, 1, 0]);
    const slot = { id: 'x', kind: 'picture', name: 'X', scenes: ['all'], moment: { at: 0 }, sample: null };
    const [opened] = templateOf([textLayer('t')], { slots: [slot, textSlot('t')] }).slots;
    expect(opened).toMatchObject({ heard: false });
  });
  it('begins where its layer says, fades with its picture, and is not cut off hard', () => {
    const picture = (part: object) => ({
      ...{ id: 'p', kind: 'picture', slot: 'clip', size: [400, 300] },
      ...part,
    });
    const heard = (part: object, duration: number) => {
      const made = templateOf([], { ...template, layers: [picture(part)] });
      const slots = { clip: { media: 'sha256:c', focus: [0.5, 0.5], scale: 1, turn: 0 } } as never;
      const fill = { controls: {}, hidden: ['hit', 'whoosh', 'bed'], slots };
      const reel = newReel(made, { id: 'r', name: 'R', now: '', shape: 'wide', fill });
      return new ReelScene(reel, resources).plays(() => ({ duration }))[0]!;
    };
    // The graphic is 4 s long: in 1 s, hold 2 s, out 1 s.
    expect(heard({ clip: { from: { at: 30 } } }, 9)).toMatchObject({ start: 0.5, from: 0, length: 3.5 });
    expect(heard({}, 9).fadeOut).toBeCloseTo(0.25, 6);
    expect(heard({}, 2).fadeOut).toBe(0.004);
    const keys = [
      { at: 0, value: 0, ease: 'linear' },
      { at: 60, value: 1 },
      { at: 0, of: 'out', value: 1, ease: 'linear' },
      { at: 60, of: 'out', value: 0 },
    ];
    const faded = heard({ opacity: { keys } }, 9);
    expect(Math.abs(faded.fadeIn - 0.95)).toBeLessThan(0.05);
    expect(Math.abs(faded.fadeOut - 0.95)).toBeLessThan(0.08);
  });
  it('is not heard when it is silenced or stands still', () => {
    expect(clip({ silent: true })).toEqual([]);
    expect(clip({ freeze: 1 })).toEqual([]);
  });
});
