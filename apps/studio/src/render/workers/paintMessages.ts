import type { OutputFormat, Reel, RenderPlan, Size } from '@fresh-reel/core';
import type { DecodedPicture } from '../../decode/picture';
import type { FontFile } from '../../engine/browserStudio';

/** What painting a reel takes, wherever it is painted. */
export interface Supplies {
  readonly reel: Reel;
  /** Sizes of the pictures it shows; they themselves are asked for when a frame shows them. */
  readonly sizes: readonly (readonly [id: string, size: Size])[];
  readonly fonts: readonly FontFile[];
}

/** What painting a render takes; each paint worker has all of it. */
export interface PaintJob extends Supplies {
  readonly plan: RenderPlan<OutputFormat>;
  /** Of a sample of the render: which frames of the plan it is made of. */
  readonly sample?: readonly number[];
  /** The first frame that is painted, where those before it are written already. */
  readonly first?: number;
}

/** From the page to a worker that paints. */
export type ToPainter =
  /** The port at whose other end its render is conducted. */
  | { readonly type: 'conductor'; readonly port: MessagePort }
  /** A picture that was asked for, if it is there. */
  | { readonly type: 'picture'; readonly id: string; readonly picture: DecodedPicture | null };

/** From a worker that paints to the page: a picture that a frame shows. */
export interface FromPainter {
  readonly needs: string;
}

/** From the worker that conducts a render to one that paints. */
export type ToPaint =
  | ({ readonly type: 'start' } & PaintJob)
  /** Frames of the plan, counted from its first. */
  | { readonly type: 'paint'; readonly first: number; readonly count: number }
  /** Pixels that are done with, to be written again. */
  | { readonly type: 'back'; readonly pixels: ArrayBuffer };

/** A frame as its format takes it: of a video, the pixels of a GIF, or a picture's file. Nothing when it is the one before it once more. */
export type PaintedFrame = VideoFrame | ArrayBuffer | Blob | undefined;

/** From a paint worker. */
export type FromPaint =
  | { readonly type: 'painted'; readonly index: number; readonly frame: PaintedFrame }
  | { readonly type: 'fault'; readonly message: string };
