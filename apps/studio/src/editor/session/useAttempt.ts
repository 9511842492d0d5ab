import { EditError, type Reel } from '@fresh-reel/core';
import { useToast } from '../../ui/Toast';
import { useReelEditor } from './useReelEditor';

/**
 * Changes the reel, and tells in words when that cannot be done. A change is a step of undo; those of one gesture are
 * one together, until it is settled.
 * @returns whether it was done
 */
export function useAttempt(): (change: (reel: Reel) => Reel, gesture?: string) => boolean {
  const { reel, edit, settle } = useReelEditor();
  const toast = useToast();
  return (change, gesture) => {
    try {
      const next = change(reel);
      edit(() => next, gesture);
    } catch (error) {
      if (!(error instanceof EditError)) throw error;
      toast({ text: error.message });
      return false;
    }
    if (gesture === undefined) settle();
    return true;
  };
}
