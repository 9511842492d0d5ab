import { holdControl, nominal, secondsAt, setControl, stretches, timecodeAt } from '@fresh-reel/core';
import { useCallback, useRef, useState } from 'react';
import { StyleSheet, View } from 'react-native';
import { MovingMark } from '../../preview/MovingMark';
import type { PreviewSurface } from '../../preview/previewClient';
import { usePreviewState } from '../../preview/usePreview';
import { snapped } from '../../ui/Slider';
import { Txt } from '../../ui/Txt';
import { colour, size } from '../../ui/theme';
import { secondsText } from '../../ui/units';
import { useDrag } from '../../ui/useDrag';
import { arrowOf, elementOf, onKeys, webProps, webStyle } from '../../ui/web';
import { useRestingFrame } from '../session/desk';
import { useGraphicEditor, useReelEditor } from '../session/useReelEditor';

/** In, hold and out as three lengths of one ribbon. Scrub anywhere on it; drag the hold's end to make it longer. */
export function Ribbon({ surface, onSeek }: { surface: PreviewSurface; onSeek: (frame: number) => void }) {
  const { reel, scene, graphic, time, edit, settle } = useGraphicEditor();
  const number = useRestingFrame(surface);
  const [first, past] = time.span;
  const line = useRef<View>(null);
  const [focused, setFocused] = useState(false);
  const hold = holdControl(graphic.template);
  const { holdStart, outStart, end } = stretches(scene.clock);
  const { rate } = graphic.template;

  const seekTo = (x: number) => {
    const box = elementOf(line)!.getBoundingClientRect();
    const part = Math.min(1, Math.max(0, (x - box.left) / box.width));
    onSeek(Math.min(past - 1, first + Math.round(part * (past - first))));
  };
  const scrub = useDrag({ onStart: ({ x }) => seekTo(x), onMove: ({ x }) => seekTo(x) });
  const start = useRef({ hold: 0, perPixel: 1 });
  const stretch = useDrag({
    onStart: () => {
      const box = elementOf(line)!.getBoundingClientRect();
      start.current = { hold: scene.clock.hold, perPixel: end / box.width };
    },
    onMove: (at, from) => setHold(start.current.hold + (at.x - from.x) * start.current.perPixel),
    onEnd: () => settle(),
  });
  const setHold = (frames: number) => {
    if (!hold) return;
    const value = snapped(frames, hold.min, hold.max, 1);
    edit((r) => setControl(r, graphic.id, hold.id, value), 'hold');
  };
  const scrubKeys = onKeys((key, shift) => {
    const step = shift ? 10 : 1;
    const next = {
      ArrowLeft: surface.position - step,
      ArrowRight: surface.position + step,
      PageUp: surface.position - nominal(reel.rate),
      PageDown: surface.position + nominal(reel.rate),
      Home: first,
      End: past - 1,
    }[key];
    if (next === undefined) return false;
    onSeek(Math.min(past - 1, Math.max(first, next)));
    return true;
  });
  const holdKeys = onKeys((key, shift) => {
    const way = arrowOf(key);
    if (!way) return false;
    setHold(scene.clock.hold + (way[0] - way[1]) * (shift ? 30 : 3));
    settle();
    return true;
  });
  const partOf = useCallback((frame: number) => time.actualAt(frame) / end, [time, end]);
  const part = (frames: number) => `${(frames / end) * 100}%` as const;
  const lengths = [
    { name: 'In', from: 0, length: holdStart, style: styles.in },
    { name: 'Hold', from: holdStart, length: outStart - holdStart, style: styles.hold },
    { name: 'Out', from: outStart, length: end - outStart, style: styles.out },
  ];
  return (
    <View style={styles.all}>
      <View
        {...webProps(scrub)}
        {...webProps({
          ...scrubKeys,
          onFocus: () => setFocused(true),
          onBlur: () => setFocused(false),
        })}
        role="slider"
        tabIndex={0}
        aria-label="Playhead"
        aria-valuemin={first}
        aria-valuemax={past - 1}
        aria-valuenow={number}
        aria-valuetext={timecodeAt(number, reel.rate)}
        testID="seek"
        style={[styles.touch, focused && styles.focused]}
      >
        <View ref={line} style={styles.line}>
          {lengths.map((l) => (
            <View key={l.name} style={[styles.stretch, { left: part(l.from), width: part(l.length) }]}>
              {l.length / end > 0.09 && (
                <Txt kind="label" numberOfLines={1} style={styles.name}>
                  {l.length / end > 0.18 ? `${l.name} ${secondsText(secondsAt(l.length, rate))}` : l.name}
                </Txt>
              )}
              <View style={[styles.bar, l.style]} />
            </View>
          ))}
          <MovingMark surface={surface} partOf={partOf} style={styles.playhead} />
        </View>
      </View>
      {hold && (
        <View style={styles.grips} pointerEvents="box-none">
          <View
            {...webProps(stretch)}
            {...webProps(holdKeys)}
            role="slider"
            tabIndex={0}
            aria-label="Length of the hold"
            aria-valuemin={hold.min}
            aria-valuemax={hold.max}
            aria-valuenow={Math.round(scene.clock.hold)}
            aria-valuetext={secondsText(secondsAt(scene.clock.hold, rate))}
            testID="hold-end"
            style={[styles.grip, { left: part(outStart) }]}
          >
            <View style={styles.gripBar} />
          </View>
        </View>
      )}
    </View>
  );
}

