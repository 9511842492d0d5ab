import { StyleSheet, View } from 'react-native';
import { Press } from './Press';
import { Txt } from './Txt';
import { colour, TOUCH } from './theme';

interface Props {
  readonly label: string;
  readonly value: boolean;
  readonly onChange: (value: boolean) => void;
  readonly testID?: string;
  readonly hideLabel?: boolean;
}

/** On or off. */
export function Toggle({ label, value, onChange, testID, hideLabel }: Props) {
  return (
    <Press
      role="switch"
      aria-checked={value}
      aria-label={label}
      onPress={() => onChange(!value)}
      testID={testID}
      style={styles.row}
    >
      <View style={[styles.track, value && styles.on]}>
        <View style={[styles.knob, value && styles.knobOn]} />
      </View>
      {!hideLabel && <Txt kind="strong">{label}</Txt>}
    </Press>
  );
}

const styles = StyleSheet.create({
  row: { minHeight: TOUCH, flexDirection: 'row', alignItems: 'center', gap: 10, borderRadius: 8 },
  track: { width: 46, height: 28, borderRadius: 14, backgroundColor: colour.edge, padding: 3 },
  on: { backgroundColor: colour.leaf },
  knob: { width: 22, height: 22, borderRadius: 11, backgroundColor: colour.card },
  knobOn: { marginLeft: 18 },
});
