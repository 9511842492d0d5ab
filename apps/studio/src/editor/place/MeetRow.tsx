import { cuesOf, meet, type ReelItem, stopMeeting, timecodeAt } from '@fresh-reel/core';
import { useState } from 'react';
import { StyleSheet, View } from 'react-native';
import { useAttempt } from '../../editing/session/useAttempt';
import { useReelEditor } from '../../editing/session/useReelEditor';
import { Button } from '../../ui/Button';
import { Choice } from '../../ui/Choice';
import { Txt } from '../../ui/Txt';
import { markerName } from './markerWords';

/** Which cue of a title falls on which marker, and stays there. */
export function MeetRow({ item }: { item: ReelItem & { kind: 'graphic' } }) {
  const { reel, mayEdit } = useReelEditor();
  const attempt = useAttempt();
  const cues = cuesOf(reel, item);
  const [chosen, setChosen] = useState<string>();
  if (cues.length === 0) return null;
  const { meets } = item;
  const cue = cues.find((c) => c.id === (chosen ?? meets?.cue)) ?? cues[0]!;
  const met = meets && reel.markers.find((m) => m.id === meets.marker);
  const meeting = meets && cues.find((c) => c.id === meets.cue);
  return (
    <View style={styles.all}>
      <Txt kind="strong">Meets</Txt>
      {met && meeting && (
        <View style={styles.row}>
          <Txt tone={meeting.frame === met.frame ? 'ink' : 'amber'} style={styles.words} testID="meets">
            {meeting.frame === met.frame
              ? `“${meeting.name}” meets “${markerName(met, reel.rate)}” at ${timecodeAt(met.frame, reel.rate)}.`
              : `“${meeting.name}” cannot come as early as “${markerName(met, reel.rate)}”.`}
          </Txt>
          <Button
            title="Let go"
            small
            disabled={!mayEdit}
            onPress={() => attempt((r) => stopMeeting(r, item.id))}
            testID="meet-stop"
          />
        </View>
      )}
      {cues.length > 1 && (
        <Choice
          label="Which moment of it"
          value={cue.id}
          options={cues.map((c) => ({ id: c.id, name: c.name }))}
          onChange={setChosen}
          testID="meet-cue"
        />
      )}
      {reel.markers.length === 0 ? (
        <Txt kind="small" tone="quiet">
          {`Set a marker where “${cue.name}” is to fall; then choose it here.`}
        </Txt>
      ) : (
        <Choice
          label={`What “${cue.name}” meets`}
          value={meets?.cue === cue.id ? meets.marker : undefined}
          options={reel.markers.slice(0, 60).map((m) => ({ id: m.id, name: markerName(m, reel.rate) }))}
          onChange={(marker) => attempt((r) => meet(r, item.id, cue.id, marker))}
          testID="meet-marker"
        />
      )}
    </View>
  );
}

const styles = StyleSheet.create({
  all: { gap: 8 },
  row: { flexDirection: 'row', alignItems: 'center', gap: 8 },
  words: { flex: 1 },
});
