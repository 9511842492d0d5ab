/** Most pixels a frame takes: single ones are told apart and held with a finger. */
const MOST_PIXELS = 32;
/** Most pixels a line is long: browsers lay nothing out beyond twice that. */
const LONGEST = 16_000_000;

/** Where frames of a reel lie on a line of some width. */
export interface LineView {
  /** Pixels of a frame. */
  readonly px: number;
  /** The frame at the left edge; fractions, and before the beginning, too. */
  readonly left: number;
  readonly width: number;
}

/** Room behind the last item, as a part of the reel. */
const BEHIND = 1.08;

/** Pixels of a frame at which all of a reel is seen. */
export const fittingPixels = (width: number, frames: number) =>
  Math.min(mostPixels(frames), Math.max(0.0001, width / (frames * BEHIND)));

/** Most pixels a frame takes in a reel of so many. */
const mostPixels = (frames: number) => Math.min(MOST_PIXELS, LONGEST / (frames * BEHIND));

/** Pixels of a frame, kept between all of the reel and single frames. */
export const zoomed = (px: number, by: number, width: number, frames: number) =>
  Math.min(mostPixels(frames), Math.max(fittingPixels(width, frames), px * by));

/**
 * The frame at the left edge, so that the playhead is seen.
 * @param centred whether the line slides under a playhead that stays in the middle
 */
export function leftFor({ px, left, width }: LineView, playhead: number, centred: boolean): number {
  if (centred) return playhead - width / 2 / px;
  const seen = width / px;
  if (playhead >= left && playhead <= left + seen) return Math.max(0, left);
  // It goes on from a tenth of the width, so that what comes is seen.
  return Math.max(0, playhead - seen * 0.1);
}

export const frameAtX = ({ px, left }: LineView, x: number) => left + x / px;
export const xOfFrame = ({ px, left }: LineView, frame: number) => (frame - left) * px;

/** Seconds between the marks of a ruler, so that their words have room. */
export function rulerStep(pixelsPerSecond: number): number {
  const steps = [0.1, 0.2, 0.5, 1, 2, 5, 10, 15, 30, 60, 120, 300, 600, 1800, 3600];
  return steps.find((s) => s * pixelsPerSecond >= 76) ?? 7200;
}

/**
 * The nearest of some frames within a reach, as what an item's start or end snaps to.
 * @returns by how many frames to move, and the frame it snaps to; nothing when none is near
 */
export function nearestSnap(
  edges: readonly number[],
  targets: readonly number[],
  reach: number,
): { by: number; at: number } | undefined {
  let best: { by: number; at: number } | undefined;
  for (const edge of edges)
    for (const at of targets) {
      const by = at - edge;
      if (Math.abs(by) <= reach && (!best || Math.abs(by) < Math.abs(best.by))) best = { by, at };
    }
  return best;
}

/** Seconds from one picture on the line to the next. @param room seconds that one picture takes */
export const stripStep = (room: number): number => 2 ** Math.ceil(Math.log2(Math.max(1 / 64, room)));

/**
 * Seconds of a file whose pictures are laid along a line: steps of a power of two, so that those of one zoom are there in
 * the next, and each stands where it belongs.
 * @param room seconds that one picture takes
 */
export function stripTimes(from: number, to: number, room: number): number[] {
  const step = stripStep(room);
  const first = Math.floor(from / step);
  const count = Math.min(200, Math.max(0, Math.ceil(to / step - 1e-9) - first));
  return Array.from({ length: count }, (_, i) => (first + i) * step);
}
