import {
  type ControlValue,
  copyKey,
  easeKey,
  isKeyed,
  keyAt,
  keysOf,
  layoutFrame,
  markTime,
  moveKey,
  nextKey,
  ownKey,
  putKey,
  removeKey,
  type Stretch,
  valueAt,
} from '@fresh-reel/core';
import { useCallback, useMemo, useRef, useState } from 'react';
import { StyleSheet, View } from 'react-native';
import Svg, { Polyline, Rect } from 'react-native-svg';
import { MovingMark } from '../../preview/MovingMark';
import { IconButton } from '../../ui/Button';
import { Radio, RadioGroup } from '../../ui/RadioGroup';
import { Txt } from '../../ui/Txt';
import { colour } from '../../ui/theme';
import { useDrag } from '../../ui/useDrag';
import { arrowOf, elementOf, onKeys, webProps, webStyle } from '../../ui/web';
import { useDesk, useRestingFrame } from '../session/desk';
import { type Keyed, keyedOf } from '../session/keyTargets';
import { useReelEditor } from '../session/useReelEditor';
import { CurveSheet } from './CurveSheet';

const STRETCHES: readonly Stretch[] = ['in', 'hold', 'out'];

const SAMPLES = 120;
const HEIGHT = 46;

/** The value that changes over time, as a line under the preview, with its keyframes. */
export function KeyStrip() {
  const editor = useReelEditor();
  const { keyed: target, chooseKeyed } = useDesk();
  const keyed = target && keyedOf(target, editor);
  if (!keyed || !isKeyed(keyed.held)) return null;
  return <Strip keyed={keyed} onClose={() => chooseKeyed(undefined)} />;
}

