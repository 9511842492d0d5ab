import fc from 'fast-check';
import type { ReelItem } from '../documents/item';
import { type Reel, reelKind } from '../documents/reel';
import { documentOnly } from '../evaluate/documentOnly';
import { lengthOf } from '../reel/itemLength';
import { ReelScene } from '../reel/reelScene';
import { templateOf } from '../testing/studio';
import { OFFERED_RATES, secondsAt } from '../time/rate';
import { openDocument } from '../values/load';
import { copyToMarker, pasteItems, takeAlong } from './clipboard';
import { centreOnCut, cutsOf, freezeInto, freezeItem } from './freeze';
import { itemOf } from './items';
import { addMarker, changeMarker, cuesOf, keepMeetings, meet, nextMarker, removeMarkers } from './markers';
import { addTitle } from './newItems';
import { copyItems, EditError, moveItems, putItem } from './place';
import { newReel, setControl } from './reel';
import { setRate } from './setRate';

const plate = { id: 'a', kind: 'shape', outline: { kind: 'rectangle' }, fill: { colour: '#FF0000' } };
/** 50 frames a second: in 50, hold 100 by a control, out 50; a clap at the end of its in, with its sound, a swap later. */
const template = templateOf([plate, { id: 'p', kind: 'picture', slot: 'shot', size: [100, 100] }], {
  rate: { num: 50, den: 1 },
  timing: { in: 50, hold: { control: 'hold' }, out: 50, pace: { control: 'pace' } },
  controls: [
    { id: 'hold', kind: 'duration', name: 'Hold', min: 0, max: 500, default: 100 },
    { id: 'pace', kind: 'number', name: 'Pace', min: 0.5, max: 2, step: 0.1, default: 1 },
  ],
  cues: [
    { id: 'clap', name: 'Clap', at: { at: 50, of: 'in' } },
    { id: 'swap', name: 'Swap', at: { at: 0, of: 'out' } },
  ],
  slots: [
    {
      id: 'shot',
      kind: 'picture',
      name: 'Shot',
      scenes: ['all'],
      moment: { at: 0, of: 'hold' },
      sample: null,
    },
    {
      id: 'hit',
      kind: 'sound',
      name: 'Hit',
      scenes: ['all'],
      moment: { at: 0, of: 'hold' },
      sample: null,
      cue: 'clap',
    },
  ],
});
const RATE = { num: 25, den: 1 };
const titled = (): Reel => newReel(template, { id: 'r', name: 'R', now: '', shape: 'wide', rate: RATE });
const clip = { kind: 'clip', id: 'c', start: 0, length: 200, media: 'sha256:c', clip: { in: 2 } } as const;
/** Puts a clip on the track of the one called `c`. */
const behind = (r: Reel, item: ReelItem) => putItem(r, item, itemOf(r, 'c')!.track.id);
const opens = (r: Reel) => openDocument(reelKind, JSON.parse(JSON.stringify(r)));
const startOf = (r: Reel, id = 'r-1') => itemOf(r, id)!.item.start;
const cueAt = (r: Reel, cue: string, id = 'r-1') =>
  cuesOf(r, itemOf(r, id)!.item).find((c) => c.id === cue)!.frame;

describe('markers', () => {
  it('are in order, once for each use and frame, and found before and after', () => {
    let { reel, id } = addMarker(titled(), 40, 'beat');
    ({ reel } = addMarker(reel, 10, 'clap', 'Clap'));
    expect(addMarker(reel, 40, 'beat').id).toBe(id);
    expect(reel.markers.map((m) => [m.frame, m.use])).toEqual([
      [10, 'clap'],
      [40, 'beat'],
    ]);
    expect([
      nextMarker(reel, 10, 1)!.frame,
      nextMarker(reel, 40, -1)!.frame,
      nextMarker(reel, 40, 1),
    ]).toEqual([40, 10, undefined]);
    opens(reel);
    opens(addMarker(reel, 9_000_000).reel);
  });

  it('of older reels get their ids', () => {
    const old = { ...titled(), version: 2, markers: [{ frame: 3, name: 'a' }], tracks: [] };
    expect(openDocument(reelKind, JSON.parse(JSON.stringify(old))).markers).toEqual([
      { id: 'm1', frame: 3, name: 'a' },
    ]);
  });
});

