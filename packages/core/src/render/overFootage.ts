import { IDENTITY_PLANE } from '../geometry/matrix';
import { EMPTY, intersection, isEmpty, type Rect, scaledBy, union } from '../geometry/rect';
import type { Size } from '../layers/kind';
import { opsBounds } from '../paint/bounds';
import { needsBackdrop } from '../paint/compose';
import { type Op, sameData } from '../paint/ops';

/**
 * Most of a film with titles is footage as it was shot. Where a clip fills the frame untouched below all else, its
 * frames need not become pixels of ours: the encoder takes them as the file has them, and only what lies over them is
 * painted.
 */

type Moments = readonly (readonly Op[])[];

/** A frame over footage: the frame of a clip that fills it, and what is painted over that. */
export interface OverClip {
  readonly media: string;
  /** Second of the file. */
  readonly at: number;
  readonly above: Moments;
}

/** Size of a clip whose frames can go into the film as the file has them; nothing of any other picture. */
export type AsItIs = (media: string) => Size | undefined;

const NEAR = 1e-6;
const sameBox = (a: Rect, b: Rect) =>
  (['x', 'y', 'width', 'height'] as const).every((side) => Math.abs(a[side] - b[side]) < NEAR);

/** Whether an operation is a whole frame of such a clip, all over the frame and as it is. */
function fills(op: Op, frame: Size, asItIs: AsItIs): op is Extract<Op, { op: 'picture' }> & { at: number } {
  if (op.op !== 'picture' || op.at === undefined || op.opacity < 1 || (op.blend ?? 'normal') !== 'normal')
    return false;
  const size = asItIs(op.picture);
  return (
    size !== undefined &&
    sameData(op.plane, IDENTITY_PLANE) &&
    sameBox(op.source, { x: 0, y: 0, ...size }) &&
    sameBox(op.target, { x: 0, y: 0, ...frame })
  );
}

/** Index of the uppermost operation, in no group and no clip, that fills the frame so; -1 where none does. */
function filling(ops: readonly Op[], frame: Size, asItIs: AsItIs): number {
  let depth = 0;
  let found = -1;
  ops.forEach((op, i) => {
    if (op.op === 'open' || op.op === 'clip') depth++;
    else if (op.op === 'close' || op.op === 'unclip') depth--;
    else if (depth === 0 && fills(op, frame, asItIs)) found = i;
  });
  return found;
}

/**
 * The clip that fills a frame below all that is seen, if what lies over it can be painted without it.
 * @param moments as `ReelScene.subFrames` gives them
 * @param frame in frame units
 */
export function overClip(moments: Moments, frame: Size, asItIs: AsItIs): OverClip | undefined {
  const places = moments.map((ops) => filling(ops, frame, asItIs));
  const shown = moments.map((ops, i) => ops[places[i]!] as Extract<Op, { op: 'picture' }> | undefined);
  const [first] = shown;
  if (first?.at === undefined || !shown.every((op) => op?.picture === first.picture && op.at === first.at))
    return undefined;
  const above = moments.map((ops, i) => ops.slice(places[i]! + 1));
  return above.some(needsBackdrop) ? undefined : { media: first.picture, at: first.at, above };
}

/** Frames in a row of one clip, evenly apart; or, without a clip, frames that are painted whole. */
export interface Passage {
  readonly media?: string;
  /** Second of the file at the first frame. */
  readonly at: number;
  /** Seconds of the file from frame to frame; 0 where it stands. */
  readonly step: number;
  readonly frames: number;
}

/** What lies below all that is painted of a film, and where that is. */
export interface Beneath {
  readonly passages: readonly Passage[];
  /** Whole pixels with even sides that hold all that is painted; a corner, where nothing is. */
  readonly area: Rect;
}

/** More passages than this are as many files open at once. */
const MOST_PASSAGES = 8;

/**
 * What lies beneath a film.
 * @param momentsOf the moments of a frame, counted from the film's first
 * @param count frames
 * @param frame in frame units
 * @param size of the film, in pixels
 * @returns nothing where less than half of it is over footage, or that is cut too often
 */
export function beneath(
  momentsOf: (index: number) => Moments,
  count: number,
  frame: Size,
  size: Size,
  asItIs: AsItIs,
): Beneath | undefined {
  const passages: Passage[] = [];
  let painted: Rect = EMPTY;
  let over = 0;
  for (let index = 0; index < count; index++) {
    const moments = momentsOf(index);
    const found = overClip(moments, frame, asItIs);
    if (found) over++;
    for (const ops of found?.above ?? []) painted = union(painted, opsBounds(ops));
    const last = passages.at(-1);
    const longer = last && longerBy(last, found);
    if (longer) passages[passages.length - 1] = longer;
    else passages.push({ ...(found ? { media: found.media } : {}), at: found?.at ?? 0, step: 0, frames: 1 });
    if (passages.length > MOST_PASSAGES || over + (count - 1 - index) < count / 2) return undefined;
  }
  if (over === 0) return undefined;
  const whole = { x: 0, y: 0, ...size };
  const all = passages.some((p) => p.media === undefined);
  return { passages, area: all ? whole : evenAround(scaledBy(painted, size.width / frame.width), whole) };
}

/** Pixels around what is painted: edges reach beyond their boxes. */
const EDGE = 4;

function evenAround({ x, y, width, height }: Rect, whole: Rect): Rect {
  const down = (n: number) => Math.floor((n - EDGE) / 2) * 2;
  const up = (n: number) => Math.ceil((n + EDGE) / 2) * 2;
  const box = { x: down(x), y: down(y), width: up(x + width) - down(x), height: up(y + height) - down(y) };
  const within = intersection(box, whole);
  return width > 0 && !isEmpty(within) ? within : { x: 0, y: 0, width: 2, height: 2 };
}

/** A passage with one frame more, if that goes on as it does. */
function longerBy(passage: Passage, next: Pick<OverClip, 'media' | 'at'> | undefined): Passage | undefined {
  const { media, at, step, frames } = passage;
  if (next?.media !== media) return undefined;
  if (!next) return { ...passage, frames: frames + 1 };
  // The second frame tells how far apart they are.
  const apart = frames === 1 ? next.at - at : step;
  if (apart < 0 || Math.abs(at + frames * apart - next.at) > NEAR) return undefined;
  return { ...passage, step: apart, frames: frames + 1 };
}
