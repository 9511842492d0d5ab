import { type Place, putValue, valueIn } from '@fresh-reel/core/make';
import { StyleSheet, View } from 'react-native';
import { useReelEditor } from '../../editing/session/useReelEditor';
import { NumberBox } from '../../ui/NumberBox';
import { digitsOf } from '../../ui/NumberRow';
import { Txt } from '../../ui/Txt';
import { useMade } from '../work/useWork';
import { idOfPlace } from './idOfPlace';

interface Props {
  readonly place: Place;
  readonly name: string;
  readonly min: number;
  readonly max: number;
  readonly rest: number;
  readonly step?: number;
}

/** A number of the document that is no property. */
export function PlainNumber({ place, name, min, max, rest, step = 1 }: Props) {
  const { template, make } = useMade();
  const { settle } = useReelEditor();
  const value = (valueIn(template, place) as number | undefined) ?? rest;
  return (
    <View style={styles.row}>
      <Txt style={styles.grow}>{name}</Txt>
      <NumberBox
        label={name}
        unit=""
        value={value}
        digits={Math.max(digitsOf(step), Number.isInteger(value) ? 0 : 2)}
        step={step}
        onChange={(v) =>
          make((t) => putValue(t, place, Math.min(max, Math.max(min, v))), `${idOfPlace(place)}-number`)
        }
        onSettle={settle}
        testID={idOfPlace(place)}
      />
    </View>
  );
}

const styles = StyleSheet.create({
  row: { flexDirection: 'row', alignItems: 'center', gap: 8, minHeight: 44 },
  grow: { flex: 1 },
});
