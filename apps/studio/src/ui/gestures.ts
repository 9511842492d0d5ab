import { createContext, useContext } from 'react';

/** What a drag tells whoever keeps the history of what it changes. */
export interface Gestures {
  /** A drag begins: what it changes is a step of its own. */
  begin(): void;
  /** The browser took the pointer away: what the drag has changed is taken back. */
  cancel(): void;
}

const NONE: Gestures = { begin: () => undefined, cancel: () => undefined };

const GesturesContext = createContext(NONE);
export const GesturesProvider = GesturesContext.Provider;
export const useGestures = (): Gestures => useContext(GesturesContext);
