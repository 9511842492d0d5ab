import type { Footing, Pose, WaySample } from '@fresh-reel/core';

/** A thing in a clip: at a second of its file, in pixels of it. */
export interface Patch {
  readonly media: string;
  readonly at: number;
  readonly pose: Pose;
  /** Half its width. */
  readonly half: number;
}

/** From the page to a follow worker. */
export type ToFollow =
  /** How well it can be followed. */
  | { readonly type: 'look'; readonly patch: Patch }
  /** Follows it backwards to a second, then forwards to another; none of a way where it is not wanted. */
  | {
      readonly type: 'follow';
      readonly patch: Patch;
      readonly back: number | undefined;
      readonly on: number | undefined;
    };

/** From a follow worker to the page. */
export type FromFollow =
  | { readonly type: 'footing'; readonly verdict: Footing['verdict'] }
  /** What was found since the last word, in the order of time, and how far all of it is, 0..1. */
  | { readonly type: 'found'; readonly samples: readonly WaySample[]; readonly part: number }
  | { readonly type: 'done' }
  | { readonly type: 'fault'; readonly message: string };
