/** What of a reel is rendered: all of it, from one frame to another, its titles alone, or each title by itself. */
export const EXTENTS = ['all', 'range', 'titles', 'each-title'] as const;
export type Extent = (typeof EXTENTS)[number];
