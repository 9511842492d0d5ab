import type { ReelItem } from '../documents/item';
import type { Reel } from '../documents/reel';
import { convertFrames, type Rate } from '../time/rate';
import { changeItems, changeTracks, given, withKeysMoved } from './items';
import { putItem, spanOf } from './place';

/**
 * Gives a reel another rate; everything stays where it is in time, on the nearest frame. What touched still touches:
 * an end is where the next beginning is. What was shorter than a frame takes one, and goes on another track where that
 * would lie over its neighbour.
 */
export function setRate(reel: Reel, rate: Rate): Reel {
  if (rate.num === reel.rate.num && rate.den === reel.rate.den) return reel;
  const moved = (frame: number) => Math.round(convertFrames(frame, reel.rate, rate));
  const stretch = (frames: number | undefined) => (frames === undefined ? undefined : moved(frames));
  const changed = changeItems(reel, (item) => {
    const start = moved(item.start);
    const { fadeIn, fadeOut } = item;
    const next = {
      ...withKeysMoved(item, moved),
      start,
      ...given({ fadeIn: stretch(fadeIn), fadeOut: stretch(fadeOut) }),
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
  const markers = reel.markers.map((m) => ({ ...m, frame: moved(m.frame) }));
  const range = reel.output?.range?.map(moved) as [number, number] | undefined;
  const output = reel.output && given({ ...reel.output, range });
  return withoutOverlaps({ ...changed, rate, markers, ...(output ? { output } : {}) });
}

/** Puts what begins before the one ahead of it on its track is over on another track. */
function withoutOverlaps(reel: Reel): Reel {
  const over: { item: ReelItem; track: string }[] = [];
  const apart = changeTracks(reel, (track) => {
    let end = 0;
    const items = [...track.items].sort((a, b) => a.start - b.start);
    const kept = items.filter((item) => {
      const [from, to] = spanOf(reel, item);
      if (from < end) {
        over.push({ item, track: track.id });
        return false;
      }
      end = to;
      return true;
    });
    return kept.length === items.length ? track : { ...track, items: kept };
  });
  return over.reduce((r, { item, track }) => putItem(r, item, track), apart);
}
