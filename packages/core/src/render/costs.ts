import type { ReelItem } from '../documents/item';
import type { Reel } from '../documents/reel';
import { changeItem, changeTracks, itemOf } from '../edit/items';
import { spanOf } from '../edit/place';
import { setMotionBlur } from '../edit/reel';

/** A part of a render that takes time: what it costs is told by a render without it. */
export interface CostlyPart {
  readonly id: string;
  readonly kind: 'blur' | 'treatments' | 'item';
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
