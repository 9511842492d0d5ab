import { useEffect } from 'react';
import { StyleSheet, View } from 'react-native';
import Svg, { Path } from 'react-native-svg';
import type { PreviewSurface } from '../../preview/previewClient';
import { usePreviewState } from '../../preview/usePreview';
import { colour } from '../../ui/theme';
import { useGraphicEditor } from '../session/useReelEditor';

interface Props {
  readonly surface: PreviewSurface;
  readonly layer: string;
  readonly width: number;
  readonly height: number;
  /** Pixels of the page a frame unit. */
  readonly k: number;
}

/** The ways the letters of a text take about this moment. A working aid: it is never rendered. */
export function LetterWays({ surface, layer, width, height, k }: Props) {
  const { graphic } = useGraphicEditor();
  const map = usePreviewState(surface, (s) => s.frame?.letters);
  const letters = map?.item === graphic.id && map.layer === layer ? map.letters : [];
  useEffect(() => {
    surface.traceLetters({ item: graphic.id, layer });
    return () => surface.traceLetters(undefined);
  }, [surface, graphic.id, layer]);
  const data = letters
    .flatMap(({ way }) => (way ? [way.map(([x, y]) => `${(x * k).toFixed(1)} ${(y * k).toFixed(1)}`)] : []))
    .map((points) => `M ${points.join(' L ')}`)
    .join(' ');
  if (data === '') return null;
  return (
    <View style={StyleSheet.absoluteFill} pointerEvents="none" testID="letter-ways">
      <Svg width={width} height={height}>
        <Path d={data} fill="none" stroke="rgba(22,32,43,0.6)" strokeWidth={3} />
        <Path d={data} fill="none" stroke={colour.accent} strokeWidth={1.5} />
      </Svg>
    </View>
  );
}
