import { takesPictures } from '../documents/controls';
import type { Fill } from '../documents/fill';
import type { ReelItem, ReelItemOf, Track } from '../documents/item';
import type { Reel } from '../documents/reel';
import type { Template } from '../documents/template';
import { freshPicture } from '../media/pictureFill';
import { itemMoment } from '../reel/framing';
import { lengthOf } from '../reel/itemLength';
import { secondOf } from '../reel/way';
import { layoutFrame } from '../values/frame';
import { type Property, type Value, valueAt } from '../values/property';
import { holdFraming } from './framing';
import { changeKeyed, changeTracks, itemOf } from './items';
import { cuesOf } from './markers';
import { addTitle } from './newItems';
import { cutItem, EditError, freeId, moveItems, putItem, spanOf } from './place';

/** A clip that was cut at a frame, and the second of its file that shows there. */
interface Opened {
  readonly reel: Reel;
  readonly clip: ReelItemOf<'clip'>;
  readonly second: number;
}

/** Cuts a clip at a frame, where something is to come between. @throws {EditError} when it is none that plays there */
function openedAt(reel: Reel, id: string, frame: number, duration: number): Opened {
  const item = itemOf(reel, id)?.item;
  if (item?.kind !== 'clip') throw new EditError('Only a clip can be frozen. Choose one.');
  if (item.clip.freeze !== undefined) throw new EditError('This clip stands still already.');
  const [from, to] = spanOf(reel, item);
  if (frame < from || frame >= to)
    throw new EditError('The playhead is not within the clip. Take it there first.');
  const second = secondOf(item, frame - from, reel.rate, duration);
  return { reel: frame === from ? reel : cutItem(reel, id, frame), clip: item, second };
}

/** A clip whose values over time stay as they are at one of its frames. */
function heldStill(reel: Reel, clip: ReelItemOf<'clip'>, frame: number): ReelItemOf<'clip'> {
  const moment = itemMoment(frame, layoutFrame(reel.frame));
  return changeKeyed(clip, (held) => valueAt(held as Property<Value>, moment));
}

/** Makes room on a track: what begins at a frame or later comes so many frames later. */
function withRoom(reel: Reel, track: Track, frame: number, frames: number): Reel {
  return changeTracks(reel, (t) =>
    t.id === track.id
      ? { ...t, items: t.items.map((i) => (i.start >= frame ? { ...i, start: i.start + frames } : i)) }
      : t,
  );
}

/**
 * Freezes a clip at a frame for a while: it stands still there, and then goes on. What follows on its track comes later by
 * as much.
 * @param frames how long it stands
 * @param duration seconds of its file: what goes round or is stretched shows another of them
 * @returns the reel, and the id of the part that stands still
 * @throws {EditError} when it is no clip that plays there, or its track is locked
 */
export function freezeItem(
  reel: Reel,
  id: string,
  frame: number,
  frames: number,
  duration: number,
): { reel: Reel; id: string } {
  const { reel: cut, clip, second } = openedAt(reel, id, frame, duration);
  const length = Math.max(1, Math.round(frames));
  const { track } = itemOf(cut, id)!;
  const frozen = freeId(cut, id);
  const { fadeIn: _, fadeOut: __, soundIn: ___, soundOut: ____, ...plain } = clip;
  const still: ReelItem = {
    ...heldStill(reel, plain as ReelItemOf<'clip'>, frame - clip.start),
    id: frozen,
    start: frame,
    length,
    clip: { ...clip.clip, freeze: second, silent: true },
  };
  return { reel: putItem(withRoom(cut, track, frame, length), still, track.id), id: frozen };
}

/**
 * Freezes a clip at a frame into a title that takes the shot: the clip is cut, the title comes in there with the frozen
 * frame in its first slot for pictures, and the clip goes on after it.
 * @param duration seconds of its file
 * @returns the reel, and the title's id
 * @throws {EditError} when the template has no slot for a picture; and as {@link freezeItem} does
 */
export function freezeInto(
  reel: Reel,
  id: string,
  frame: number,
  template: Template,
  fill: Fill,
  duration: number,
): { reel: Reel; id: string } {
  const slot = template.slots.find((s) => takesPictures(s) && s.kind === 'picture');
  if (!slot)
    throw new EditError(`“${template.name}” has no slot for a picture. Choose a title that takes one.`);
  const { reel: cut, clip, second } = openedAt(reel, id, frame, duration);
  const held = {
    ...freshPicture(clip.media),
    ...(clip.name === undefined ? {} : { name: clip.name }),
    clip: { freeze: second },
  };
  const added = addTitle(cut, template, frame, { ...fill, slots: { ...fill.slots, [slot.id]: held } });
  const length = lengthOf(added.reel, itemOf(added.reel, added.id)!.item);
  const { track } = itemOf(added.reel, id)!;
  return { reel: withRoom(added.reel, track, frame, length), id: added.id };
}

/** Frames of a reel at which a shot ends or another begins, but for an item's own. */
export function cutsOf(reel: Reel, but?: string): number[] {
  const shots = reel.tracks.flatMap((t) => t.items.filter((i) => i.kind !== 'sound' && i.kind !== 'graphic'));
  const ends = shots.filter((i) => i.id !== but).flatMap((i) => spanOf(reel, i));
  return [...new Set(ends)].filter((f) => f > 0).sort((a, b) => a - b);
}

/**
 * Puts the middle of an item on the cut that is nearest to a frame; of a graphic that has a cue called `cut`, that. A picture
 * or clip is laid over it with the screen blend, unless it has another: light that flashes over the cut.
 * @throws {EditError} when there is no cut
 */
export function centreOnCut(reel: Reel, id: string, frame: number): Reel {
  const standing = itemOf(reel, id);
  if (!standing) return reel;
  const { item } = standing;
  const [cut] = cutsOf(reel, id).sort((a, b) => Math.abs(a - frame) - Math.abs(b - frame));
  if (cut === undefined)
    throw new EditError('There is no cut yet: add the shots first, then lay this over where they meet.');
  const flash = cuesOf(reel, item).find(({ id: cue }) => cue === 'cut');
  const middle = flash ? flash.frame - item.start : Math.round(lengthOf(reel, item) / 2);
  const start = Math.max(0, cut - middle);
  const moved = moveItems(reel, [id], start - item.start);
  const isShot = item.kind === 'clip' || item.kind === 'still';
  return isShot && !item.framing?.blend ? holdFraming(moved, id, 'blend', 'screen') : moved;
}
