import type { Fill, FrameShape, Template } from '@fresh-reel/core';
import { StyleSheet, View } from 'react-native';
import { TemplatePreview } from '../preview/TemplatePreview';
import { CORNER, colour } from '../ui/theme';
import { useNearScreen } from '../ui/useNearScreen';

interface Props {
  readonly template: Template;
  readonly shape: FrameShape;
  /** With the look that it is in. */
  readonly fill: Fill;
  readonly chosen: boolean;
  /** Where several play in step, which time it is. */
  readonly round?: number | undefined;
}

/** A look among others of its template, moving while it is on screen; the chosen one has an edge. */
export function LookPicture({ shape, chosen, ...shown }: Props) {
  const { ref, near } = useNearScreen();
  return (
    <View style={[styles.edge, chosen && styles.chosen]}>
      <View ref={ref} style={[styles.picture, styles[shape]]}>
        {near && <TemplatePreview key={shape} shape={shape} moving {...shown} />}
      </View>
    </View>
  );
}

const styles = StyleSheet.create({
  edge: { borderWidth: 2, borderColor: 'transparent', borderRadius: CORNER, padding: 2 },
  chosen: { borderColor: colour.accent },
  picture: { borderRadius: CORNER - 3, overflow: 'hidden', backgroundColor: colour.surround },
  wide: { aspectRatio: 16 / 9 },
  square: { aspectRatio: 1 },
  tall: { aspectRatio: 9 / 16 },
});
