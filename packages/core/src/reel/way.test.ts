import fc from 'fast-check';
import { type Reel, reelKind } from '../documents/reel';
import type { WaySample } from '../documents/way';
import { holdFraming } from '../edit/framing';
import { addTitle, reelOfFiles } from '../edit/newItems';
import { cutItem, slipItem } from '../edit/place';
import { setMotionBlur } from '../edit/reel';
import { addWay, correctWay, drivePoint, putSamples, removeWay, setFollow, stretchOf } from '../edit/ways';
import { documentOnly } from '../evaluate/documentOnly';
import { pathBounds } from '../geometry/path';
import type { Op } from '../paint/ops';
import { templateOf } from '../testing/studio';
import { openDocument } from '../values/load';
import { ReelScene } from './reelScene';
import { clipPlane, seenIn, takenAlong, wayAt } from './way';

const RATE = { num: 25, den: 1 };
const FRAME = { width: 1920, height: 1080 };
const made = { id: 'r', name: 'R', now: '', frame: FRAME, rate: RATE };
/** A clip of 640 × 360, 4 s long, three frame units for a pixel. */
const CLIP = { kind: 'clip', media: 'sha256:c', duration: 4 } as const;
const facts = { ...documentOnly(), mediaFacts: () => ({ width: 640, height: 360, duration: 4 }) };
const plate = {
  ...{ id: 'a', kind: 'shape', outline: { kind: 'rectangle' }, fill: { colour: '#FF0000' } },
  size: [60, 40],
};
const title = templateOf([plate], { rate: RATE, timing: { in: 100, hold: 0, out: 0 } });

/** A thing that goes right by 100 pixels a second, grows to twice its size in 4 s and turns by a quarter. */
const moving = (t: number): WaySample => {
  const [k, angle] = [1 + t / 4, (t / 4) * (Math.PI / 2)];
  return [t, 100 + 100 * t, 180, k * Math.cos(angle), k * Math.sin(angle), 1];
};
const samples = (count = 100): WaySample[] => Array.from({ length: count }, (_, i) => moving(i / 25));

/** The title lies beside the thing at second 1, and goes along with it. */
function followed(follow: object = {}): Reel {
  const base = addTitle(reelOfFiles([CLIP], made), title, 0).reel;
  const [clip, strap] = [base.tracks[0]!.items[0]!, base.tracks[1]!.items[0]!];
  const { reel, id } = addWay(
    base,
    { id: clip.id, media: 'sha256:c' },
    0,
    { x: 100, y: 180, a: 1, b: 0 },
    20,
  );
  return setFollow(putSamples(reel, id, samples()), strap.id, { way: id, at: 1, ...follow });
}

const plateOf = (reel: Reel, frame: number) => {
  const ops = new ReelScene(reel, facts).frameAt(frame, RATE).ops;
  const path = ops.find((o): o is Op & { op: 'path' } => o.op === 'path');
  if (!path) return undefined;
  const [a, c, e, b, d, f] = path.plane;
  return { x: e, y: f, scale: Math.hypot(a, b), turn: (Math.atan2(b, a) * 180) / Math.PI, c, d };
};