function Strip({ keyed, onClose }: { keyed: Keyed; onClose: () => void }) {
  const { reel, edit, settle } = useReelEditor();
  const { surface, seek: seekFrame } = useDesk();
  const { clock } = keyed;
  const time = keyed.localAt(useRestingFrame(surface));
  const seek = (local: number) => seekFrame(keyed.frameOf(local));
  const [curve, setCurve] = useState<number>();
  const { held, name } = keyed;
  const end = Math.max(1, clock.in + clock.hold + clock.out);
  const keys = keysOf(held, clock);
  const here = keyAt(held, clock, time);
  const put = (next: typeof held, gesture?: string) => {
    edit((r) => keyed.write(r, next), gesture);
    if (!gesture) settle();
  };
  const partOf = useCallback((frame: number) => keyed.localAt(frame) / end, [keyed, end]);
  const value = (at: number): ControlValue =>
    valueAt(held as Parameters<typeof valueAt<ControlValue>>[0], {
      clock,
      time: at,
      controls: {},
      frame: layoutFrame(reel.frame),
    });
  const [before, after] = [nextKey(held, clock, time, -1), nextKey(held, clock, time, 1)];
  const last = keys.findLastIndex((k) => markTime(clock, k) <= time + 0.5);
  return (
    <View style={styles.all} testID="key-strip">
      <View style={styles.top}>
        <Txt kind="label" numberOfLines={1} style={styles.name}>
          {name}: {inWords(value(time), keyed.digits)}
        </Txt>
        <IconButton icon="x" label="Hide keyframes" onPress={onClose} testID="key-close" />
      </View>
      <View style={styles.head}>
        <IconButton
          icon="skip-back"
          label="To the keyframe before"
          caption="Before"
          disabled={before === undefined}
          onPress={() => before !== undefined && seek(before)}
          testID="key-before"
        />
        <IconButton
          icon={here === undefined ? 'circle-plus' : 'circle-minus'}
          label={here === undefined ? 'Add a keyframe here' : 'Remove this keyframe'}
          caption={here === undefined ? 'Add' : 'Remove'}
          onPress={() =>
            put(here === undefined ? putKey(held, clock, time, value(time)) : removeKey(held, clock, here))
          }
          testID="key-toggle"
        />
        <IconButton
          icon="skip-forward"
          label="To the keyframe after"
          caption="After"
          disabled={after === undefined}
          onPress={() => after !== undefined && seek(after)}
          testID="key-after"
        />
        <IconButton
          icon="copy"
          label="Copy the keyframe before to here"
          caption="Copy"
          disabled={here !== undefined || last < 0}
          onPress={() => put(copyKey(held, clock, last, time))}
          testID="key-copy"
        />
        <IconButton
          icon="spline"
          label="Curve from the last keyframe to the next"
          caption="Curve"
          disabled={last < 0 || last >= keys.length - 1}
          onPress={() => setCurve(last)}
          testID="key-curve"
        />
      </View>
      <View style={styles.line}>
        <ValueLine value={value} end={end} />
        <MovingMark surface={surface} partOf={partOf} style={styles.playhead} />
        {keys.map((k, i) => (
          <KeyDot
            key={i}
            index={i}
            at={markTime(clock, k)}
            end={end}
            of={k.of}
            on={i === here}
            onSeek={() => seek(markTime(clock, k))}
            onMove={(to) => put(moveKey(held, clock, i, to), `key-${i}`)}
            onEnd={settle}
          />
        ))}
      </View>
      {clock.hold + clock.out > 0 && (
        <View style={[styles.own, here === undefined && styles.unseen]} aria-hidden={here === undefined}>
          <Txt kind="small" tone="quiet">
            Stays with
          </Txt>
          <RadioGroup
            label="The keyframe keeps its distance from the start of"
            ids={here === undefined ? [] : STRETCHES}
            value={here === undefined ? undefined : keys[here]!.of}
            onChange={(of) => here !== undefined && put(ownKey(held, clock, here, of as Stretch))}
            style={styles.stretches}
          >
            {STRETCHES.map((of) => {
              const chosen = here !== undefined && keys[here]!.of === of;
              return (
                <Radio
                  key={of}
                  id={of}
                  label={of}
                  style={[styles.stretch, chosen && styles.chosen]}
                  testID={`key-of-${of}`}
                >
                  <Txt kind="label" tone={chosen ? 'white' : 'ink'}>
                    {of}
                  </Txt>
                </Radio>
              );
            })}
          </RadioGroup>
        </View>
      )}
      {curve !== undefined && keys[curve] && (
        <CurveSheet
          ease={keys[curve]!.ease ?? 'ease-in-out'}
          onChange={(ease) => put(easeKey(held, clock, curve, ease), `curve-${curve}`)}
          onSettle={settle}
          onClose={() => {
            settle();
            setCurve(undefined);
          }}
        />
      )}
    </View>
  );
}

function inWords(value: ControlValue, digits: number): string {
  if (typeof value === 'number') return value.toFixed(digits);
  if (typeof value === 'boolean') return value ? 'on' : 'off';
  if (Array.isArray(value)) {
    return (value as number[]).map((v) => (Math.abs(v) < 10 ? v.toFixed(2) : v.toFixed(0))).join(' · ');
  }
  return String(value);
}

/** The value over the whole length: a line for numbers and points, a row of colours or steps for the rest. */
function ValueLine({ value, end }: { value: (time: number) => ControlValue; end: number }) {
  const samples = useMemo(
    () => Array.from({ length: SAMPLES + 1 }, (_, i) => value((i / SAMPLES) * end)),
    [value, end],
  );
  const [first] = samples;
  if (typeof first === 'number' || Array.isArray(first)) {
    const parts = typeof first === 'number' ? [0] : [0, 1];
    return (
      <Svg width="100%" height={HEIGHT} viewBox={`0 0 ${SAMPLES} 40`} preserveAspectRatio="none">
        {parts.map((part) => {
          const figures = samples.map((s) => (typeof s === 'number' ? s : Number((s as number[])[part])));
          const [low, high] = [Math.min(...figures), Math.max(...figures)];
          const y = (v: number) => (high > low ? 36 - ((v - low) / (high - low)) * 32 : 20);
          return (
            <Polyline
              key={part}
              points={figures.map((v, i) => `${i},${y(v)}`).join(' ')}
              fill="none"
              stroke={part === 0 ? colour.accent : colour.blue}
              strokeWidth={2}
              vectorEffect="non-scaling-stroke"
            />
          );
        })}
      </Svg>
    );
  }
  const values = [...new Set(samples.map(String))];
  return (
    <Svg width="100%" height={HEIGHT} viewBox={`0 0 ${SAMPLES} 40`} preserveAspectRatio="none">
      {samples.slice(0, SAMPLES).map((s, i) => (
        <Rect
          key={i}
          x={i}
          y={12}
          width={1.2}
          height={16}
          fill={
            String(s).startsWith('#') ? String(s) : values.indexOf(String(s)) % 2 ? colour.ink : colour.edge
          }
        />
      ))}
    </Svg>
  );
}

