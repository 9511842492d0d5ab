import { everyLayer, type LaidPart } from '@fresh-reel/core';
import {
  groupsAround,
  nameOfPart,
  partOf,
  pointFromPicture,
  pointOnPicture,
  pointsOfPart,
  putValue,
  valueIn,
} from '@fresh-reel/core/make';
import { useRef } from 'react';
import { StyleSheet, View } from 'react-native';
import Svg, { Circle, Polygon, Polyline } from 'react-native-svg';
import { useDesk } from '../editing/session/desk';
import { insideQuad } from '../editing/session/placing';
import { inParent } from '../editing/session/usePlacing';
import { useReelEditor } from '../editing/session/useReelEditor';
import { BoxHandles } from '../editing/stage/BoxHandles';
import { MakersGuides } from '../editing/stage/MakersGuides';
import { PathHandles } from '../editing/stage/PathHandles';
import { PointHandle } from '../editing/stage/PointHandle';
import type { PreviewSurface } from '../preview/previewClient';
import { usePreviewState } from '../preview/usePreview';
import { colour } from '../ui/theme';
import { useDrag } from '../ui/useDrag';
import { elementOf, webProps, webStyle } from '../ui/web';
import { laidOutline, useOutline } from './work/useOutline';
import { useWay } from './work/useWay';
import { useMade, useWork } from './work/useWork';

/**
 * Over the picture: what is chosen is outlined and has handles. A touch chooses the topmost part there; touched again,
 * what lies below or around it.
 */
export function PartsOverlay({
  surface,
  width,
  ways,
}: {
  surface: PreviewSurface;
  width: number;
  ways: boolean;
}) {
  const { chosen, touch, choose, several, template } = useWork();
  const { path: drawing } = useDesk();
  const frame = usePreviewState(surface, (s) => (s.playing ? undefined : s.frame));
  const area = useRef<View>(null);
  const k = frame ? width / frame.layout.width : 0;
  const parts = frame?.parts ?? [];
  const under = (x: number, y: number): string[] => {
    const groups = new Set(
      [...everyLayer(template.layers)].flatMap((l) => (l.kind === 'group' ? [l.id] : [])),
    );
    const hit = parts.filter((p) => insideQuad(p.quad, x, y)).map((p) => p.layer);
    const topmost = [...new Set(hit)].reverse();
    // What is in a group comes before the group.
    return [...topmost.filter((id) => !groups.has(id)), ...topmost.filter((id) => groups.has(id))];
  };
  const tap = (px: number, py: number) => {
    const box = elementOf(area)!.getBoundingClientRect();
    const all = under((px - box.left) / k, (py - box.top) / k);
    if (all.length === 0) return several ? undefined : choose([]);
    const last = chosen.at(-1);
    const at = last === undefined || several ? -1 : all.indexOf(last);
    touch(all[(at + 1) % all.length]!);
  };
  const drag = useDrag({ onMove: () => undefined, onEnd: (moved, at) => !moved && tap(at.x, at.y) });
  const shown = parts.filter((p) => chosen.includes(p.layer));
  const last = shown.find((p) => p.layer === chosen.at(-1));
  const outline = useOutline(
    drawing?.kind === 'outline' && drawing.layer === last?.layer ? drawing.layer : undefined,
  );
  return (
    <View
      ref={area}
      style={[StyleSheet.absoluteFill, styles.touch]}
      {...webProps(drag)}
      testID="parts-overlay"
    >
      {frame && <MakersGuides guidelines={template.guidelines} all />}
      {frame && (
        <Svg width="100%" height="100%" style={styles.lines} pointerEvents="none">
          {shown
            .filter((p) => p !== last)
            .map((p) => (
              <Polygon
                key={p.layer}
                points={p.quad.map(([x, y]) => `${x * k},${y * k}`).join(' ')}
                fill="none"
                stroke={colour.accent}
                strokeWidth={1.5}
              />
            ))}
          {ways && last && <WayLine part={last.layer} k={k} />}
        </Svg>
      )}
      {frame && last && outline && (
        <PathHandles
          drawn={laidOutline(outline, last, frame.layout)}
          width={width}
          height={frame.layout.height * k}
        />
      )}
      {frame && last && !outline && (
        <Handles
          key={last.layer}
          part={last}
          parts={parts}
          k={k}
          frame={frame.layout}
          onTap={tap}
          area={area}
        />
      )}
      {frame && last && !outline && <Points part={last} frame={frame.layout} k={k} />}
    </View>
  );
}

