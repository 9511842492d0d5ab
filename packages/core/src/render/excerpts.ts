import type { Reel } from '../documents/reel';
import { changeTracks, itemOf } from '../edit/items';
import type { Extent } from '../formats/extents';
import { graphicsOf } from '../reel/graphicTime';
import { lengthOf, reelEnd } from '../reel/itemLength';
import { timecodeAt } from '../time/timecode';

/** A part of a reel that becomes a file of its own. */
export interface Excerpt {
  readonly reel: Reel;
  /** Frames of the reel: the first, and how many. */
  readonly from: number;
  readonly count: number;
  /** What the file is called after. */
  readonly name: string;
}

/**
 * The files that a choice makes. Titles alone are as long as the reel, so that they lie over it from its beginning; each
 * by itself is named by the time code at which it begins.
 * @param range frames of the reel, from one on, up to another that is not its own; what lies past the end is left out
 * @returns none when there is nothing in it
 */
export function excerptsOf(reel: Reel, extent: Extent, range?: readonly [number, number]): Excerpt[] {
  const end = reelEnd(reel);
  const { name } = reel;
  switch (extent) {
    case 'all':
      return [{ reel, from: 0, count: end, name }];
    case 'range': {
      const [from, to] = range ?? [0, end];
      const count = Math.min(to, end) - from;
      if (count <= 0) return [];
      const times = [from, from + count].map((f) => timecodeAt(f, reel.rate)).join(' to ');
      return [{ reel, from, count, name: `${name} ${times}` }];
    }
    case 'titles':
      return graphicsOf(reel).length === 0
        ? []
        : [{ reel: onlyTitles(reel, () => true), from: 0, count: end, name: `${name} titles` }];
    case 'each-title':
      return graphicsOf(reel).map((graphic) => ({
        reel: onlyTitles(reel, (id) => id === graphic.id),
        from: graphic.start,
        count: lengthOf(reel, itemOf(reel, graphic.id)!.item),
        name: `${name} ${timecodeAt(graphic.start, reel.rate)} ${graphic.template.name}`,
      }));
  }
}

/** A reel with some of its titles and nothing else, over nothing. */
function onlyTitles(reel: Reel, wanted: (id: string) => boolean): Reel {
  return changeTracks(reel, (track) => ({
    ...track,
    items: track.items.filter((i) => i.kind === 'graphic' && wanted(i.id)),
  }));
}
