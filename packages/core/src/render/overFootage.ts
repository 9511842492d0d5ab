import { IDENTITY_PLANE } from '../geometry/matrix';
import { EMPTY, type Rect, union } from '../geometry/rect';
import type { Size } from '../layers/kind';
import { opsBounds } from '../paint/bounds';
import { needsBackdrop } from '../paint/compose';
import { type Op, sameData } from '../paint/ops';
import { evenArea, MOST_OF_FRAME } from './area';

/**
 * Most of a film with titles is footage as it was shot. Where a clip fills the frame untouched below all else, its
 * frames need not become pixels of ours: the encoder takes them as the file has them, and only what lies over them is
 * painted, where it is. A title over nothing lies over black in the same way.
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

/** Frames in a row of one clip, evenly apart; or, without a clip, of black. */
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

/** Frames in a row of a film that are made in one go. */
export interface FilmPart {
  readonly frames: number;
  /** Absent where they are painted whole. */
  readonly beneath: Beneath | undefined;
}

/** More passages than this are as many files open at once. */
const MOST_PASSAGES = 8;
/** Frames of a part that is left where footage begins or ends: each part is a run of the encoder, and begins anew. */
const LEAST_PART = 48;

/** A part that is being put together. */
interface Growing {
  readonly passages: Passage[];
  frames: number;
  /** Of them, over footage. */
  over: number;
  painted: Rect;
}

/**
 * A film in parts that lie over footage, or over black, or are painted whole.
 * @param momentsOf the moments of a frame, counted from the film's first
 * @param count frames
 * @param frame in frame units
 * @param size of the film, in pixels
 * @param footage whether any clip of the film can be read so
 */
export function filmParts(
  momentsOf: (index: number) => Moments,
  count: number,
  frame: Size,
  size: Size,
  asItIs: AsItIs,
  footage = true,
): FilmPart[] {
  const parts: Growing[] = [];
  for (let index = 0; index < count; index++) {
    const moments = momentsOf(index);
    const found = overClip(moments, frame, asItIs);
    const last = parts.at(-1);
    const part = last && staysIn(last, found) ? last : { passages: [], frames: 0, over: 0, painted: EMPTY };
    if (part !== last) parts.push(part);
    const passage = part.passages.at(-1);
    const longer = passage && longerBy(passage, found);
    if (longer) part.passages[part.passages.length - 1] = longer;
    else
      part.passages.push({
        ...(found ? { media: found.media } : {}),
        at: found?.at ?? 0,
        step: 0,
        frames: 1,
      });
    part.frames++;
    if (found) part.over++;
    for (const ops of found?.above ?? moments) part.painted = union(part.painted, opsBounds(ops));
    // Where there is no footage there is nothing more to find out.
    if (!footage && !beneathOf(part, frame, size)) return [{ frames: count, beneath: undefined }];
  }
  return parts.map((part) => ({ frames: part.frames, beneath: beneathOf(part, frame, size) }));
}

/** Whether the next frame belongs to a part. */
function staysIn({ passages, frames }: Growing, next: OverClip | undefined): boolean {
  const last = passages.at(-1)!;
  if (longerBy(last, next)) return true;
  const changes = (last.media === undefined) !== (next === undefined);
  return passages.length < MOST_PASSAGES && !(changes && frames >= LEAST_PART);
}

/** What lies beneath a part, where most of it lies over footage, or little of the frame is painted. */
function beneathOf(
  { passages, frames, over, painted }: Growing,
  frame: Size,
  size: Size,
): Beneath | undefined {
  const area = evenArea(painted, frame, size);
  const little = area.width * area.height <= MOST_OF_FRAME * size.width * size.height;
  return little || over >= frames / 2 ? { passages, area } : undefined;
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
