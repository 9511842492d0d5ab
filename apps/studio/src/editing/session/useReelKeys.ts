import { useEffect } from 'react';
import { useReelEditor } from './useReelEditor';

interface Doing {
  readonly play: () => void;
  /** Moves the playhead by frames. */
  readonly nudge: (by: number) => void;
  /** Frames of a second. */
  readonly second: number;
}

/** What takes its keys itself. */
const OWN_KEYS =
  'input, textarea, a, button, [role="button"], [role="link"], [role="radio"], [role="switch"], [role="slider"], [role="tab"], [role="dialog"]';

/** Undo and redo everywhere; space, the arrow keys and the page keys where nothing else has them. */
export function useReelKeys({ play, nudge, second }: Doing): void {
  const { undo, redo } = useReelEditor();
  useEffect(() => {
    const onKey = (e: KeyboardEvent) => {
      const key = e.key.toLowerCase();
      if ((e.metaKey || e.ctrlKey) && !e.altKey && (key === 'z' || key === 'y')) {
        e.preventDefault();
        if (key === 'y' || e.shiftKey) redo();
        else undo();
        return;
      }
      if (e.altKey || (e.target as HTMLElement).closest(OWN_KEYS)) return;
      const by = {
        ArrowLeft: e.shiftKey ? -10 : -1,
        ArrowRight: e.shiftKey ? 10 : 1,
        PageUp: -second,
        PageDown: second,
      }[e.key];
      if (by === undefined && e.key !== ' ') return;
      e.preventDefault();
      if (by === undefined) play();
      else nudge(by);
    };
    // Fields keep their keys to themselves; the capture phase comes before them.
    window.addEventListener('keydown', onKey, true);
    return () => window.removeEventListener('keydown', onKey, true);
  }, [play, nudge, second, undo, redo]);
}
