import { EditError, type Reel } from '@fresh-reel/core';
import { useRef, useState } from 'react';
import { useToast } from '../../ui/Toast';
import { useReelEditor } from './useReelEditor';

/**
 * Changes the reel, and tells in words when that cannot be done. A change is a step of undo; those of one gesture are
 * one together, until it is settled. Of several before the page is drawn anew, each goes on from the one before. It is
 * the same function as long as the reel is open.
 * @returns whether it was done
 */
export function useAttempt(): (change: (reel: Reel) => Reel, gesture?: string) => boolean {
  const { reel, edit, settle, mayEdit } = useReelEditor();
  const toast = useToast();
  const now = useRef({ reel, edit, settle, mayEdit, toast });
  now.current = { reel, edit, settle, mayEdit, toast };
  const [attempt] = useState(() => (change: (reel: Reel) => Reel, gesture?: string): boolean => {
    const latest = now.current;
    try {
      const next = change(latest.reel);
      if (latest.mayEdit) latest.reel = next;
      latest.edit(() => next, gesture);
    } catch (error) {
      if (!(error instanceof EditError)) throw error;
      latest.toast({ text: error.message });
      return false;
    }
    if (gesture === undefined) latest.settle();
    return true;
  });
  return attempt;
}
