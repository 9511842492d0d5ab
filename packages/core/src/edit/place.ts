import type { ReelItem, ReelItemOf, Track } from '../documents/item';
import type { Reel } from '../documents/reel';
import type { Template } from '../documents/template';
import { sameData } from '../paint/ops';
import { playedOf } from '../reel/fileTime';
import { lengthOf } from '../reel/itemLength';
import { convertFrames, framesIn, secondsAt } from '../time/rate';
import { freeName } from '../values/freeName';
import { SLOWEST_SOUND } from '../values/limits';
import { changeItem, changeTracks, given, itemOf, withKeysMoved } from './items';
import { setControl } from './reel';

/** Something cannot be done, with the reason in words for the user. */
export class EditError extends Error {
  override readonly name = 'EditError';
}

/** The frames an item takes: from one on, up to another that is not its own. */
export function spanOf(reel: Reel, item: ReelItem): readonly [from: number, to: number] {
  return [item.start, item.start + lengthOf(reel, item)];
}

/** Items of a track that take any of some frames. */
function inTheWay(reel: Reel, track: Track, from: number, to: number): ReelItem[] {
  return track.items.filter((item) => {
    const [start, end] = spanOf(reel, item);
    return start < to && end > from;
  });
}

/** Sounds lie on tracks of their own, and pictures on theirs. */
const isSound = (item: ReelItem) => item.kind === 'sound';
const suits = (track: Track, item: ReelItem) =>
  !track.locked && track.items.every((other) => isSound(other) === isSound(item));

/** The frame of the reel at which an item is over; 0 where there is none of that id. */
export function endOf(reel: Reel, id: string): number {
  const standing = itemOf(reel, id);
  return standing ? spanOf(reel, standing.item)[1] : 0;
}

/** Whether a track takes an item where it is to stand. */
export function hasRoom(reel: Reel, track: Track, item: ReelItem): boolean {
  const [from, to] = spanOf(reel, item);
  return suits(track, item) && inTheWay(reel, track, from, to).length === 0;
}

/** An id that no item and no track of a reel has. */
export function freeId(reel: Reel, wanted: string): string {
  const taken = new Set(reel.tracks.flatMap((t) => [t.id, ...t.items.map((i) => i.id)]));
  return freeName(wanted, (id) => taken.has(id));
}

/**
 * Puts an item on a track where there is room for it: the one that is wanted, else the next above, else a new one on
 * top (for sounds: the next below, else a new one at the bottom). Nothing that is there moves.
 * @param wanted id of a track
 */
export function putItem(reel: Reel, item: ReelItem, wanted?: string): Reel {
  const at = Math.max(
    0,
    reel.tracks.findIndex((t) => t.id === wanted),
  );
  const order = isSound(item)
    ? [...reel.tracks.slice(0, at + 1).reverse(), ...reel.tracks.slice(at + 1)]
    : reel.tracks.slice(at);
  const free = order.find((track) => hasRoom(reel, track, item));
  if (free)
    return changeTracks(reel, (track) =>
      track === free ? { ...track, items: inOrder([...track.items, item]) } : track,
    );
  return putOnNew(reel, item, isSound(item) ? 0 : reel.tracks.length);
}

/** Puts an item on a track of its own, which is new. @param at how many tracks lie below it */
export function putOnNew(reel: Reel, item: ReelItem, at: number, name = 'track'): Reel {
  const track: Track = { id: freeId(reel, name), items: [item] };
  return { ...reel, tracks: [...reel.tracks.slice(0, at), track, ...reel.tracks.slice(at)] };
}

const inOrder = (items: readonly ReelItem[]) => [...items].sort((a, b) => a.start - b.start);

/** Takes a template among those of a reel, once. @returns the reel, and the name the template has in it */
export function withTemplate(reel: Reel, template: Template): { reel: Reel; key: string } {
  const held = Object.entries(reel.templates).find(([, other]) => sameData(other, template));
  if (held) return { reel, key: held[0] };
  const key = freeName(template.id, (name) => Object.hasOwn(reel.templates, name));
  return { reel: { ...reel, templates: { ...reel.templates, [key]: template } }, key };
}

/** Lets go of templates that no graphic of a reel is made of any more. */
export function withoutUnused(reel: Reel): Reel {
  const used = new Set(
    reel.tracks.flatMap((t) => t.items.flatMap((i) => (i.kind === 'graphic' ? [i.template] : []))),
  );
  const templates = Object.entries(reel.templates).filter(([key]) => used.has(key));
  return templates.length === Object.keys(reel.templates).length
    ? reel
    : { ...reel, templates: Object.fromEntries(templates) };
}