describe('what goes along with a thing', () => {
  it('is as far from it as it was placed, wherever that goes', () => {
    const [at, later, before] = [25, 75, 5].map((f) => plateOf(followed(), f)!);
    // 100 pixels a second are 300 frame units.
    expect(later!.x - at!.x).toBeCloseTo(600, 6);
    expect(before!.x - at!.x).toBeCloseTo(-240, 6);
    expect([later!.y - at!.y, later!.scale, later!.turn]).toEqual([expect.closeTo(0, 6), 1, 0]);
  });

  it('grows and turns with it, about it, if wanted', () => {
    const [at, later] = [25, 75].map((f) => plateOf(followed({ grows: true, turns: true }), f)!);
    // From second 1 to 3 it grows from 1.25 to 1.75 and turns by 45°.
    expect(later!.scale / at!.scale).toBeCloseTo(1.75 / 1.25, 6);
    expect(later!.turn - at!.turn).toBeCloseTo(45, 6);
    // The thing itself is in the same place of the title: by hand from its place in frame units.
    const thing = (s: number) => [(100 + 100 * s) * 3 + 1.5, 180 * 3 + 1.5] as const;
    const local = (p: NonNullable<ReturnType<typeof plateOf>>, [x, y]: readonly [number, number]) => {
      const r = (-p.turn * Math.PI) / 180;
      const [dx, dy] = [x - p.x, y - p.y];
      return [
        (dx * Math.cos(r) - dy * Math.sin(r)) / p.scale,
        (dx * Math.sin(r) + dy * Math.cos(r)) / p.scale,
      ];
    };
    const [p, q] = [local(at!, thing(1)), local(later!, thing(3))];
    expect(q[0]).toBeCloseTo(p[0]!, 4);
    expect(q[1]).toBeCloseTo(p[1]!, 4);
  });

  it('hides while the thing is gone, if wanted, and else goes straight to where it is seen again', () => {
    const lost = (reel: Reel) =>
      putSamples(
        reel,
        'way',
        samples()
          .slice(40, 61)
          .map(([t, , , a, b]): WaySample => [t, 9000, 9000, a, b, 0.1]),
      );
    expect(plateOf(lost(followed({ hides: true })), 50)).toBeUndefined();
    const shown = plateOf(lost(followed()), 50)!;
    expect(shown.x).toBeCloseTo(plateOf(followed(), 50)!.x, 3);
  });

  it('goes on in the other part of a clip that was cut, and with how the clip is framed', () => {
    const cut = cutItem(followed(), followed().tracks[0]!.items[0]!.id, 60);
    expect(plateOf(cut, 80)!.x).toBeCloseTo(plateOf(followed(), 80)!.x, 6);
    const clip = followed().tracks[0]!.items[0]!;
    const half = {
      ...followed(),
      tracks: followed().tracks.map((t) => ({
        ...t,
        items: t.items.map((i) => (i.id === clip.id ? { ...i, framing: { scale: 0.5 } } : i)),
      })),
    };
    const moved = plateOf(half, 75)!.x - plateOf(half, 25)!.x;
    expect(moved).toBeCloseTo(300, 6);
  });

  it('a point control goes along as well, and a way that is taken out lets all go', () => {
    const driven = templateOf([{ ...plate, offset: { control: 'tip' } }], {
      rate: RATE,
      timing: { in: 100, hold: 0, out: 0 },
      controls: [{ id: 'tip', kind: 'point', name: 'Tip', default: [0, 0] }],
    });
    const base = addTitle(followed(), driven, 0).reel;
    const id = base.tracks.at(-1)!.items.find((i) => i.id !== 'x')!.id;
    const reel = drivePoint(base, id, 'tip', { way: 'way', offset: [0.1, 0] });
    openDocument(reelKind, JSON.parse(JSON.stringify(reel)));
    const tip = (frame: number) => {
      const paths = new ReelScene(reel, facts).frameAt(frame, RATE).ops.filter((o) => o.op === 'path');
      return paths.at(-1)!.plane[2];
    };
    // 600 frame units, as parts of the frame.
    expect(tip(75) - tip(25)).toBeCloseTo(600 / 1920, 9);
    const gone = removeWay(reel, 'way');
    expect(JSON.stringify(gone)).not.toContain('"way"');
    expect(gone.ways).toEqual([]);
  });
});

/** Where the plate's corner is in the frame. */
function cornerOf(reel: Reel, frame: number): number[] {
  const ops = new ReelScene(reel, facts).frameAt(frame, RATE).ops;
  const path = ops.find((o): o is Op & { op: 'path' } => o.op === 'path')!;
  const { x, y } = pathBounds(path.path)!;
  const [a, c, e, b, d, f] = path.plane;
  return [a * x + c * y + e, b * x + d * y + f];
}