interface DotProps {
  readonly index: number;
  readonly at: number;
  readonly end: number;
  readonly of: Stretch;
  readonly on: boolean;
  readonly onSeek: () => void;
  readonly onMove: (time: number) => void;
  readonly onEnd: () => void;
}

function KeyDot({ index, at, end, of, on, onSeek, onMove, onEnd }: DotProps) {
  const dot = useRef<View>(null);
  const start = useRef({ at, perPixel: 1 });
  const drag = useDrag({
    onStart: () => {
      const line = elementOf(dot)!.parentElement!.getBoundingClientRect();
      start.current = { at, perPixel: end / line.width };
    },
    onMove: (to, from) => onMove(start.current.at + (to.x - from.x) * start.current.perPixel),
    onEnd: (moved) => (moved ? onEnd() : onSeek()),
  });
  const keys = onKeys((key, shift) => {
    const way = arrowOf(key);
    if (key === 'Enter') onSeek();
    else if (way?.[0]) {
      onMove(at + way[0] * (shift ? 10 : 1));
      onEnd();
    } else return false;
    return true;
  });
  return (
    <View
      ref={dot}
      {...webProps(drag)}
      {...webProps(keys)}
      role="slider"
      tabIndex={0}
      aria-label={`Keyframe ${index + 1}, in the ${of}`}
      aria-valuemin={0}
      aria-valuemax={Math.round(end)}
      aria-valuenow={Math.round(at)}
      testID={`key-${index}`}
      style={[styles.touch, { left: `${(at / end) * 100}%` }]}
    >
      <View style={[styles.dot, on && styles.dotOn]} />
    </View>
  );
}

const styles = StyleSheet.create({
  all: { paddingHorizontal: 16, paddingBottom: 4 },
  top: { flexDirection: 'row', alignItems: 'center', minHeight: 32, marginRight: -12 },
  head: { flexDirection: 'row', alignItems: 'center', justifyContent: 'space-between' },
  name: { flexGrow: 1, flexShrink: 1, flexBasis: 140, fontVariant: ['tabular-nums'] },
  line: { height: HEIGHT, justifyContent: 'center' },
  playhead: {
    position: 'absolute',
    top: 0,
    bottom: 0,
    width: 2,
    marginLeft: -1,
    backgroundColor: colour.ink,
  },
  touch: webStyle({
    position: 'absolute',
    top: 1,
    width: 32,
    height: 44,
    marginLeft: -16,
    alignItems: 'center',
    justifyContent: 'center',
    cursor: 'ew-resize',
    touchAction: 'none',
  }),
  dot: {
    width: 14,
    height: 14,
    borderRadius: 7,
    backgroundColor: colour.card,
    borderWidth: 3,
    borderColor: colour.accent,
  },
  dotOn: { backgroundColor: colour.accent, borderColor: colour.ink },
  // It keeps its room while there is nothing to say, so that nothing below moves.
  own: { flexDirection: 'row', alignItems: 'center', gap: 8, height: 40 },
  unseen: webStyle({ visibility: 'hidden' }),
  stretches: { flexDirection: 'row', gap: 6 },
  stretch: {
    minHeight: 36,
    minWidth: 44,
    paddingHorizontal: 10,
    alignItems: 'center',
    justifyContent: 'center',
    borderRadius: 8,
    borderWidth: 1,
    borderColor: colour.edge,
  },
  chosen: { backgroundColor: colour.ink, borderColor: colour.ink },
});
