import { plainText, retype } from '@fresh-reel/core';
import { useEffect, useRef, useState } from 'react';
import { StyleSheet, TextInput, View } from 'react-native';
import type { PreviewSurface } from '../../preview/previewClient';
import { usePreviewState } from '../../preview/usePreview';
import { Press } from '../../ui/Press';
import { Txt } from '../../ui/Txt';
import { colour } from '../../ui/theme';
import { elementOf, webProps, webStyle } from '../../ui/web';
import { useDesk } from '../session/desk';
import { useGraphicEditor } from '../session/useReelEditor';
import { usePutWords } from '../words/TextTools';
import { caretAt, indexAt } from './letters';

interface Props {
  readonly surface: PreviewSurface;
  readonly layer: string;
  readonly slot: string;
  readonly k: number;
}

/**
 * Typing on the picture: an unseen field takes the keys, and the caret and the selection stand on the letters as they
 * are in this frame, turned, bent or moving.
 */
export function TypeOnPicture({ surface, layer, slot, k }: Props) {
  const { graphic, scene, settle } = useGraphicEditor();
  const { chooseText } = useDesk();
  const put = usePutWords(slot);
  const field = useRef<TextInput>(null);
  const area = useRef<View>(null);
  const [range, setRange] = useState({ start: 0, end: 0 });
  const map = usePreviewState(surface, (s) => s.frame?.letters);
  const letters = map?.item === graphic.id && map.layer === layer ? map.letters : [];
  const held = scene.slots.words(slot);
  const words = held.runs.length > 0 ? { text: held.text, runs: [...held.runs] } : held.text;
  const text = plainText(words);

  useEffect(() => {
    surface.traceLetters({ item: graphic.id, layer });
    return () => surface.traceLetters(undefined);
  }, [surface, graphic.id, layer]);
  // The caret begins at the end, ready to go on.
  const [length] = useState(text.length);
  useEffect(() => {
    const input = field.current as unknown as HTMLTextAreaElement | null;
    input?.focus({ preventScroll: true });
    input?.setSelectionRange(length, length);
    setRange({ start: length, end: length });
  }, [length]);

  const done = () => {
    settle();
    chooseText(layer, false);
  };
  const touch = (e: {
    clientX: number;
    clientY: number;
    preventDefault(): void;
    stopPropagation(): void;
  }) => {
    e.preventDefault();
    e.stopPropagation();
    const box = elementOf(area)!.getBoundingClientRect();
    const index = indexAt(letters, (e.clientX - box.left) / k, (e.clientY - box.top) / k);
    if (index === undefined) return;
    const input = field.current as unknown as HTMLTextAreaElement;
    input.focus({ preventScroll: true });
    input.setSelectionRange(index, index);
    setRange({ start: index, end: index });
  };
  const caret = range.start === range.end ? caretAt(letters, Math.min(range.end, text.length)) : undefined;
  const chosen = letters.filter((l) => l.from < range.end && l.to > range.start);
  return (
    <View
      ref={area}
      style={StyleSheet.absoluteFill}
      testID="typing"
      // A finger's touch ends in a mouse press, which would take the keys from the field.
      {...webProps({ onPointerDown: touch, onPointerUp: stop, onMouseDown: keepFocus })}
    >
      {chosen.map((l) => (
        <View
          key={l.from}
          pointerEvents="none"
          style={[
            StyleSheet.absoluteFill,
            styles.chosen,
            webStyle({ clipPath: `polygon(${l.quad.map(([x, y]) => `${x * k}px ${y * k}px`).join(',')})` }),
          ]}
        />
      ))}
      {caret && <Caret foot={caret.foot} top={caret.top} k={k} />}
      <TextInput
        ref={field}
        aria-label="Words on the picture"
        multiline
        value={text}
        onChangeText={(next) => put(retype(words, next))}
        onSelectionChange={({ nativeEvent: { selection } }) => setRange(selection)}
        onKeyPress={(e) => {
          if (e.nativeEvent.key === 'Escape') done();
        }}
        testID="typing-field"
        style={styles.unseen}
      />
      <Press
        role="button"
        aria-label="Done typing"
        onPress={done}
        {...webProps({ onPointerDown: stop })}
        style={styles.done}
        testID="typing-done"
      >
        <Txt kind="label" tone="white">
          Done
        </Txt>
      </Press>
    </View>
  );
}

const stop = (e: { stopPropagation(): void }) => e.stopPropagation();
const keepFocus = (e: { preventDefault(): void }) => e.preventDefault();

function Caret({
  foot,
  top,
  k,
}: {
  foot: readonly [number, number];
  top: readonly [number, number];
  k: number;
}) {
  const [dx, dy] = [(top[0] - foot[0]) * k, (top[1] - foot[1]) * k];
  const length = Math.max(8, Math.hypot(dx, dy));
  const angle = (Math.atan2(dx, -dy) * 180) / Math.PI;
  return (
    <View
      pointerEvents="none"
      testID="caret"
      style={[
        styles.caret,
        {
          left: foot[0] * k - 1.5,
          top: foot[1] * k - length,
          height: length,
          transform: [{ rotate: `${angle}deg` }],
        },
      ]}
    />
  );
}

const styles = StyleSheet.create({
  fill: webStyle({ position: 'absolute', left: 0, top: 0, right: 0, bottom: 0, touchAction: 'none' }),
  chosen: { backgroundColor: 'rgba(57,194,215,0.45)' },
  caret: webStyle({
    position: 'absolute',
    width: 3,
    borderRadius: 1.5,
    backgroundColor: colour.accent,
    boxShadow: '0 0 0 1px #FFFFFF',
    transformOrigin: '50% 100%',
  }),
  // Seen by the keyboard and by assistive technology, not by the eye; 16 px keeps phones from zooming in. Its lines are
  // the words' own, so that Home and End go to their ends.
  unseen: webStyle({
    position: 'absolute',
    left: 8,
    bottom: 8,
    width: 60,
    height: 24,
    opacity: 0,
    fontSize: 16,
    whiteSpace: 'pre',
    pointerEvents: 'none',
  }),
  done: {
    position: 'absolute',
    right: 8,
    top: 8,
    minWidth: 64,
    minHeight: 44,
    paddingHorizontal: 14,
    alignItems: 'center',
    justifyContent: 'center',
    borderRadius: 10,
    backgroundColor: 'rgba(22,32,43,0.88)',
  },
});
