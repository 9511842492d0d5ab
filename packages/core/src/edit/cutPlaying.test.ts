import fc from 'fast-check';
import type { ReelItem, ReelItemOf } from '../documents/item';
import { type Reel, reelKind } from '../documents/reel';
import { ClipItem, SoundItem } from '../reel/fileItems';
import { framesOfSecond, partPlayed, playedOf } from '../reel/fileTime';
import { secondOf } from '../reel/way';
import type { SoundFacts, SoundPlay } from '../sound/play';
import { OFFERED_RATES, secondsAt } from '../time/rate';
import { SLOWEST_SOUND } from '../values/limits';
import { openDocument } from '../values/load';
import { freezeItem } from './freeze';
import { itemOf } from './items';
import { keepable } from './keepable';
import { cutItem, slipItem, spanOf, splitSound, trimItem } from './place';
import { emptyReel } from './reel';

const rateOf = fc.constantFrom(...OFFERED_RATES);
const second = fc.integer({ min: 0, max: 400 }).map((n) => n / 40);
/** Something that plays, in a reel of its own. */
const playing = fc.record({
  rate: rateOf,
  duration: fc.integer({ min: 8, max: 300 }).map((n) => n / 40),
  start: fc.nat(50),
  length: fc.integer({ min: 4, max: 200 }),
  in: second,
  speed: fc.constantFrom(0.5, 1, 1.25, 3),
  end: fc.constantFrom('hold' as const, 'loop' as const, 'stretch' as const),
});
type Playing = typeof playing extends fc.Arbitrary<infer T> ? T : never;

const reelWith = (rate: Playing['rate'], item: ReelItem): Reel => ({
  ...emptyReel({ id: 'r', name: 'R', now: '', frame: { width: 1920, height: 1080 }, rate }),
  tracks: [{ id: 't', items: [item] }],
});
const clipOf = ({ rate, start, length, in: begins, speed, end, duration }: Playing) =>
  reelWith(rate, {
    ...{ kind: 'clip', id: 'c', start, length, media: 'm' },
    clip: { in: Math.min(begins, duration - 0.1), speed, ...(end === 'hold' ? {} : { end }) },
  });
const soundOf = ({ rate, start, length, in: begins, speed, end, duration }: Playing) =>
  reelWith(rate, {
    ...{ kind: 'sound', id: 'c', start, length, media: 'm', from: Math.min(begins, duration - 0.1), speed },
    ...(end === 'loop' ? { loops: true } : {}),
  });

/** Two seconds that go round for four. */
const base: Playing = {
  ...{ rate: { num: 25, den: 1 }, duration: 2, start: 0, length: 100, in: 0, speed: 1, end: 'loop' },
};

/** The second of the file that shows in each frame of the reel. */
function shown(reel: Reel, duration: number): Map<number, number> {
  return new Map(
    reel.tracks.flatMap((t) =>
      t.items.flatMap((item) => {
        const [from, to] = spanOf(reel, item);
        return Array.from({ length: to - from }, (_, i) => {
          const at = secondOf(item as ReelItemOf<'clip'>, i, reel.rate, duration);
          return [from + i, at] as const;
        });
      }),
    ),
  );
}

/** The second of the file that is heard in the middle of each frame of the reel; nothing where it is silent. */
function heard(reel: Reel, duration: number): Map<number, number> {
  const found = () => ({ duration }) as SoundFacts;
  return new Map(
    reel.tracks.flatMap((t) =>
      t.items.flatMap((item) => {
        const plays: SoundPlay[] =
          item.kind === 'sound'
            ? new SoundItem(item, reel.rate).plays(found)
            : new ClipItem(item as ReelItemOf<'clip'>, reel.rate, reel.frame, {
                mediaFacts: () => undefined,
              } as never).plays(found);
        const [from, to] = spanOf(reel, item);
        return Array.from({ length: to - from }, (_, i) => i).flatMap((i) => {
          const t = secondsAt(i + 0.5, reel.rate);
          const play = plays.find((p) => t >= p.start && t < p.start + p.length);
          return play ? [[from + i, play.from + (t - play.start) * play.speed] as const] : [];
        });
      }),
    ),
  );
}

