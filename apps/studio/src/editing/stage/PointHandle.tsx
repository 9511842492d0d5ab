import { useRef, useState } from 'react';
import { StyleSheet, View } from 'react-native';
import { Txt } from '../../ui/Txt';
import { colour } from '../../ui/theme';
import { useDrag } from '../../ui/useDrag';
import { arrowOf, onKeys, webProps, webStyle } from '../../ui/web';

interface Props {
  /** What its test ID ends with. */
  readonly id: string;
  readonly name: string;
  /** In parts of the picture. */
  readonly value: readonly [number, number];
  /** Of the picture, in points of the page. */
  readonly width: number;
  readonly height: number;
  /** Frame units across and down, of which the arrow keys go one. */
  readonly frame: { readonly width: number; readonly height: number };
  readonly onMove: (x: number, y: number) => void;
  readonly onSettle: () => void;
}

/** Points of the page that a name may take before it runs out of the picture. */
const ROOM = 170;

/** A point on the picture with its name: dragged, or nudged with the arrow keys. */
export function PointHandle({ id, name, value, width, height, frame, onMove: put, onSettle: settle }: Props) {
  const start = useRef(value);
  const [held, setHeld] = useState(false);
  const drag = useDrag({
    onStart: () => {
      setHeld(true);
      start.current = value;
    },
    onMove: (at, from) =>
      put(start.current[0] + (at.x - from.x) / width, start.current[1] + (at.y - from.y) / height),
    onEnd: () => {
      setHeld(false);
      settle();
    },
  });
  const keys = onKeys((key, shift) => {
    const way = arrowOf(key);
    if (!way) return false;
    const step = shift ? 10 : 1;
    put(value[0] + (way[0] * step) / frame.width, value[1] + (way[1] * step) / frame.height);
    return true;
  });
  // It shows fully, with its name, only while it is of use: otherwise it hides what lies below.
  const [near, setNear] = useState(false);
  const [focused, setFocused] = useState(false);
  const lit = near || focused || held;
  return (
    <View style={[styles.place, { left: value[0] * width, top: value[1] * height }]} pointerEvents="box-none">
      <View
        {...webProps(drag)}
        {...webProps({
          ...keys,
          onFocus: () => setFocused(true),
          onBlur: () => {
            setFocused(false);
            settle();
          },
          onPointerEnter: () => setNear(true),
          onPointerLeave: () => setNear(false),
        })}
        role="slider"
        tabIndex={0}
        aria-label={`${name} on the picture`}
        aria-valuenow={Math.round(value[0] * 100)}
        aria-valuemin={0}
        aria-valuemax={100}
        aria-valuetext={`${Math.round(value[0] * 100)}% across, ${Math.round(value[1] * 100)}% down`}
        testID={`handle-${id}`}
        style={styles.touch}
      >
        <View style={[styles.ring, !lit && styles.aside]}>
          <View style={styles.dot} />
        </View>
      </View>
      {lit && (
        <View
          style={[
            styles.name,
            value[1] > 0.8 && value[1] * height > height - 44 ? styles.above : styles.below,
            value[0] * width > width - ROOM ? styles.leftwards : styles.rightwards,
          ]}
          pointerEvents="none"
        >
          <Txt kind="label" tone="white" numberOfLines={1}>
            {name}
          </Txt>
        </View>
      )}
    </View>
  );
}

const styles = StyleSheet.create({
  place: { position: 'absolute', width: 0, height: 0 },
  touch: webStyle({
    position: 'absolute',
    left: -22,
    top: -22,
    width: 44,
    height: 44,
    alignItems: 'center',
    justifyContent: 'center',
    touchAction: 'none',
    cursor: 'move',
  }),
  ring: {
    width: 24,
    height: 24,
    borderRadius: 12,
    borderWidth: 3,
    borderColor: colour.card,
    backgroundColor: colour.accent,
    alignItems: 'center',
    justifyContent: 'center',
    boxShadow: '0 0 0 1px rgba(22,32,43,0.7)',
  },
  aside: { opacity: 0.45 },
  dot: { width: 6, height: 6, borderRadius: 3, backgroundColor: colour.card },
  above: { top: -44 },
  below: { top: 18 },
  rightwards: { left: -14 },
  leftwards: { right: -14 },
  name: webStyle({
    position: 'absolute',
    backgroundColor: colour.shade,
    borderRadius: 6,
    paddingHorizontal: 8,
    paddingVertical: 2,
    width: 'max-content',
  }),
});
