import type { Finding } from '../checks/checks';
import type { Reel } from '../documents/reel';
import { framesIn } from '../time/rate';
import { itemOf } from './items';
import { EditError, spanOf, trimItem } from './place';

/** What takes a fault away in one touch: what it does, in a word or two, and the change. */
export interface Mend {
  readonly name: string;
  readonly change: (reel: Reel) => Reel;
}

/**
 * The mend of what was found of an item. Nothing where there is none, where the template does not let it, and where
 * something else would have to move.
 */
export function mendOf(reel: Reel, id: string, finding: Finding): Mend | undefined {
  if (finding.kind !== 'read-in-haste') return undefined;
  const more = Math.ceil(framesIn(finding.needs - finding.stands, reel.rate));
  const change = (r: Reel) => longer(r, id, more);
  try {
    const grown = endOf(change(reel), id) - endOf(reel, id);
    return grown >= more ? { name: 'Hold longer', change } : undefined;
  } catch (error) {
    if (error instanceof EditError) return undefined;
    throw error;
  }
}

const longer = (reel: Reel, id: string, frames: number) =>
  trimItem(reel, id, 'end', endOf(reel, id) + frames);

function endOf(reel: Reel, id: string): number {
  const standing = itemOf(reel, id);
  return standing ? spanOf(reel, standing.item)[1] : 0;
}