/**
 * Takes items somewhere else in time, all by as many frames, and onto another track if one is named. Where another
 * item stands in the way, it goes on a track where there is room.
 * @throws {EditError} when one of them is on a locked track
 */
export function moveItems(reel: Reel, ids: readonly string[], by: number, track?: string): Reel {
  const moved = shiftItems(reel, ids, by, track);
  // What is moved by hand meets no marker any more.
  return ids.reduce(
    (r, id) =>
      changeItem(r, id, (item) =>
        item.kind === 'graphic' && item.meets && by !== 0
          ? (given({ ...item, meets: undefined }) as ReelItem)
          : item,
      ),
    moved,
  );
}

/** Takes items somewhere else as {@link moveItems} does, leaving what they meet. */
export function shiftItems(reel: Reel, ids: readonly string[], by: number, track?: string): Reel {
  const standing = ids.flatMap((id) => itemOf(reel, id) ?? []);
  mayChange(standing.map((s) => s.track));
  // None of them begins before the reel does.
  const shift = Math.max(by, -Math.min(...standing.map((s) => s.item.start)));
  const moving = new Set(ids);
  const without = changeTracks(reel, (t) =>
    t.items.some((i) => moving.has(i.id)) ? { ...t, items: t.items.filter((i) => !moving.has(i.id)) } : t,
  );
  return standing.reduce(
    (r, { item, track: own }) => putItem(r, { ...item, start: item.start + shift }, track ?? own.id),
    without,
  );
}

/** @throws {EditError} when one of some tracks is locked */
export function mayChange(tracks: readonly Track[]): void {
  const locked = tracks.find((t) => t.locked);
  if (locked) throw new EditError(`The track “${locked.name ?? locked.id}” is locked. Unlock it first.`);
}

/**
 * Takes one end of an item to a frame. What it shows stays where it is in time: trimmed at its beginning, a clip begins
 * later in its file. It stops at its neighbours, where its file begins, and at one frame. A graphic gets shorter or longer
 * by its hold.
 * @param longest frames it may take at most: as many as its file has
 * @throws {EditError} when its length is not the user's to change, or its track is locked
 */
export function trimItem(
  reel: Reel,
  id: string,
  end: 'start' | 'end',
  frame: number,
  longest = Number.POSITIVE_INFINITY,
): Reel {
  const standing = itemOf(reel, id);
  if (!standing) return reel;
  const { item, track } = standing;
  mayChange([track]);
  const [from, to] = spanOf(reel, item);
  const others = track.items.filter((i) => i.id !== id).map((i) => spanOf(reel, i));
  const before = Math.max(0, ...others.filter(([, e]) => e <= from).map(([, e]) => e));
  const after = Math.min(Number.POSITIVE_INFINITY, ...others.filter(([s]) => s >= to).map(([s]) => s));
  if (end === 'end') {
    const until = Math.min(after, from + longest, Math.max(from + 1, Math.round(frame)));
    return item.kind === 'graphic'
      ? holdUntil(reel, id, until - from)
      : changeItem(reel, id, (i) => lasting(i, until - from, reel));
  }
  const begins = Math.max(before, from - inFile(reel, item), Math.min(to - 1, Math.round(frame)));
  if (item.kind === 'graphic') {
    const shorter = holdUntil(reel, id, to - begins);
    const length = lengthOf(shorter, itemOf(shorter, id)!.item);
    const shift = to - length - from;
    return changeItem(shorter, id, (i) => withKeysMoved({ ...i, start: to - length }, (at) => at - shift));
  }
  const later = secondsAt(begins - from, reel.rate);
  return changeItem(reel, id, (i) =>
    withKeysMoved(
      { ...begunLater(i, later, to - begins, reel), start: begins, length: to - begins } as ReelItem,
      (at) => at - (begins - from),
    ),
  );
}

/** What becomes of what an item plays, beyond what it shows: it goes round, is stretched over its time, or neither. */
function playing(item: ReelItem): 'round' | 'stretched' | undefined {
  if (item.kind === 'sound') return item.loops ? 'round' : undefined;
  if (item.kind !== 'clip' || item.clip.freeze !== undefined) return undefined;
  return item.clip.end === 'loop' ? 'round' : item.clip.end === 'stretch' ? 'stretched' : undefined;
}

/**
 * A piece of a clip that is stretched over some time; of one that shows all of it nothing needs to be said.
 * @param past seconds of that time that are over when it comes, as far as there are any left then
 * @param shown seconds that it shows
 */