describe('what is on a thing stays on it', () => {
  /** A title of which the plate's corner stands at a point that goes along with the thing. */
  const pointed = templateOf([{ ...plate, offset: { product: [{ control: 'p' }, [1920, 1080]] } }], {
    rate: RATE,
    timing: { in: 100, hold: 0, out: 0 },
    controls: [{ id: 'p', kind: 'point', name: 'P', default: [0.5, 0.5] }],
  });
  const driven = (change: (reel: Reel, title: string) => Reel = (r) => r, rate = RATE): Reel => {
    const base = addTitle(reelOfFiles([CLIP], { ...made, rate }), pointed, 0).reel;
    const [clip, bubble] = [base.tracks[0]!.items[0]!, base.tracks[1]!.items[0]!];
    const begun = addWay(base, { id: clip.id, media: 'sha256:c' }, 0, { x: 100, y: 180, a: 1, b: 0 }, 20);
    const { id } = begun;
    return change(drivePoint(putSamples(begun.reel, id, samples()), bubble.id, 'p', { way: id }), bubble.id);
  };
  it.each([
    ['is moved', (r: Reel, id: string) => holdFraming(r, id, 'move', [200, -80])],
    ['grows', (r: Reel, id: string) => holdFraming(r, id, 'scale', 0.5)],
    ['is turned', (r: Reel, id: string) => holdFraming(r, id, 'turn', 30)],
    [
      'goes along as well',
      (r: Reel, id: string) => setFollow(r, id, { way: r.ways[0]!.id, at: 1, grows: true }),
    ],
  ])('a point also where its title %s', (_, change) => {
    for (const frame of [0, 30, 70]) {
      const thing = [(100 + 4 * frame) * 3 + 1.5, 180 * 3 + 1.5].map((v) => expect.closeTo(v, 6));
      expect(cornerOf(driven(), frame)).toEqual(thing);
      expect(cornerOf(driven(change), frame)).toEqual(thing);
    }
  });

  it.each([12.5, 24000 / 1001, 25, 30])(
    'where the clip has %d pictures a second and the reel 60',
    (pictures) => {
      const rate = { num: 60, den: 1 };
      const reel = driven((r) => {
        const each = Array.from({ length: Math.floor(4 * pictures) }, (_, i) => moving(i / pictures));
        return putSamples(r, r.ways[0]!.id, each);
      }, rate);
      const scene = new ReelScene(reel, {
        ...facts,
        mediaFacts: () => ({ width: 640, height: 360, duration: 4, rate: pictures }),
      });
      for (let frame = 0; frame < 200; frame++) {
        // A picture shows until the next comes, a millisecond early (see FRAME_SLACK).
        const shown = Math.floor((frame / 60 + 0.001) * pictures + 1e-6) / pictures;
        expect(scene.following.seenAt(reel.ways[0]!, frame)!.at[0]).toBeCloseTo(
          (100 + 100 * shown) * 3 + 1.5,
          6,
        );
      }
    },
  );

  it('while the shutter is open, and over a cut to another part of the clip', () => {
    const reel = setMotionBlur(
      driven((r) => {
        const clip = r.tracks[0]!.items[0]!.id;
        const cut = cutItem(r, clip, 50);
        const second = cut.tracks[0]!.items[1]!.id;
        return slipItem(cut, second, -1.5);
      }),
      { samples: 8, shutter: 1 },
    );
    const scene = new ReelScene(reel, facts);
    for (const frame of [49, 50, 51]) {
      const xs = scene.subFrames(frame, RATE).map(({ ops }) => {
        const path = ops.find((o): o is Op & { op: 'path' } => o.op === 'path')!;
        return path.plane[2];
      });
      expect(new Set(xs).size).toBe(1);
    }
  });
});

describe('a way', () => {
  it('between samples is straight; smoothing takes trembling out and leaves a steady motion', () => {
    expect(wayAt({ samples: samples() }, 1.02)!.x).toBeCloseTo(202, 6);
    expect(wayAt({ samples: [] }, 1)).toBeUndefined();
    const trembling = samples().map(
      ([t, x, y, a, b, sure], i): WaySample => [t, x + (i % 2 ? 4 : -4), y, a, b, sure],
    );
    const off = (smooth: number) =>
      Math.max(
        ...[1.5, 1.54, 2, 2.04].map((t) =>
          Math.abs(wayAt({ samples: trembling }, t, smooth)!.x - (100 + 100 * t)),
        ),
      );
    expect(off(0)).toBeCloseTo(4, 6);
    expect(off(0.4)).toBeLessThan(0.2);
    expect(wayAt({ samples: samples() }, 2, 0.4)!.x).toBeCloseTo(300, 3);
  });

  it('a correction is kept, and it is followed anew up to the corrections beside it', () => {
    const reel = correctWay(followed(), 'way', 2, { x: 50, y: 60, a: 1, b: 0 });
    const [way] = reel.ways;
    expect(way!.samples.find((s) => s[0] === 2)).toEqual([2, 50, 60, 1, 0, 1]);
    expect(way!.samples).toHaveLength(100);
    expect(stretchOf(way!, 2)).toEqual([0, Number.POSITIVE_INFINITY]);
    expect(stretchOf(way!, 0)).toEqual([0, 2]);
    openDocument(reelKind, JSON.parse(JSON.stringify(reel)));
  });

  it('taken along there and back is where it was, however it lies', () => {
    const number = fc.double({ min: -500, max: 500, noNaN: true });
    const pose = fc.record({
      x: number,
      y: number,
      angle: number,
      k: fc.double({ min: 0.2, max: 5, noNaN: true }),
    });
    const plane = clipPlane(
      { length: 10, framing: { turn: 30, scale: 0.7 } },
      { width: 640, height: 360 },
      FRAME,
      0,
    );
    fc.assert(
      fc.property(pose, pose, (p, q) => {
        const [from, to] = [p, q].map(({ x, y, angle, k }) =>
          seenIn({ x, y, a: k * Math.cos(angle), b: k * Math.sin(angle), sure: 1 }, plane),
        );
        const both = { grows: true, turns: true };
        const [there, back] = [takenAlong(from!, to!, both), takenAlong(to!, from!, both)];
        const [a, b, c, d, e, f] = there.matrix;
        const [x, y] = [a * 7 + c * 9 + e, b * 7 + d * 9 + f];
        const [A, B, C, D, E, F] = back.matrix;
        expect(A * x + C * y + E).toBeCloseTo(7, 5);
        expect(B * x + D * y + F).toBeCloseTo(9, 5);
        expect(there.scale * back.scale).toBeCloseTo(1, 9);
      }),
    );
  });
});
