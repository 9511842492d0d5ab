import { useEffect } from 'react';

/** The page's title while a screen shows: what it is of, then the app. */
export function useTitle(title: string): void {
  useEffect(() => {
    document.title = `${title} · Fresh Reel`;
  }, [title]);
}
