import { useEffect, useRef, useState } from 'react';
import type { View } from 'react-native';
import { elementOf } from './web';

/** Whether a view is on screen or nearly so: what is far away need not be drawn, nor kept in memory. */
export function useNearScreen(): { ref: React.RefObject<View | null>; near: boolean } {
  const ref = useRef<View>(null);
  const [near, setNear] = useState(false);
  useEffect(() => {
    const element = elementOf(ref);
    if (!element) return;
    const observer = new IntersectionObserver(([entry]) => setNear(entry?.isIntersecting ?? false), {
      rootMargin: '300px',
    });
    observer.observe(element);
    return () => observer.disconnect();
  }, []);
  return { ref, near };
}
