import { lazy, Suspense, useState } from 'react';
import { StyleSheet, View } from 'react-native';
import { useReelEditor } from '../../editing/session/useReelEditor';
import type { Survey } from '../../render/measure/survey';
import { Choice } from '../../ui/Choice';
import { NumberRow } from '../../ui/NumberRow';
import { Txt } from '../../ui/Txt';
import { levelText } from '../../ui/units';

// What draws charts is loaded when there is one to draw.
const CourseChart = lazy(() => import('./CourseChart'));

/** Programme loudness that is usually asked for, in LUFS: EBU R 128, and two of common practice. */
const WANTED = [
  { lufs: -23, name: '-23, for broadcast' },
  { lufs: -16, name: '-16, for speech online' },
  { lufs: -14, name: '-14, for music online' },
] as const;

interface Props {
  readonly survey: Survey | undefined;
  readonly wanted: number | undefined;
  readonly onWanted: (lufs: number | undefined) => void;
}

/** How loud it is, over time and in all, and how loud it is wanted. */
export function SoundPart({ survey, wanted, onWanted }: Props) {
  const { reel, edit, settle } = useReelEditor();
  const [width, setWidth] = useState(0);
  const heard = survey?.heard;
  return (
    <View style={styles.group} onLayout={(event) => setWidth(event.nativeEvent.layout.width)}>
      <Txt kind="lead" level={2}>
        Loudness
      </Txt>
      <Choice
        label="Loudness that is wanted"
        testID="output-loudness"
        value={wanted === undefined ? 'any' : String(wanted)}
        options={[
          { id: 'any', name: 'As it is' },
          ...WANTED.map(({ lufs, name }) => ({ id: String(lufs), name })),
        ]}
        onChange={(value) => onWanted(value === 'any' ? undefined : Number(value))}
      />
      <NumberRow
        name="Level of all"
        value={reel.level ?? 0}
        min={-24}
        max={24}
        step={0.1}
        unit="dB"
        rest={0}
        resets
        onChange={(level) => edit((r) => ({ ...r, level }))}
        onSettle={settle}
        testID="reel-level"
      />
      <Txt kind="small" tone="quiet" testID="loudness">
        {heard
          ? `It is ${levelText(heard.facts.loudness)} LUFS in all, highest peak ${levelText(heard.facts.peak)} dBTP.`
          : 'Not listened to yet.'}
      </Txt>
      {heard && width > 0 && heard.course.length > 1 && (
        <Suspense fallback={<View style={styles.chart} />}>
          <CourseChart heard={heard} width={width} wanted={wanted} />
        </Suspense>
      )}
    </View>
  );
}

const styles = StyleSheet.create({ group: { gap: 10 }, chart: { height: 150 } });
