import type { ClipFill } from './pictureFill';

/**
 * How early, in seconds, a frame of a clip counts as begun. Matroska keeps times in whole milliseconds, so a frame
 * that belongs to a moment may carry a time up to a millisecond after it.
 */
export const FRAME_SLACK = 0.001;

/**
 * The second of a file that shows `t` seconds after its slot came.
 *
 * The frame that belongs to it is the last one whose own time is not after the result; rates never enter, so clips of
 * a changing rate need nothing of their own.
 * @param duration seconds of the whole file
 * @param room seconds the slot shows
 */
export function clipTime(t: number, clip: ClipFill, duration: number, room: number): number {
  const within = (s: number) => Math.min(Math.max(s, 0), duration);
  if (clip.freeze !== undefined) return within(clip.freeze) + FRAME_SLACK;
  const { from, length, speed } = clipStretch(clip, duration, room);
  let played = Math.max(0, t) * speed;
  if (played >= length && clip.end === 'loop' && length > 0) played %= length;
  // The frame at the out point itself is not shown any more.
  return from + Math.min(played, Math.max(0, length - 2 * FRAME_SLACK)) + FRAME_SLACK;
}

/** What plays of a clip in a slot: from which second, how many, and how fast. */
export function clipStretch(
  clip: ClipFill,
  duration: number,
  room: number,
): { from: number; length: number; speed: number } {
  const from = Math.min(clip.in ?? 0, Math.max(0, duration - 2 * FRAME_SLACK));
  const length = Math.max(0, Math.min(clip.length ?? Number.POSITIVE_INFINITY, duration - from));
  const speed = clip.speed ?? 1;
  const short = room > 0 && length < room * speed;
  return { from, length, speed: clip.end === 'stretch' && short ? length / room : speed };
}
