import { type RefObject, useLayoutEffect } from 'react';
import type { ScrollView } from 'react-native';

/** How far each place or step was scrolled, in pixels. */
export interface ScrollPlaces {
  get(key: string): number | undefined;
  set(key: string, y: number): unknown;
}

/**
 * What scrolls opens where it was left. It hears the element itself: the scroll view's own events come late, and once
 * its view is gone they tell of 0. The element's come with the next frame, so what is clicked looks first.
 */
export function useScrollPlace(ref: RefObject<ScrollView | null>, key: string, places: ScrollPlaces): void {
  useLayoutEffect(() => {
    const element = ref.current?.getScrollableNode() as HTMLElement | undefined;
    if (!element) return;
    element.scrollTop = places.get(key) ?? 0;
    const keep = () => places.set(key, element.scrollTop);
    element.addEventListener('scroll', keep, { passive: true });
    window.addEventListener('click', keep, true);
    return () => {
      element.removeEventListener('scroll', keep);
      window.removeEventListener('click', keep, true);
    };
  }, [ref, key, places]);
}
