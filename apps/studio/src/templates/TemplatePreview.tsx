import {
  type Brand,
  EMPTY_FILL,
  type FrameShape,
  GraphicScene,
  layoutFrame,
  newReel,
  type Template,
  wearBrand,
} from '@fresh-reel/core';
import { useEffect, useMemo, useState } from 'react';
import { StyleSheet, View } from 'react-native';
import { DOCUMENT_ONLY } from '../engine/documentOnly';
import { useAttached, usePreviewSurface } from '../preview/usePreview';

interface Props {
  readonly template: Template;
  readonly shape: FrameShape;
  /** Moves when true; shows its still otherwise. */
  readonly moving: boolean;
  readonly brand?: Brand | null | undefined;
}

const reduced = () => window.matchMedia?.('(prefers-reduced-motion: reduce)').matches ?? false;

/** A template made live: its still until it moves, wearing the user's brand if asked. */
export function TemplatePreview({ template, shape, moving, brand }: Props) {
  const surface = usePreviewSurface();
  const holder = useAttached(surface);
  const reel = useMemo(
    () =>
      newReel(template, {
        id: `preview-${template.id}`,
        name: template.name,
        now: '',
        shape,
        fill: brand ? wearBrand(template, EMPTY_FILL, brand) : EMPTY_FILL,
      }),
    [template, shape, brand],
  );
  const [still] = useState(() => {
    const scene = new GraphicScene(template, EMPTY_FILL, layoutFrame(reel.frame), DOCUMENT_ONLY);
    return Math.round(scene.timeOf(template.still));
  });
  useEffect(() => {
    surface.show(reel);
  }, [surface, reel]);
  useEffect(() => {
    if (moving && !reduced()) {
      surface.play(0, true);
    } else {
      surface.pause();
      surface.seek(still);
    }
  }, [surface, moving, still]);
  const ratio = reel.frame.width / reel.frame.height;
  return (
    <View style={[styles.picture, { aspectRatio: ratio }]}>
      <View ref={holder} style={styles.fill} />
    </View>
  );
}

const styles = StyleSheet.create({
  picture: {
    width: '100%',
    backgroundColor: '#6E6E6E',
    backgroundImage: 'repeating-conic-gradient(#787878 0% 25%, #6A6A6A 0% 50%)',
    backgroundSize: '18px 18px',
    overflow: 'hidden',
  } as object,
  fill: { position: 'absolute', left: 0, top: 0, right: 0, bottom: 0 },
});
