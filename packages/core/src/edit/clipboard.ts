import { z } from 'zod';
import { type ReelItem, reelItemSchema } from '../documents/item';
import { itemFaults, type Reel } from '../documents/reel';
import { rateSchema, type Template } from '../documents/template';
import { templateKind } from '../documents/templateKind';
import { convertFrames } from '../time/rate';
import { nested } from '../values/load';
import { given, itemOf } from './items';
import { meet, nextMarker } from './markers';
import { copyItems, EditError, freeId, putItem, withTemplate } from './place';
import { emptyReel } from './reel';
import { setRate } from './setRate';

/** Items taken along to another place or reel, with their templates and the rate their times count in. */
const copiedShape = z.strictObject({
  format: z.literal('freshreel/items'),
  version: z.literal(1),
  rate: rateSchema,
  frame: z.strictObject({ width: z.number().positive(), height: z.number().positive() }),
  templates: z.record(z.string(), nested(templateKind)),
  /** The lowest track first; which items stood on one track together. */
  tracks: z.array(z.array(reelItemSchema).min(1)).min(1),
});
export const copiedSchema = copiedShape.superRefine(({ templates, tracks }, context) => {
  tracks.forEach((items, t) => {
    items.forEach((item, i) => {
      for (const { path, message } of itemFaults(item, templates))
        context.addIssue({ code: 'custom', path: ['tracks', t, i, ...path], message });
    });
  });
});
export type Copied = z.infer<typeof copiedShape>;

/** Takes items along. */
export function takeAlong(reel: Reel, ids: readonly string[]): Copied | undefined {
  const wanted = new Set(ids);
  const tracks = reel.tracks
    .map((t) => t.items.filter((i) => wanted.has(i.id)))
    .filter((items) => items.length > 0);
  if (tracks.length === 0) return undefined;
  const used = new Set(tracks.flat().flatMap((i) => (i.kind === 'graphic' ? [i.template] : [])));
  const templates = Object.fromEntries(Object.entries(reel.templates).filter(([key]) => used.has(key)));
  const { rate, frame } = reel;
  return { format: 'freshreel/items', version: 1, rate, frame, templates, tracks };
}

/** Items that were put into a reel. */
export interface Pasted {
  readonly reel: Reel;
  readonly ids: readonly string[];
  /** How many of them had times that are no whole frames here, and went to the nearest. */
  readonly rounded: number;
}

/**
 * Puts what was taken along into a reel, the first of it at a frame, as far apart as it was. Times are converted exactly
 * and go to the nearest frame.
 */
export function pasteItems(reel: Reel, copied: Copied, frame: number): Pasted {
  const first = Math.min(...copied.tracks.flat().map((i) => i.start));
  const moved = copied.tracks.map((items) => items.map((i) => ({ ...i, start: i.start - first })));
  const whole = (frames: number) => {
    const here = convertFrames(frames, copied.rate, reel.rate);
    return Math.abs(here - Math.round(here)) < 1e-6;
  };
  const rounded = moved
    .flat()
    .filter((i) => !whole(i.start) || (i.kind !== 'graphic' && !whole(i.length))).length;
  const tracks = moved.map((items, i) => ({ id: `t${i}`, items }));
  const made = { id: 'copied', name: 'Copied', now: '', frame: copied.frame, rate: copied.rate };
  const source = setRate({ ...emptyReel(made), templates: copied.templates, tracks }, reel.rate);
  const ids: string[] = [];
  let next = reel;
  for (const { items } of source.tracks) {
    // What stood on one track stands on one again, where there is room.
    let track: string | undefined;
    for (const item of items) {
      const id = freeId(next, item.id);
      const placed = { ...item, id, start: Math.max(0, Math.round(frame) + item.start) };
      next = putItem(...withOwnTemplate(next, placed, source.templates), track ?? next.tracks.at(-1)?.id);
      track = itemOf(next, id)!.track.id;
      ids.push(id);
    }
  }
  return { reel: next, ids, rounded };
}

function withOwnTemplate(
  reel: Reel,
  item: ReelItem,
  templates: Readonly<Record<string, Template>>,
): [Reel, ReelItem] {
  // Markers and ways are the other reel's.
  if (item.kind !== 'graphic') return [reel, given({ ...item, follow: undefined }) as ReelItem];
  const held = withTemplate(reel, templates[item.template]!);
  const { meets: _, follow: __, points: ___, ...plain } = item;
  return [held.reel, { ...plain, template: held.key }];
}

/**
 * Puts a copy of an item at the next marker after its beginning; what meets a marker meets that one with the same cue.
 * @returns the reel, and the copy's id
 * @throws {EditError} when there is no marker after it
 */
export function copyToMarker(reel: Reel, id: string): { reel: Reel; id: string } {
  const item = itemOf(reel, id)?.item;
  const met = item?.kind === 'graphic' ? item.meets : undefined;
  const from = reel.markers.find((m) => m.id === met?.marker)?.frame ?? item?.start ?? 0;
  const marker = nextMarker(reel, from, 1);
  if (!marker) throw new EditError('No marker comes after this. Set one, then the copy goes there.');
  const copied = copyItems(reel, [id], marker.frame);
  const made = copied.ids[0]!;
  return { reel: met ? meet(copied.reel, made, met.cue, marker.id) : copied.reel, id: made };
}
