import type { Marker, ReelItem } from '../documents/item';
import type { Reel } from '../documents/reel';
import { documentOnly } from '../evaluate/documentOnly';
import { GraphicScene } from '../evaluate/graphicScene';
import { GraphicTime } from '../reel/graphicTime';
import { layoutFrame } from '../values/frame';
import { freeName } from '../values/freeName';
import { changeItem, given, itemOf } from './items';
import { EditError, mayChange, shiftItems } from './place';

const inOrder = (markers: readonly Marker[]) => [...markers].sort((a, b) => a.frame - b.frame);

/**
 * Sets a marker at a frame; one of its use that is there already stays as it is.
 * @returns the reel, and the marker's id
 */
export function addMarker(
  reel: Reel,
  frame: number,
  use: NonNullable<Marker['use']> = 'note',
  name = '',
): { reel: Reel; id: string } {
  const at = Math.max(0, Math.round(frame));
  const there = reel.markers.find((m) => m.frame === at && (m.use ?? 'note') === use);
  if (there) return { reel, id: there.id };
  const id = freeName('m1', (wanted) => reel.markers.some((m) => m.id === wanted));
  return { reel: { ...reel, markers: inOrder([...reel.markers, { id, frame: at, name, use }]) }, id };
}

/** Changes a marker; what meets it goes along. */
export function changeMarker(reel: Reel, id: string, part: Partial<Omit<Marker, 'id'>>): Reel {
  const markers = reel.markers.map((m) => (m.id === id ? { ...m, ...part } : m));
  return keepMeetings({ ...reel, markers: inOrder(markers) });
}

/** Takes markers away; graphics that met them stay where they are. */
export function removeMarkers(reel: Reel, ids: readonly string[]): Reel {
  return keepMeetings({ ...reel, markers: reel.markers.filter((m) => !ids.includes(m.id)) });
}

/** The nearest marker after a frame, or before it. */
export function nextMarker(reel: Reel, frame: number, way: 1 | -1): Marker | undefined {
  return way === 1
    ? inOrder(reel.markers).find((m) => m.frame > frame)
    : inOrder(reel.markers).findLast((m) => m.frame < frame);
}

/** A cue of a graphic, and the frame of the reel in which it is. */
export interface PlacedCue {
  readonly id: string;
  readonly name: string;
  readonly frame: number;
}

/** The cues of a graphic in frames of the reel, in their order. */
export function cuesOf(reel: Reel, item: ReelItem): PlacedCue[] {
  if (item.kind !== 'graphic') return [];
  const template = reel.templates[item.template]!;
  if (template.cues.length === 0) return [];
  const scene = new GraphicScene(template, item.fill, layoutFrame(reel.frame), documentOnly());
  const time = new GraphicTime(scene, item.start, reel);
  return template.cues
    .map(({ id, name, at }) => ({ id, name, frame: time.frameOf(scene.timeOf(at)) }))
    .sort((a, b) => a.frame - b.frame);
}

/**
 * Moves a graphic so that one of its cues falls on a marker, and keeps it so, whatever becomes of its times or of the
 * marker, until it is moved by hand.
 * @throws {EditError} when it would begin before the reel does, or its track is locked
 */
export function meet(reel: Reel, id: string, cue: string, marker: string): Reel {
  const standing = itemOf(reel, id);
  const target = reel.markers.find((m) => m.id === marker);
  const found = standing && cuesOf(reel, standing.item).find((c) => c.id === cue);
  if (!standing || !target || !found) return reel;
  mayChange([standing.track]);
  const short = found.frame - target.frame - standing.item.start;
  if (short > 0)
    throw new EditError(
      `“${found.name}” comes ${found.frame - standing.item.start} frames after the title begins, and the marker is too near the beginning of the reel for that. Choose a later marker.`,
    );
  return keepMeetings(withMeeting(reel, id, { cue, marker }));
}

/** Lets a graphic go from the marker it meets; it stays where it is. */
export function stopMeeting(reel: Reel, id: string): Reel {
  return withMeeting(reel, id, undefined);
}

function withMeeting(reel: Reel, id: string, meets: { cue: string; marker: string } | undefined): Reel {
  return changeItem(reel, id, (item) =>
    item.kind === 'graphic' ? (given({ ...item, meets }) as ReelItem) : item,
  );
}

/**
 * Puts every graphic that meets a marker where it does, after whatever has changed. Those whose cue or marker is gone are
 * let go.
 */
export function keepMeetings(reel: Reel): Reel {
  const meeting = reel.tracks.flatMap((t) =>
    t.items.flatMap((item) => (item.kind === 'graphic' && item.meets ? [item] : [])),
  );
  return meeting.reduce((r, { id }) => {
    const item = itemOf(r, id)?.item;
    if (item?.kind !== 'graphic' || !item.meets) return r;
    const { cue, marker } = item.meets;
    const at = r.markers.find((m) => m.id === marker)?.frame;
    const found = cuesOf(r, item).find((c) => c.id === cue);
    if (at === undefined || !found) return stopMeeting(r, id);
    return found.frame === at ? r : shiftItems(r, [id], at - found.frame);
  }, reel);
}
