import type { Rate } from '@fresh-reel/core';
import type { MediaRecord } from '../../storage/media';
import type { NeedsCopy } from './mediaError';

/** The import was stopped by the user. */
export class ImportCancelled extends Error {
  override readonly name = 'ImportCancelled';
}

/** The file that a working copy stands for. */
export interface OriginalFile {
  readonly hash: string;
  readonly size: number;
  readonly codec: string;
}

/** From the page to an import worker: one file, or the pictures of one sequence, per worker. */
export type ToImport =
  | Take
  /** A file that is not taken in: only its hash is asked for. */
  | { readonly hash: File };

/** What is taken in. */
export type Take =
  | {
      readonly file: File;
      /** What it is a working copy of. */
      readonly original?: OriginalFile;
      /** A clip that may be interlaced is refused, so that the user can be asked. */
      readonly asks?: boolean;
      /** SHA-256 that it must have. */
      readonly wanted?: string;
    }
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
  | {
      readonly type: 'fault';
      readonly message: string;
      readonly full: boolean;
      /** It is not the file that was wanted. */
      readonly damaged: boolean;
      /** A working copy would help. */
      readonly needs?: NeedsCopy;
    };
