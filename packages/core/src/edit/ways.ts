import type { ReelItem } from '../documents/item';
import type { Reel } from '../documents/reel';
import type { DrivenPoint, Follow, Way, WaySample } from '../documents/way';
import type { Pose } from '../follow/pose';
import { freeName } from '../values/freeName';
import { changeItem, changeItems, given } from './items';

/** Begins a way: something shown by hand at a second of a clip. @returns the reel, and the way's id */
export function addWay(
  reel: Reel,
  clip: { readonly id: string; readonly media: string },
  at: number,
  pose: Pose,
  half: number,
): { reel: Reel; id: string } {
  const id = freeName('way', (wanted) => reel.ways.some((w) => w.id === wanted));
  const { x, y, a, b } = pose;
  const way: Way = {
    id,
    name: `Way ${reel.ways.length + 1}`,
    of: clip.id,
    media: clip.media,
    half,
    samples: [[at, x, y, a, b, 1]],
    marks: [{ at, x, y, a, b }],
  };
  return { reel: { ...reel, ways: [...reel.ways, way] }, id };
}

function changeWay(reel: Reel, id: string, by: (way: Way) => Way): Reel {
  return { ...reel, ways: reel.ways.map((w) => (w.id === id ? by(w) : w)) };
}

/** Seconds within which two samples are of one picture. */
const SAME = 0.002;

/** Puts what was followed into a way, in place of what it had between its first and its last second. */
export function putSamples(reel: Reel, id: string, samples: readonly WaySample[]): Reel {
  if (samples.length === 0) return reel;
  const [from, to] = [samples[0]![0] - SAME, samples.at(-1)![0] + SAME];
  return changeWay(reel, id, (way) => ({
    ...way,
    samples: [...way.samples.filter((s) => s[0] < from), ...samples, ...way.samples.filter((s) => s[0] > to)],
  }));
}

/** Shows by hand where the thing is at a second; it is followed from there. */
export function correctWay(reel: Reel, id: string, at: number, pose: Pose): Reel {
  const { x, y, a, b } = pose;
  const corrected = changeWay(reel, id, (way) => ({
    ...way,
    marks: [...way.marks.filter((m) => Math.abs(m.at - at) > SAME), { at, x, y, a, b }].sort(
      (p, q) => p.at - q.at,
    ),
  }));
  return putSamples(corrected, id, [[at, x, y, a, b, 1]]);
}

/** The seconds between which a way is followed anew from a mark: up to the marks beside it. */
export function stretchOf({ marks }: Way, at: number): readonly [from: number, to: number] {
  const before = marks.findLast((m) => m.at < at - SAME);
  const after = marks.find((m) => m.at > at + SAME);
  return [before?.at ?? 0, after?.at ?? Number.POSITIVE_INFINITY];
}

/** Takes a way out; what went along with it stays where its framing says. */
export function removeWay(reel: Reel, id: string): Reel {
  const left = { ...reel, ways: reel.ways.filter((w) => w.id !== id) };
  return changeItems(left, (item) => {
    const points = item.kind === 'graphic' ? item.points : undefined;
    const kept = points && Object.entries(points).filter(([, p]) => p.way !== id);
    const freed = item.follow?.way === id ? { ...item, follow: undefined } : item;
    if (freed === item && (!points || kept?.length === Object.keys(points).length)) return item;
    return given({
      ...freed,
      ...(kept ? { points: kept.length > 0 ? Object.fromEntries(kept) : undefined } : {}),
    }) as ReelItem;
  });
}

/** Lets an item go along with a way, or not any more; parts that are `undefined` are taken away. */
export function setFollow(reel: Reel, id: string, follow: Follow | undefined): Reel {
  return changeItem(reel, id, (item) => given({ ...item, follow: follow && given(follow) }) as ReelItem);
}

/** Lets a point control of a graphic go along with a way, or not any more. */
export function drivePoint(reel: Reel, id: string, control: string, point: DrivenPoint | undefined): Reel {
  return changeItem(reel, id, (item) => {
    if (item.kind !== 'graphic') return item;
    const points = given({ ...item.points, [control]: point && given(point) });
    return given({ ...item, points: Object.keys(points).length > 0 ? points : undefined }) as ReelItem;
  });
}
