/**
 * How long a frame of a moving picture is shown, in whole parts of a second. Rounding does not add up: each frame ends
 * at the part that is nearest to its end.
 * @param from seconds from the beginning of the picture
 * @param until seconds
 * @param parts of a second that the format counts in
 */
export const delayOf = (from: number, until: number, parts: number): number =>
  Math.round(until * parts) - Math.round(from * parts);
