/**
 * How many of each a document may hold. Schemas refuse more when a document is opened, and edits say so before
 * (`edit/keepable.ts`), so that nothing is written that does not open.
 */
export const MOST = {
  tracks: 50,
  /** On one track. */
  items: 2000,
  markers: 5000,
  ways: 200,
  /** Of one way. */
  samples: 200_000,
  marks: 1000,
  /** Side by side: of a template, or of a group. */
  layers: 400,
  /** Of one value. */
  keys: 500,
  /** Of one text. */
  runs: 500,
  /** UTF-16 units: a list of many thousand lines. */
  words: 500_000,
} as const;

/** Longest reel, in frames: a day at 120 a second. A key may lie as far before its item, of which the beginning is cut off. */
export const LONGEST_REEL = 10_368_000;

/** How much slower than it was made a sound plays at most. */
export const SLOWEST_SOUND = 0.05;
