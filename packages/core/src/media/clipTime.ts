import type { ClipFill } from './pictureFill';

/**
 * How early, in seconds, a frame of a clip counts as begun. Matroska keeps times in whole milliseconds, so a frame
 * that belongs to a moment may carry a time up to a millisecond after it.
 *
 * It is a little more than that, and no part of any time that is kept: what is typed, frames of a film, frames of a clip
 * and times in files are all quotients with small denominators, and so are their differences. None of them is this number.
 * So no second that is asked for lies on the edge of a frame, and which frame shows does not hang on the last bits of a
 * sum: whoever compares it with a frame's time, in whatever numbers, finds the same.
 */
export const FRAME_SLACK = 0.001_000_456_7;

/** A clip as it plays where it stands: it may be a piece that was cut out of what it plays. */
export type ClipPlay = ClipFill & {
  /** Seconds of its playing that are over when it comes. */
  readonly begun?: number | undefined;
  /** Seconds over which it is stretched; those it shows, when absent. */
  readonly over?: number | undefined;
};

/**
 * The second of a file that shows `t` seconds after its slot came.
 *
 * The frame that belongs to it is the last one whose own time is not after the result; rates never enter, so clips of
 * a changing rate need nothing of their own.
 * @param duration seconds of the whole file
 * @param room seconds the slot shows
 */
export function clipTime(t: number, clip: ClipPlay, duration: number, room: number): number {
  const within = (s: number) => Math.min(Math.max(s, 0), duration);
  if (clip.freeze !== undefined) return within(clip.freeze) + FRAME_SLACK;
  const { from, length, speed } = clipStretch(clip, duration, room);
  let played = (Math.max(0, t) + (clip.begun ?? 0)) * speed;
  if (clip.end === 'loop' && length > 0) played = inRound(played, length);
  // The frame at the out point itself is not shown any more.
  return from + Math.min(Math.max(0, played), Math.max(0, length - 2 * FRAME_SLACK)) + FRAME_SLACK;
}

/** Seconds by which sums of times may be off: what lies so near before a round begins is its beginning. */
const OFF = 1e-9;

/** Where in its round something is that goes round, from 0 on. */
export function inRound(played: number, length: number): number {
  const past = (played + OFF) % length;
  return Math.max(0, (past < 0 ? past + length : past) - OFF);
}

/** What plays of a clip in a slot: from which second, how many, and how fast. */
export function clipStretch(
  clip: ClipPlay,
  duration: number,
  shown: number,
): { from: number; length: number; speed: number } {
  const room = clip.over ?? shown;
  const from = Math.min(clip.in ?? 0, Math.max(0, duration - 2 * FRAME_SLACK));
  const length = Math.max(0, Math.min(clip.length ?? Number.POSITIVE_INFINITY, duration - from));
  const speed = clip.speed ?? 1;
  const short = room > 0 && length < room * speed;
  return { from, length, speed: clip.end === 'stretch' && short ? length / room : speed };
}
