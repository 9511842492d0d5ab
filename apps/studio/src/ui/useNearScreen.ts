import { useEffect, useRef, useState } from 'react';
import type { View } from 'react-native';

/** Whether a view is on screen or nearly so: what is far away need not be drawn. Once true for good. */
export function useNearScreen(): { ref: React.RefObject<View | null>; near: boolean } {
  const ref = useRef<View>(null);
  const [near, setNear] = useState(false);
  useEffect(() => {
    const element = ref.current as unknown as HTMLElement | null;
    if (!element || near) return;
    const observer = new IntersectionObserver(([entry]) => entry?.isIntersecting && setNear(true), {
      rootMargin: '200px',
    });
    observer.observe(element);
    return () => observer.disconnect();
  }, [near]);
  return { ref, near };
}
