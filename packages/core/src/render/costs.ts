import type { ReelItem } from '../documents/item';
import type { Reel } from '../documents/reel';
import { changeItem, changeTracks, itemOf } from '../edit/items';
import { spanOf } from '../edit/place';
import { setFlat, setMotionBlur } from '../edit/reel';
import { canBeFlat } from '../evaluate/changes';

/** A part of a render that takes time: what it costs is told by a render without it. */
export interface CostlyPart {
  readonly id: string;
  readonly kind: 'blur' | 'treatments' | 'depth' | 'item';
  /** The item it is of; of all of them, when absent. */
  readonly item?: string;
  readonly without: (reel: Reel) => Reel;
  /** What switches it off and on again, where it is a matter of looks. */
  readonly turn?: { readonly isOn: (reel: Reel) => boolean; readonly set: (reel: Reel, on: boolean) => Reel };
}

/** Items that are told apart: the longest, since what shows for a moment takes a moment. */
const MOST_ITEMS = 6;

/** What of a reel may take much of the time of a render. */
export function costlyParts(reel: Reel): CostlyPart[] {
  const shown = reel.tracks.filter((t) => !t.hidden).flatMap((t) => t.items);
  const lengthOf = (item: ReelItem) => {
    const [from, to] = spanOf(reel, item);
    return to - from;
  };
  const longest = shown
    .filter((item) => item.kind !== 'sound' && item.kind !== 'colour')
    .sort((a, b) => lengthOf(b) - lengthOf(a))
    .slice(0, MOST_ITEMS);
  return [
    ...(reel.motionBlur.samples > 1 ? [blurOf(reel.motionBlur.samples)] : []),
    ...longest.flatMap((item) => (isTreated(item) ? [treatmentsOf(item)] : [])),
    ...longest.flatMap((item) => (isDeep(reel, item) ? [depthOf(item)] : [])),
    ...longest.map(
      ({ id }): CostlyPart => ({
        ...{ id, kind: 'item', item: id },
        without: (r) =>
          changeTracks(r, (track) => ({ ...track, items: track.items.filter((i) => i.id !== id) })),
      }),
    ),
  ];
}

function blurOf(samples: number): CostlyPart {
  const set = (r: Reel, on: boolean) => setMotionBlur(r, { ...r.motionBlur, samples: on ? samples : 1 });
  return {
    ...{ id: 'blur', kind: 'blur', without: (r) => set(r, false) },
    turn: { isOn: (r) => r.motionBlur.samples > 1, set },
  };
}

/** Whether a graphic is painted with a depth that it can do without. */
const isDeep = (reel: Reel, item: ReelItem | undefined): boolean =>
  item?.kind === 'graphic' && !item.fill.flat && canBeFlat(reel.templates[item.template]!);

function depthOf({ id }: ReelItem): CostlyPart {
  return {
    ...{ id: `depth/${id}`, kind: 'depth', item: id, without: (r) => setFlat(r, id, true) },
    turn: { isOn: (r) => isDeep(r, itemOf(r, id)?.item), set: (r, on) => setFlat(r, id, !on) },
  };
}

const isTreated = (item: ReelItem | undefined): boolean => (item?.treatments ?? []).some((t) => !t.off);

function treatmentsOf({ id, treatments }: ReelItem): CostlyPart {
  const set = (r: Reel, on: boolean) =>
    changeItem(r, id, (item) => {
      const now = item.treatments;
      if (!now) return item;
      // On again are those that were.
      const off = (t: (typeof now)[number]) => treatments?.find((own) => own.id === t.id)?.off ?? false;
      return { ...item, treatments: now.map((t) => ({ ...t, off: on ? off(t) : true })) };
    });
  return {
    ...{ id: `treatments/${id}`, kind: 'treatments', item: id, without: (r) => set(r, false) },
    turn: { isOn: (r) => isTreated(itemOf(r, id)?.item), set },
  };
}
