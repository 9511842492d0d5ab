import { EditError, type Reel } from '@fresh-reel/core';
import { useToast } from '../../ui/Toast';
import { useReelEditor } from '../session/useReelEditor';

/** Changes the reel, and tells in words when that cannot be done. */
export function useAttempt(): (change: (reel: Reel) => Reel) => boolean {
  const { reel, edit, settle } = useReelEditor();
  const toast = useToast();
  return (change) => {
    try {
      const next = change(reel);
      edit(() => next);
      settle();
      return true;
    } catch (error) {
      if (!(error instanceof EditError)) throw error;
      toast({ text: error.message });
      return false;
    }
  };
}
