import type { LaidPart, Reel, ReelCheck, ReelFrame, TextOfItem } from '@fresh-reel/core';
import type { Trip } from '@fresh-reel/core/make';
import type { DecodedPicture } from '../decode/picture';
import type { FontFile } from '../engine/browserStudio';

/** What is asked of a surface. */
export type OfSurface =
  | { readonly type: 'attach'; readonly canvas: OffscreenCanvas }
  | { readonly type: 'detach' }
  /** Size in device pixels at full quality. */
  | { readonly type: 'resize'; readonly width: number; readonly height: number }
  | { readonly type: 'show'; readonly reel: Reel; readonly revision: number }
  | { readonly type: 'seek'; readonly frame: number }
  | { readonly type: 'play'; readonly from: number; readonly loop: boolean }
  | { readonly type: 'pause' }
  /** Asks where the letters of a text stand, in every frame from now on; of none, when absent. */
  | { readonly type: 'letters'; readonly text: TextOfItem | undefined }
  /** Asks where the parts of a graphic lie, in every frame at rest from now on; of none, when absent. */
  | { readonly type: 'parts'; readonly graphic: string | undefined };

/** From the page to the preview worker. */
export type ToPreview =
  /** `asked` counts what was asked of that surface, from 1. */
  | (OfSurface & { readonly surface: string; readonly asked: number })
  /** Asks something of a reel, apart from what any surface shows. */
  | { readonly type: 'ask'; readonly reel: Reel; readonly request: number; readonly question: Question }
  /** Asks what has been fetched here. */
  | { readonly type: 'fetched' }
  /** The picture that was asked for, if it is there. */
  | { readonly type: 'picture'; readonly id: string; readonly picture: DecodedPicture | null }
  | { readonly type: 'fonts'; readonly families: readonly string[]; readonly fonts: readonly FontFile[] };

/** From the preview worker to the page. */
export type FromPreview =
  /** What was painted after so much was asked; whether nothing that it shows is still on its way. */
  | {
      readonly type: 'frame';
      readonly surface: string;
      readonly frame: PaintedFrame;
      readonly asked: number;
      readonly whole: boolean;
    }
  /** A document that was to be shown is, or cannot be. */
  | { readonly type: 'taken'; readonly surface: string; readonly revision: number }
  | { readonly type: 'needs-picture'; readonly id: string }
  /** Families that do not ship with the app: the user's own, if they are there. */
  | { readonly type: 'needs-fonts'; readonly families: readonly string[] }
  | { readonly type: 'answer'; readonly request: number; readonly answer: Answer }
  /** Why it could not be looked at. */
  | { readonly type: 'answer'; readonly request: number; readonly fault: string }
  | { readonly type: 'fetched'; readonly addresses: readonly string[] }
  | { readonly type: 'ended'; readonly surface: string }
  | { readonly type: 'fault'; readonly surface: string | undefined; readonly message: string };

/** What can be asked of a reel. */
export type Question =
  /** What of its slots the user should know. */
  | { readonly about: 'checks' }
  /** What a user of the template that is made on it would trip over. */
  | { readonly about: 'trips' }
  /** Where every part of a graphic lies in a frame. */
  | { readonly about: 'laid'; readonly graphic: string; readonly frame: number }
  /** The way that the middle of a part takes, from the graphic's beginning to its end. */
  | { readonly about: 'way'; readonly graphic: string; readonly part: string };

/** A point of a way: frame units, and the frame of the reel in which it is there. */
export interface WayPoint {
  readonly frame: number;
  readonly at: readonly [number, number];
}

export type Answer =
  | { readonly about: 'checks'; readonly checks: readonly ReelCheck[] }
  | { readonly about: 'trips'; readonly trips: readonly Trip[] }
  | { readonly about: 'laid'; readonly parts: readonly LaidPart[] }
  | { readonly about: 'way'; readonly way: readonly WayPoint[] };

/** What the page knows of the frame on a surface. */
export interface PaintedFrame extends Pick<ReelFrame, 'regions' | 'notices'> {
  /** Frame number at the reel's rate. */
  readonly number: number;
  /** Frames of the whole reel. */
  readonly count: number;
  /** Revision of the document it was painted from. */
  readonly revision: number;
  readonly letters: ReelFrame['letters'] | undefined;
  /** Where the parts of the graphic lie that was asked about; nothing while it plays. */
  readonly parts?: readonly LaidPart[];
  /** Size regions are measured in. */
  readonly layout: { readonly width: number; readonly height: number };
  /** Milliseconds to evaluate and to paint. */
  readonly cost: number;
  /** Part of full resolution painted at, 0..1. */
  readonly quality: number;
}
