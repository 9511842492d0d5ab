import type { Reel, ReelCheck, ReelFrame, TextOfItem } from '@fresh-reel/core';
import type { FontFile } from '../engine/browserStudio';
import type { DecodedPicture } from '../media/decode/picture';

/** From the page to the preview worker. */
export type ToPreview =
  | { readonly type: 'attach'; readonly surface: string; readonly canvas: OffscreenCanvas }
  | { readonly type: 'detach'; readonly surface: string }
  /** Size in device pixels at full quality. */
  | { readonly type: 'resize'; readonly surface: string; readonly width: number; readonly height: number }
  | { readonly type: 'show'; readonly surface: string; readonly reel: Reel; readonly revision: number }
  | { readonly type: 'seek'; readonly surface: string; readonly frame: number }
  | { readonly type: 'play'; readonly surface: string; readonly from: number; readonly loop: boolean }
  | { readonly type: 'pause'; readonly surface: string }
  /** Asks where the letters of a text stand, in every frame from now on; of none, when absent. */
  | { readonly type: 'letters'; readonly surface: string; readonly text: TextOfItem | undefined }
  /** Looks at every slot of a reel, apart from what any surface shows. */
  | { readonly type: 'check'; readonly reel: Reel; readonly request: number }
  /** The picture that was asked for, if it is there. */
  | { readonly type: 'picture'; readonly id: string; readonly picture: DecodedPicture | null }
  | { readonly type: 'fonts'; readonly families: readonly string[]; readonly fonts: readonly FontFile[] };

/** From the preview worker to the page. */
export type FromPreview =
  | { readonly type: 'frame'; readonly surface: string; readonly frame: PaintedFrame }
  | { readonly type: 'needs-picture'; readonly id: string }
  /** Families that do not ship with the app: the user's own, if they are there. */
  | { readonly type: 'needs-fonts'; readonly families: readonly string[] }
  | {
      readonly type: 'checks';
      readonly request: number;
      readonly checks?: readonly ReelCheck[];
      /** Why it could not be looked at. */
      readonly fault?: string;
    }
  | { readonly type: 'ended'; readonly surface: string }
  | { readonly type: 'fault'; readonly surface: string | undefined; readonly message: string };

/** What the page knows of the frame on a surface. */
export interface PaintedFrame extends Pick<ReelFrame, 'regions' | 'notices'> {
  /** Frame number at the reel's rate. */
  readonly number: number;
  /** Frames of the whole reel. */
  readonly count: number;
  /** Revision of the document it was painted from. */
  readonly revision: number;
  readonly letters: ReelFrame['letters'] | undefined;
  /** Size regions are measured in. */
  readonly layout: { readonly width: number; readonly height: number };
  /** Milliseconds to evaluate and to paint. */
  readonly cost: number;
  /** Part of full resolution painted at, 0..1. */
  readonly quality: number;
}
