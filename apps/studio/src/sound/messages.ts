import type { Reel } from '@fresh-reel/core';

/** From the page to the worker that mixes. */
export type ToMix =
  /** What is heard from now on. */
  | { readonly type: 'show'; readonly reel: Reel; readonly request: number }
  /** Mixes from a second of the reel on, and hands the blocks to the player. */
  | { readonly type: 'play'; readonly run: number; readonly from: number; readonly loop: boolean }
  | { readonly type: 'stop' }
  /** Where the blocks go: the player, in the thread of the sound. */
  | { readonly type: 'player'; readonly port: MessagePort }
  /** The reel is left: its sounds are closed. */
  | { readonly type: 'leave' };

/** From the worker to the page. */
export type FromMix =
  /** @param length seconds of the reel */
  {
    readonly type: 'shown';
    readonly request: number;
    /** Whether there is anything to hear. */
    readonly heard: boolean;
    /** Whether it is anything else than before. */
    readonly changed: boolean;
    readonly length: number;
  };

/** To the player, from the worker. */
export interface PlayerBlock {
  readonly run: number;
  /** Sample frame of the run. */
  readonly first: number;
  readonly planes: readonly [Float32Array, Float32Array];
}

/** From the player to the worker: up to which sample frame of a run was heard. */
export interface PlayerHeard {
  readonly run: number;
  readonly heard: number;
}

/** To the player, from the page. */
export type ToPlayer =
  | { readonly type: 'mixer'; readonly port: MessagePort }
  /** @param at second of the sound's clock at which the run begins */
  | { readonly type: 'play'; readonly run: number; readonly at: number }
  | { readonly type: 'stop' };

/** Name and address of the player, which the build puts apart: the thread of the sound loads it by itself. */
export const PLAYER = 'fresh-reel-player';
export const PLAYER_PATH = '/engine/sound-player.js';
