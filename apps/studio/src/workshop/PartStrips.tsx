import { type Layer, markAt, markTime, stretches } from '@fresh-reel/core';
import { marksOf, moveMarks, nameOfPart, shiftPart, trimPart } from '@fresh-reel/core/make';
import { useCallback, useMemo, useRef } from 'react';
import { StyleSheet, View } from 'react-native';
import { useDesk } from '../editing/session/desk';
import { useGraphicEditor } from '../editing/session/useReelEditor';
import { MovingMark } from '../preview/MovingMark';
import { Press } from '../ui/Press';
import { Txt } from '../ui/Txt';
import { colour } from '../ui/theme';
import { useDrag } from '../ui/useDrag';
import { VirtualGrid } from '../ui/VirtualGrid';
import { arrowOf, elementOf, onKeys, webProps, webStyle } from '../ui/web';
import { useMade, useWork, useWorkActions } from './work/useWork';

/** Layers with how deep they stand, the topmost first. */
function stacked(layers: readonly Layer[], depth = 0): { layer: Layer; depth: number }[] {
  return [...layers]
    .reverse()
    .flatMap((layer) => [
      { layer, depth },
      ...(layer.kind === 'group' ? stacked(layer.layers, depth + 1) : []),
    ]);
}

/** A strip for each part, over the three stretches, with its keys; cues as flags above. */
export function PartStrips() {
  const { template } = useMade();
  const { scene, time } = useGraphicEditor();
  const { surface, seek } = useDesk();
  const { end } = stretches(scene.clock);
  const line = useRef<View>(null);
  const rows = useMemo(() => stacked(template.layers), [template.layers]);
  const scrubTo = (x: number) => {
    const box = elementOf(line)!.getBoundingClientRect();
    const part = Math.min(1, Math.max(0, (x - box.left) / box.width));
    seek(time.frameOf(part * Math.max(0, end - 1)));
  };
  const scrub = useDrag({ onStart: ({ x }) => scrubTo(x), onMove: ({ x }) => scrubTo(x) });
  const partOf = useCallback((frame: number) => time.actualAt(frame) / end, [time, end]);
  return (
    <View style={styles.all} testID="part-strips">
      <View style={styles.row}>
        <View style={styles.name} />
        <View ref={line} style={styles.cues} {...webProps(scrub)} testID="strips-scrub">
          {template.cues.map((cue) => {
            const part = scene.timeOf(cue.at) / end;
            // Near the end its name stands before it.
            const late = part > 0.65;
            return (
              <View
                key={cue.id}
                style={[
                  styles.cue,
                  late ? styles.cueLate : styles.cueEarly,
                  late ? { right: `${(1 - part) * 100}%` } : { left: `${part * 100}%` },
                ]}
                pointerEvents="none"
              >
                <Txt kind="small" tone="blue" numberOfLines={1}>
                  {cue.name}
                </Txt>
              </View>
            );
          })}
          <MovingMark surface={surface} partOf={partOf} style={styles.playhead} />
        </View>
      </View>
      <VirtualGrid
        items={rows}
        keyOf={({ layer }) => layer.id}
        columns={1}
        gap={2}
        height={34}
        render={({ layer, depth }) => <Strip layer={layer} depth={depth} end={end} />}
      />
    </View>
  );
}

