import type { Reel, RenderPlan } from '@fresh-reel/core';
import type { FontFile } from '../engine/browserStudio';
import type { DecodedPicture } from '../media/decode/picture';

/** What painting a render takes; each paint worker has all of it. */
export interface PaintJob {
  readonly reel: Reel;
  readonly plan: RenderPlan;
  readonly pictures: readonly (readonly [id: string, picture: DecodedPicture])[];
  readonly fonts: readonly FontFile[];
}

/** From the page to a worker that paints: the port at whose other end its render is conducted. */
export interface ToPainter {
  readonly port: MessagePort;
}

/** From the worker that conducts a render to one that paints. */
export type ToPaint =
  | ({ readonly type: 'start' } & PaintJob)
  /** Frames of the plan, counted from its first. */
  | { readonly type: 'paint'; readonly first: number; readonly count: number }
  /** Planes that are done with, to be written again. */
  | { readonly type: 'back'; readonly planes: ArrayBuffer };

/** A frame as its format takes it: the planes of a video, or a PNG. Nothing when it is the one before it once more. */
export type PaintedFrame = ArrayBuffer | Blob | undefined;

/** From a paint worker. */
export type FromPaint =
  | { readonly type: 'painted'; readonly index: number; readonly frame: PaintedFrame }
  | { readonly type: 'fault'; readonly message: string };
