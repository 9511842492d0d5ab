import { useEffect, useRef } from 'react';
import { type StyleProp, View, type ViewStyle } from 'react-native';
import { elementOf } from '../ui/web';
import type { PreviewSurface } from './previewClient';

interface Props {
  readonly surface: PreviewSurface;
  /** Where it stands for a frame of the reel, 0..1 of the width it lies in. */
  readonly partOf: (frame: number) => number;
  readonly style: StyleProp<ViewStyle>;
}

/** A mark that goes along with the playhead. It is moved as it is, without rendering anything anew. */
export function MovingMark({ surface, partOf, style }: Props) {
  const mark = useRef<View>(null);
  useEffect(() => {
    const place = () => {
      const part = partOf(surface.snapshot().frame?.number ?? 0);
      const { style: at } = elementOf(mark)!;
      at.left = `${Math.min(1, Math.max(0, part)) * 100}%`;
    };
    place();
    return surface.subscribe(place);
  }, [surface, partOf]);
  return <View ref={mark} style={style} pointerEvents="none" />;
}
