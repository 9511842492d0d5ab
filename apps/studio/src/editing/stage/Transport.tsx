import { memo, useState } from 'react';
import { StyleSheet, useWindowDimensions, View } from 'react-native';
import type { PreviewSurface } from '../../preview/previewClient';
import { usePreviewState } from '../../preview/usePreview';
import { GroundSheet } from '../../shelf/GroundSheet';
import { IconButton } from '../../ui/Button';
import type { Playing } from '../session/usePlaying';
import { TimeText } from '../timeline/Ribbon';

/** Below this, the time stands in a line of its own: there is no room for it and every button, whichever come. */
const NARROW = 440;

interface Props {
  readonly surface: PreviewSurface;
  readonly playing: Playing;
  /** What lies behind shows through. */
  readonly transparent: boolean;
}

/** Below the picture: play, single frames, the time, and what is seen and heard of it. */
export const Transport = memo(function Transport({ surface, playing, transparent }: Props) {
  const { loop, setLoop, silent, setSilent, safeAreas, setSafeAreas, play, nudge } = playing;
  const [ground, setGround] = useState(false);
  // Whether there is a sound is known late: what stands below must not move then.
  const narrow = useWindowDimensions().width < NARROW;
  const goes = usePreviewState(surface, (s) => s.playing);
  return (
    <View>
      {narrow && (
        <View style={styles.time}>
          <TimeText surface={surface} />
        </View>
      )}
      <View style={styles.row}>
        <IconButton
          icon={goes ? 'pause' : 'play'}
          label={goes ? 'Pause' : 'Play'}
          onPress={play}
          testID="play"
        />
        <IconButton
          icon="chevron-left"
          label="One frame back"
          onPress={() => nudge(-1)}
          testID="frame-back"
        />
        <IconButton icon="chevron-right" label="One frame on" onPress={() => nudge(1)} testID="frame-on" />
        <View style={styles.grow}>{!narrow && <TimeText surface={surface} />}</View>
        {silent !== undefined && (
          <IconButton
            icon={silent ? 'volume-x' : 'volume-2'}
            label={silent ? 'Hear the sound' : 'Play without sound'}
            onPress={() => setSilent(!silent)}
            testID="sound-on"
          />
        )}
        {transparent && (
          <IconButton icon="image" label="What lies behind" onPress={() => setGround(true)} testID="ground" />
        )}
        <IconButton
          icon="repeat"
          label="Play in a loop"
          on={loop}
          onPress={() => setLoop(!loop)}
          testID="loop"
        />
        <IconButton
          icon="scan"
          label="Safe areas"
          on={safeAreas}
          onPress={() => setSafeAreas(!safeAreas)}
          testID="safe-areas"
        />
      </View>
      {ground && <GroundSheet onClose={() => setGround(false)} />}
    </View>
  );
});

const styles = StyleSheet.create({
  row: { flexDirection: 'row', alignItems: 'center', paddingHorizontal: 8 },
  time: { paddingHorizontal: 18, paddingTop: 4 },
  grow: { flex: 1 },
});
