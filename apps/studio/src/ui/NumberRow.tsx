import type { ReactNode } from 'react';
import { StyleSheet, View } from 'react-native';
import { NumberBox } from './NumberBox';
import { Row } from './Row';
import { Slider } from './Slider';

interface Props {
  readonly name: string;
  readonly value: number;
  readonly min: number;
  readonly max: number;
  readonly step: number;
  readonly unit: string;
  readonly digits?: number;
  /** The default, when it can be gone back to. */
  readonly rest?: number | undefined;
  readonly onChange: (value: number) => void;
  readonly onSettle: () => void;
  /** How to go back to the default; by giving `rest`, when absent and `resets` is set. */
  readonly onReset?: (() => void) | undefined;
  readonly resets?: boolean;
  readonly side?: ReactNode;
  readonly testID: string;
  readonly resetID?: string;
}

/** Decimals that a step needs. */
export function digitsOf(step: number): number {
  return Math.min(4, Math.max(0, Math.ceil(-Math.log10(step) - 1e-9)));
}

/** A number on a line and in a box. The line covers the usual range; a number may be typed to its ends. */
export function NumberRow(props: Props) {
  const { name, value, min, max, step, unit, rest, onChange, onSettle, side, testID, resetID } = props;
  const digits = props.digits ?? digitsOf(step);
  const put = (n: number) => onChange(Math.min(max, Math.max(min, n)));
  const away = rest !== undefined && Math.abs(value - rest) > step / 100;
  const goBack = () => {
    onChange(rest!);
    onSettle();
  };
  const onReset = props.onReset ?? (props.resets && away ? goBack : undefined);
  return (
    <Row
      name={name}
      rest={rest === undefined ? undefined : `${rest.toFixed(digits)} ${unit}`.trim()}
      onReset={onReset}
      resetID={resetID ?? `reset-${testID}`}
      side={side}
    >
      <View style={styles.line}>
        <View style={styles.fill}>
          <Slider
            label={name}
            value={value}
            min={min}
            max={max}
            step={step}
            text={`${value.toFixed(digits)} ${unit}`}
            onChange={put}
            onSettle={onSettle}
            testID={`slider-${testID}`}
          />
        </View>
        <NumberBox
          label={name}
          unit={unit}
          value={value}
          digits={digits}
          step={step}
          onChange={put}
          onSettle={onSettle}
          testID={testID}
        />
      </View>
    </Row>
  );
}

const styles = StyleSheet.create({
  line: { flexDirection: 'row', alignItems: 'center', gap: 10 },
  fill: { flex: 1 },
});