describe('a cue that meets a marker', () => {
  const met = () => {
    const { reel, id } = addMarker(titled(), 100, 'clap');
    return meet(reel, 'r-1', 'clap', id);
  };

  it('falls on it to the frame, and its sound to the sample', () => {
    const reel = setControl(met(), 'r-1', 'hold', 30);
    expect([startOf(reel), cueAt(reel, 'clap')]).toEqual([75, 100]);
    const filled = {
      ...reel,
      tracks: reel.tracks.map((t) => ({
        ...t,
        items: t.items.map((i) =>
          i.kind === 'graphic' ? { ...i, fill: { ...i.fill, slots: { hit: { sound: 'sha256:s' } } } } : i,
        ),
      })),
    } as Reel;
    const [play] = new ReelScene(filled, documentOnly()).plays(() => ({ duration: 1 }) as never);
    // By hand: frame 100 of 25 a second is second 4, which is sample 192,000 of 48 kHz.
    expect(Math.round(play!.start * 48_000)).toBe(192_000);
  });

  it('stays on it when its times, the marker or the rate change', () => {
    const faster = keepMeetings(setControl(met(), 'r-1', 'pace', 2));
    expect([startOf(faster), cueAt(faster, 'clap')]).toEqual([87, 100]);
    const swap = meet(met(), 'r-1', 'swap', 'm1');
    expect(cueAt(keepMeetings(setControl(swap, 'r-1', 'hold', 60)), 'swap')).toBe(100);
    expect(cueAt(changeMarker(met(), 'm1', { frame: 60 }), 'clap')).toBe(60);
    const other = keepMeetings(setRate(met(), { num: 30000, den: 1001 }));
    expect(cueAt(other, 'clap')).toBe(other.markers[0]!.frame);
    opens(other);
  });

  it('is let go when it is moved by hand, or the marker is gone, and stays where it is', () => {
    const moved = moveItems(met(), ['r-1'], 5);
    expect([startOf(moved), startOf(keepMeetings(moved))]).toEqual([80, 80]);
    const gone = removeMarkers(met(), ['m1']);
    expect([startOf(gone), itemOf(gone, 'r-1')!.item]).toEqual([
      75,
      expect.not.objectContaining({ meets: {} }),
    ]);
  });

  it('that comes too late for the marker says so, and nothing changes', () => {
    const { reel } = addMarker(titled(), 10);
    expect(() => meet(reel, 'r-1', 'clap', 'm1')).toThrow(/Choose a later marker/);
    const near = changeMarker(met(), 'm1', { frame: 10 });
    expect(startOf(near)).toBe(0);
    opens(near);
  });

  it('a copy at the next marker meets that one, with the same cue', () => {
    const { reel } = addMarker(met(), 300);
    const { reel: two, id } = copyToMarker(reel, 'r-1');
    expect([cueAt(two, 'clap', id), cueAt(two, 'clap')]).toEqual([300, 100]);
    expect(() => copyToMarker(two, id)).toThrow(EditError);
    const { reel: plain, ids } = copyItems(reel, ['r-1'], 500);
    expect(startOf(keepMeetings(plain), ids[0])).toBe(500);
  });
});

