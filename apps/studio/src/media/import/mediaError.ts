/** A clip or sound cannot be used; the message says why and what to do. */
export class MediaError extends Error {
  override readonly name: string = 'MediaError';
}

/** A file is not the one that was said to come: its hash is another. */
export class DamagedError extends MediaError {
  override readonly name = 'DamagedError';
}

/** Tells of a file whose bytes are not those of its hash. */
export const damaged = (name: string): DamagedError =>
  new DamagedError(`"${name}" is damaged: it is not the file that it is said to be.`);

/** Why footage would be better sent through the server. */
export interface NeedsCopy {
  /** What is in the way: `H.265`, or fields of two moments in a frame. */
  readonly why: { readonly codec: string } | 'interlaced';
  /** Bytes a working copy will take, nearly; nothing where that is not known. */
  readonly copySize: number | undefined;
}

/** A clip that this browser cannot play, or not well, and that a working copy would help. */
export class NeedsCopyError extends MediaError {
  override readonly name = 'NeedsCopyError';

  constructor(
    message: string,
    readonly needs: NeedsCopy,
  ) {
    super(message);
  }
}
