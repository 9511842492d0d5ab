/** Pixels of the longest side of the pictures in which a thing is followed: more costs time and tells little. */
const FOLLOW_SIDE = 960;

/** What a picture is scaled by to be followed in. */
export const followScale = (width: number, height: number) =>
  Math.min(1, FOLLOW_SIDE / Math.max(width, height));

/** The width of a patch, when nobody says: in pixels of a picture of some size. */
export const usualPatch = (width: number, height: number) => Math.round(Math.max(width, height) / 16);
