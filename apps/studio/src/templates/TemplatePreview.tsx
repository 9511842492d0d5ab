import {
  type Brand,
  EMPTY_FILL,
  type Fill,
  type FrameShape,
  GraphicScene,
  layoutFrame,
  newReel,
  type Template,
} from '@fresh-reel/core';
import { useEffect, useMemo } from 'react';
import { StyleSheet, View } from 'react-native';
import { DOCUMENT_ONLY } from '../engine/documentOnly';
import { Ground } from '../preview/Ground';
import { useAttached, usePreviewSurface } from '../preview/usePreview';
import { lessMotion } from '../ui/motion';
import { colour } from '../ui/theme';
import { wornFill } from './ownFill';

interface Props {
  readonly template: Template;
  readonly shape: FrameShape;
  /** Moves when true; shows its still otherwise. */
  readonly moving: boolean;
  readonly brand?: Brand | null | undefined;
  /** What it is filled with, instead of its samples. */
  readonly fill?: Fill | undefined;
  /** Where several play in step, which time it is: it plays once each. */
  readonly round?: number | undefined;
}

/** A template made live: its still until it moves, wearing the user's brand if asked. */
export function TemplatePreview({ template, shape, moving, brand, fill, round }: Props) {
  const surface = usePreviewSurface();
  const holder = useAttached(surface);
  const reel = useMemo(
    () =>
      newReel(template, {
        id: `preview-${template.id}`,
        name: template.name,
        now: '',
        shape,
        fill: fill ?? wornFill(template, brand),
      }),
    [template, shape, brand, fill],
  );
  const scene = useMemo(
    () => new GraphicScene(template, EMPTY_FILL, layoutFrame(reel.frame), DOCUMENT_ONLY),
    [template, reel.frame],
  );
  const still = Math.round(scene.timeOf(template.still));
  useEffect(() => {
    surface.show(reel);
  }, [surface, reel]);
  useEffect(() => {
    if (moving && !lessMotion()) {
      surface.play(0, round === undefined);
    } else {
      surface.pause();
      surface.seek(still);
    }
  }, [surface, moving, still, round]);
  const ratio = reel.frame.width / reel.frame.height;
  return (
    <View style={[styles.picture, { aspectRatio: ratio }]}>
      {scene.transparent && <Ground />}
      <View ref={holder} style={StyleSheet.absoluteFill} />
    </View>
  );
}

const styles = StyleSheet.create({
  picture: { width: '100%', backgroundColor: colour.black, overflow: 'hidden' },
});
