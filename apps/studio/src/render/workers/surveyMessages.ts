import type { Heard, ReelCheck, Size } from '@fresh-reel/core';
import type { DecodedPicture } from '../../decode/picture';
import type { FromPainter, Supplies } from './paintMessages';

/** From the page to the worker that looks at a reel before it is rendered. */
export type ToSurvey =
  | { readonly type: 'start'; readonly supplies: Supplies }
  /** Asks for pictures of some frames, so many pixels wide. */
  | {
      readonly type: 'stills';
      readonly supplies: Supplies;
      readonly size: Size;
      readonly frames: readonly number[];
    }
  /** A picture that was asked for, if it is there. */
  | { readonly type: 'picture'; readonly id: string; readonly picture: DecodedPicture | null };

/** From it to the page, in this order. */
export type FromSurvey =
  | FromPainter
  /** What is heard; nothing, where nothing is. */
  | { readonly type: 'heard'; readonly heard: Heard | undefined }
  /** Words that stand out too little. */
  | { readonly type: 'words'; readonly checks: readonly ReelCheck[] }
  /** The part of all frames that was looked at for flashes. */
  | { readonly type: 'looked'; readonly part: number }
  | { readonly type: 'done'; readonly checks: readonly ReelCheck[] }
  /** One of the frames that were asked for, in their order. */
  | { readonly type: 'still'; readonly picture: ImageBitmap }
  | { readonly type: 'fault'; readonly message: string };
