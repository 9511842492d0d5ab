import { useEffect, useRef, useState } from 'react';
import { StyleSheet, View } from 'react-native';
import { colour, TOUCH } from './theme';
import { useDrag } from './useDrag';
import { elementOf, onKeys, webProps, webStyle } from './web';

interface Props {
  readonly label: string;
  readonly value: number;
  readonly min: number;
  readonly max: number;
  readonly step: number;
  /** How the value is read out. */
  readonly text: string;
  readonly onChange: (value: number) => void;
  /** The drag or key press is over. */
  readonly onSettle: () => void;
  readonly testID?: string;
}

/** Keeps a value on its steps and within its ends. */
export function snapped(value: number, min: number, max: number, step: number): number {
  const steps = Math.round((value - min) / step);
  const digits = Math.max(0, -Math.floor(Math.log10(step)));
  return Number(Math.min(max, Math.max(min, min + steps * step)).toFixed(digits));
}

/** A value on a line: drag, touch, or step with the arrow keys (Page Up and Down for ten, Home and End). */
export function Slider({ label, value, min, max, step, text, onChange, onSettle, testID }: Props) {
  const line = useRef<View>(null);
  const [focused, setFocused] = useState(false);
  const at = (x: number) => {
    const box = elementOf(line)!.getBoundingClientRect();
    onChange(snapped(min + ((x - box.left) / box.width) * (max - min), min, max, step));
  };
  const drag = useDrag({
    along: 'x',
    onStart: ({ x }) => at(x),
    onMove: ({ x }) => at(x),
    onEnd: () => onSettle(),
  });
  const part = max > min ? Math.min(1, Math.max(0, (value - min) / (max - min))) : 0;
  // Keys may be pressed faster than the screen follows: each counts from where the one before it left off.
  const latest = useRef(value);
  useEffect(() => {
    latest.current = value;
  }, [value]);
  const steps: Record<string, number> = {
    ArrowLeft: -1,
    ArrowDown: -1,
    ArrowRight: 1,
    ArrowUp: 1,
    PageDown: -10,
    PageUp: 10,
    Home: Number.NEGATIVE_INFINITY,
    End: Number.POSITIVE_INFINITY,
  };
  const keys = onKeys((key) => {
    const by = steps[key];
    if (by === undefined) return false;
    const wanted = Math.min(max, Math.max(min, latest.current + by * step));
    latest.current = snapped(wanted, min, max, step);
    onChange(latest.current);
    onSettle();
    return true;
  });
  return (
    <View
      {...webProps(drag)}
      {...webProps({ ...keys, onFocus: () => setFocused(true), onBlur: () => setFocused(false) })}
      role="slider"
      aria-label={label}
      aria-valuemin={min}
      aria-valuemax={max}
      aria-valuenow={value}
      aria-valuetext={text}
      tabIndex={0}
      testID={testID}
      style={[styles.touch, focused && styles.focused]}
    >
      <View ref={line} style={styles.line}>
        <View style={[styles.filled, { width: `${part * 100}%` }]} />
        <View style={[styles.knob, { left: `${part * 100}%` }]} />
      </View>
    </View>
  );
}

const styles = StyleSheet.create({
  touch: webStyle({
    height: TOUCH,
    justifyContent: 'center',
    paddingHorizontal: 11,
    borderRadius: 8,
    cursor: 'pointer',
    touchAction: 'pan-y',
  }),
  focused: { outlineWidth: 2, outlineColor: colour.blue, outlineStyle: 'solid' },
  line: { height: 4, borderRadius: 2, backgroundColor: colour.hairline },
  filled: { height: 4, borderRadius: 2, backgroundColor: colour.ink },
  knob: {
    position: 'absolute',
    top: -9,
    marginLeft: -11,
    width: 22,
    height: 22,
    borderRadius: 11,
    backgroundColor: colour.card,
    borderWidth: 2,
    borderColor: colour.ink,
  },
});