describe('freezing', () => {
  const shot = () => behind(putItem(titled(), clip), { ...clip, id: 'd', start: 200, length: 50 });

  it('stands still for as long as asked, and what follows comes later', () => {
    const { reel, id } = freezeItem(shot(), 'c', 80, 50, 60);
    const track = itemOf(reel, id)!.track;
    expect(track.items.map((i) => [i.id, i.start, 'length' in i && i.length])).toEqual([
      ['c', 0, 80],
      [id, 80, 50],
      [expect.any(String), 130, 120],
      ['d', 250, 50],
    ]);
    const [, still, rest] = track.items;
    // Second 2 of the file and 80 frames of 25 a second later.
    expect(still).toMatchObject({ clip: { freeze: 5.2, silent: true } });
    expect(rest).toMatchObject({ clip: { in: 5.2 } });
    opens(reel);
    // At its very beginning there is nothing before it.
    expect(itemOf(freezeItem(shot(), 'c', 0, 10, 60).reel, 'c')!.item.start).toBe(10);
  });

  it('into a title fills its slot with the frame, and the clip goes on after it', () => {
    const { reel, id } = freezeInto(shot(), 'c', 80, template, { slots: {}, controls: {} }, 60);
    const { item } = itemOf(reel, id)!;
    expect(item).toMatchObject({
      start: 80,
      fill: { slots: { shot: { media: 'sha256:c', clip: { freeze: 5.2 } } } },
    });
    expect(lengthOf(reel, item)).toBe(100);
    expect(startOf(reel, 'd')).toBe(300);
    opens(reel);
  });

  it('of anything else, or elsewhere, says why not', () => {
    expect(() => freezeItem(shot(), 'r-1', 10, 5, 60)).toThrow(/Only a clip/);
    expect(() => freezeItem(shot(), 'c', 200, 5, 60)).toThrow(/not within/);
    const bare = templateOf([plate], {});
    expect(() => freezeInto(shot(), 'c', 10, bare, { slots: {}, controls: {} }, 60)).toThrow(/no slot/);
  });

  it('an overlay is centred on the nearest cut, and lies there as light', () => {
    const reel = putItem(shot(), { ...clip, id: 'leak', start: 400, length: 31 }, 'none');
    expect(cutsOf(reel, 'leak')).toEqual([200, 250]);
    const laid = centreOnCut(reel, 'leak', 190);
    expect(itemOf(laid, 'leak')!.item).toMatchObject({ start: 184, framing: { blend: 'screen' } });
    expect(() => centreOnCut(titled(), 'r-1', 0)).toThrow(/no cut yet/);
  });

  it('an overlay that says where its cut is has that on the nearest cut', () => {
    // Its cut comes 20 frames of 50 a second after it begins: ten of the reel.
    const cues = [{ id: 'cut', name: 'The cut', at: { at: 20, of: 'in' } }];
    const over = templateOf([plate], {
      rate: { num: 50, den: 1 },
      timing: { in: 60, hold: 0, out: 20 },
      cues,
    });
    const { reel, id } = addTitle(shot(), over, 300);
    const laid = centreOnCut(reel, id, 190);
    expect([startOf(laid, id), cueAt(laid, 'cut', id)]).toEqual([190, 200]);
  });
});

describe('what is taken along', () => {
  it('comes whole into a reel of the same rate, with its templates', () => {
    const from = moveItems(putItem(titled(), clip), ['r-1', 'c'], 30);
    const into = newReel(templateOf([plate], {}), { id: 'x', name: 'X', now: '', shape: 'tall', rate: RATE });
    const { reel, ids, rounded } = pasteItems(into, takeAlong(from, ['r-1', 'c'])!, 500);
    expect([rounded, ids.map((id) => startOf(reel, id))]).toEqual([0, [500, 500]]);
    expect(Object.keys(reel.templates)).toHaveLength(2);
    opens(reel);
    expect(takeAlong(from, [])).toBeUndefined();
  });

  it('between any rates is where it belongs, to the nearest frame, and touching stays touching', () => {
    const rates = fc.constantFrom(...OFFERED_RATES);
    fc.assert(
      fc.property(rates, rates, fc.nat(500), fc.integer({ min: 1, max: 400 }), (a, b, gap, length) => {
        const from = setRate(titled(), a);
        const one = putItem(from, { ...clip, start: gap, length });
        const two = behind(one, { ...clip, id: 'd', start: gap + length, length: 10 });
        const into = setRate(titled(), b);
        const { reel, ids } = pasteItems(into, takeAlong(two, ['c', 'd'])!, 1000);
        const [c, d] = ids.map((id) => itemOf(reel, id)!.item);
        if (c?.kind !== 'clip' || d?.kind !== 'clip') throw new Error('not there');
        expect(c.start).toBe(1000);
        if (itemOf(reel, ids[0]!)!.track === itemOf(reel, ids[1]!)!.track)
          expect(d.start).toBe(c.start + c.length);
        // What was shorter than half a frame takes one, beside its neighbour.
        else expect(secondsAt(length, a)).toBeLessThan(secondsAt(0.5, b));
        expect(Math.abs(secondsAt(c.length, b) - secondsAt(length, a))).toBeLessThanOrEqual(
          Math.max(secondsAt(0.5, b), secondsAt(1, b) - secondsAt(length, a)) + 1e-9,
        );
        opens(reel);
      }),
      { numRuns: 60 },
    );
  });
});
