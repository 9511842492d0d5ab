import type { ReelItem, Track } from '../documents/item';
import type { Reel } from '../documents/reel';

/** Changes every item of a reel; tracks of which none changes stay the same. */
export function changeItems(reel: Reel, by: (item: ReelItem) => ReelItem): Reel {
  return changeTracks(reel, (track) => {
    const items = track.items.map(by);
    return items.every((item, i) => item === track.items[i]) ? track : { ...track, items };
  });
}

/** Changes one item of a reel. */
export function changeItem(reel: Reel, id: string, by: (item: ReelItem) => ReelItem): Reel {
  return changeItems(reel, (item) => (item.id === id ? by(item) : item));
}

export function changeTracks(reel: Reel, by: (track: Track) => Track): Reel {
  const tracks = reel.tracks.map(by);
  return tracks.every((track, i) => track === reel.tracks[i]) ? reel : { ...reel, tracks };
}

/** An item of a reel and the track it stands on. */
export interface Standing {
  readonly item: ReelItem;
  readonly track: Track;
}

export function itemOf(reel: Reel, id: string): Standing | undefined {
  for (const track of reel.tracks) {
    const item = track.items.find((i) => i.id === id);
    if (item) return { item, track };
  }
  return undefined;
}

/** Values over time of an item: of how it lies, or of a treatment of it. */
interface Held {
  readonly keys: readonly { readonly at: number }[];
}

/** Makes each value over time of an item another; what holds one value stays. */
export function changeKeyed<T extends ReelItem>(item: T, by: (held: Held) => unknown): T {
  const { framing, treatments } = item;
  const changed = <V extends object>(values: V): V => {
    const each = Object.entries(values).map(([name, value]) => [name, isHeld(value) ? by(value) : value]);
    return Object.fromEntries(each) as V;
  };
  return {
    ...item,
    ...(framing ? { framing: changed(framing) } : {}),
    ...(treatments ? { treatments: treatments.map(changed) } : {}),
  };
}

const isHeld = (value: unknown): value is Held =>
  typeof value === 'object' && value !== null && Array.isArray((value as Partial<Held>).keys);

/** An item with its keys at other frames; of those of a value that fall on one frame the last counts. */
export function withKeysMoved<T extends ReelItem>(item: T, moved: (frame: number) => number): T {
  return changeKeyed(item, ({ keys }) => {
    const at = new Map(keys.map((key) => [moved(key.at), { ...key, at: moved(key.at) }]));
    return { keys: [...at.values()] };
  });
}

/** The parts that are there. */
export function given<T extends object>(parts: T): { [K in keyof T]: Exclude<T[K], undefined> } {
  const there = Object.entries(parts).filter(([, value]) => value !== undefined);
  return Object.fromEntries(there) as { [K in keyof T]: Exclude<T[K], undefined> };
}
