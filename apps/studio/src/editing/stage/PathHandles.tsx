import { addPoint, isSmooth, moveHandle, movePoint, writePoints } from '@fresh-reel/core';
import { useRef } from 'react';
import { StyleSheet, View } from 'react-native';
import Svg, { G, Line, Path } from 'react-native-svg';
import { colour } from '../../ui/theme';
import { useDrag } from '../../ui/useDrag';
import { arrowOf, elementOf, onKeys, type PointerPress, webProps, webStyle } from '../../ui/web';
import { usePathPoint } from '../session/pathPoint';
import type { DrawnPath } from '../session/usePath';
import { useReelEditor } from '../session/useReelEditor';

interface Props {
  readonly drawn: DrawnPath;
  readonly width: number;
  readonly height: number;
}

type Pair = readonly [number, number];

/** A path on the picture: its line, its points, and the handles of the point that is chosen. */
export function PathHandles({ drawn: { path, put }, width, height }: Props) {
  const { settle } = useReelEditor();
  const { point: chosen, choosePoint: choose, apart } = usePathPoint();
  const area = useRef<View>(null);
  const point = chosen === undefined ? undefined : path.points[chosen];
  const touchLine = ({ clientX, clientY }: PointerPress) => {
    const box = elementOf(area)!.getBoundingClientRect();
    const at: Pair = [(clientX - box.left) / width, (clientY - box.top) / height];
    const { path: longer, index } = addPoint(path, at);
    put(longer);
    settle();
    choose(index);
  };
  const line = {
    d: writePoints(path),
    fill: 'none',
    vectorEffect: 'non-scaling-stroke' as const,
  };
  return (
    <View ref={area} style={StyleSheet.absoluteFill} pointerEvents="box-none" testID="path-handles">
      <Svg
        style={StyleSheet.absoluteFill}
        viewBox="0 0 1 1"
        preserveAspectRatio="none"
        width={width}
        height={height}
        pointerEvents="box-none"
      >
        <Path {...line} stroke="rgba(22,32,43,0.75)" strokeWidth={4} />
        <Path {...line} stroke="#FFFFFF" strokeWidth={2} strokeDasharray="7 5" />
        <G {...webProps({ onPointerDown: stop, onClick: touchLine, 'data-testid': 'path-line' })}>
          <Path {...line} stroke="transparent" strokeWidth={26} {...webProps({ pointerEvents: 'stroke' })} />
        </G>
        {point &&
          ([point.before, point.after] as const).map((h, i) => (
            <Line
              key={i === 0 ? 'before' : 'after'}
              x1={point.at[0]}
              y1={point.at[1]}
              x2={h[0]}
              y2={h[1]}
              stroke={colour.accent}
              strokeWidth={2}
              vectorEffect="non-scaling-stroke"
            />
          ))}
      </Svg>
      {path.points.map((p, i) => (
        <Dot
          key={i}
          id={`path-point-${i}`}
          label={`Point ${i + 1} of ${path.points.length}${isSmooth(p) ? ', smooth' : ', corner'}`}
          at={p.at}
          on={i === chosen}
          square={!isSmooth(p)}
          width={width}
          height={height}
          onTouch={() => choose(i)}
          onMove={(to) => put(movePoint(path, i, to))}
          onEnd={settle}
        />
      ))}
      {point &&
        chosen !== undefined &&
        (['before', 'after'] as const).map((which) => (
          <Dot
            key={which}
            id={`path-handle-${which}`}
            label={`Handle ${which} point ${chosen + 1}`}
            at={handleAt(point.at, point[which], which)}
            small
            width={width}
            height={height}
            onMove={(to, alone) =>
              put(moveHandle(path, chosen, which, to, !alone && !apart && isSmooth(point)))
            }
            onEnd={settle}
          />
        ))}
    </View>
  );
}

const stop = (e: { stopPropagation(): void }) => e.stopPropagation();

/** A handle that lies on its point stands a little beside it, so that it can be taken. */
function handleAt(at: Pair, handle: Pair, which: 'before' | 'after'): Pair {
  const away = Math.hypot(handle[0] - at[0], handle[1] - at[1]);
  return away > 0.004 ? handle : [at[0] + (which === 'before' ? -0.05 : 0.05), at[1]];
}

/** A point outside the frame stands at its edge, where it can be taken. */
const shown = (part: number, length: number) => Math.min(length - 9, Math.max(9, part * length));

interface DotProps {
  readonly id: string;
  readonly label: string;
  readonly at: Pair;
  readonly on?: boolean;
  readonly square?: boolean;
  readonly small?: boolean;
  readonly width: number;
  readonly height: number;
  readonly onTouch?: () => void;
  /** `alone` while Alt is held: one handle moves without the other. */
  readonly onMove: (to: Pair, alone: boolean) => void;
  readonly onEnd: () => void;
}

function Dot({ id, label, at, on, square, small, width, height, onTouch, onMove, onEnd }: DotProps) {
  const start = useRef(at);
  const alt = useRef(false);
  const drag = useDrag({
    onStart: () => {
      start.current = at;
      onTouch?.();
    },
    onMove: (to, from) =>
      onMove(
        [start.current[0] + (to.x - from.x) / width, start.current[1] + (to.y - from.y) / height],
        alt.current,
      ),
    onEnd,
  });
  const keys = onKeys((key, shift, alone) => {
    const way = arrowOf(key);
    if (!way) return false;
    const step = shift ? 10 : 1;
    onTouch?.();
    onMove([at[0] + (way[0] * step) / width, at[1] + (way[1] * step) / height], alone);
    onEnd();
    return true;
  });
  return (
    <View
      {...webProps(drag)}
      {...webProps({
        ...keys,
        onPointerMoveCapture: (e) => {
          alt.current = e.altKey;
        },
      })}
      role="button"
      tabIndex={0}
      aria-label={label}
      aria-pressed={on}
      testID={id}
      style={[styles.touch, { left: shown(at[0], width) - 16, top: shown(at[1], height) - 16 }]}
    >
      <View style={[styles.dot, square && styles.square, on && styles.on, small && styles.small]} />
    </View>
  );
}

const styles = StyleSheet.create({
  touch: webStyle({
    position: 'absolute',
    width: 32,
    height: 32,
    alignItems: 'center',
    justifyContent: 'center',
    touchAction: 'none',
    cursor: 'move',
  }),
  dot: {
    width: 16,
    height: 16,
    borderRadius: 8,
    backgroundColor: colour.card,
    borderWidth: 3,
    borderColor: colour.ink,
  },
  square: { borderRadius: 3 },
  on: { backgroundColor: colour.accent, borderColor: colour.card, boxShadow: '0 0 0 1px rgba(22,32,43,0.7)' },
  small: {
    width: 12,
    height: 12,
    borderRadius: 6,
    backgroundColor: colour.accent,
    borderWidth: 2,
    borderColor: colour.card,
  },
});
