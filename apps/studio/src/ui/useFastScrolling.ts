import { useEffect, useState } from 'react';

/** Pixels a second from which a list goes past, and milliseconds after which it has come to rest. */
const PASSING = 1800;
const REST = 140;

/** Whether an element is scrolled so fast that nothing of it can be looked at. */
export function useFastScrolling(element: HTMLElement): boolean {
  const [fast, setFast] = useState(false);
  useEffect(() => {
    let last = { top: element.scrollTop, at: performance.now() };
    let timer: ReturnType<typeof setTimeout> | undefined;
    const onScroll = () => {
      const now = { top: element.scrollTop, at: performance.now() };
      const speed = (Math.abs(now.top - last.top) * 1000) / Math.max(8, now.at - last.at);
      last = now;
      if (speed < PASSING) return;
      setFast(true);
      clearTimeout(timer);
      timer = setTimeout(() => setFast(false), REST);
    };
    element.addEventListener('scroll', onScroll, { passive: true });
    return () => {
      clearTimeout(timer);
      element.removeEventListener('scroll', onScroll);
    };
  }, [element]);
  return fast;
}
