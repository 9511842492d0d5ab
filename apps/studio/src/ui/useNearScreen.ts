import { useEffect, useRef, useState } from 'react';
import type { View } from 'react-native';
import { elementOf } from './web';

/** Whether a view is on screen or nearly so: what is far away need not be drawn, nor kept in memory. */
export function useNearScreen(): { ref: React.RefObject<View | null>; near: boolean } {
  const ref = useRef<View>(null);
  const [near, setNear] = useState(false);
  useEffect(() => {
    const element = elementOf(ref);
    return element ? whetherNear(element, setNear) : undefined;
  }, []);
  return { ref, near };
}

/** Tells whether an element is near the screen, now and whenever that changes, until the result is called. */
export function whetherNear(element: Element, tell: (near: boolean) => void): () => void {
  const observer = new IntersectionObserver(
    // A busy page hears of several changes at once: the last one is how it is now.
    (entries) => tell(entries.at(-1)?.isIntersecting ?? false),
    { rootMargin: '300px' },
  );
  observer.observe(element);
  return () => observer.disconnect();
}
