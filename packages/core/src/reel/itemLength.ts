import { controlFills } from '../documents/controls';
import type { ReelItem } from '../documents/item';
import type { Reel } from '../documents/reel';
import { clockOf } from '../evaluate/clockOf';
import { repeatsOf } from '../evaluate/repeats';
import { SlotFills } from '../evaluate/slotFills';
import { stretches } from '../time/clock';
import { convertFrames } from '../time/rate';
import { layoutFrame } from '../values/frame';

/** Frames of its reel that an item takes, at least one. */
export function lengthOf(reel: Pick<Reel, 'rate' | 'frame' | 'templates'>, item: ReelItem): number {
  if (item.kind !== 'graphic') return item.length;
  const template = reel.templates[item.template]!;
  const frame = layoutFrame(reel.frame);
  const slots = new SlotFills(template, item.fill);
  const controls = controlFills(template, item.fill, frame);
  const { end } = stretches(clockOf(template, controls, frame, (over) => repeatsOf(over, slots).length));
  return Math.max(1, Math.round(convertFrames(end, template.rate, reel.rate)));
}

/** Frames from the beginning of a reel to the end of its last item, at least one. */
export function reelEnd(reel: Pick<Reel, 'rate' | 'frame' | 'templates' | 'tracks'>): number {
  return Math.max(1, ...reel.tracks.flatMap((t) => t.items.map((i) => i.start + lengthOf(reel, i))));
}
