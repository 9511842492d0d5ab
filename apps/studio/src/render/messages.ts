import type { MixFacts, SoundCodec } from '@fresh-reel/core';
import type { PaintJob } from './paintMessages';

/** From the page to a render worker: one job per worker. */
export type ToRender =
  | { readonly type: 'start'; readonly job: PaintJob; readonly painters: readonly MessagePort[] }
  | { readonly type: 'cancel' };

/** From a render worker to the page. */
export type FromRender =
  | { readonly type: 'progress'; readonly frames: number }
  /** A sample is rendered, and thrown away. */
  | { readonly type: 'sampled' }
  | {
      readonly type: 'done';
      readonly file: Blob;
      readonly frames: number;
      readonly stored: string | undefined;
      /** How its sound was written, and what it measures. */
      readonly sound?: { readonly codec: SoundCodec } & MixFacts;
    }
  | { readonly type: 'cancelled' }
  | { readonly type: 'fault'; readonly message: string };
