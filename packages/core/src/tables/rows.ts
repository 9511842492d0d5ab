import type { ReelItem } from '../documents/item';
import type { Reel } from '../documents/reel';
import { changeItem, itemOf } from '../edit/items';
import { addMarker } from '../edit/markers';
import { addTitle } from '../edit/newItems';
import { EditError, endOf, trimItem } from '../edit/place';
import { graphicOf } from '../edit/reel';
import type { RowTimes } from './reelTable';

/** A row as it goes into a reel: the reel as the row has it, and when. */
export interface PlacedRow extends RowTimes {
  readonly reel: Reel;
}

/**
 * Puts a graphic into a reel once for each row, as the row has it: at the row's time, or after the one before. It holds
 * up to the row's end where its template lets it.
 * @returns the reel, and how many did not end when their rows say
 */
export function placeRows(
  reel: Reel,
  graphic: string,
  rows: readonly PlacedRow[],
): { readonly reel: Reel; readonly unlike: number } {
  const { template } = graphicOf(reel, graphic);
  let [now, next, unlike] = [reel, endOf(reel, graphic), 0];
  for (const { reel: row, from = next, to } of rows) {
    const { fill } = graphicOf(row, graphic);
    const added = addTitle(now, template, from, fill);
    now = changeItem(added.reel, added.id, (item) => ({ ...item, ...likeOf(row, graphic) }) as ReelItem);
    if (to !== undefined && to > from) {
      now = trimmed(now, added.id, to);
      if (endOf(now, added.id) !== to) unlike++;
    }
    next = endOf(now, added.id);
  }
  return { reel: now, unlike };
}

/** How a graphic lies in the frame, and what is done to it: its copies are like it. */
function likeOf(reel: Reel, id: string): Partial<ReelItem> {
  const item = itemOf(reel, id)?.item;
  if (!item) return {};
  const { framing, treatments, fadeIn, fadeOut } = item;
  return Object.fromEntries(
    Object.entries({ framing, treatments, fadeIn, fadeOut }).filter(([, v]) => v !== undefined),
  ) as Partial<ReelItem>;
}

function trimmed(reel: Reel, id: string, to: number): Reel {
  try {
    return trimItem(reel, id, 'end', to);
  } catch (error) {
    if (error instanceof EditError) return reel;
    throw error;
  }
}

/** Characters of a marker's name. */
const MOST = 80;

/** Sets a marker for each row that has a time, named by what it says. */
export function markRows(
  reel: Reel,
  rows: readonly (RowTimes & { readonly name: string })[],
): { readonly reel: Reel; readonly set: number } {
  const timed = rows.flatMap(({ from, name }) => (from === undefined ? [] : [{ from, name }]));
  return {
    reel: timed.reduce((r, { from, name }) => addMarker(r, from, 'note', name.slice(0, MOST)).reel, reel),
    set: timed.length,
  };
}
