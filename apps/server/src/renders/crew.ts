import type { RangeOrder } from './order';

/** Who makes the pieces of films: threads of this machine, or machines in a row. */
export interface Crew {
  /** Pieces it makes at once, as far as is known. */
  readonly size: number;
  /**
   * Makes a range; its piece is in the store then.
   * @param onFrame with each frame that is painted; some may be told late, or again where another begins anew
   * @throws {Error} in words, when it cannot be made
   */
  make(order: RangeOrder, onFrame: () => void, signal: AbortSignal): Promise<void>;
  close(): Promise<void>;
}