function Strip({ layer, depth, end }: { layer: Layer; depth: number; end: number }) {
  const { makePart, chosen, touch } = useWork();
  const { scene } = useGraphicEditor();
  const { id } = layer;
  const { clock } = scene;
  const name = nameOfPart(layer);
  const line = useRef<View>(null);
  const perPixel = () => end / Math.max(1, elementOf(line)!.getBoundingClientRect().width);
  const from = layer.span ? scene.timeOf(layer.span.from) : 0;
  const to = layer.span ? scene.timeOf(layer.span.to) : end;
  const keys = useMemo(() => {
    // Where motions begin counts as keys do; the ends of the strip have handles of their own.
    const times = marksOf(layer).flatMap(({ mark, path }) =>
      path[0] === 'span' ? [] : [markTime(clock, mark)],
    );
    return [...new Set(times.map((t) => Math.round(t * 10) / 10))];
  }, [layer, clock]);
  const handle = useTimeHandle({
    perPixel,
    step: (by) => makePart(id, (t) => shiftPart(t, id, by), `shift-${id}`),
    onTap: () => touch(id),
  });
  const { holdStart, outStart } = stretches(clock);
  const part = (time: number) => `${(Math.min(end, Math.max(0, time)) / end) * 100}%` as const;
  const on = chosen.includes(id);
  return (
    <View style={styles.row}>
      <Press
        role="button"
        aria-label={`Choose ${name}`}
        onPress={() => touch(id)}
        style={[styles.name, { paddingLeft: Math.min(depth, 4) * 8 }]}
      >
        <Txt kind="small" numberOfLines={1} tone={on ? 'accent' : 'ink'}>
          {name}
        </Txt>
      </Press>
      <View ref={line} style={styles.line}>
        <View style={[styles.stretch, { left: part(holdStart), width: part(outStart - holdStart) }]} />
        <View
          {...webProps(handle)}
          role="slider"
          tabIndex={0}
          aria-label={`When ${name} happens`}
          aria-valuenow={Math.round(from)}
          aria-valuemin={0}
          aria-valuemax={Math.round(end)}
          testID={`strip-${id}`}
          style={[styles.bar, on && styles.barOn, { left: part(from), width: part(to - from) }]}
        />
        <Edge layer={layer} edge="from" at={from} end={end} perPixel={perPixel} />
        <Edge layer={layer} edge="to" at={to} end={end} perPixel={perPixel} />
        {keys.map((key) => (
          <KeyTick key={key} id={id} name={name} at={key} end={end} perPixel={perPixel} />
        ))}
      </View>
    </View>
  );
}

interface HandleProps {
  /** Frames that a pixel is. */
  readonly perPixel: () => number;
  readonly begin?: () => void;
  /** Moves on by so many frames. */
  readonly step: (by: number) => void;
  readonly onTap?: () => void;
}

/** What is moved in time: dragged, or by the arrow keys, ten frames at once with Shift. */
function useTimeHandle({ perPixel, begin, step, onTap }: HandleProps) {
  const { settle } = useWorkActions();
  const moved = useRef(0);
  const drag = useDrag({
    onStart: () => {
      moved.current = 0;
      begin?.();
    },
    onMove: (at, from) => {
      const by = Math.round((at.x - from.x) * perPixel()) - moved.current;
      if (by === 0) return;
      moved.current += by;
      step(by);
    },
    onEnd: (did) => (did ? settle() : onTap?.()),
  });
  const keys = onKeys((key, fast) => {
    const way = arrowOf(key);
    if (!way || way[0] === 0) return false;
    begin?.();
    step(way[0] * (fast ? 10 : 1));
    settle();
    return true;
  });
  return { ...drag, ...keys };
}

interface EdgeProps {
  readonly layer: Layer;
  readonly edge: 'from' | 'to';
  readonly at: number;
  readonly end: number;
  readonly perPixel: () => number;
}

