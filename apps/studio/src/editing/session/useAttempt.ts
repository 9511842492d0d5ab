import type { Reel } from '@fresh-reel/core';
import { useRef, useState } from 'react';
import { useReelEditor } from './useReelEditor';

/**
 * Changes the reel as its editor does, where what comes after depends on whether that was done. A change without a gesture
 * is a step of undo by itself. It is the same function as long as the reel is open.
 * @returns whether it was done
 */
export function useAttempt(): (change: (reel: Reel) => Reel, gesture?: string) => boolean {
  const { edit, settle } = useReelEditor();
  const now = useRef({ edit, settle });
  now.current = { edit, settle };
  const [attempt] = useState(() => (change: (reel: Reel) => Reel, gesture?: string): boolean => {
    const done = now.current.edit(change, gesture);
    if (done && gesture === undefined) now.current.settle();
    return done;
  });
  return attempt;
}
