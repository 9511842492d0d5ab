import {
  fadesOf,
  GraphicScene,
  GraphicTime,
  layoutFrame,
  lengthOf,
  type ReelItem,
  stretches,
} from '@fresh-reel/core';
import { type ReactNode, useMemo } from 'react';
import { Image, StyleSheet, View } from 'react-native';
import { useReelEditor } from '../../editing/session/useReelEditor';
import { DOCUMENT_ONLY } from '../../engine/documentOnly';
import { useThumb } from '../../media/useThumb';
import { Txt } from '../../ui/Txt';
import { colour } from '../../ui/theme';
import { useDrag } from '../../ui/useDrag';
import { onKeys, webProps, webStyle } from '../../ui/web';
import { ClipStrip, SoundShape } from './ClipStrip';
import { KIND_WORDS, nameOf } from './itemWords';

/** What is done with items on the line. */
export interface Drags {
  /** A pointer came down on an item that is not chosen. */
  readonly press: (id: string) => void;
  readonly begin: () => void;
  readonly move: (id: string, dx: number, dy: number, free?: boolean) => void;
  readonly trim: (id: string, side: 'start' | 'end', dx: number, free?: boolean) => void;
  readonly trimFrames: (id: string, side: 'start' | 'end', by: number) => void;
  /** Makes a fade longer or shorter by frames. */
  readonly fade: (id: string, side: 'in' | 'out', by: number) => void;
  readonly end: () => void;
}

interface Props {
  readonly item: ReelItem;
  /** Pixels of a frame. */
  readonly px: number;
  readonly chosen: boolean;
  /** Frames of the reel that are seen, or nearly. */
  readonly seen: readonly [number, number];
  /** Its track is hidden or silent. */
  readonly dim: boolean;
  readonly onChoose: () => void;
  readonly drags: Drags;
}

/**
 * An item on the line, told by what is drawn in it. A touch chooses it; what is chosen can be dragged, and trimmed at
 * either end.
 */
export function ItemBlock({ item, px, seen, chosen, dim, onChoose, drags }: Props) {
  const { reel } = useReelEditor();
  const length = lengthOf(reel, item);
  const width = Math.max(6, length * px);
  const name = nameOf(reel, item);
  return (
    <View
      style={[styles.block, { left: item.start * px, width }, dim && styles.dim]}
      pointerEvents="box-none"
    >
      <Body item={item} name={name} chosen={chosen} onChoose={onChoose} drags={drags}>
        <Drawn item={item} width={width} px={px} seen={seen} />
      </Body>
      {chosen && (
        <>
          <Grip item={item} side="start" name={name} length={length} drags={drags} />
          <Grip item={item} side="end" name={name} length={length} drags={drags} />
          {width > 60 && (
            <>
              <FadeHandle item={item} side="in" name={name} px={px} drags={drags} />
              <FadeHandle item={item} side="out" name={name} px={px} drags={drags} />
            </>
          )}
        </>
      )}
    </View>
  );
}

function Body({
  item,
  name,
  chosen,
  onChoose,
  drags,
  children,
}: Pick<Props, 'item' | 'chosen' | 'onChoose' | 'drags'> & { name: string; children: ReactNode }) {
  const drag = useDrag({
    onStart: drags.begin,
    onMove: (at, from) => drags.move(item.id, at.x - from.x, at.y - from.y, at.free),
    onEnd: drags.end,
  });
  // A drag that begins on what is not chosen slides the line below it; a touch alone chooses it.
  const touch = { onPointerDown: () => drags.press(item.id) };
  const keys = onKeys((key) => {
    if (key !== 'Enter' && key !== ' ') return false;
    onChoose();
    return true;
  });
  return (
    <View
      {...webProps({ ...(chosen ? drag : touch), ...keys })}
      role="button"
      tabIndex={0}
      aria-pressed={chosen}
      aria-label={`${KIND_WORDS[item.kind]}: ${name}`}
      testID={`item-${item.id}`}
      style={[styles.body, item.kind === 'graphic' && styles.title, chosen && styles.chosen]}
    >
      {children}
      <Txt kind="label" numberOfLines={1} style={[styles.name, item.kind !== 'graphic' && styles.plate]}>
        {name}
      </Txt>
    </View>
  );
}

/** What an item shows on the line: its picture, its wave, its colour, or its in, hold and out. */
function Drawn({ item, width, px, seen }: Pick<Props, 'item' | 'px' | 'seen'> & { width: number }) {
  switch (item.kind) {
    case 'graphic':
      return <Stretches item={item} />;
    case 'sound':
      return (
        <View style={styles.wave} pointerEvents="none">
          <SoundShape item={item} px={px} seen={seen} />
        </View>
      );
    case 'colour':
      return <View style={[styles.fill, { backgroundColor: item.colour }]} pointerEvents="none" />;
    case 'clip':
      return (
        <>
          <Frames media={item.media} width={width} />
          <ClipStrip item={item} px={px} seen={seen} />
        </>
      );
    default:
      return <Frames media={item.media} width={width} />;
  }
}

function Frames({ media, width }: { media: string; width: number }) {
  const url = useThumb(media);
  if (!url || width < 24) return null;
  return <Image source={{ uri: url }} style={styles.frames} resizeMode="cover" alt="" />;
}

