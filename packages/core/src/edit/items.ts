import type { ReelItem, Track } from '../documents/item';
import type { Reel } from '../documents/reel';
import { convertFrames, type Rate } from '../time/rate';

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

/**
 * Gives a reel another rate; everything stays where it is in time, on the nearest frame. What touched still touches:
 * an end is where the next beginning is.
 */
export function setRate(reel: Reel, rate: Rate): Reel {
  if (rate.num === reel.rate.num && rate.den === reel.rate.den) return reel;
  const moved = (frame: number) => Math.round(convertFrames(frame, reel.rate, rate));
  const stretch = (frames: number | undefined) => (frames === undefined ? undefined : moved(frames));
  const changed = changeItems(reel, (item) => {
    const start = moved(item.start);
    const { fadeIn, fadeOut } = item;
    const next = {
      ...item,
      start,
      ...given({ fadeIn: stretch(fadeIn), fadeOut: stretch(fadeOut) }),
      ...(item.framing ? { framing: movedKeys(item.framing, moved) } : {}),
    } as ReelItem;
    if (next.kind === 'graphic' || item.kind === 'graphic') return next;
    const length = Math.max(1, moved(item.start + item.length) - start);
    if (next.kind !== 'clip' && next.kind !== 'sound') return { ...next, length };
    return {
      ...next,
      length,
      ...given({ soundIn: stretch(next.soundIn), soundOut: stretch(next.soundOut) }),
    };
  });
  return { ...changed, rate, markers: reel.markers.map((m) => ({ ...m, frame: moved(m.frame) })) };
}

/** Values over time, with their keys at other frames; of keys that fall on one frame the last counts. */
function movedKeys<T extends Readonly<Record<string, unknown>>>(
  values: T,
  moved: (frame: number) => number,
): T {
  const each = Object.entries(values).map(([name, value]) => {
    const keys = (value as { keys?: { at: number }[] } | undefined)?.keys;
    if (!Array.isArray(keys)) return [name, value];
    const at = new Map(keys.map((key) => [moved(key.at), { ...key, at: moved(key.at) }]));
    return [name, { keys: [...at.values()] }];
  });
  return Object.fromEntries(each) as T;
}

/** The parts that are there. */
export function given<T extends object>(parts: T): { [K in keyof T]: Exclude<T[K], undefined> } {
  const there = Object.entries(parts).filter(([, value]) => value !== undefined);
  return Object.fromEntries(there) as { [K in keyof T]: Exclude<T[K], undefined> };
}
