import {
  addMarker,
  changeMarker,
  MARKER_USES,
  type Marker,
  type MarkerUse,
  reelEnd,
  removeMarkers,
} from '@fresh-reel/core';
import { StyleSheet, View } from 'react-native';
import { useDesk } from '../../editing/session/desk';
import { useAttempt } from '../../editing/session/useAttempt';
import { useReelEditor } from '../../editing/session/useReelEditor';
import { Button, IconButton } from '../../ui/Button';
import { Choice } from '../../ui/Choice';
import { Field } from '../../ui/Field';
import { Txt } from '../../ui/Txt';
import { colour } from '../../ui/theme';
import { colourOfUse, USE_NAMES } from './markerWords';
import { Suggestions } from './Suggestions';
import { TimeField } from './TimeField';

/** Markers, in time: named, coloured by their use. */
export function MarkerList() {
  const { reel, mayEdit } = useReelEditor();
  const { surface } = useDesk();
  const attempt = useAttempt();
  return (
    <View style={styles.all}>
      <Txt kind="lead" level={2}>
        Markers
      </Txt>
      <View style={styles.row}>
        <Button
          title="Set a marker"
          icon="flag"
          disabled={!mayEdit}
          onPress={() => attempt((r) => addMarker(r, surface.position).reel)}
          testID="marker-add"
        />
        {reel.markers.length > 1 && (
          <Button
            title="Take all away"
            kind="plain"
            disabled={!mayEdit}
            onPress={() =>
              attempt((r) =>
                removeMarkers(
                  r,
                  r.markers.map((m) => m.id),
                ),
              )
            }
            testID="markers-clear"
          />
        )}
      </View>
      <Suggestions />
      {reel.markers.map((marker) => (
        <MarkerRow key={marker.id} marker={marker} />
      ))}
    </View>
  );
}

function MarkerRow({ marker }: { marker: Marker }) {
  const { reel, mayEdit } = useReelEditor();
  const { seek } = useDesk();
  const attempt = useAttempt();
  const { id, frame, name, use = 'note' } = marker;
  const change = (part: Partial<Marker>, gesture?: string) =>
    attempt((r) => changeMarker(r, id, part), gesture);
  const past = frame >= reelEnd(reel);
  return (
    <View style={[styles.marker, { borderColor: colourOfUse(use) }]} testID={`marker-${id}`}>
      <View style={styles.row}>
        <TimeField
          label={past ? 'At, after the end' : 'At'}
          frame={frame}
          rate={reel.rate}
          disabled={!mayEdit}
          onChange={(f) => change({ frame: f })}
          testID={`marker-at-${id}`}
        />
        <View style={styles.name}>
          <Field
            label="Called"
            value={name}
            placeholder={USE_NAMES[use]}
            onChangeText={(text) => change({ name: text.slice(0, 80) }, `marker-name-${id}`)}
            testID={`marker-name-${id}`}
          />
        </View>
        <IconButton
          icon="arrow-right"
          label="Take the playhead there"
          disabled={past}
          onPress={() => seek(frame)}
          testID={`marker-go-${id}`}
        />
        <IconButton
          icon="x"
          label="Take this marker away"
          disabled={!mayEdit}
          onPress={() => attempt((r) => removeMarkers(r, [id]))}
          testID={`marker-remove-${id}`}
        />
      </View>
      <Choice
        label="What it is for"
        value={use}
        options={MARKER_USES.map((u) => ({ id: u, name: USE_NAMES[u] }))}
        onChange={(u: MarkerUse) => change({ use: u })}
        testID={`marker-use-${id}`}
      />
    </View>
  );
}

const styles = StyleSheet.create({
  all: { gap: 10, marginTop: 8 },
  row: { flexDirection: 'row', flexWrap: 'wrap', alignItems: 'flex-end', gap: 8 },
  name: { flexGrow: 1, flexBasis: 76 },
  marker: { gap: 8, paddingLeft: 10, borderLeftWidth: 4, borderColor: colour.amber },
});
