/** From the page to the worker: what is wanted now, in the order in which it is wanted. What was wanted before and is not any more is left. */
export interface ToStrips {
  readonly pictures: readonly { readonly media: string; readonly at: number }[];
  readonly waves: readonly string[];
  /** Pictures that were let go of: they are made anew when they are wanted again. */
  readonly forget: readonly string[];
}

/** From the worker to the page. */
export type FromStrips =
  | { readonly type: 'picture'; readonly media: string; readonly at: number; readonly picture: Blob | null }
  /** Peaks of a sound, `PEAKS_A_SECOND` to a second, as far as they are known. */
  | { readonly type: 'wave'; readonly media: string; readonly peaks: Float32Array };

/** Peaks of a detailed wave. */
export const PEAKS_A_SECOND = 50;
