import { isKeyed, putKey, setControl } from '@fresh-reel/core';
import { useRef } from 'react';
import { StyleSheet, View } from 'react-native';
import { Txt } from '../../ui/Txt';
import { colour } from '../../ui/theme';
import { useDrag } from '../../ui/useDrag';
import { webProps, webStyle } from '../../ui/web';
import { useDesk, useLocalTime } from '../session/desk';
import { useReelEditor } from '../session/useReelEditor';

/** Handles of the point controls on the picture, each with its control's name: drag, or nudge with the arrow keys. */
export function PointHandles({ width, height }: { width: number; height: number }) {
  const { graphic, scene } = useReelEditor();
  const time = useLocalTime();
  return (
    <>
      {graphic.template.controls.map((control) =>
        control.kind === 'point' ? (
          <Handle
            key={control.id}
            id={control.id}
            name={control.name}
            value={scene.localControl(control.id, time) as [number, number]}
            width={width}
            height={height}
          />
        ) : null,
      )}
    </>
  );
}

interface HandleProps {
  readonly id: string;
  readonly name: string;
  readonly value: readonly [number, number];
  readonly width: number;
  readonly height: number;
}

const round = (v: number) => Math.round(Math.min(1, Math.max(0, v)) * 10000) / 10000;

function Handle({ id, name, value, width, height }: HandleProps) {
  const { edit, graphic, settle, scene, time } = useReelEditor();
  const { surface } = useDesk();
  const start = useRef(value);
  const put = (x: number, y: number) =>
    edit((reel) => {
      const held = scene.controls[id]!;
      const next: [number, number] = [round(x), round(y)];
      const local = time.localAt(surface.position);
      return setControl(reel, graphic.id, id, isKeyed(held) ? putKey(held, scene.clock, local, next) : next);
    }, `point-${id}`);
  const drag = useDrag({
    onStart: () => {
      start.current = value;
    },
    onMove: (at, from) =>
      put(start.current[0] + (at.x - from.x) / width, start.current[1] + (at.y - from.y) / height),
    onEnd: () => settle(),
  });
  const onKeyDown = (e: {
    key: string;
    shiftKey: boolean;
    preventDefault(): void;
    stopPropagation(): void;
  }) => {
    const step = (e.shiftKey ? 10 : 1) / scene.frame.width;
    const move = { ArrowLeft: [-step, 0], ArrowRight: [step, 0], ArrowUp: [0, -step], ArrowDown: [0, step] }[
      e.key
    ];
    if (!move) return;
    e.preventDefault();
    e.stopPropagation();
    put(value[0] + move[0]!, value[1] + (move[1]! * scene.frame.width) / scene.frame.height);
  };
  return (
    <View style={[styles.place, { left: value[0] * width, top: value[1] * height }]} pointerEvents="box-none">
      <View
        {...webProps(drag)}
        {...webProps({ onKeyDown, onBlur: settle })}
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
        <View style={styles.ring}>
          <View style={styles.dot} />
        </View>
      </View>
      <View
        style={[styles.name, value[1] > 0.8 && value[1] * height > height - 44 ? styles.above : styles.below]}
        pointerEvents="none"
      >
        <Txt kind="label" tone="white" numberOfLines={1}>
          {name}
        </Txt>
      </View>
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
    borderColor: '#FFFFFF',
    backgroundColor: colour.accent,
    alignItems: 'center',
    justifyContent: 'center',
    boxShadow: '0 0 0 1px rgba(22,32,43,0.7)',
  },
  dot: { width: 6, height: 6, borderRadius: 3, backgroundColor: '#FFFFFF' },
  above: { top: -44 },
  below: { top: 18 },
  name: webStyle({
    position: 'absolute',
    left: -14,
    backgroundColor: 'rgba(22,32,43,0.86)',
    borderRadius: 6,
    paddingHorizontal: 8,
    paddingVertical: 2,
    width: 'max-content',
  }),
});
