import { type Brand, change, type History, redo, settle, startHistory, undo } from '@fresh-reel/core';
import { useCallback, useMemo, useRef, useState } from 'react';
import { useSaveBrand } from '../storage/queries';

/** The steps of this visit, so that they are there again when one comes back to the place. */
let remembered: History<Brand> | undefined;

export interface BrandHistory {
  readonly brand: Brand;
  /** Changes a part of the brand. Changes with one gesture name make one step of undo. */
  put(part: Partial<Brand>, gesture?: string): void;
  settle(): void;
  undo(): void;
  redo(): void;
  readonly canUndo: boolean;
  readonly canRedo: boolean;
}

/**
 * Editing of the brand, every version written, with undo.
 * @param stored the brand as it lies in storage when the place is opened
 */
export function useBrandHistory(stored: Brand, onFault: (message: string) => void): BrandHistory {
  const { mutate } = useSaveBrand();
  const [history, setHistory] = useState(() =>
    remembered && JSON.stringify(remembered.present) === JSON.stringify(stored)
      ? remembered
      : startHistory(stored),
  );
  // Letters may be typed faster than the screen follows: each change counts from the one before it.
  const latest = useRef(history);
  const step = useCallback(
    (by: (history: History<Brand>) => History<Brand>) => {
      const next = by(latest.current);
      const isOther = next.present !== latest.current.present;
      latest.current = next;
      remembered = next;
      setHistory(next);
      if (isOther) mutate(next.present, { onError: (e) => onFault(e.message) });
    },
    [mutate, onFault],
  );
  const actions = useMemo(
    () => ({
      put: (part: Partial<Brand>, gesture?: string) =>
        step((h) => change(h, { ...h.present, ...part }, gesture)),
      settle: () => step(settle),
      undo: () => step(undo),
      redo: () => step(redo),
    }),
    [step],
  );
  return {
    brand: history.present,
    ...actions,
    canUndo: history.past.length > 0,
    canRedo: history.future.length > 0,
  };
}
