import { type Easing, easingFunction } from '@fresh-reel/core';
import { useRef } from 'react';
import { StyleSheet, View } from 'react-native';
import Svg, { Line, Polyline } from 'react-native-svg';
import { Radio, RadioGroup } from './RadioGroup';
import { Txt } from './Txt';
import { CORNER, colour } from './theme';
import { useDrag } from './useDrag';
import { arrowOf, onKeys, webProps, webStyle } from './web';

const PRESETS: readonly { readonly name: string; readonly ease: Easing }[] = [
  { name: 'Even', ease: 'linear' },
  { name: 'Soft stop', ease: { bezier: [0.16, 1, 0.3, 1] } },
  { name: 'Soft start', ease: { bezier: [0.7, 0, 0.84, 0] } },
  { name: 'Soft both', ease: { bezier: [0.65, 0, 0.35, 1] } },
  { name: 'Gentle', ease: 'ease-in-out' },
  { name: 'Overshoot', ease: { overshoot: 1.7, ends: 'out' } },
  { name: 'Spring', ease: { spring: 0.35, swings: 2.5 } },
  { name: 'Bounce', ease: { bounce: 'out' } },
  { name: 'Elastic', ease: { elastic: 'out', amplitude: 1, period: 0.4 } },
  { name: 'Steps', ease: { steps: 5, jump: 'end' } },
  { name: 'At once', ease: 'step-end' },
];

/** CSS's own named curves as Béziers, so that their handles can be taken (CSS Easing Level 1, §2.3.1). */
const NAMED: Readonly<Record<string, readonly [number, number, number, number]>> = {
  linear: [0.25, 0.25, 0.75, 0.75],
  ease: [0.25, 0.1, 0.25, 1],
  'ease-in': [0.42, 0, 1, 1],
  'ease-out': [0, 0, 0.58, 1],
  'ease-in-out': [0.42, 0, 0.58, 1],
};

const SIZE = 220;
/** Room above and below for curves that go past their ends. */
const ROOM = 0.35;
const y = (v: number) => SIZE * (1 - (v + ROOM) / (1 + 2 * ROOM));
const x = (v: number) => SIZE * v;

interface Props {
  readonly ease: Easing;
  readonly onChange: (ease: Easing) => void;
  readonly onSettle: () => void;
}

/** The curve of a change: a preset, or drawn by its two handles. */
export function CurveField({ ease, onChange, onSettle }: Props) {
  const bezier =
    typeof ease === 'object' && 'bezier' in ease
      ? ease.bezier
      : typeof ease === 'string'
        ? NAMED[ease]
        : undefined;
  const curve = easingFunction(ease);
  const points = Array.from({ length: 81 }, (_, i) => `${x(i / 80)},${y(curve(i / 80))}`).join(' ');
  const [x1, y1, x2, y2] = bezier ?? [0.33, 0, 0.67, 1];
  const put = (next: readonly [number, number, number, number]) => onChange({ bezier: [...next] });
  return (
    <View style={styles.all}>
      <View style={styles.graph} testID="curve">
        <Svg width={SIZE} height={SIZE}>
          <Line x1={0} x2={SIZE} y1={y(0)} y2={y(0)} stroke={colour.hairline} strokeWidth={1} />
          <Line x1={0} x2={SIZE} y1={y(1)} y2={y(1)} stroke={colour.hairline} strokeWidth={1} />
          <Line x1={x(0)} y1={y(0)} x2={x(x1)} y2={y(y1)} stroke={colour.edge} strokeWidth={2} />
          <Line x1={x(1)} y1={y(1)} x2={x(x2)} y2={y(y2)} stroke={colour.edge} strokeWidth={2} />
          <Polyline points={points} fill="none" stroke={colour.accent} strokeWidth={3} />
        </Svg>
        <Handle
          name="Start of the curve"
          id="curve-start"
          at={[x1, y1]}
          onMove={([a, b]) => put([a, b, x2, y2])}
          onEnd={onSettle}
        />
        <Handle
          name="End of the curve"
          id="curve-end"
          at={[x2, y2]}
          onMove={([a, b]) => put([x1, y1, a, b])}
          onEnd={onSettle}
        />
      </View>
      <RadioGroup
        label="Curves"
        ids={PRESETS.map((p) => p.name)}
        value={PRESETS.find((p) => JSON.stringify(p.ease) === JSON.stringify(ease))?.name}
        onChange={(chosen) => {
          onChange(PRESETS.find((p) => p.name === chosen)!.ease);
          onSettle();
        }}
        style={styles.presets}
      >
        {PRESETS.map((p) => {
          const on = JSON.stringify(p.ease) === JSON.stringify(ease);
          return (
            <Radio
              key={p.name}
              id={p.name}
              label={p.name}
              style={[styles.preset, on && styles.on]}
              testID={`curve-${p.name.toLowerCase().replaceAll(' ', '-')}`}
            >
              <Txt kind="label" tone={on ? 'white' : 'ink'}>
                {p.name}
              </Txt>
            </Radio>
          );
        })}
      </RadioGroup>
    </View>
  );
}

