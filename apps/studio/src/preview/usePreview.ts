import { useEffect, useRef, useState, useSyncExternalStore } from 'react';
import type { View } from 'react-native';
import { elementOf } from '../ui/web';
import { type PreviewState, PreviewSurface } from './previewClient';

/** A surface of one's own, for the life of the component. */
export function usePreviewSurface(): PreviewSurface {
  const [surface] = useState(() => new PreviewSurface());
  return surface;
}

/** Draws a surface into a view. */
export function useAttached(surface: PreviewSurface): React.RefObject<View | null> {
  const holder = useRef<View>(null);
  useEffect(() => {
    const element = elementOf(holder);
    return element ? surface.attach(element) : undefined;
  }, [surface]);
  return holder;
}

/**
 * What a surface shows, part of it: re-renders only when that part changes.
 * @param same when two parts count as the same
 */
export function usePreviewState<T>(
  surface: PreviewSurface,
  pick: (state: PreviewState) => T,
  same: (a: T, b: T) => boolean = Object.is,
): T {
  const last = useRef<{ readonly picked: T } | undefined>(undefined);
  return useSyncExternalStore(surface.subscribe, () => {
    const picked = pick(surface.snapshot());
    if (!last.current || !same(last.current.picked, picked)) last.current = { picked };
    return last.current.picked;
  });
}

/** Two parts with the same content. */
export const sameContent = (a: unknown, b: unknown): boolean => JSON.stringify(a) === JSON.stringify(b);
