import { clipPlane, invertAffine, layoutFrame, onFrame, SURE, wayAt } from '@fresh-reel/core';
import { useRef } from 'react';
import { StyleSheet, View } from 'react-native';
import Svg, { Polyline } from 'react-native-svg';
import { colour } from '../../ui/theme';
import { useDrag } from '../../ui/useDrag';
import { arrowOf, onKeys, webProps, webStyle } from '../../ui/web';
import { useReelEditor } from '../session/useReelEditor';
import { useFollowing } from './useFollowing';

type Pair = readonly [number, number];

const LEAST = 6;

/** Over the picture: the way of what is followed, and the patch while it is chosen. */
export function PatchOverlay({ k }: { k: number }) {
  const { reel } = useReelEditor();
  const { below, way, patch, choosePatch, running, footing } = useFollowing();
  const began = useRef({ x: 0, y: 0, half: 1 });
  const frame = layoutFrame(reel.frame);
  const plane = below && clipPlane(below.clip, below.size, frame, below.time);
  const back = plane && invertAffine(plane);
  /** Pixels of the clip that a pixel of the page takes. */
  const perPixel = plane ? 1 / (Math.hypot(plane[0], plane[1]) * k) : 1;
  const byPage = (dx: number, dy: number): Pair => {
    if (!back) return [0, 0];
    const [a, b, c, d] = back;
    return [(a * dx + c * dy) / k, (b * dx + d * dy) / k];
  };
  const put = (x: number, y: number, half: number) =>
    below &&
    choosePatch({
      x: Math.min(below.size.width - 1, Math.max(0, x)),
      y: Math.min(below.size.height - 1, Math.max(0, y)),
      half: Math.min(below.size.height / 2, Math.max(LEAST, half)),
    });
  const begin = () => {
    if (patch) began.current = patch;
  };
  const move = useDrag({
    onStart: begin,
    onMove: (at, from) => {
      const [dx, dy] = byPage(at.x - from.x, at.y - from.y);
      put(began.current.x + dx, began.current.y + dy, began.current.half);
    },
  });
  const grow = useDrag({
    onStart: begin,
    onMove: (at, from) =>
      put(
        began.current.x,
        began.current.y,
        began.current.half + ((at.x - from.x + at.y - from.y) / 2) * perPixel,
      ),
  });
  const keys = onKeys((key, shift) => {
    const to = arrowOf(key);
    if (!to || !patch) return false;
    const step = shift ? 10 : 1;
    put(patch.x + to[0] * step, patch.y + to[1] * step, patch.half);
    return true;
  });
  const growKeys = onKeys((key) => {
    const to = arrowOf(key);
    if (!to || !patch) return false;
    put(patch.x, patch.y, patch.half + to[0] - to[1]);
    return true;
  });
  if (!plane || !below) return null;
  const samples = running?.samples ?? way?.samples ?? [];
  const onPage = (p: Pair): Pair => {
    const [x, y] = onFrame(plane, p);
    return [x * k, y * k];
  };
  const now = way && !patch ? wayAt(way, below.second) : undefined;
  const mark = now && onPage([now.x, now.y]);
  const middle = patch && onPage([patch.x, patch.y]);
  const reach = patch ? patch.half / perPixel : 0;
  /** What a finger can hold is never smaller than itself. */
  const hold = Math.max(14, reach);
  const tint = footing === 'poor' ? colour.red : footing === 'good' ? colour.leaf : colour.guide;
  return (
    <View style={StyleSheet.absoluteFill} pointerEvents="box-none">
      {samples.length > 1 && (
        <View style={StyleSheet.absoluteFill} pointerEvents="none" testID="way">
          <Svg width="100%" height="100%">
            <Polyline
              points={samples
                .filter((s) => s[5] >= SURE)
                .map((s) =>
                  onPage([s[1], s[2]])
                    .map((v) => v.toFixed(1))
                    .join(','),
                )
                .join(' ')}
              fill="none"
              stroke={colour.guide}
              strokeWidth={2}
            />
          </Svg>
        </View>
      )}
      {mark && (
        <View
          pointerEvents="none"
          style={[styles.mark, { left: mark[0] - 7, top: mark[1] - 7 }, now.sure < SURE && styles.lost]}
          testID="way-now"
        />
      )}
      {patch && middle && (
        <>
          <View
            {...webProps({ ...move, ...keys })}
            role="button"
            tabIndex={0}
            aria-label="What is followed: drag it onto the thing, or use the arrow keys"
            testID="patch"
            style={[
              styles.touch,
              { left: middle[0] - hold, top: middle[1] - hold, width: hold * 2, height: hold * 2 },
            ]}
          >
            <View style={[styles.patch, { width: reach * 2, height: reach * 2, borderColor: tint }]} />
          </View>
          <View
            {...webProps({ ...grow, ...growKeys })}
            role="slider"
            tabIndex={0}
            aria-label="Size of what is followed"
            aria-valuenow={Math.round(patch.half * 2)}
            aria-valuetext={`${Math.round(patch.half * 2)} pixels`}
            testID="patch-size"
            style={[styles.corner, { left: middle[0] + hold, top: middle[1] + hold }]}
          >
            <View style={[styles.dot, { borderColor: tint }]} />
          </View>
        </>
      )}
    </View>
  );
}

const styles = StyleSheet.create({
  touch: webStyle({
    position: 'absolute',
    alignItems: 'center',
    justifyContent: 'center',
    cursor: 'move',
    touchAction: 'none',
  }),
  patch: webStyle({
    borderWidth: 2,
    borderRadius: 3,
    boxShadow: '0 0 0 1px rgba(22,32,43,0.6), inset 0 0 0 1px rgba(22,32,43,0.6)',
  }),
  corner: webStyle({
    position: 'absolute',
    width: 28,
    height: 28,
    padding: 3,
    cursor: 'nwse-resize',
    touchAction: 'none',
  }),
  dot: { width: 13, height: 13, borderRadius: 3, borderWidth: 3, backgroundColor: colour.card },
  mark: {
    position: 'absolute',
    width: 14,
    height: 14,
    borderRadius: 7,
    borderWidth: 3,
    borderColor: colour.guide,
    backgroundColor: colour.card,
  },
  lost: { borderColor: colour.red },
});