/** In, hold and out of a title, as on its ribbon. */
function Stretches({ item }: { item: Extract<ReelItem, { kind: 'graphic' }> }) {
  const { reel } = useReelEditor();
  const { frame, rate } = reel;
  const template = reel.templates[item.template]!;
  const { parts, cues } = useMemo(() => {
    const scene = new GraphicScene(template, item.fill, layoutFrame(frame), DOCUMENT_ONLY);
    const time = new GraphicTime(scene, item.start, { rate });
    const { holdStart, outStart } = stretches(scene.clock);
    const [from, to] = time.span;
    const part = (actual: number) => (time.frameOf(actual) - from) / (to - from);
    const marked = template.cues.map((cue) => part(scene.timeOf(cue.at)));
    return { parts: [part(holdStart), part(outStart)] as const, cues: [...new Set(marked)] };
  }, [template, item.fill, item.start, frame, rate]);
  const percent = (value: number) => `${value * 100}%` as const;
  return (
    <View style={styles.fill} pointerEvents="none">
      <View style={[styles.hold, { left: percent(parts[0]), width: percent(parts[1] - parts[0]) }]} />
      {cues.map((part) => (
        <View key={part} style={[styles.cue, { left: percent(part) }]} />
      ))}
    </View>
  );
}

function Grip({
  item,
  side,
  name,
  length,
  drags,
}: {
  item: ReelItem;
  side: 'start' | 'end';
  name: string;
  length: number;
  drags: Drags;
}) {
  const drag = useDrag({
    onStart: drags.begin,
    onMove: (at, from) => drags.trim(item.id, side, at.x - from.x, at.free),
    onEnd: drags.end,
  });
  const keys = onKeys((key, shift) => {
    const by = { ArrowLeft: -1, ArrowRight: 1 }[key];
    if (by === undefined) return false;
    drags.begin();
    drags.trimFrames(item.id, side, by * (shift ? 10 : 1));
    drags.end();
    return true;
  });
  const at = side === 'start' ? item.start : item.start + length;
  return (
    <View
      {...webProps({ ...drag, ...keys })}
      role="slider"
      tabIndex={0}
      aria-label={`${side === 'start' ? 'Beginning' : 'End'} of ${name}`}
      aria-valuenow={at}
      testID={`trim-${side}`}
      style={[styles.grip, side === 'start' ? styles.gripStart : styles.gripEnd]}
    >
      <View style={styles.gripBar} />
    </View>
  );
}

/** Where a fade ends, on the upper edge of an item. */
function FadeHandle({
  item,
  side,
  name,
  px,
  drags,
}: {
  item: ReelItem;
  side: 'in' | 'out';
  name: string;
  px: number;
  drags: Drags;
}) {
  const frames = fadesOf(item)[side] ?? 0;
  const way = side === 'in' ? 1 : -1;
  const drag = useDrag({
    onStart: drags.begin,
    onMove: (at, from) => drags.fade(item.id, side, Math.round((way * (at.x - from.x)) / px)),
    onEnd: drags.end,
  });
  const keys = onKeys((key, shift) => {
    const by = { ArrowLeft: -way, ArrowRight: way }[key];
    if (by === undefined) return false;
    drags.begin();
    drags.fade(item.id, side, by * (shift ? 10 : 1));
    drags.end();
    return true;
  });
  return (
    <View
      {...webProps({ ...drag, ...keys })}
      role="slider"
      tabIndex={0}
      aria-label={side === 'in' ? `${name} comes in over` : `${name} goes out over`}
      aria-valuenow={frames}
      aria-valuetext={`${frames} frames`}
      testID={`fade-${side}`}
      style={[styles.fade, side === 'in' ? { left: 12 + frames * px } : { right: 12 + frames * px }]}
    >
      <View style={styles.fadeDot} />
    </View>
  );
}

const styles = StyleSheet.create({
  fade: webStyle({
    position: 'absolute',
    top: -3,
    width: 24,
    height: 24,
    alignItems: 'center',
    justifyContent: 'center',
    cursor: 'ew-resize',
    touchAction: 'none',
    zIndex: 4,
  }),
  fadeDot: {
    width: 11,
    height: 11,
    borderRadius: 6,
    backgroundColor: colour.card,
    borderWidth: 3,
    borderColor: colour.accent,
  },

  block: { position: 'absolute', top: 3, bottom: 3 },
  dim: { opacity: 0.4 },
  body: webStyle({
    flex: 1,
    borderRadius: 6,
    overflow: 'hidden',
    backgroundColor: colour.hairline,
    justifyContent: 'flex-end',
    cursor: 'grab',
    touchAction: 'none',
    borderWidth: 1,
    borderColor: colour.edge,
  }),
  title: { backgroundColor: colour.sand, justifyContent: 'center' },
  chosen: { borderColor: colour.accent, borderWidth: 2 },
  fill: { position: 'absolute', left: 0, top: 0, right: 0, bottom: 0 },
  cue: { position: 'absolute', top: 0, width: 2, height: 9, backgroundColor: colour.accent },
  hold: { position: 'absolute', top: 0, bottom: 0, backgroundColor: colour.accentTint },
  frames: { position: 'absolute', left: 0, top: 0, right: 0, bottom: 0, width: '100%', height: '100%' },
  wave: { position: 'absolute', left: 0, top: 2, right: 0, bottom: 2, backgroundColor: colour.card },
  name: { paddingHorizontal: 6 },
  plate: webStyle({
    alignSelf: 'flex-start',
    maxWidth: '100%',
    backgroundColor: 'rgba(255,255,255,0.85)',
    borderTopRightRadius: 5,
  }),
  grip: webStyle({
    position: 'absolute',
    top: -3,
    bottom: -3,
    width: 28,
    justifyContent: 'center',
    cursor: 'ew-resize',
    touchAction: 'none',
    zIndex: 3,
  }),
  gripStart: { left: -16, alignItems: 'center' },
  gripEnd: { right: -16, alignItems: 'center' },
  gripBar: {
    width: 6,
    height: 26,
    borderRadius: 3,
    backgroundColor: colour.accent,
    borderWidth: 1,
    borderColor: colour.card,
  },
});
