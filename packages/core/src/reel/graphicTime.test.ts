import fc from 'fast-check';
import { EMPTY_FILL } from '../documents/fill';
import { graphicOf, newReel } from '../edit/reel';
import { setRate } from '../edit/setRate';
import { GraphicScene } from '../evaluate/graphicScene';
import { templateOf } from '../testing/studio';
import { OFFERED_RATES } from '../time/rate';
import { GraphicTime, graphicsOf } from './graphicTime';
import { ReelScene } from './reelScene';

const template = templateOf(
  [{ id: 'a', kind: 'shape', outline: { kind: 'rectangle' }, fill: { colour: '#FF0000' } }],
  { timing: { in: 60, hold: 90, out: 30 } },
);
const nothing = { mediaFacts: () => undefined } as never;
const rateOf = fc.constantFrom(...OFFERED_RATES);

/** A reel whose graphic begins later. */
const later = (start: number, rate = template.rate) => {
  const reel = newReel(template, { id: 'r', name: 'R', now: '', shape: 'wide' });
  return {
    ...reel,
    rate,
    tracks: reel.tracks.map((t) => ({ ...t, items: t.items.map((i) => ({ ...i, start })) })),
  };
};

describe('times of a graphic that begins later in its reel', () => {
  it('count from where it begins, at any rate', () => {
    fc.assert(
      fc.property(
        rateOf,
        fc.integer({ min: 0, max: 5000 }),
        fc.integer({ min: 0, max: 170 }),
        (rate, start, at) => {
          const reel = later(start, rate);
          const scene = new GraphicScene(template, EMPTY_FILL, { width: 1920, height: 1080 }, nothing);
          const time = new GraphicTime(scene, start, reel);
          expect(time.actualAt(start)).toBe(0);
          expect(time.frameOf(0)).toBe(start);
          // Back and forth, to the frame.
          expect(time.frameOf(time.actualAt(start + at))).toBe(start + at);
          expect(time.frameOfLocal(time.localAt(start + at))).toBe(start + at);
          const { placed } = new ReelScene(reel, nothing);
          expect(time.secondsInto(start + at)).toBeCloseTo((at * rate.den) / rate.num, 9);
          expect(time.secondOf(time.actualAt(start + at))).toBeCloseTo(
            ((start + at) * rate.den) / rate.num,
            9,
          );
          expect(time.span).toEqual([placed[0]!.start, placed[0]!.end]);
        },
      ),
    );
  });

  it('graphics are listed as they begin', () => {
    const reel = later(40);
    const [item] = reel.tracks[0]!.items;
    const two = {
      ...reel,
      tracks: [...reel.tracks, { id: 'u', items: [{ ...item!, id: 'first', start: 3 }] }],
    };
    expect(graphicsOf(two).map((g) => g.start)).toEqual([3, 40]);
    expect(graphicsOf({ ...reel, tracks: [] })).toEqual([]);
  });
});

describe('another rate of a reel', () => {
  it('leaves everything where it is in time', () => {
    fc.assert(
      fc.property(rateOf, rateOf, fc.integer({ min: 0, max: 5000 }), (from, to, start) => {
        const before = later(start, from);
        const after = setRate({ ...before, markers: [{ id: 'm', frame: start, name: 'clap' }] }, to);
        const second = (frame: number, rate: typeof from) => (frame * rate.den) / rate.num;
        const moved = graphicOf(after, 'r-1').start;
        expect(after.rate).toEqual(to);
        expect(Math.abs(second(moved, to) - second(start, from))).toBeLessThanOrEqual(second(0.5, to) + 1e-9);
        expect(after.markers[0]!.frame).toBe(moved);
      }),
    );
  });
});
