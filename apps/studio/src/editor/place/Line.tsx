import {
  cuesOf,
  fadesOf,
  framesIn,
  itemOf,
  lengthOf,
  moveItems,
  nominal,
  type Reel,
  reelEnd,
  secondsAt,
  setFade,
  slipItem,
  spanOf,
  timecodeAt,
  trimItem,
} from '@fresh-reel/core';
import { useCallback, useEffect, useLayoutEffect, useMemo, useRef, useState } from 'react';
import { StyleSheet, View } from 'react-native';
import { useDesk, useRestingFrame } from '../../editing/session/desk';
import { useAttempt } from '../../editing/session/useAttempt';
import { useReelEditor } from '../../editing/session/useReelEditor';
import type { PreviewSurface } from '../../preview/previewClient';
import { IconButton } from '../../ui/Button';
import { Txt } from '../../ui/Txt';
import { colour, useIsWide } from '../../ui/theme';
import { useDrag } from '../../ui/useDrag';
import { usePinch } from '../../ui/usePinch';
import { elementOf, onKeys, webProps, webStyle } from '../../ui/web';
import { type Drags, ItemBlock } from './ItemBlock';
import { trackName } from './itemWords';
import { fittingPixels, type LineView, leftFor, nearestSnap, rulerStep, xOfFrame, zoomed } from './lineView';
import { colourOfUse } from './markerWords';

const ROW = 44;
const RULER = 26;
/** Pixels within which an end snaps to another. */
const SNAP = 8;
/** Milliseconds that a finger rests on an item to drag it. */
const LONG_PRESS = 400;

/** Where ends of items snap: the beginning, other items' ends and cues, markers and the playhead. */
function snapTargets(reel: Reel, but: readonly string[], playhead: number): number[] {
  const ends = reel.tracks.flatMap((t) =>
    t.items
      .filter((i) => !but.includes(i.id))
      .flatMap((i) => [...spanOf(reel, i), ...cuesOf(reel, i).map((c) => c.frame)]),
  );
  return [0, playhead, ...ends, ...reel.markers.map((m) => m.frame)];
}

/**
 * The reel as a line: its tracks over one another, in time. On a phone it slides under a playhead that stays in the
 * middle; on a wide screen the playhead moves.
 */