/** The time under the playhead. */
export function TimeText({ surface }: { surface: PreviewSurface }) {
  const { reel } = useReelEditor();
  const number = usePreviewState(surface, (s) => s.frame?.number ?? 0);
  const quality = usePreviewState(surface, (s) => s.frame?.quality ?? 1);
  return (
    <View style={styles.time} testID="time">
      <Txt kind="strong" style={styles.figures} testID="timecode">
        {timecodeAt(number, reel.rate)}
      </Txt>
      {quality < 1 && (
        <Txt kind="small" tone="quiet" numberOfLines={1} style={styles.draft}>
          draft {Math.round(quality * 100)}%
        </Txt>
      )}
    </View>
  );
}

const styles = StyleSheet.create({
  all: { paddingHorizontal: 16 },
  touch: webStyle({
    height: 52,
    justifyContent: 'center',
    cursor: 'pointer',
    touchAction: 'none',
    borderRadius: 8,
  }),
  focused: { outlineWidth: 2, outlineColor: colour.blue, outlineStyle: 'solid' },
  line: { height: 42 },
  stretch: { position: 'absolute', top: 0, bottom: 0, justifyContent: 'flex-end' },
  // The words stand above the bar, where the playhead does not come.
  name: { height: 18, paddingHorizontal: 2 },
  bar: { height: 22 },
  in: { backgroundColor: colour.sand, borderTopLeftRadius: 8, borderBottomLeftRadius: 8 },
  hold: { backgroundColor: colour.accentTint },
  out: { backgroundColor: colour.sand, borderTopRightRadius: 8, borderBottomRightRadius: 8 },
  playhead: {
    position: 'absolute',
    top: 17,
    bottom: -4,
    width: 3,
    marginLeft: -1.5,
    borderRadius: 2,
    backgroundColor: colour.ink,
  },
  grips: { position: 'absolute', left: 16, right: 16, top: 0, bottom: 0 },
  grip: webStyle({
    position: 'absolute',
    top: 8,
    width: 44,
    height: 44,
    marginLeft: -22,
    alignItems: 'center',
    justifyContent: 'center',
    cursor: 'ew-resize',
    touchAction: 'none',
    borderRadius: 8,
  }),
  gripBar: {
    width: 6,
    height: 26,
    borderRadius: 3,
    marginTop: 14,
    backgroundColor: colour.accent,
    borderWidth: 1,
    borderColor: colour.card,
  },
  // Where there is no room beside the time, what is said of it goes below.
  time: { flexDirection: 'row', flexWrap: 'wrap', alignItems: 'center', columnGap: 8, flexShrink: 1 },
  draft: { flexShrink: 0 },
  figures: { fontVariant: ['tabular-nums'], fontSize: size.body },
});