/** The way of a part's middle through all of the graphic, a dot where it is in each tenth of it. */
function WayLine({ part, k }: { part: string; k: number }) {
  const way = useWay(part);
  if (way.length < 2) return null;
  return (
    <>
      <Polyline
        points={way.map(({ at: [x, y] }) => `${x * k},${y * k}`).join(' ')}
        fill="none"
        stroke={colour.guide}
        strokeWidth={2}
        {...webProps({ 'data-testid': 'part-way' })}
      />
      {way.map(({ frame, at: [x, y] }) => (
        <Circle key={frame} cx={x * k} cy={y * k} r={2.5} fill={colour.card} stroke={colour.guide} />
      ))}
    </>
  );
}

/** The points of a part, each with its name: where a light goes, where a bubble points. */
function Points({
  part,
  frame,
  k,
}: {
  part: LaidPart;
  frame: { readonly width: number; readonly height: number };
  k: number;
}) {
  const { template, makePart, settle } = useMade();
  return (
    <>
      {pointsOfPart(partOf(template, part.layer)).map((point) => (
        <PointHandle
          key={point.path.join()}
          id={point.path.join('-')}
          name={point.name}
          value={pointOnPicture(point, part.quad, frame)}
          width={frame.width * k}
          height={frame.height * k}
          frame={frame}
          onMove={(x, y) => {
            const value = pointFromPicture(point, [x, y], part.quad, frame);
            const at = { of: { layer: part.layer }, path: [...point.path] };
            if (value) makePart(part.layer, (t) => putValue(t, at, value), `point-${point.path.join()}`);
          }}
          onSettle={settle}
        />
      ))}
    </>
  );
}

const round = (v: number) => Math.round(v * 100) / 100;
type Pair = readonly [number, number];

interface HandlesProps {
  readonly part: LaidPart;
  readonly parts: readonly LaidPart[];
  readonly k: number;
  readonly frame: { readonly width: number; readonly height: number };
  readonly onTap: (x: number, y: number) => void;
  readonly area: React.RefObject<View | null>;
}

/** Moves, scales and turns what is chosen, by its plain values: a place that comes from elsewhere stays where it is. */
function Handles({ part, parts, k, frame, onTap, area }: HandlesProps) {
  const { template, makePart } = useMade();
  const { settle } = useReelEditor();
  const id = part.layer;
  const layer = partOf(template, id);
  const own = [...everyLayer([layer])].map((l) => l.id);
  const around = new Set([...own, ...groupsAround(template, id)]);
  const at = (key: string) => ({ of: { layer: id }, path: [key] });
  const plain = <T,>(key: string): T | undefined => {
    const held = valueIn(template, at(key));
    return Array.isArray(held) && held.every((v) => typeof v === 'number') ? (held as T) : undefined;
  };
  const offset = plain<Pair>('offset');
  const scale = plain<Pair>('scale');
  const turn = plain<readonly [number, number, number]>('turn');
  const put = (key: string, value: unknown) => makePart(id, (t) => putValue(t, at(key), value), `drag-${id}`);
  return (
    <BoxHandles
      quad={part.quad}
      others={parts.filter((p) => !around.has(p.layer)).map((p) => p.quad)}
      k={k}
      frame={frame}
      lying={() => ({ move: offset ?? [0, 0], scale: scale?.[0] ?? 1, turn: turn?.[2] ?? 0 })}
      onMove={(by, { move }) => {
        const [x, y] = inParent(part.unit, by);
        if (offset) put('offset', [round(move[0] + x), round(move[1] + y)]);
      }}
      onScale={(next) => scale && put('scale', [next, round((next * scale[1]) / (scale[0] || 1))])}
      onTurn={(next) => turn && put('turn', [turn[0], turn[1], round(next)])}
      onSettle={settle}
      onTap={(point) => {
        const box = elementOf(area)!.getBoundingClientRect();
        if (point) onTap(box.left + point[0] * k, box.top + point[1] * k);
      }}
      what={nameOfPart(layer)}
      hint="drag or use the arrow keys to move, touch again for what lies below"
      kind="part"
      name={id}
    />
  );
}

const styles = StyleSheet.create({
  touch: webStyle({ touchAction: 'none', cursor: 'pointer', userSelect: 'none' }),
  lines: { position: 'absolute', left: 0, top: 0 },
});
