import type { PathRuler } from '../geometry/length';
import type { Size } from '../geometry/rect';

/** A line that is not straight, for words to run along. */
export interface Bend {
  readonly ruler: PathRuler;
  /** Longest line that fits, in frame units; 0 for a path without length. */
  readonly room: number;
  /** Size of the layer's box. */
  readonly size: Size;
  /** Distance from the ruler's beginning at which the words are aligned. */
  readonly anchor: number;
}
