import { convertFrames, secondsAt, setControl, stretches, timecodeAt } from '@fresh-reel/core';
import { useRef, useState } from 'react';
import { StyleSheet, View } from 'react-native';
import type { PreviewSurface } from '../../preview/previewClient';
import { usePreviewState } from '../../preview/usePreview';
import { snapped } from '../../ui/Slider';
import { Txt } from '../../ui/Txt';
import { colour, size } from '../../ui/theme';
import { secondsText } from '../../ui/units';
import { useDrag } from '../../ui/useDrag';
import { useReelEditor } from '../session/useReelEditor';

/** The control that sets the hold, when the template has one. */
function useHoldControl() {
  const { graphic } = useReelEditor();
  const { hold } = graphic.template.timing;
  const id = typeof hold === 'object' && 'control' in hold ? hold.control : undefined;
  const control = graphic.template.controls.find((c) => c.id === id);
  return control?.kind === 'duration' ? control : undefined;
}

/** In, hold and out as three lengths of one ribbon. Scrub anywhere on it; drag the hold's end to make it longer. */
export function Ribbon({ surface, onSeek }: { surface: PreviewSurface; onSeek: (frame: number) => void }) {
  const { reel, scene, graphic, edit, settle } = useReelEditor();
  const number = usePreviewState(surface, (s) => s.frame?.number ?? 0);
  const count = usePreviewState(surface, (s) => s.frame?.count) ?? Math.max(1, Math.round(scene.length));
  const line = useRef<View>(null);
  const [focused, setFocused] = useState(false);
  const hold = useHoldControl();
  const { holdStart, outStart, end } = stretches(scene.clock);
  const { rate } = graphic.template;

  const seekTo = (x: number) => {
    const box = (line.current as unknown as HTMLElement).getBoundingClientRect();
    const part = Math.min(1, Math.max(0, (x - box.left) / box.width));
    onSeek(Math.min(count - 1, Math.round(part * count)));
  };
  const scrub = useDrag({ onStart: ({ x }) => seekTo(x), onMove: ({ x }) => seekTo(x) });
  const start = useRef({ hold: 0, perPixel: 1 });
  const stretch = useDrag({
    onStart: () => {
      const box = (line.current as unknown as HTMLElement).getBoundingClientRect();
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
  const onKeyDown = (e: {
    key: string;
    shiftKey: boolean;
    preventDefault(): void;
    stopPropagation(): void;
  }) => {
    const step = e.shiftKey ? 10 : 1;
    const next = {
      ArrowLeft: surface.position - step,
      ArrowRight: surface.position + step,
      Home: 0,
      End: count - 1,
    }[e.key];
    if (next === undefined) return;
    e.preventDefault();
    e.stopPropagation();
    onSeek(Math.min(count - 1, Math.max(0, next)));
  };
  const holdKey = (e: {
    key: string;
    shiftKey: boolean;
    preventDefault(): void;
    stopPropagation(): void;
  }) => {
    const step = (e.shiftKey ? 30 : 3) * (e.key === 'ArrowLeft' ? -1 : e.key === 'ArrowRight' ? 1 : 0);
    if (step === 0) return;
    e.preventDefault();
    e.stopPropagation();
    setHold(scene.clock.hold + step);
    settle();
  };
  const now = convertFrames(number, reel.rate, rate);
  const part = (frames: number) => `${(frames / end) * 100}%` as const;
  const lengths = [
    { name: 'In', from: 0, length: holdStart, style: styles.in },
    { name: 'Hold', from: holdStart, length: outStart - holdStart, style: styles.hold },
    { name: 'Out', from: outStart, length: end - outStart, style: styles.out },
  ];
  return (
    <View style={styles.all}>
      <View
        {...scrub}
        {...({ onKeyDown, onFocus: () => setFocused(true), onBlur: () => setFocused(false) } as object)}
        role="slider"
        tabIndex={0}
        aria-label="Playhead"
        aria-valuemin={0}
        aria-valuemax={count - 1}
        aria-valuenow={number}
        aria-valuetext={timecodeAt(number, reel.rate)}
        testID="seek"
        style={[styles.touch, focused && styles.focused]}
      >
        <View ref={line} style={styles.line}>
          {lengths.map((l) => (
            <View
              key={l.name}
              style={[styles.stretch, l.style, { left: part(l.from), width: part(l.length) }]}
            >
              {l.length / end > 0.09 && (
                <Txt kind="label" numberOfLines={1}>
                  {l.length / end > 0.18 ? `${l.name} ${secondsText(secondsAt(l.length, rate))}` : l.name}
                </Txt>
              )}
            </View>
          ))}
          <View style={[styles.playhead, { left: part(Math.min(now, end)) }]} pointerEvents="none" />
        </View>
      </View>
      {hold && (
        <View style={styles.grips} pointerEvents="box-none">
          <View
            {...stretch}
            {...({ onKeyDown: holdKey } as object)}
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
    <View style={styles.time}>
      <Txt kind="strong" style={styles.figures} testID="timecode">
        {timecodeAt(number, reel.rate)}
      </Txt>
      {quality < 1 && (
        <Txt kind="small" tone="quiet">
          draft {Math.round(quality * 100)}%
        </Txt>
      )}
    </View>
  );
}

const styles = StyleSheet.create({
  all: { paddingHorizontal: 16 },
  touch: {
    height: 52,
    justifyContent: 'center',
    cursor: 'pointer',
    touchAction: 'none',
    borderRadius: 8,
  } as object,
  focused: { outlineWidth: 2, outlineColor: colour.blue, outlineStyle: 'solid' },
  line: { height: 36 },
  stretch: {
    position: 'absolute',
    top: 0,
    bottom: 0,
    justifyContent: 'center',
    paddingHorizontal: 8,
    overflow: 'hidden',
  },
  in: { backgroundColor: '#E9DFC9', borderTopLeftRadius: 8, borderBottomLeftRadius: 8 },
  hold: { backgroundColor: colour.accentTint },
  out: { backgroundColor: '#E9DFC9', borderTopRightRadius: 8, borderBottomRightRadius: 8 },
  playhead: {
    position: 'absolute',
    top: -6,
    bottom: -6,
    width: 3,
    marginLeft: -1.5,
    borderRadius: 2,
    backgroundColor: colour.ink,
  },
  grips: { position: 'absolute', left: 16, right: 16, top: 0, bottom: 0 },
  grip: {
    position: 'absolute',
    top: 4,
    width: 44,
    height: 44,
    marginLeft: -22,
    alignItems: 'center',
    justifyContent: 'center',
    cursor: 'ew-resize',
    touchAction: 'none',
    borderRadius: 8,
  } as object,
  gripBar: {
    width: 6,
    height: 28,
    borderRadius: 3,
    backgroundColor: colour.accent,
    borderWidth: 1,
    borderColor: '#FFFFFF',
  },
  time: { flexDirection: 'row', alignItems: 'center', gap: 8 },
  figures: { fontVariant: ['tabular-nums'], fontSize: size.body },
});