function pieceOf(item: ReelItemOf<'clip'>, over: number, past: number, shown: number): ReelItemOf<'clip'> {
  const begun = Math.min(Math.max(0, past), over - shown);
  const isPiece = over - shown > NONE;
  return {
    ...item,
    clip: given({
      ...item.clip,
      begun: begun > NONE ? begun : undefined,
      over: isPiece ? over : undefined,
    }),
  };
}

/** Seconds that are none: sums of times may be off by as much. */
const NONE = 1e-9;

/** Seconds over which a clip is stretched. */
const overOf = (item: ReelItemOf<'clip'>, { rate }: Reel) => item.clip.over ?? secondsAt(item.length, rate);

/**
 * An item that lasts so many frames. One that is stretched shows what it showed as long as it gets shorter, and is stretched
 * further where it gets longer than all of it.
 */
function lasting(item: ReelItem, length: number, reel: Reel): ReelItem {
  if (item.kind !== 'clip' || playing(item) !== 'stretched') return { ...item, length } as ReelItem;
  const [past, shown] = [item.clip.begun ?? 0, secondsAt(length, reel.rate)];
  return pieceOf({ ...item, length }, Math.max(overOf(item, reel), past + shown), past, shown);
}

/** Frames of the reel that a file has before what shows of it. */
function inFile({ rate }: Reel, item: ReelItem): number {
  const plays = item.kind === 'sound' || (item.kind === 'clip' && item.clip.freeze === undefined);
  // What goes round has something before everything.
  if (!plays || playing(item) === 'round') return Number.POSITIVE_INFINITY;
  const { from, speed } = playedOf(item, rate, Number.POSITIVE_INFINITY);
  const before =
    item.kind === 'clip' && playing(item) === 'stretched' ? (item.clip.begun ?? 0) : from / speed;
  // A hair more, so that quotients which are whole frames stay so.
  return Math.floor(framesIn(before, rate) + 1e-6);
}

/**
 * An item that begins so many seconds of the reel later in what it plays, as far as it plays a file.
 * @param length frames it lasts then
 */
function begunLater(item: ReelItem, later: number, length: number, reel: Reel): ReelItem {
  const at = (from = 0, speed = 1) => Math.max(0, from + later * speed);
  const begun = (was = 0) => was + later || undefined;
  if (item.kind === 'sound')
    return item.loops
      ? given({ ...item, begun: begun(item.begun) })
      : { ...item, from: at(item.from, item.speed) };
  if (item.kind !== 'clip' || item.clip.freeze !== undefined) return item;
  const { clip } = item;
  switch (playing(item)) {
    case 'round':
      return { ...item, clip: given({ ...clip, begun: begun(clip.begun) }) };
    case 'stretched':
      return pieceOf(item, overOf(item, reel), (clip.begun ?? 0) + later, secondsAt(length, reel.rate));
    default:
      return { ...item, clip: { ...clip, in: at(clip.in, clip.speed) } };
  }
}

/** The control that sets how long a template holds, where there is one. */
export function holdControl({ timing: { hold }, controls }: Template) {
  // A hold may be longer for each of what is given: what the control adds to that is what is set.
  const parts = typeof hold === 'object' && 'sum' in hold ? hold.sum : [hold];
  const links = parts.flatMap((p) =>
    typeof p === 'object' && 'control' in p && !p.table ? [p.control] : [],
  );
  const control = controls.find((c) => links.includes(c.id) && c.kind === 'duration');
  return control?.kind === 'duration' ? control : undefined;
}

/** Gives a graphic another length by its hold. */
function holdUntil(reel: Reel, id: string, frames: number): Reel {
  const standing = itemOf(reel, id);
  if (standing?.item.kind !== 'graphic') return reel;
  const { item } = standing;
  const template = reel.templates[item.template]!;
  const control = holdControl(template);
  if (!control) throw new EditError(`“${template.name}” has one length, which its maker has set.`);
  const change = convertFrames(frames - lengthOf(reel, item), reel.rate, template.rate);
  const held = item.fill.controls[control.id] ?? control.default;
  if (typeof held !== 'number')
    throw new EditError('Its hold has keyframes. Take them away first, then its length can be changed.');
  const next = Math.min(control.max, Math.max(control.min, Math.round(held + change)));
  return setControl(reel, id, control.id, next);
}

/**
 * Shows another part of a clip or a sound in the same place.
 * @param by seconds of the reel by which what is inside moves: positive shows what comes later in the file
 */
export function slipItem(reel: Reel, id: string, by: number): Reel {
  const standing = itemOf(reel, id);
  if (!standing) return reel;
  mayChange([standing.track]);
  return changeItem(reel, id, (item) =>
    item.kind === 'graphic' ? item : begunLater(item, by, item.length, reel),
  );
}

