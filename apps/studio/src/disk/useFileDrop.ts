import { type RefObject, useEffect, useRef, useState } from 'react';
import type { View } from 'react-native';
import { elementOf } from '../ui/web';

/** Takes files dropped on a view. Tells whether one is held over it now. */
export function useFileDrop(onFiles: (files: readonly File[]) => void): {
  ref: RefObject<View | null>;
  over: boolean;
} {
  const ref = useRef<View>(null);
  const [over, setOver] = useState(false);
  const take = useRef(onFiles);
  take.current = onFiles;
  useEffect(() => {
    const element = elementOf(ref);
    if (!element) return;
    const hold = (event: DragEvent) => {
      if (![...(event.dataTransfer?.types ?? [])].includes('Files')) return;
      event.preventDefault();
      setOver(true);
    };
    const leave = () => setOver(false);
    const drop = (event: DragEvent) => {
      event.preventDefault();
      setOver(false);
      const files = [...(event.dataTransfer?.files ?? [])];
      if (files.length > 0) take.current(files);
    };
    element.addEventListener('dragover', hold);
    element.addEventListener('dragleave', leave);
    element.addEventListener('drop', drop);
    return () => {
      element.removeEventListener('dragover', hold);
      element.removeEventListener('dragleave', leave);
      element.removeEventListener('drop', drop);
    };
  }, []);
  return { ref, over };
}
