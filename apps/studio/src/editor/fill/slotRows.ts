import { createContext, useCallback, useContext } from 'react';
import type { View } from 'react-native';
import { scrollBehaviour } from '../../ui/motion';
import { colour } from '../../ui/theme';

const LIT = `3px solid ${colour.blue}`;

/** The rows of the slots on the page: to bring one into view, to type in it, and to know one under a finger. */
export class SlotRows {
  private readonly rows = new Map<string, HTMLElement>();

  put(slot: string, row: HTMLElement | null): void {
    if (row) this.rows.set(slot, row);
    else this.rows.delete(slot);
  }

  /** Brings a row into view; one that is about to be there, when it is. */
  reveal(slot: string): void {
    requestAnimationFrame(() =>
      this.rows.get(slot)?.scrollIntoView({ block: 'center', behavior: scrollBehaviour() }),
    );
  }

  /** Puts the keys into a row: its field, else its first button. */
  focus(slot: string): void {
    const row = this.rows.get(slot);
    const field = row?.querySelector<HTMLElement>('textarea, input');
    (field ?? row?.querySelector<HTMLElement>('[tabindex="0"], button'))?.focus({ preventScroll: true });
  }

  /** Lights the row of a slot that something is dragged over; none, and the light goes. */
  light(slot: string | undefined): void {
    for (const [id, row] of this.rows) row.style.outline = id === slot ? LIT : '';
  }

  /** The slot whose row lies under a place of the page. */
  at(x: number, y: number): string | undefined {
    const under = document.elementFromPoint(x, y);
    return [...this.rows].find(([, row]) => row.contains(under))?.[0];
  }
}

const RowsContext = createContext(new SlotRows());
export const SlotRowsProvider = RowsContext.Provider;
export const useSlotRows = () => useContext(RowsContext);

/** Tells where the row of a slot is. */
export function useSlotRow(slot: string): (view: View | null) => void {
  const rows = useSlotRows();
  return useCallback((view) => rows.put(slot, view as unknown as HTMLElement | null), [rows, slot]);
}
