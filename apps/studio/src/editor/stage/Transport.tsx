import { StyleSheet, useWindowDimensions, View } from 'react-native';
import type { PreviewSurface } from '../../preview/previewClient';
import { usePreviewState } from '../../preview/usePreview';
import { IconButton } from '../../ui/Button';
import { TimeText } from '../timeline/Ribbon';

/** Below this, the time stands in a line of its own: there is no room for it and every button, whichever come. */
const NARROW = 440;

interface Props {
  readonly surface: PreviewSurface;
  readonly onPlay: () => void;
  readonly onNudge: (by: number) => void;
  readonly loop: boolean;
  readonly onLoop: (on: boolean) => void;
  /** Nothing when there is nothing to hear. */
  readonly silent: boolean | undefined;
  readonly onSilent: (on: boolean) => void;
  readonly safeAreas: boolean;
  readonly onSafeAreas: (on: boolean) => void;
  /** Opens the choice of what lies behind; nothing when the reel hides it. */
  readonly onGround: (() => void) | undefined;
}

/** Below the picture: play, single frames, the time, and what is seen and heard of it. */
export function Transport({
  surface,
  onPlay,
  onNudge,
  loop,
  onLoop,
  silent,
  onSilent,
  safeAreas,
  onSafeAreas,
  onGround,
}: Props) {
  // Whether there is a sound is known late: what stands below must not move then.
  const narrow = useWindowDimensions().width < NARROW;
  const playing = usePreviewState(surface, (s) => s.playing);
  return (
    <View>
      {narrow && (
        <View style={styles.time}>
          <TimeText surface={surface} />
        </View>
      )}
      <View style={styles.row}>
        <IconButton
          icon={playing ? 'pause' : 'play'}
          label={playing ? 'Pause' : 'Play'}
          onPress={onPlay}
          testID="play"
        />
        <IconButton
          icon="chevron-left"
          label="One frame back"
          onPress={() => onNudge(-1)}
          testID="frame-back"
        />
        <IconButton icon="chevron-right" label="One frame on" onPress={() => onNudge(1)} testID="frame-on" />
        <View style={styles.grow}>{!narrow && <TimeText surface={surface} />}</View>
        {silent !== undefined && (
          <IconButton
            icon={silent ? 'volume-x' : 'volume-2'}
            label={silent ? 'Hear the sound' : 'Play without sound'}
            onPress={() => onSilent(!silent)}
            testID="sound-on"
          />
        )}
        {onGround && <IconButton icon="image" label="What lies behind" onPress={onGround} testID="ground" />}
        <IconButton
          icon="repeat"
          label="Play in a loop"
          on={loop}
          onPress={() => onLoop(!loop)}
          testID="loop"
        />
        <IconButton
          icon="scan"
          label="Safe areas"
          on={safeAreas}
          onPress={() => onSafeAreas(!safeAreas)}
          testID="safe-areas"
        />
      </View>
    </View>
  );
}

const styles = StyleSheet.create({
  row: { flexDirection: 'row', alignItems: 'center', paddingHorizontal: 8 },
  time: { paddingHorizontal: 18, paddingTop: 4 },
  grow: { flex: 1 },
});
