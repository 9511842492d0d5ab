import { boundsOf } from '@fresh-reel/core';
import { useRef, useState } from 'react';
import { StyleSheet, View } from 'react-native';
import { colour } from '../../ui/theme';
import { useDrag } from '../../ui/useDrag';
import { usePinch } from '../../ui/usePinch';
import { arrowOf, elementOf, onKeys, webProps, webStyle } from '../../ui/web';
import { type Guide, snapMove, snapTurn } from './snapping';

type Pair = readonly [number, number];
type Quad = readonly Pair[];

/** How something lies on the picture. */
export interface Lying {
  /** Frame units. */
  readonly move: Pair;
  readonly scale: number;
  /** Degrees. */
  readonly turn: number;
}

interface Props {
  /** Its four corners, in frame units, from the top left on. */
  readonly quad: Quad;
  /** Corners of what it may snap to. */
  readonly others: readonly Quad[];
  /** Pixels of the page a frame unit takes. */
  readonly k: number;
  readonly frame: { readonly width: number; readonly height: number };
  /** How it lies now. */
  readonly lying: () => Lying;
  /** It was moved by so much on the picture, in frame units, from where it lay. */
  readonly onMove: (by: Pair, from: Lying) => void;
  readonly onScale: (scale: number) => void;
  readonly onTurn: (turn: number) => void;
  /** The gesture is over. */
  readonly onSettle: () => void;
  /** It was touched and not moved, at a point of the frame; or Enter was pressed. */
  readonly onTap?: (at: Pair | undefined) => void;
  /** What it is, for those who hear it. */
  readonly what: string;
  readonly hint: string;
  /** Test ids: `<kind>-box-<name>`, `<kind>-scale-<corner>`, `<kind>-turn`. */
  readonly kind: string;
  readonly name: string;
}

/** Pixels within which a drag snaps. */
const REACH = 7;
const TURN_AWAY = 34;

export const middleOf = (quad: Quad): Pair => [
  quad.reduce((s, [x]) => s + x, 0) / quad.length,
  quad.reduce((s, [, y]) => s + y, 0) / quad.length,
];
const round = (v: number) => Math.round(v * 100) / 100;

const [LEAST_SCALE, MOST_SCALE] = [0.02, 20];
const inRange = (scale: number) => round(Math.min(MOST_SCALE, Math.max(LEAST_SCALE, scale)));

/**
 * Something that lies on the picture: drag to move, corners to scale, the round handle to turn, two fingers for both,
 * arrow keys to nudge.
 */
