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

/** Values over time, with their keys at other frames; of keys that fall on one frame the last counts. */
export function movedKeys<T extends object>(values: T, moved: (frame: number) => number): T {
  const each = Object.entries(values).map(([name, value]) => {
    const keys = (value as { keys?: { at: number }[] } | undefined)?.keys;
    if (!Array.isArray(keys)) return [name, value];
    const at = new Map(keys.map((key) => [moved(key.at), { ...key, at: moved(key.at) }]));
    return [name, { keys: [...at.values()] }];
  });
  return Object.fromEntries(each) as T;
}

/** An item with the keys of how it lies and of its treatments at other frames. */
export function withKeysMoved(item: ReelItem, moved: (frame: number) => number): ReelItem {
  const { framing, treatments } = item;
  if (!framing && !treatments) return item;
  return {
    ...item,
    ...(framing ? { framing: movedKeys(framing, moved) } : {}),
    ...(treatments ? { treatments: treatments.map((t) => movedKeys(t, moved)) } : {}),
  };
}

/** The parts that are there. */
export function given<T extends object>(parts: T): { [K in keyof T]: Exclude<T[K], undefined> } {
  const there = Object.entries(parts).filter(([, value]) => value !== undefined);
  return Object.fromEntries(there) as { [K in keyof T]: Exclude<T[K], undefined> };
}
