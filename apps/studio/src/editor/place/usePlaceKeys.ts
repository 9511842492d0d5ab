import { useEffect, useRef } from 'react';
import { isKey, type PlaceAction } from './actions';

/** Fields keep their keys, and so does what lies over the screen. */
const KEEPS_KEYS = 'input, textarea, select, [contenteditable="true"], [role="dialog"]';

/**
 * Keys of Place. They come before those of the picture and the line.
 * @param singles whether single letters and signs count; they can be switched off (WCAG 2.2, 2.1.4)
 */
export function usePlaceKeys(actions: readonly PlaceAction[], singles: boolean): void {
  const latest = useRef({ actions, singles });
  latest.current = { actions, singles };
  useEffect(() => {
    const onKey = (e: KeyboardEvent) => {
      if ((e.target as HTMLElement).closest(KEEPS_KEYS)) return;
      const found = latest.current.actions.find((action) =>
        action.keys.some(
          (spec) => (latest.current.singles || spec.mod || spec.alt || spec.key.length > 1) && isKey(spec, e),
        ),
      );
      if (!found?.able) return;
      // Words that are selected on the page are what is copied.
      if (e.key.toLowerCase() === 'c' && (e.ctrlKey || e.metaKey) && getSelection()?.toString()) return;
      e.preventDefault();
      e.stopImmediatePropagation();
      found.run();
    };
    window.addEventListener('keydown', onKey, true);
    return () => window.removeEventListener('keydown', onKey, true);
  }, []);
}