export function Line({ surface, onSeek }: { surface: PreviewSurface; onSeek: (frame: number) => void }) {
  const { reel, settle } = useReelEditor();
  const attempt = useAttempt();
  const { chosen, chooseItem, slipping } = useDesk();
  const wide = useIsWide();
  const number = useRestingFrame(surface);
  const end = useMemo(() => reelEnd(reel), [reel]);
  const whole = useRef<View>(null);
  const box = useRef<View>(null);
  const content = useRef<View>(null);
  const mark = useRef<View>(null);
  const [width, setWidth] = useState(0);
  const [zoom, setZoom] = useState<number>();
  const [snappedAt, setSnappedAt] = useState<number>();
  // While something is dragged, the line does not stretch or shrink under it.
  const [held, setHeld] = useState<number>();
  const px = width > 0 ? (held ?? Math.max(fittingPixels(width, end), zoom ?? 0)) : 0;
  const view = useRef<LineView>({ px: 1, left: 0, width: 0 });
  const [page, setPage] = useState(0);

  useLayoutEffect(() => {
    const element = elementOf(box)!;
    const measure = () => setWidth(element.clientWidth);
    measure();
    const observer = new ResizeObserver(measure);
    observer.observe(element);
    return () => observer.disconnect();
  }, []);

  // The line and the playhead are moved as they are, without rendering anything anew.
  const place = useCallback(() => {
    const frame = surface.snapshot().frame?.number ?? 0;
    const { px: pixels, width: across } = view.current;
    if (across === 0) return;
    view.current = { ...view.current, left: leftFor(view.current, frame, !wide) };
    elementOf(content)!.style.transform = `translateX(${-view.current.left * pixels}px)`;
    elementOf(mark)!.style.transform = `translateX(${xOfFrame(view.current, frame)}px)`;
    setPage(Math.floor((view.current.left * pixels) / across));
  }, [surface, wide]);
  useLayoutEffect(() => {
    const middle = view.current.left + view.current.width / 2 / view.current.px;
    const playhead = surface.snapshot().frame?.number ?? middle;
    // Zooming leaves the playhead where it is looked at.
    const at = xOfFrame(view.current, playhead);
    view.current = { px: px || 1, width, left: Math.max(0, playhead - at / (px || 1)) };
    place();
  }, [px, width, place, surface]);
  useEffect(() => surface.subscribe(place), [surface, place]);

  const zoomBy = useCallback(
    (by: number) => setZoom((now) => zoomed(now ?? fittingPixels(width, end), by, width, end)),
    [width, end],
  );
  useEffect(() => {
    const element = elementOf(whole)!;
    const onWheel = (e: WheelEvent) => {
      if (!e.ctrlKey && Math.abs(e.deltaY) <= Math.abs(e.deltaX)) return;
      e.preventDefault();
      zoomBy(2 ** (-e.deltaY / 240));
    };
    element.addEventListener('wheel', onWheel, { passive: false });
    return () => element.removeEventListener('wheel', onWheel);
  }, [zoomBy]);

  const toFrame = (x: number) => {
    const { left } = elementOf(box)!.getBoundingClientRect();
    const { px: pixels, left: first } = view.current;
    return Math.min(end - 1, Math.max(0, Math.round(first + (x - left) / pixels)));
  };
  const pinched = useRef(1);
  const from = useRef(0);
  /** The item that a pointer came down on. */
  const pressed = useRef<string | undefined>(undefined);
  /** Where a finger rests on an item for a while, it drags that. */
  const resting = useRef<ReturnType<typeof setTimeout> | undefined>(undefined);
  const carried = useRef<string | undefined>(undefined);
  const scrub = useDrag({
    onStart: (at) => {
      from.current = surface.snapshot().frame?.number ?? 0;
      if (wide && !pressed.current) onSeek(toFrame(at.x));
      const item = pressed.current;
      if (item === undefined) return;
      resting.current = setTimeout(() => {
        carried.current = item;
        chooseItem(item);
        navigator.vibrate?.(10);
        drags.begin();
      }, LONG_PRESS);
    },
    onMove: (at, began) => {
      clearTimeout(resting.current);
      if (carried.current !== undefined) {
        drags.move(carried.current, at.x - began.x, at.y - began.y, at.free);
        return;
      }
      if (pinch.active()) return;
      // On a phone the line goes along with the finger; on a wide screen the playhead does.
      const frame = wide ? toFrame(at.x) : from.current - (at.x - began.x) / view.current.px;
      onSeek(Math.min(end - 1, Math.max(0, Math.round(frame))));
    },
    onEnd: (moved, at) => {
      const item = pressed.current;
      pressed.current = undefined;
      clearTimeout(resting.current);
      if (carried.current !== undefined) {
        carried.current = undefined;
        drags.end();
        return;
      }
      if (moved || pinch.used()) return;
      chooseItem(item);
      if (!wide && !item) onSeek(toFrame(at.x));
    },
  });
  const pinch = usePinch({
    begin: () => clearTimeout(resting.current),
    change: (scale) => {
      const by = scale / pinched.current;
      pinched.current = scale;
      zoomBy(by);
    },
    end: () => {
      pinched.current = 1;
    },
  });
  const keys = onKeys((key, shift) => {
    const second = nominal(reel.rate);
    const by = { ArrowLeft: -1, ArrowRight: 1, PageUp: -second, PageDown: second }[key];
    if (key === '+' || key === '=') zoomBy(1.5);
    else if (key === '-') zoomBy(1 / 1.5);
    else if (key === '0') setZoom(0);
    else if (key === 'Home') onSeek(0);
    else if (key === 'End') onSeek(end - 1);
    else if (by === undefined) return false;
    else onSeek(Math.min(end - 1, Math.max(0, surface.position + by * (shift ? 10 : 1))));
    return true;
  });

  /** What a drag began with: each of its steps is worked out from that. */
  const began = useRef(reel);
  /** What it may snap to, which stays as it is while it lasts: found with its first step. */
  const targets = useRef<readonly number[] | undefined>(undefined);
  const snap = (ids: readonly string[], edges: readonly number[], free = false) => {
    targets.current ??= snapTargets(began.current, ids, surface.snapshot().frame?.number ?? 0);
    const found = free ? undefined : nearestSnap(edges, targets.current, SNAP / view.current.px);
    setSnappedAt(found?.at);
    return found?.by ?? 0;
  };
  const trimBy = (id: string, side: 'start' | 'end', by: number, free: boolean) => {
    const { item } = itemOf(began.current, id)!;
    const edge = spanOf(began.current, item)[side === 'start' ? 0 : 1] + by;
    const to = edge + snap([id], [edge], free);
    attempt(() => trimItem(began.current, id, side, to), `trim-${id}`);
  };
  const drags: Drags = {
    press: (id) => {
      pressed.current = id;
    },
    begin: () => {
      began.current = reel;
      targets.current = undefined;
      setHeld(view.current.px);
    },
    move: (id, dx, dy, free) => {
      const { item, track } = itemOf(began.current, id)!;
      const by = Math.round(dx / view.current.px);
      if (slipping && (item.kind === 'clip' || item.kind === 'sound')) {
        // What is inside goes along with the finger: to the right, what came earlier shows.
        attempt(() => slipItem(began.current, id, -secondsAt(by, reel.rate)), `slip-${id}`);
        return;
      }
      const ids = chosen.includes(id) ? chosen : [id];
      const spans = ids.flatMap((i) => spanOf(began.current, itemOf(began.current, i)!.item));
      const cues = cuesOf(began.current, item).map((c) => c.frame);
      const more = snap(
        ids,
        [...spans, ...cues].map((f) => f + by),
        free,
      );
      const at = began.current.tracks.indexOf(track) - Math.round(dy / ROW);
      const to = began.current.tracks[Math.min(began.current.tracks.length - 1, Math.max(0, at))]!;
      attempt(
        () => moveItems(began.current, ids, by + more, ids.length === 1 ? to.id : undefined),
        `move-${id}`,
      );
    },
    trim: (id, side, dx, free) => trimBy(id, side, Math.round(dx / view.current.px), free === true),
    trimFrames: (id, side, by) => trimBy(id, side, by, true),
    fade: (id, side, by) => {
      const { item } = itemOf(began.current, id)!;
      attempt(() => setFade(began.current, id, side, (fadesOf(item)[side] ?? 0) + by), `fade-${id}`);
    },
    end: () => {
      setSnappedAt(undefined);
      setHeld(undefined);
      settle();
    },
  };

  // What lies within the page that is seen and those beside it.
  const seen = [((page - 1) * width) / px, ((page + 2) * width) / px] as const;
  const perSecond = framesIn(1, reel.rate) * px;
  const step = rulerStep(perSecond);
  const firstTick = Math.max(0, Math.floor((seen[0] * px) / perSecond / step));
  const lastTick = Math.ceil((Math.min(seen[1], end) * px) / perSecond / step);
  const tracks = [...reel.tracks].reverse();
  return (
    <View ref={whole} style={styles.all} testID="line">
      <View
        ref={box}
        {...webProps({ ...scrub, ...keys })}
        role="slider"
        tabIndex={0}
        aria-label="Playhead on the line"
        aria-valuemin={0}
        aria-valuemax={end - 1}
        aria-valuenow={Math.min(number, end - 1)}
        aria-valuetext={timecodeAt(number, reel.rate)}
        testID="line-seek"
        style={[styles.ruler]}
      />
      <View style={styles.clip} pointerEvents="box-none">
        <View
          style={[styles.rows, { height: RULER + tracks.length * ROW }]}
          {...webProps(pinch.handlers(scrub))}
          testID="line-rows"
        >
          <View ref={content} style={styles.content} pointerEvents="box-none">
            {px > 0 &&
              Array.from({ length: Math.max(0, lastTick - firstTick + 1) }, (_, i) => {
                const second = (firstTick + i) * step;
                return (
                  <View key={second} style={[styles.tick, { left: second * perSecond }]} pointerEvents="none">
                    <Txt kind="label" tone="quiet" numberOfLines={1} style={styles.tickWord}>
                      {rulerText(second, step)}
                    </Txt>
                  </View>
                );
              })}
            {reel.markers.map((marker) => (
              <View
                key={marker.id}
                style={[styles.marker, { left: marker.frame * px, backgroundColor: colourOfUse(marker.use) }]}
                testID={`line-marker-${marker.id}`}
                pointerEvents="none"
              />
            ))}
            {tracks.map((track, row) => (
              <View
                key={track.id}
                role="group"
                aria-label={trackName(reel, track.id)}
                style={[styles.row, { top: RULER + row * ROW, width: end * px }]}
                pointerEvents="box-none"
              >
                {px > 0 &&
                  track.items
                    .filter((i) => i.start <= seen[1] && i.start + lengthOf(reel, i) >= seen[0])
                    .map((item) => (
                      <ItemBlock
                        key={item.id}
                        item={item}
                        px={px}
                        seen={seen}
                        chosen={chosen.includes(item.id)}
                        dim={Boolean(track.hidden) || (item.kind === 'sound' && Boolean(track.silent))}
                        onChoose={() => chooseItem(item.id)}
                        drags={drags}
                      />
                    ))}
              </View>
            ))}
            {snappedAt !== undefined && (
              <View style={[styles.snap, { left: snappedAt * px }]} pointerEvents="none" />
            )}
          </View>
          <View ref={mark} style={styles.playhead} pointerEvents="none" />
        </View>
      </View>
      <View style={styles.zoom}>
        <IconButton
          icon="zoom-out"
          label="Show more of the line"
          onPress={() => zoomBy(1 / 1.6)}
          testID="line-out"
        />
        <IconButton icon="zoom-in" label="Show less, larger" onPress={() => zoomBy(1.6)} testID="line-in" />
      </View>
    </View>
  );
}