export function BoxHandles(props: Props) {
  const { k, frame, lying, others, what, kind, onMove, onScale, onTurn } = props;
  const [guides, setGuides] = useState<readonly Guide[]>([]);
  const area = useRef<View>(null);
  const start = useRef<Lying & { quad: Quad }>({ move: [0, 0], scale: 1, turn: 0, quad: props.quad });
  const begin = () => {
    start.current = { ...lying(), quad: props.quad };
  };
  const moveBy = (by: Pair, snap: boolean) => {
    const { quad } = start.current;
    const snapped = snap ? snapMove(boundsOf(quad), by, frame, others, REACH / k) : { move: by, guides: [] };
    setGuides(snapped.guides);
    onMove(snapped.move, start.current);
  };
  const end = () => {
    setGuides([]);
    props.onSettle();
  };
  const pinch = usePinch({
    begin,
    change: (scale, turn) => {
      onScale(inRange(start.current.scale * scale));
      onTurn(snapTurn(start.current.turn + turn));
    },
    end,
  });
  const drag = useDrag({
    onStart: begin,
    onMove: (at, from) => {
      if (!pinch.active()) moveBy([(at.x - from.x) / k, (at.y - from.y) / k], true);
    },
    onEnd: (moved, at) => {
      // Fingers that scaled and turned did not touch it to choose.
      if (moved || pinch.used()) end();
      else props.onTap?.(page(at));
    },
  });
  const page = (at: { x: number; y: number }): Pair => {
    const box = elementOf(area)!.getBoundingClientRect();
    return [(at.x - box.left) / k, (at.y - box.top) / k];
  };
  const about = (at: { x: number; y: number }): { reach: number; angle: number } => {
    const [cx, cy] = middleOf(start.current.quad);
    const [x, y] = page(at);
    return { reach: Math.hypot(x - cx, y - cy), angle: (Math.atan2(y - cy, x - cx) * 180) / Math.PI };
  };
  const scaleDrag = useDrag({
    onStart: begin,
    onMove: (at, from) => {
      const factor = about(at).reach / Math.max(1, about(from).reach);
      onScale(inRange(start.current.scale * factor));
    },
    onEnd: end,
  });
  const turnDrag = useDrag({
    onStart: begin,
    onMove: (at, from) => onTurn(snapTurn(start.current.turn + about(at).angle - about(from).angle)),
    onEnd: end,
  });
  const keys = onKeys((key, shift) => {
    const way = arrowOf(key);
    if (way) {
      const step = shift ? 10 : 1;
      begin();
      moveBy([way[0] * step, way[1] * step], false);
      props.onSettle();
    } else if (key === 'Enter' && props.onTap) props.onTap(undefined);
    else return false;
    return true;
  });
  const { scale, turn } = lying();
  const scaleKeys = onKeys((key, shift) => {
    const way = arrowOf(key);
    if (!way) return false;
    const by = (way[0] - way[1]) * (shift ? 0.1 : 0.01);
    onScale(inRange(scale + by));
    props.onSettle();
    return true;
  });
  const turnKeys = onKeys((key, shift) => {
    const way = arrowOf(key);
    if (!way) return false;
    onTurn(turn + (way[0] - way[1]) * (shift ? 15 : 1));
    props.onSettle();
    return true;
  });

  // The frame stands a little off what it is around, so that it hides nothing of it.
  const quad = widened(props.quad.map(([x, y]) => [x * k, y * k] as const));
  const box = boundsOf(quad);
  const [mx, my] = middleOf(quad);
  const top: Pair = [(quad[0]![0] + quad[1]![0]) / 2, (quad[0]![1] + quad[1]![1]) / 2];
  const away = Math.hypot(top[0] - mx, top[1] - my) || 1;
  const wanted: Pair = [
    top[0] + ((top[0] - mx) / away) * TURN_AWAY,
    top[1] + ((top[1] - my) / away) * TURN_AWAY,
  ];
  const [w, h] = [frame.width * k, frame.height * k];
  // The handle for turning stays on the picture.
  const turnAt: Pair = [Math.min(w - 14, Math.max(14, wanted[0])), Math.min(h - 14, Math.max(14, wanted[1]))];
  return (
    <View ref={area} style={StyleSheet.absoluteFill} pointerEvents="box-none">
      {guides.map((g) => (
        <View
          key={`${g.axis}${g.at}`}
          testID="guide"
          pointerEvents="none"
          style={g.axis === 'x' ? [styles.guideX, { left: g.at * k }] : [styles.guideY, { top: g.at * k }]}
        />
      ))}
      <View
        {...webProps(drag)}
        {...webProps(pinch.handlers(drag))}
        {...webProps(keys)}
        role="button"
        tabIndex={0}
        aria-label={`${what}: ${props.hint}`}
        testID={`${kind}-box-${props.name}`}
        style={[
          styles.box,
          { left: box.x - 8, top: box.y - 8, width: box.width + 16, height: box.height + 16 },
        ]}
      />
      {quad.map(([x, y], i) => {
        const [nx, ny] = quad[(i + 1) % 4]!;
        const length = Math.hypot(nx - x, ny - y);
        const angle = (Math.atan2(ny - y, nx - x) * 180) / Math.PI;
        return (
          <View
            key={i}
            pointerEvents="none"
            style={[
              styles.edge,
              { left: x, top: y - 1, width: length, transform: [{ rotate: `${angle}deg` }] },
            ]}
          />
        );
      })}
      {quad.map(([x, y], i) => (
        <View
          key={i}
          {...webProps(scaleDrag)}
          {...(i === 2
            ? {
                ...webProps(scaleKeys),
                role: 'slider' as const,
                tabIndex: 0 as const,
                'aria-label': `Scale of ${what.toLowerCase()}`,
                'aria-valuenow': Math.round(scale * 100),
                'aria-valuemin': 2,
                'aria-valuemax': 2000,
                'aria-valuetext': `${Math.round(scale * 100)}%`,
              }
            : // One corner is enough for the keys.
              { 'aria-hidden': true })}
          testID={`${kind}-scale-${i}`}
          style={[styles.touch, { left: clamp(x, w) - 16, top: clamp(y, h) - 16 }]}
        >
          <View style={styles.corner} />
        </View>
      ))}
      <View
        {...webProps(turnDrag)}
        {...webProps(turnKeys)}
        role="slider"
        tabIndex={0}
        aria-label={`Turn of ${what.toLowerCase()}`}
        aria-valuenow={Math.round(turn)}
        aria-valuemin={-720}
        aria-valuemax={720}
        aria-valuetext={`${Math.round(turn)}°`}
        testID={`${kind}-turn`}
        style={[styles.touch, { left: turnAt[0] - 16, top: turnAt[1] - 16 }]}
      >
        <View style={styles.turn} />
      </View>
    </View>
  );
}

/** Pixels between a thing and the frame around it. */
const GAP = 7;

/** A quad with each corner moved outwards along its two edges. */
function widened(quad: readonly Pair[]): Pair[] {
  return quad.map(([x, y], i) => {
    const [before, after] = [quad[(i + 3) % 4]!, quad[(i + 1) % 4]!];
    const away = ([ox, oy]: Pair): Pair => {
      const length = Math.hypot(x - ox, y - oy) || 1;
      return [((x - ox) / length) * GAP, ((y - oy) / length) * GAP];
    };
    const [a, b] = [away(before), away(after)];
    return [x + a[0] + b[0], y + a[1] + b[1]];
  });
}

const clamp = (v: number, most: number) => Math.min(most - 6, Math.max(6, v));

const styles = StyleSheet.create({
  box: webStyle({ position: 'absolute', cursor: 'move', touchAction: 'none', borderRadius: 4 }),
  edge: webStyle({
    position: 'absolute',
    height: 2,
    backgroundColor: colour.accent,
    boxShadow: '0 0 0 1px rgba(255,255,255,0.7)',
    transformOrigin: '0 50%',
  }),
  touch: webStyle({
    position: 'absolute',
    width: 32,
    height: 32,
    alignItems: 'center',
    justifyContent: 'center',
    touchAction: 'none',
    cursor: 'nwse-resize',
  }),
  corner: {
    width: 13,
    height: 13,
    borderRadius: 3,
    backgroundColor: colour.card,
    borderWidth: 3,
    borderColor: colour.accent,
  },
  turn: {
    width: 18,
    height: 18,
    borderRadius: 9,
    backgroundColor: colour.accent,
    borderWidth: 3,
    borderColor: colour.card,
    boxShadow: '0 0 0 1px rgba(22,32,43,0.7)',
  },
  guideX: { position: 'absolute', top: 0, bottom: 0, width: 1, backgroundColor: colour.guide },
  guideY: { position: 'absolute', left: 0, right: 0, height: 1, backgroundColor: colour.guide },
});
