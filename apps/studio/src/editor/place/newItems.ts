import {
  EMPTY_FILL,
  type Fill,
  framesIn,
  freeId,
  hasRoom,
  putItem,
  type Reel,
  type ReelItem,
  type Template,
  withTemplate,
} from '@fresh-reel/core';
import { type MediaRecord, mediaFile } from '../../storage/media';

/** Seconds a picture and a colour are there, until the user says otherwise. */
const STILL_SECONDS = 4;

const framesOf = ({ rate }: Reel, seconds: number) => Math.max(1, Math.round(framesIn(seconds, rate)));

/** A reel with an item that stands somewhere, and the item's id. */
export interface Added {
  readonly reel: Reel;
  readonly id: string;
}

/** Puts a file on a track at a frame: a clip and a sound as long as they are, a picture for a while. Below all titles. */
export function addFile(reel: Reel, record: MediaRecord, at: number): Added {
  const id = freeId(reel, record.kind);
  const base = { id, start: at, ...mediaFile(record) };
  const item: ReelItem =
    record.kind === 'clip'
      ? { ...base, kind: 'clip', length: framesOf(reel, record.duration ?? STILL_SECONDS), clip: {} }
      : record.kind === 'sound'
        ? { ...base, kind: 'sound', length: framesOf(reel, record.duration ?? STILL_SECONDS) }
        : { ...base, kind: 'still', length: framesOf(reel, STILL_SECONDS) };
  return { reel: below(reel, item), id };
}

/** Puts one colour all over the frame at a frame of the reel, below all titles. */
export function addColour(reel: Reel, colour: string, at: number): Added {
  const id = freeId(reel, 'colour');
  return {
    reel: below(reel, { kind: 'colour', id, start: at, length: framesOf(reel, STILL_SECONDS), colour }),
    id,
  };
}

/** Puts a title of a template at a frame, on top of what is there. */
export function addTitle(reel: Reel, template: Template, at: number, fill: Fill = EMPTY_FILL): Added {
  const { reel: held, key } = withTemplate(reel, template);
  const id = freeId(held, template.id);
  const titles = [...held.tracks].reverse().find((t) => t.items.some((i) => i.kind === 'graphic'));
  return { reel: putItem(held, { kind: 'graphic', id, start: at, template: key, fill }, titles?.id), id };
}

/** What is seen goes on a track of its like that has room, else on a new one; always below the lowest title. */
function below(reel: Reel, item: ReelItem): Reel {
  if (item.kind === 'sound') return putItem(reel, item, reel.tracks[0]?.id);
  const titles = reel.tracks.findIndex((t) => t.items.some((i) => i.kind === 'graphic'));
  const at = titles < 0 ? reel.tracks.length : titles;
  const free = reel.tracks.slice(0, at).find((t) => t.items.length > 0 && hasRoom(reel, t, item));
  if (free) return putItem(reel, item, free.id);
  const track = { id: freeId(reel, 'track'), items: [item] };
  return { ...reel, tracks: [...reel.tracks.slice(0, at), track, ...reel.tracks.slice(at)] };
}