/** Frames in which something else plays than before; at the seam of a round two that are next to each other are one. */
function differing(
  now: ReadonlyMap<number, number>,
  before: ReadonlyMap<number, number>,
  round: number,
): number[] {
  return [...now].flatMap(([frame, at]) => {
    const was = before.get(frame);
    if (was === undefined) return [];
    const off = Math.abs(at - was);
    return Math.min(off, Math.abs(off - round)) > 1e-6 ? [frame] : [];
  });
}

/** All that an editor does to the length and the parts of it, at frames within or beyond it. */
const edits = fc.array(
  fc.record({ kind: fc.constantFrom('cut', 'start', 'end'), frame: fc.integer({ min: -20, max: 260 }) }),
  { minLength: 1, maxLength: 4 },
);

function edited(reel: Reel, all: readonly { kind: string; frame: number }[]): Reel {
  return all.reduce((r, { kind, frame }) => {
    const items = r.tracks.flatMap((t) => t.items);
    const item = items[Math.abs(frame) % items.length]!;
    const [from, to] = spanOf(r, item);
    if (kind === 'cut') return frame > from && frame < to ? cutItem(r, item.id, frame) : r;
    // Shorter only: what is longer than it was may well show more.
    const within = Math.min(to - 1, Math.max(from, frame));
    return kind === 'start' ? trimItem(r, item.id, 'start', within) : trimItem(r, item.id, 'end', within + 1);
  }, reel);
}

it.each([
  ['clips show', clipOf, shown],
  ['clips sound', clipOf, heard],
  ['sounds sound', soundOf, heard],
] as const)(
  '%s as they did where they are cut and trimmed, whatever becomes of them at their end',
  (_, make, played) => {
    fc.assert(
      fc.property(playing, edits, (what, all) => {
        const reel = make(what);
        const next = edited(reel, all);
        const round = what.duration - Math.min(what.in, what.duration - 0.1);
        expect(differing(played(next, what.duration), played(reel, what.duration), round)).toEqual([]);
        expect(openDocument(reelKind, JSON.parse(JSON.stringify(keepable(next, reel))))).toEqual(next);
      }),
      { numRuns: 300 },
    );
  },
);

it('frozen anywhere, a clip stands at what it showed there, and goes on with what came next', () => {
  fc.assert(
    fc.property(playing, fc.nat(200), fc.integer({ min: 1, max: 50 }), (what, at, long) => {
      const reel = clipOf(what);
      const before = shown(reel, what.duration);
      const frame = what.start + (at % what.length);
      const { reel: frozen, id } = freezeItem(reel, 'c', frame, long, what.duration);
      const still = itemOf(frozen, id)!.item as ReelItemOf<'clip'>;
      expect(still.clip.freeze).toBeCloseTo(before.get(frame)!, 9);
      for (const [now, second] of shown(frozen, what.duration)) {
        const was = now < frame ? now : Math.max(frame, now - long);
        expect(second).toBeCloseTo(before.get(was)!, 6);
      }
    }),
    { numRuns: 300 },
  );
});

it('a sound that is taken apart from its clip is heard as it was with it', () => {
  fc.assert(
    fc.property(playing, edits, (what, all) => {
      const reel = edited(clipOf(what), all);
      const before = heard(reel, what.duration);
      const clips = reel.tracks[0]!.items as ReelItemOf<'clip'>[];
      fc.pre(clips.every((clip) => playedOf(clip, reel.rate, what.duration).speed >= SLOWEST_SOUND));
      const apart = reel.tracks[0]!.items.reduce((r, { id }) => splitSound(r, id, what.duration), reel);
      expect(heard(apart, what.duration)).toEqual(
        new Map([...before].map(([frame, second]) => [frame, expect.closeTo(second, 6)])),
      );
      expect(openDocument(reelKind, JSON.parse(JSON.stringify(keepable(apart, reel))))).toEqual(apart);
    }),
    { numRuns: 300 },
  );
});

