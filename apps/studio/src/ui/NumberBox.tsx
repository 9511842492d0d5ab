import { useEffect, useRef, useState } from 'react';
import { StyleSheet, TextInput, View } from 'react-native';
import { readNumber } from './sums';
import { Txt } from './Txt';
import { CORNER, colour, family, size, TOUCH } from './theme';
import { useDrag } from './useDrag';
import { webProps, webStyle } from './web';

interface Props {
  readonly label: string;
  readonly prefix?: string;
  readonly unit: string;
  readonly value: number;
  readonly digits: number;
  readonly step: number;
  /** Called when a number was typed to its end, stepped or dragged. */
  readonly onChange: (value: number) => void;
  /** The change is over. */
  readonly onSettle?: () => void;
  readonly testID?: string;
}

/** Pixels of drag a step. */
const DRAG = 4;

/**
 * A number with its unit: typed, as a small sum too, stepped with the up and down keys (ten at a time with Shift), or
 * dragged by its unit.
 */
export function NumberBox({ label, prefix, unit, value, digits, step, onChange, onSettle, testID }: Props) {
  const shown = value.toFixed(digits);
  const [typed, setTyped] = useState(shown);
  const [focused, setFocused] = useState(false);
  const [dragged, setDragged] = useState(false);
  const start = useRef(value);
  useEffect(() => {
    if (!focused || dragged) setTyped(shown);
  }, [shown, focused, dragged]);
  const commit = () => {
    const number = readNumber(typed);
    if (number === undefined) setTyped(shown);
    else if (typed !== shown) {
      onChange(number);
      onSettle?.();
      setTyped(number.toFixed(digits));
    }
  };
  const onKeyPress = (event: {
    nativeEvent: { key: string; shiftKey?: boolean };
    preventDefault(): void;
  }) => {
    const { key, shiftKey } = event.nativeEvent;
    if (key === 'Enter') commit();
    if (key !== 'ArrowUp' && key !== 'ArrowDown') return;
    event.preventDefault();
    const from = readNumber(typed) ?? value;
    const next = from + (key === 'ArrowUp' ? 1 : -1) * step * (shiftKey ? 10 : 1);
    setTyped(next.toFixed(digits));
    onChange(next);
    onSettle?.();
  };
  const drag = useDrag({
    along: 'x',
    onStart: () => {
      start.current = value;
      setDragged(true);
    },
    onMove: (at, from) => onChange(start.current + Math.round((at.x - from.x) / DRAG) * step),
    onEnd: () => {
      setDragged(false);
      onSettle?.();
    },
  });
  return (
    <View style={styles.row}>
      {prefix && <Txt kind="small">{prefix}</Txt>}
      <View style={[styles.box, focused && styles.focused]}>
        <TextInput
          aria-label={`${label}, number`}
          inputMode="decimal"
          value={typed}
          onChangeText={setTyped}
          onFocus={() => setFocused(true)}
          onBlur={() => {
            commit();
            setFocused(false);
          }}
          onKeyPress={onKeyPress as never}
          testID={testID}
          style={styles.input}
        />
        <View {...webProps(drag)} style={styles.unit} testID={testID ? `${testID}-drag` : undefined}>
          <Txt kind="small" tone="quiet">
            {unit || '↔'}
          </Txt>
        </View>
      </View>
    </View>
  );
}

const styles = StyleSheet.create({
  row: { flexDirection: 'row', alignItems: 'center', gap: 8 },
  box: {
    flexDirection: 'row',
    alignItems: 'center',
    height: TOUCH,
    borderWidth: 1,
    borderColor: colour.edge,
    borderRadius: CORNER,
    backgroundColor: colour.card,
  },
  focused: { outlineWidth: 2, outlineColor: colour.blue, outlineStyle: 'solid' },
  unit: webStyle({
    height: 42,
    justifyContent: 'center',
    paddingLeft: 2,
    paddingRight: 10,
    cursor: 'ew-resize',
    touchAction: 'pan-y',
    userSelect: 'none',
  }),
  input: webStyle({
    width: 58,
    height: 42,
    paddingHorizontal: 8,
    textAlign: 'right',
    fontFamily: family.text,
    fontSize: size.body,
    color: colour.ink,
    fontVariant: ['tabular-nums'],
    outlineStyle: 'none',
  }),
});