type Pair = readonly [number, number];
const round = (v: number) => Math.round(v * 1000) / 1000;

function Handle({
  name,
  id,
  at,
  onMove,
  onEnd,
}: {
  name: string;
  id: string;
  at: Pair;
  onMove: (to: Pair) => void;
  onEnd: () => void;
}) {
  const start = useRef(at);
  const put = (ax: number, ay: number) =>
    onMove([round(Math.min(1, Math.max(0, ax))), round(Math.min(1 + ROOM, Math.max(-ROOM, ay)))]);
  const drag = useDrag({
    onStart: () => {
      start.current = at;
    },
    onMove: (to, from) =>
      put(
        start.current[0] + (to.x - from.x) / SIZE,
        start.current[1] - ((to.y - from.y) / SIZE) * (1 + 2 * ROOM),
      ),
    onEnd,
  });
  const keys = onKeys((key, shift) => {
    const way = arrowOf(key);
    if (!way) return false;
    const step = shift ? 0.1 : 0.01;
    put(at[0] + way[0] * step, at[1] - way[1] * step);
    onEnd();
    return true;
  });
  return (
    <View
      {...webProps(drag)}
      {...webProps(keys)}
      role="slider"
      tabIndex={0}
      aria-label={name}
      aria-valuemin={0}
      aria-valuemax={100}
      aria-valuenow={Math.round(at[0] * 100)}
      aria-valuetext={`${Math.round(at[0] * 100)}% of the time, ${Math.round(at[1] * 100)}% of the change`}
      testID={id}
      style={[styles.touch, { left: x(at[0]) - 22, top: y(at[1]) - 22 }]}
    >
      <View style={styles.knob} />
    </View>
  );
}

const styles = StyleSheet.create({
  all: { flexDirection: 'row', flexWrap: 'wrap', gap: 16 },
  graph: {
    width: SIZE,
    height: SIZE,
    borderRadius: CORNER,
    backgroundColor: colour.paper,
    borderWidth: 1,
    borderColor: colour.hairline,
    marginLeft: 14,
  },
  touch: webStyle({
    position: 'absolute',
    width: 44,
    height: 44,
    alignItems: 'center',
    justifyContent: 'center',
    cursor: 'move',
    touchAction: 'none',
  }),
  knob: {
    width: 20,
    height: 20,
    borderRadius: 10,
    backgroundColor: colour.card,
    borderWidth: 3,
    borderColor: colour.ink,
  },
  presets: {
    flexDirection: 'row',
    flexWrap: 'wrap',
    gap: 8,
    flex: 1,
    minWidth: 150,
    alignContent: 'flex-start',
  },
  preset: {
    minHeight: 40,
    paddingHorizontal: 12,
    justifyContent: 'center',
    borderRadius: 8,
    borderWidth: 1,
    borderColor: colour.edge,
    backgroundColor: colour.card,
  },
  on: { backgroundColor: colour.ink, borderColor: colour.ink },
});