it('the sound of a clip that stands or crawls is not taken apart, and it is said why', () => {
  const crawling = clipOf({ ...base, end: 'stretch', duration: 0.1 });
  expect(() => splitSound(crawling, 'c', 0.1)).toThrow(/stretched further/);
  const { reel, id } = freezeItem(clipOf(base), 'c', 20, 10, 2);
  expect(() => splitSound(reel, id, 2)).toThrow(/stands still/);
});

it('where it is told that a second of a file plays, that plays', () => {
  fc.assert(
    fc.property(playing, edits, fc.nat(300), (what, all, n) => {
      const reel = edited(clipOf(what), all);
      for (const item of reel.tracks[0]!.items as ReelItemOf<'clip'>[]) {
        const played = playedOf(item, reel.rate, what.duration);
        const second = (n / 40) % what.duration;
        for (const frame of framesOfSecond(played, second, reel.rate, 1000)) {
          const shows = secondOf(item, frame, reel.rate, what.duration);
          const round = played.round?.length ?? Number.POSITIVE_INFINITY;
          // The end of a round is the beginning of the next; the last frame stays.
          if (what.end !== 'loop' && second > what.duration - 0.003) continue;
          const off = Math.abs(shows - second);
          expect(Math.min(off, Math.abs(round - off))).toBeLessThan(0.0021);
        }
        const [from, to] = partPlayed(played, what.duration);
        for (let i = 0; i < item.length; i += 7) {
          const shows = secondOf(item, i, reel.rate, what.duration);
          expect(shows).toBeGreaterThan(from - 0.0021);
          expect(shows).toBeLessThan(to + 0.0021);
        }
      }
    }),
    { numRuns: 200 },
  );
});

describe('by hand', () => {
  const at = (reel: Reel, duration: number, frame: number) => shown(reel, duration).get(frame);

  it('the second half of what goes round goes round', () => {
    const cut = cutItem(clipOf(base), 'c', 60);
    // 2.4 seconds in, and again after a whole round.
    expect(at(cut, 2, 60)).toBeCloseTo(0.4, 9);
    expect(at(cut, 2, 60 + 50 - 11)).toBeCloseTo(1.96, 9);
  });

  it('what goes round begins as early as one likes, and what is before it is the round before', () => {
    const later = trimItem(clipOf({ ...base, start: 100 }), 'c', 'start', 60);
    expect(at(later, 2, 100)).toBeCloseTo(0, 9);
    expect(at(later, 2, 99)).toBeCloseTo(1.96, 9);
  });

  it('what goes round slips within its round', () => {
    const slipped = slipItem(clipOf(base), 'c', 0.5);
    expect(at(slipped, 2, 0)).toBeCloseTo(0.5, 9);
    expect(at(slipped, 2, 49)).toBeCloseTo(0.46, 9);
  });

  it('what is stretched and made longer than all of it is stretched further', () => {
    const stretched = clipOf({ ...base, end: 'stretch' });
    expect(at(stretched, 2, 50)).toBeCloseTo(1, 9);
    const short = trimItem(stretched, 'c', 'end', 60);
    expect(at(short, 2, 50)).toBeCloseTo(1, 9);
    const long = trimItem(short, 'c', 'end', 200);
    expect(at(long, 2, 100)).toBeCloseTo(1, 9);
    expect(itemOf(long, 'c')!.item).toMatchObject({ clip: { in: 0, speed: 1, end: 'stretch' } });
    expect(itemOf(long, 'c')!.item).not.toHaveProperty('clip.over');
    // All of it is shown: there is nothing to slip to.
    expect(slipItem(long, 'c', 1)).toEqual(long);
  });
});
