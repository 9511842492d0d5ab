import type { Rate } from '@fresh-reel/core';
import type { MediaRecord } from '../../storage/media';

/** From the page to an import worker: one file, or the pictures of one sequence, per worker. */
export type ToImport =
  | Take
  /** A file that is not taken in: only its hash is asked for. */
  | { readonly hash: File };

/** What is taken in. */
export type Take =
  | { readonly file: File }
  | {
      readonly frames: readonly File[];
      readonly name: string;
      readonly rate: Rate;
    };

/** From an import worker to the page. */
export type FromImport =
  /** Part of the whole work, 0..1; what the bytes lie under, once they are being stored. */
  | { readonly type: 'progress'; readonly part: number; readonly storing: string | undefined }
  | { readonly type: 'hashed'; readonly hash: string }
  | { readonly type: 'done'; readonly record: MediaRecord; readonly again: boolean }
  | { readonly type: 'fault'; readonly message: string; readonly full: boolean };
