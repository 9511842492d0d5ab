import type { MixFacts, Reel, RenderPlan } from '@fresh-reel/core';
import type { DecodedPicture, FontFile } from '../engine/browserStudio';
import type { SoundCodec } from './soundCodec';

/** From the page to a render worker: one job per worker. */
export type ToRender =
  | {
      readonly type: 'start';
      readonly reel: Reel;
      readonly plan: RenderPlan;
      readonly pictures: readonly (readonly [id: string, picture: DecodedPicture])[];
      readonly fonts: readonly FontFile[];
    }
  | { readonly type: 'cancel' };

/** From a render worker to the page. */
export type FromRender =
  | { readonly type: 'progress'; readonly frames: number }
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
