import { changeTracks, given, type Track } from '@fresh-reel/core';
import { StyleSheet, View } from 'react-native';
import { useAttempt } from '../../editing/session/useAttempt';
import { useReelEditor } from '../../editing/session/useReelEditor';
import { IconButton } from '../../ui/Button';
import { Field } from '../../ui/Field';
import { Txt } from '../../ui/Txt';
import { trackName } from './itemWords';

type Changes = { readonly [K in 'name' | 'hidden' | 'silent' | 'locked']?: Track[K] | undefined };

/** The tracks, the uppermost first: named, hidden, silenced, locked, and put in another order. */
export function TrackList() {
  const { reel, mayEdit } = useReelEditor();
  const attempt = useAttempt();
  /** Sets parts of a track; one that is `undefined` is taken away. */
  const change = (id: string, part: Changes, gesture?: string) =>
    attempt((r) => changeTracks(r, (t) => (t.id === id ? given({ ...t, ...part }) : t)), gesture);
  const turn = (track: Track, part: 'hidden' | 'silent' | 'locked') =>
    change(track.id, { [part]: track[part] ? undefined : true });
  const up = (id: string) =>
    attempt((r) => {
      const at = r.tracks.findIndex((t) => t.id === id);
      const tracks = [...r.tracks];
      [tracks[at], tracks[at + 1]] = [tracks[at + 1]!, tracks[at]!];
      return { ...r, tracks };
    });
  return (
    <View style={styles.all}>
      <Txt kind="lead" level={2}>
        Tracks
      </Txt>
      {[...reel.tracks].reverse().map((track, i) => (
        <View key={track.id} style={styles.row}>
          <View style={styles.name}>
            <Field
              label={`Name of ${trackName(reel, track.id)}`}
              hideLabel
              placeholder={trackName(reel, track.id)}
              value={track.name ?? ''}
              onChangeText={(name) =>
                change(track.id, { name: name.slice(0, 80) || undefined }, `track-name-${track.id}`)
              }
              testID={`track-name-${track.id}`}
            />
          </View>
          <IconButton
            icon={track.hidden ? 'eye-off' : 'eye'}
            label={track.hidden ? 'Show this track' : 'Hide this track'}
            on={track.hidden ?? false}
            disabled={!mayEdit}
            onPress={() => turn(track, 'hidden')}
            testID={`track-hide-${track.id}`}
          />
          <IconButton
            icon={track.silent ? 'volume-x' : 'volume-2'}
            label={track.silent ? 'Let this track be heard' : 'Silence this track'}
            on={track.silent ?? false}
            disabled={!mayEdit}
            onPress={() => turn(track, 'silent')}
            testID={`track-silence-${track.id}`}
          />
          <IconButton
            icon="lock"
            label={track.locked ? 'Unlock this track' : 'Lock this track'}
            on={track.locked ?? false}
            disabled={!mayEdit}
            onPress={() => turn(track, 'locked')}
            testID={`track-lock-${track.id}`}
          />
          <IconButton
            icon="arrow-up"
            label="Bring this track up"
            disabled={!mayEdit || i === 0}
            onPress={() => up(track.id)}
            testID={`track-up-${track.id}`}
          />
        </View>
      ))}
    </View>
  );
}

const styles = StyleSheet.create({
  all: { gap: 8, marginTop: 8 },
  row: { flexDirection: 'row', alignItems: 'center', gap: 2 },
  name: { flex: 1 },
});
