import { type Reel, reelKind } from '../documents/reel';
import { graphicsOf } from '../reel/graphicTime';
import { reelEnd } from '../reel/itemLength';
import { templateOf } from '../testing/studio';
import { nearestRate, OFFERED_RATES } from '../time/rate';
import { openDocument } from '../values/load';
import {
  addColour,
  addFile,
  addTitle,
  addTitleAfter,
  type FileFacts,
  frameOfClip,
  reelOfFiles,
  reelOverClip,
} from './newItems';
import { newReel } from './reel';

const plate = { id: 'a', kind: 'shape', outline: { kind: 'rectangle' }, fill: { colour: '#FF0000' } };
const named = (id: string) => ({ ...templateOf([plate], { timing: { in: 50, hold: 50, out: 50 } }), id });
const reel = newReel(named('strap'), {
  id: 'r',
  name: 'R',
  now: '',
  shape: 'wide',
  rate: { num: 25, den: 1 },
});
const file = (kind: FileFacts['kind'], duration?: number, facts: Partial<FileFacts> = {}): FileFacts => ({
  ...{ kind, media: `sha256:${kind}`, name: `a.${kind}`, duration },
  ...facts,
});
const shown = (r: Reel) => r.tracks.map((t) => t.items.map((i) => `${i.id}@${i.start}`).join(' '));
const made = { id: 'n', name: 'N', now: '2026-06-05T10:00:00Z' };
const opens = (r: Reel) => openDocument(reelKind, JSON.parse(JSON.stringify(r)));

describe('what is added', () => {
  it('lies below the titles: clips and pictures side by side, sounds below all', () => {
    let { reel: next } = addFile(reel, file('clip', 3), 10);
    ({ reel: next } = addFile(next, file('picture'), 400));
    ({ reel: next } = addFile(next, file('sound', 9), 0));
    ({ reel: next } = addColour(next, '#112233', 0));
    expect(shown(next)).toEqual(['sound@0', 'clip@10 picture@400', 'colour@0', 'r-1@0']);
    opens(next);
  });

  it('as a title after the last one begins where that is over, and at the beginning of a reel without any', () => {
    const { reel: next } = addTitleAfter(addTitle(reel, named('strap'), 100).reel, named('note'));
    // A title of 150 frames of 60 a second is 63 of 25.
    expect(shown(next)).toEqual([`r-1@0 strap@100 note@${100 + reelEnd(reel)}`]);
    const { reel: only } = addTitleAfter({ ...reel, tracks: [] }, named('note'));
    expect(shown(only)).toEqual(['note@0']);
  });

  it('as a title stands on top, and is kept once for all of its kind', () => {
    const { reel: two, id } = addTitle(reel, named('strap'), 500);
    expect([id, shown(two), Object.keys(two.templates)]).toEqual(['strap', ['r-1@0 strap@500'], ['strap']]);
    expect(graphicsOf(addTitle(two, named('date'), 500).reel)).toHaveLength(3);
  });

  it('as a title over footage alone lies above it, even where the footage is over', () => {
    const clips = reelOfFiles([file('clip', 2)], { ...made, ...frameOfClip(file('clip')) });
    const { reel: titled } = addTitle(clips, named('strap'), 900);
    expect(shown(titled)).toEqual(['clip@0', 'strap@900']);
    opens(titled);
  });
});

describe('a reel of files', () => {
  it('has them one after the other, each as long as it is', () => {
    const next = reelOfFiles([file('clip', 2), file('clip', 1.5), file('sound', 1)], {
      ...made,
      ...frameOfClip(file('clip', 2, { width: 1920, height: 1080, rate: 25 })),
    });
    expect(shown(next)).toEqual(['sound@88', 'clip@0 clip-2@50']);
    expect(reelEnd(next)).toBe(113);
    opens(next);
  });

  it.each([
    // Mean rates as files tell them, and the exact rates they stand for (SMPTE ST 12-1).
    [23.976, 24000, 1001],
    [24, 24, 1],
    [29.97, 30000, 1001],
    [29.9, 30, 1],
    [59.9401, 60000, 1001],
    [60.001, 60, 1],
    [12.5, 13, 1],
    [1000, 240, 1],
    [0, 25, 1],
  ])('a clip of %d frames a second makes it one of %d/%d', (measured, num, den) => {
    expect(nearestRate(measured)).toEqual({ num, den });
  });

  it('every offered rate stands for itself, as files round it', () => {
    for (const rate of OFFERED_RATES)
      for (const digits of [2, 3, 6])
        expect(nearestRate(+(rate.num / rate.den).toFixed(digits))).toEqual(rate);
  });

  it.each([
    [1920, 1080, 1920, 1080],
    [3840, 2160, 3840, 2160],
    [1080, 1920, 1080, 1920],
    // What no render is offered for has its shape.
    [640, 360, 1920, 1080],
    [1921, 1080, 1922, 1080],
    [720, 576, 1350, 1080],
  ])('a clip of %d × %d gives it a frame of %d × %d', (width, height, w, h) => {
    expect(frameOfClip(file('clip', 1, { width, height })).frame).toEqual({ width: w, height: h });
  });

  it('begun over a clip has its rate, and the title comes in half a second later', () => {
    const next = reelOverClip(named('strap'), file('clip', 4, { width: 1080, height: 1920, rate: 50 }), made);
    expect([shown(next), next.rate, next.frame]).toEqual([
      ['clip@0', 'strap@25'],
      { num: 50, den: 1 },
      { width: 1080, height: 1920 },
    ]);
    opens(next);
  });
});
