import { type Mark, secondsAt } from '@fresh-reel/core';
import { type Place, putValue, valueIn } from '@fresh-reel/core/make';
import { StyleSheet, View } from 'react-native';
import { useDesk } from '../../editing/session/desk';
import { useGraphicEditor } from '../../editing/session/useReelEditor';
import { IconButton } from '../../ui/Button';
import { Choice } from '../../ui/Choice';
import { NumberBox } from '../../ui/NumberBox';
import { Txt } from '../../ui/Txt';
import { secondsText } from '../../ui/units';
import { useMarkNow } from '../work/useMarkNow';
import { useMade } from '../work/useWork';
import { idOfPlace } from './idOfPlace';

const STRETCHES = [
  { id: 'in', name: 'In' },
  { id: 'hold', name: 'Hold' },
  { id: 'out', name: 'Out' },
] as const;

/** A moment: frames after the beginning of a stretch, taken from the playhead or shown by it. */
export function MarkRow({ place, name }: { place: Place; name: string }) {
  const { template, make } = useMade();
  const { settle, scene, time } = useGraphicEditor();
  const { seek } = useDesk();
  const now = useMarkNow();
  const { at, of } = valueIn(template, place) as Mark;
  const id = idOfPlace(place);
  const put = (part: Partial<Mark>, gesture?: string) =>
    make((t) => putValue(t, place, { ...(valueIn(t, place) as object), ...part }), gesture);
  return (
    <View style={styles.all}>
      <View style={styles.row}>
        <Txt style={styles.grow}>{name}</Txt>
        <Txt kind="small" tone="quiet">
          {secondsText(secondsAt(scene.timeOf({ at, of }), template.rate))}
        </Txt>
        <IconButton
          icon="eye"
          label={`Show ${name}`}
          onPress={() => seek(time.frameOf(scene.timeOf({ at, of })))}
          testID={`show-${id}`}
        />
        <IconButton
          icon="flag"
          label={`Set ${name} to the playhead`}
          onPress={() => put(now())}
          testID={`now-${id}`}
        />
      </View>
      <View style={styles.row}>
        <Choice
          label={`Stretch of ${name}`}
          options={STRETCHES}
          value={of}
          onChange={(next) => put({ of: next })}
          testID={`of-${id}`}
        />
        <NumberBox
          label={name}
          unit="f"
          value={at}
          digits={0}
          step={1}
          onChange={(v) => put({ at: Math.round(v) }, `${id}-at`)}
          onSettle={settle}
          testID={id}
        />
      </View>
    </View>
  );
}

const styles = StyleSheet.create({
  all: { gap: 2 },
  row: { flexDirection: 'row', flexWrap: 'wrap', alignItems: 'center', gap: 8 },
  grow: { flex: 1 },
});