/** A second of the ruler: minutes and seconds, with tenths where marks stand closer than that. */
function rulerText(second: number, step: number): string {
  const minutes = Math.floor(second / 60);
  const rest = (second - minutes * 60).toFixed(step < 1 ? 1 : 0).padStart(step < 1 ? 4 : 2, '0');
  return `${minutes}:${rest}`;
}

const styles = StyleSheet.create({
  all: { paddingHorizontal: 16, paddingBottom: 4 },
  ruler: webStyle({
    position: 'absolute',
    left: 16,
    right: 16,
    top: 0,
    height: RULER,
    zIndex: 2,
    cursor: 'pointer',
    touchAction: 'none',
    borderRadius: 6,
  }),
  clip: {
    overflow: 'hidden',
    borderRadius: 8,
    backgroundColor: colour.card,
    borderWidth: 1,
    borderColor: colour.hairline,
  },
  rows: webStyle({ touchAction: 'none', cursor: 'pointer' }),
  content: { position: 'absolute', left: 0, top: 0, bottom: 0 },
  tick: { position: 'absolute', top: 0, height: RULER, borderLeftWidth: 1, borderColor: colour.hairline },
  tickWord: webStyle({ paddingLeft: 4, fontVariant: ['tabular-nums'], whiteSpace: 'nowrap' }),
  marker: { position: 'absolute', top: 14, bottom: 0, width: 2, backgroundColor: colour.amber },
  row: { position: 'absolute', left: 0, height: ROW, borderTopWidth: 1, borderColor: colour.hairline },
  snap: { position: 'absolute', top: 0, bottom: 0, width: 2, marginLeft: -1, backgroundColor: colour.blue },
  playhead: {
    position: 'absolute',
    left: -1.5,
    top: 0,
    bottom: 0,
    width: 3,
    borderRadius: 2,
    backgroundColor: colour.ink,
  },
  zoom: { flexDirection: 'row', justifyContent: 'flex-end' },
});
