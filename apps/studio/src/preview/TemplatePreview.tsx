import {
  type Brand,
  EMPTY_FILL,
  type Fill,
  FRAMES,
  type FrameShape,
  GraphicScene,
  layoutFrame,
  newReel,
  type Template,
} from '@fresh-reel/core';
import { useEffect, useMemo, useState } from 'react';
import { Image, StyleSheet, View } from 'react-native';
import { DOCUMENT_ONLY } from '../engine/documentOnly';
import { lessMotion } from '../ui/motion';
import { colour } from '../ui/theme';
import { Ground } from './Ground';
import { wornFill } from './ownFill';
import { useAttached, usePreviewState, usePreviewSurface } from './usePreview';

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
  /** The address of a picture of its still: nothing is painted until it moves. */
  readonly still?: string | undefined;
}

/** The still of a built-in template as it comes, which lies beside its document. */
export const shippedStill = (id: string): string => `/templates/${id}/still.webp`;

interface StillProps {
  readonly source: string;
  readonly shape: FrameShape;
  /** Whether a ground shows through it. */
  readonly transparent: boolean;
  /** It could not be loaded. */
  readonly onLost: () => void;
}

/** A template's still as a file: what stands there until its document is here. */
export function TemplateStill({ source, shape, transparent, onLost }: StillProps) {
  const { width, height } = FRAMES[shape];
  return (
    <View style={[styles.picture, { aspectRatio: width / height }]}>
      {transparent && <Ground />}
      <Image source={{ uri: source }} style={styles.still} onError={onLost} alt="" aria-hidden />
    </View>
  );
}

/** A template as it looks: its still until it moves, wearing the user's brand if asked. */
export function TemplatePreview({ template, shape, moving, brand, fill, round, still }: Props) {
  const frame = FRAMES[shape];
  const scene = useMemo(
    () => new GraphicScene(template, EMPTY_FILL, layoutFrame(frame), DOCUMENT_ONLY),
    [template, frame],
  );
  // Where it cannot be loaded, the still is painted.
  const [lost, setLost] = useState(false);
  const [painted, setPainted] = useState(false);
  return (
    <View style={[styles.picture, { aspectRatio: frame.width / frame.height }]}>
      {scene.transparent && <Ground />}
      {still && !lost && (
        <Image
          source={{ uri: still }}
          style={[styles.still, painted && styles.hidden]}
          onError={() => setLost(true)}
          alt=""
          aria-hidden
        />
      )}
      {(moving || !still || lost) && (
        <Painted
          {...{ template, shape, moving, brand, fill, round }}
          still={Math.round(scene.timeOf(template.still))}
          onPainted={setPainted}
        />
      )}
    </View>
  );
}

interface PaintedProps extends Omit<Props, 'still'> {
  /** The frame of the still. */
  readonly still: number;
  readonly onPainted: (painted: boolean) => void;
}

function Painted({ template, shape, moving, brand, fill, round, still, onPainted }: PaintedProps) {
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
  const surface = usePreviewSurface();
  const holder = useAttached(surface);
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
  const painted = usePreviewState(surface, (state) => state.frame !== undefined);
  useEffect(() => {
    onPainted(painted);
    return () => onPainted(false);
  }, [painted, onPainted]);
  return <View ref={holder} style={StyleSheet.absoluteFill} />;
}

const styles = StyleSheet.create({
  // A still gives way to what moves, also between pressing and letting go: what is touched is what it lies in.
  picture: { width: '100%', backgroundColor: colour.black, overflow: 'hidden', pointerEvents: 'none' },
  still: { position: 'absolute', width: '100%', height: '100%' },
  hidden: { display: 'none' },
});
