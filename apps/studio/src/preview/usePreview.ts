import { useEffect, useRef, useState, useSyncExternalStore } from 'react';
import type { View } from 'react-native';
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
    const element = holder.current as unknown as HTMLElement | null;
    return element ? surface.attach(element) : undefined;
  }, [surface]);
  return holder;
}

/** What a surface shows, part of it: re-renders only when that part changes. */
export function usePreviewState<T>(surface: PreviewSurface, pick: (state: PreviewState) => T): T {
  return useSyncExternalStore(surface.subscribe, () => pick(surface.snapshot()));
}
