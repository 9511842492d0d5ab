import type { MixFacts, SoundCodec } from '@fresh-reel/core';
import type { PaintJob } from './paintMessages';

/** What an unfinished render has left, by which it goes on. */
export interface JournalName {
  /** Of its file. */
  readonly id: string;
  /** Of what writes it: what another version of the app has left is not gone on with. */
  readonly identity: string;
}

/** From the page to a render worker: one job per worker. */
export type ToRender =
  | {
      readonly type: 'start';
      readonly job: PaintJob;
      readonly painters: readonly MessagePort[];
      readonly journal?: JournalName;
    }
  /** Ends it; what is written so far stays in the journal. */
  | { readonly type: 'stop' };

/** From a render worker to the page. */
export type FromRender =
  /** Frames that an earlier attempt has written. */
  | { readonly type: 'resumed'; readonly frames: number }
  | { readonly type: 'progress'; readonly frames: number }
  /** A sample is rendered, and thrown away: so many bytes of pictures, and seconds that painting was waited for. */
  | { readonly type: 'sampled'; readonly bytes: number; readonly painting: number }
  | {
      readonly type: 'done';
      readonly file: Blob;
      readonly frames: number;
      readonly stored: string | undefined;
      /** How its sound was written, and what it measures. */
      readonly sound?: { readonly codec: SoundCodec } & MixFacts;
    }
  | { readonly type: 'stopped' }
  /** @param lost a worker has ended that nobody had ended: it may be tried again */
  | { readonly type: 'fault'; readonly message: string; readonly lost?: boolean };