/** An end of a strip: where the part begins to be there, or ceases. */
function Edge({ layer, edge, at, end, perPixel }: EdgeProps) {
  const { makePart } = useWorkActions();
  const { scene } = useGraphicEditor();
  const now = useRef(at);
  const handle = useTimeHandle({
    perPixel,
    begin: () => {
      now.current = at;
    },
    step: (by) => {
      now.current = Math.min(end, Math.max(0, now.current + by));
      makePart(
        layer.id,
        (t) => trimPart(t, layer.id, edge, markAt(scene.clock, now.current)),
        `trim-${layer.id}`,
      );
    },
  });
  const name = nameOfPart(layer);
  return (
    <View
      {...webProps(handle)}
      role="slider"
      tabIndex={0}
      aria-label={edge === 'from' ? `${name} is there from` : `${name} is there until`}
      aria-valuenow={Math.round(at)}
      aria-valuemin={0}
      aria-valuemax={Math.round(end)}
      testID={`trim-${edge}-${layer.id}`}
      style={[styles.edge, { left: `${(at / end) * 100}%`, marginLeft: edge === 'from' ? -2 : -12 }]}
    >
      <View style={styles.edgeBar} />
    </View>
  );
}

interface KeyProps {
  readonly id: string;
  readonly name: string;
  readonly at: number;
  readonly end: number;
  readonly perPixel: () => number;
}

/** All keys of a part at one moment. */
function KeyTick({ id, name, at, end, perPixel }: KeyProps) {
  const { makePart } = useWorkActions();
  const { scene } = useGraphicEditor();
  const { clock } = scene;
  const now = useRef(at);
  const handle = useTimeHandle({
    perPixel,
    begin: () => {
      now.current = at;
    },
    step: (by) => {
      const next = Math.round(now.current) + by;
      makePart(id, (t) => moveMarks(t, id, clock, now.current, next), `keys-${id}`);
      now.current = next;
    },
  });
  return (
    <View
      {...webProps(handle)}
      role="slider"
      tabIndex={0}
      aria-label={`Keys of ${name}`}
      aria-valuenow={Math.round(at)}
      aria-valuemin={0}
      aria-valuemax={Math.round(end)}
      testID={`key-${id}-${Math.round(at)}`}
      style={[styles.key, { left: `${(at / end) * 100}%` }]}
    >
      <View style={styles.dot} />
    </View>
  );
}

const styles = StyleSheet.create({
  all: { gap: 2 },
  row: { flexDirection: 'row', alignItems: 'center', gap: 8 },
  name: { width: 96, minHeight: 32, justifyContent: 'center', borderRadius: 6 },
  cues: webStyle({ flex: 1, height: 26, cursor: 'pointer', touchAction: 'none' }),
  cue: { position: 'absolute', top: 2, borderColor: colour.blue, maxWidth: 90 },
  cueEarly: { borderLeftWidth: 2, paddingLeft: 3 },
  cueLate: { borderRightWidth: 2, paddingRight: 3 },
  playhead: {
    position: 'absolute',
    top: 0,
    bottom: 0,
    width: 2,
    marginLeft: -1,
    backgroundColor: colour.ink,
  },
  line: { flex: 1, height: 32, justifyContent: 'center' },
  stretch: { position: 'absolute', top: 0, bottom: 0, backgroundColor: colour.sand, opacity: 0.5 },
  bar: webStyle({
    position: 'absolute',
    height: 18,
    borderRadius: 5,
    backgroundColor: colour.blueTint,
    borderWidth: 1,
    borderColor: colour.blue,
    cursor: 'grab',
    touchAction: 'pan-y',
  }),
  barOn: { backgroundColor: colour.accentTint, borderColor: colour.accent },
  edge: webStyle({
    position: 'absolute',
    width: 14,
    height: 30,
    alignItems: 'center',
    justifyContent: 'center',
    cursor: 'ew-resize',
    touchAction: 'none',
  }),
  edgeBar: { width: 4, height: 18, borderRadius: 2, backgroundColor: colour.edge },
  key: webStyle({
    position: 'absolute',
    width: 20,
    height: 30,
    marginLeft: -10,
    alignItems: 'center',
    justifyContent: 'center',
    cursor: 'ew-resize',
    touchAction: 'none',
  }),
  dot: {
    width: 9,
    height: 9,
    borderRadius: 5,
    backgroundColor: colour.card,
    borderWidth: 2,
    borderColor: colour.ink,
  },
});
