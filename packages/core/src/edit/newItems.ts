import { EMPTY_FILL, type Fill } from '../documents/fill';
import type { ReelItem } from '../documents/item';
import type { Reel } from '../documents/reel';
import type { Template } from '../documents/template';
import { LEAST_FILM, offeredSize } from '../formats/plan';
import { framesIn, nearestRate } from '../time/rate';
import { FRAMES, type FrameSize } from '../values/frame';
import { itemOf } from './items';
import { freeId, hasRoom, putItem, putOnNew, spanOf, withTemplate } from './place';
import { emptyReel, type MediaFile, type NewReel } from './reel';

/** What is known of a file that goes into a reel. */
export interface FileFacts extends MediaFile {
  readonly kind: 'picture' | 'clip' | 'sound';
  /** Seconds; pictures have none. */
  readonly duration?: number | undefined;
  /** Pixels, upright. */
  readonly width?: number | undefined;
  readonly height?: number | undefined;
  /** Mean frames a second. */
  readonly rate?: number | undefined;
}

/** Seconds a picture and a colour are there, until the user says otherwise. */
const STILL_SECONDS = 4;

const framesOf = ({ rate }: Reel, seconds: number) => Math.max(1, Math.round(framesIn(seconds, rate)));

/** A reel with an item that stands somewhere, and the item's id. */
export interface Added {
  readonly reel: Reel;
  readonly id: string;
}

/** Puts a file on a track at a frame: a clip and a sound as long as they are, a picture for a while. Below all titles. */
export function addFile(reel: Reel, file: FileFacts, at: number): Added {
  const id = freeId(reel, file.kind);
  const { media, name } = file;
  const base = { id, start: at, media, ...(name === undefined ? {} : { name }) };
  const item: ReelItem =
    file.kind === 'clip'
      ? { ...base, kind: 'clip', length: framesOf(reel, file.duration ?? STILL_SECONDS), clip: {} }
      : file.kind === 'sound'
        ? { ...base, kind: 'sound', length: framesOf(reel, file.duration ?? STILL_SECONDS) }
        : { ...base, kind: 'still', length: framesOf(reel, STILL_SECONDS) };
  return { reel: below(reel, item), id };
}

/** Puts files on tracks one after the other, as they come. @returns the id of the last */
export function addFiles(reel: Reel, files: readonly FileFacts[], at: number): Added {
  return files.reduce<Added & { at: number }>(
    (sum, file) => {
      const added = addFile(sum.reel, file, sum.at);
      const { item } = itemOf(added.reel, added.id)!;
      return { ...added, at: item.start + ('length' in item ? item.length : 0) };
    },
    { reel, id: '', at },
  );
}

/**
 * The frame and the rate a reel has when its first clip decides: the clip's own size where renders of it are offered,
 * but no smaller than films are, else one of its shape; and the exact rate that its mean rate stands for.
 */
export function frameOfClip({ width, height, rate }: FileFacts): Pick<NewReel, 'frame' | 'rate'> {
  const even = (n: number) => Math.max(2, Math.round(n / 2) * 2);
  const own: FrameSize = width && height ? { width: even(width), height: even(height) } : FRAMES.wide;
  const side = Math.min(own.width, own.height);
  return { frame: offeredSize(own, side < LEAST_FILM ? 1080 : side), rate: nearestRate(rate ?? 25) };
}

/** A new reel of files, one after the other. */
export function reelOfFiles(files: readonly FileFacts[], made: NewReel): Reel {
  return addFiles(emptyReel(made), files, 0).reel;
}

/** Seconds after which a title comes in over footage. */
const TITLE_AFTER = 0.5;

/** A new reel of a clip, its frame and rate from it, with a title over it. */
export function reelOverClip(
  template: Template,
  clip: FileFacts,
  made: Omit<NewReel, 'frame' | 'rate'>,
  fill?: Fill,
): Reel {
  const reel = reelOfFiles([clip], { ...made, ...frameOfClip(clip) });
  return addTitle(reel, template, framesOf(reel, TITLE_AFTER), fill).reel;
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
  const item: ReelItem = { kind: 'graphic', id, start: at, template: key, fill };
  return {
    reel: titles ? putItem(held, item, titles.id) : putOnNew(held, item, held.tracks.length, 'titles'),
    id,
  };
}

/** Puts a title where the last one of the reel is over. */
export function addTitleAfter(reel: Reel, template: Template, fill: Fill = EMPTY_FILL): Added {
  const ends = reel.tracks.flatMap((t) =>
    t.items.flatMap((item) => (item.kind === 'graphic' ? [spanOf(reel, item)[1]] : [])),
  );
  return addTitle(reel, template, Math.max(0, ...ends), fill);
}

/** What is seen goes on a track of its like that has room, else on a new one; always below the lowest title. */
function below(reel: Reel, item: ReelItem): Reel {
  if (item.kind === 'sound') return putItem(reel, item, reel.tracks[0]?.id);
  const titles = reel.tracks.findIndex((t) => t.items.some((i) => i.kind === 'graphic'));
  const at = titles < 0 ? reel.tracks.length : titles;
  const free = reel.tracks.slice(0, at).find((t) => t.items.length > 0 && hasRoom(reel, t, item));
  return free ? putItem(reel, item, free.id) : putOnNew(reel, item, at);
}