/**
 * Cuts an item in two at a frame; the second part goes on where the first ends.
 * @throws {EditError} when it is a graphic, which is one whole, or the frame is not within it
 */
export function cutItem(reel: Reel, id: string, frame: number): Reel {
  const standing = itemOf(reel, id);
  if (!standing) return reel;
  const { item, track } = standing;
  mayChange([track]);
  if (item.kind === 'graphic') throw new EditError('A title is one whole. Trim its end to make it shorter.');
  const at = Math.round(frame);
  const [from, to] = spanOf(reel, item);
  if (at <= from || at >= to) throw new EditError('The playhead is not within it. Take it there first.');
  // What comes at the beginning and goes at the end does so there alone.
  const head = given({
    ...lasting(item, at - from, reel),
    fadeOut: undefined,
    soundOut: undefined,
  }) as ReelItem;
  const later = begunLater(item, secondsAt(at - from, reel.rate), to - at, reel);
  const rest = { start: at, length: to - at, fadeIn: undefined, soundIn: undefined };
  const tail = given({ ...later, id: freeId(reel, item.id), ...rest }) as ReelItem;
  const second = withKeysMoved(tail, (key) => key - (at - from));
  const parts = [head, second];
  return changeTracks(reel, (t) =>
    t === track ? { ...t, items: t.items.flatMap((i) => (i === item ? parts : [i])) } : t,
  );
}

/** Takes items out. @param close whether what comes after each on its track moves up, so that no gap stays */
export function removeItems(reel: Reel, ids: readonly string[], close: boolean): Reel {
  const gone = new Set(ids);
  mayChange(reel.tracks.filter((t) => t.items.some((i) => gone.has(i.id))));
  const left = changeTracks(reel, (track) => {
    const out = track.items.filter((i) => gone.has(i.id));
    if (out.length === 0) return track;
    const items = track.items
      .filter((i) => !gone.has(i.id))
      .map((item) => {
        const before = close ? out.filter((o) => o.start < item.start) : [];
        const by = before.reduce((sum, o) => sum + lengthOf(reel, o), 0);
        return by > 0 ? { ...item, start: Math.max(0, item.start - by) } : item;
      });
    return { ...track, items };
  });
  return withoutUnused(left);
}

/** Puts copies of items at a frame, as far apart as they are. @returns the reel, and the ids of the copies */
export function copyItems(reel: Reel, ids: readonly string[], frame: number): { reel: Reel; ids: string[] } {
  const standing = ids.flatMap((id) => itemOf(reel, id) ?? []);
  const first = Math.min(...standing.map((s) => s.item.start));
  const made: string[] = [];
  let next = reel;
  for (const { item, track } of standing) {
    const id = freeId(next, item.id);
    made.push(id);
    next = putItem(
      next,
      // A copy meets no marker: it is where it is put.
      given({
        ...item,
        id,
        start: Math.max(0, Math.round(frame) + item.start - first),
        meets: undefined,
      }) as ReelItem,
      track.id,
    );
  }
  return { reel: next, ids: made };
}

/**
 * Takes the sound of a clip as an item of its own, below it, and silences the clip. It is heard as it was.
 * @param duration seconds of the file
 * @throws {EditError} when its track is locked, it stands still, or it is stretched further than a sound can be
 */
export function splitSound(reel: Reel, id: string, duration: number): Reel {
  const standing = itemOf(reel, id);
  if (standing?.item.kind !== 'clip') return reel;
  mayChange([standing.track]);
  const { media, name, start, length, clip, soundIn, soundOut } = standing.item;
  if (clip.freeze !== undefined) throw new EditError('This clip stands still, so it makes no sound.');
  const { from, speed } = playedOf(standing.item, reel.rate, duration);
  if (speed < SLOWEST_SOUND)
    throw new EditError('It is stretched further than a sound can be. Make it shorter first.');
  const loops = playing(standing.item) === 'round';
  const silent = changeItem(reel, id, (i) =>
    i.kind === 'clip' ? { ...i, clip: { ...i.clip, silent: true } } : i,
  );
  const sound = {
    ...{ kind: 'sound', id: freeId(reel, `${id}-sound`), media, name, start, length, soundIn, soundOut },
    ...(loops ? { from: clip.in, begun: clip.begun, loops } : { from: from || undefined }),
    ...{ speed: speed === 1 ? undefined : speed, level: clip.level },
  } as const;
  return putItem(silent, given(sound) as ReelItem);
}
