import type { Notice, Slot } from '@fresh-reel/core';

/** What the row of a slot is given. */
export interface SlotRowProps<S extends Slot = Slot> {
  readonly slot: S;
  readonly selected: boolean;
  readonly onSelect: () => void;
  readonly notices: readonly Notice[];
}
