import type { FrameSize, Size } from '@fresh-reel/core';
import { type ReactNode, useState } from 'react';
import { type LayoutChangeEvent, StyleSheet, View } from 'react-native';
import { Ground } from '../../preview/Ground';
import type { PreviewSurface } from '../../preview/previewClient';
import { useAttached, usePreviewState } from '../../preview/usePreview';
import { Txt } from '../../ui/Txt';
import { colour } from '../../ui/theme';

interface Props {
  readonly surface: PreviewSurface;
  readonly frame: FrameSize;
  /** Anything behind it shows through. */
  readonly transparent: boolean;
  readonly label: string;
  /** What stands over the picture, which is so many pixels wide. */
  readonly children: (width: number) => ReactNode;
}

/** A preview, as large as its place allows, on the neutral grey that pictures are judged on. */
export function PictureFrame({ surface, frame, transparent, label, children }: Props) {
  const [room, setRoom] = useState<Size>({ width: 0, height: 0 });
  const holder = useAttached(surface);
  const ratio = frame.width / frame.height;
  const width = Math.min(room.width, room.height * ratio);
  const fault = usePreviewState(surface, (s) => s.fault);
  return (
    <View
      style={styles.surround}
      onLayout={({ nativeEvent: { layout } }: LayoutChangeEvent) =>
        setRoom({ width: layout.width, height: layout.height })
      }
    >
      <View
        style={[styles.picture, { width, height: width / ratio }]}
        testID="preview"
        role="group"
        aria-label={label}
      >
        {transparent && <Ground surface={surface} />}
        <View ref={holder} style={StyleSheet.absoluteFill} />
        {children(width)}
      </View>
      {fault && (
        <View style={styles.fault}>
          <Txt tone="white">{fault}</Txt>
        </View>
      )}
    </View>
  );
}

const styles = StyleSheet.create({
  surround: {
    flex: 1,
    backgroundColor: colour.surround,
    alignItems: 'center',
    justifyContent: 'center',
    overflow: 'hidden',
  },
  picture: { backgroundColor: colour.black, overflow: 'hidden' },
  fault: {
    position: 'absolute',
    left: 12,
    right: 12,
    bottom: 12,
    backgroundColor: colour.red,
    padding: 12,
    borderRadius: 10,
  },
});
