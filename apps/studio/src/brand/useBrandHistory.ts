import { type Brand, change, type History, redo, settle, startHistory, undo } from '@fresh-reel/core';
import { useCallback, useEffect, useMemo, useRef, useState } from 'react';
import { listBrands, unwrittenBrands } from '../storage/brand';
import { useSaveBrand } from '../storage/queries';
import { onChangedElsewhere } from '../storage/tabs';

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
      const before = latest.current.present;
      const next = by(latest.current);
      const isOther = next.present !== before;
      latest.current = next;
      remembered = next;
      setHistory(next);
      if (isOther) mutate({ brand: next.present, before }, { onError: (e) => onFault(e.message) });
    },
    [mutate, onFault],
  );
  useEffect(() => {
    // What another tab writes is what there is, here too; what was typed here meanwhile is on its way into it.
    const adopt = async () => {
      const found = (await listBrands()).find(({ id }) => id === latest.current.present.id);
      const isOn = unwrittenBrands().some(({ id }) => id === found?.id);
      if (!found || isOn || JSON.stringify(found) === JSON.stringify(latest.current.present)) return;
      latest.current = startHistory(found);
      remembered = latest.current;
      setHistory(latest.current);
    };
    return onChangedElsewhere((changed) => {
      if (changed === 'brands') void adopt().catch(() => undefined);
    });
  }, []);
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
