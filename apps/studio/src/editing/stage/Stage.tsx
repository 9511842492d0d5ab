import { ACTION_SAFE, boundsOf, type Region, type TextLayer, TITLE_SAFE } from '@fresh-reel/core';
import { useRef } from 'react';
import { StyleSheet, View } from 'react-native';
import type { PreviewSurface } from '../../preview/previewClient';
import { usePreviewState } from '../../preview/usePreview';
import { Txt } from '../../ui/Txt';
import { colour } from '../../ui/theme';
import { useDrag } from '../../ui/useDrag';
import { elementOf, webProps, webStyle } from '../../ui/web';
import { useDesk } from '../session/desk';
import { insideQuad, placeTags } from '../session/placing';
import { slotOf } from '../session/textLayers';
import { usePath } from '../session/usePath';
import { useGraphicEditor, useReelEditor } from '../session/useReelEditor';
import { LetterWays } from './LetterWays';
import { MakersGuides } from './MakersGuides';
import { PathHandles } from './PathHandles';
import { PictureFrame } from './PictureFrame';
import { PlaceHandles } from './PlaceHandles';
import { PointHandles } from './PointHandles';
import { Tags } from './Tags';
import { TextHandles } from './TextHandles';
import { TypeOnPicture } from './TypeOnPicture';

interface Props {
  readonly surface: PreviewSurface;
  readonly selected: string | undefined;
  /** A slot was touched, and the text layer that shows it there. */
  readonly onSelect: (slot: string | undefined, layer: string | undefined) => void;
  /** What stands over the picture: of the graphic that is worked on its tags or handles, or of items where they lie. */
  readonly over: 'tags' | 'handles' | 'place' | 'nothing';
  /** Anything behind the reel shows through. */
  readonly transparent: boolean;
  readonly safeAreas: boolean;
  /** Moves a picture inside its slot: the change of focus, parts of the picture. */
  readonly onDragPicture: (region: Region, dx: number, dy: number) => void;
  readonly onDragEnd: () => void;
}

/** The picture, as large as its place allows, with tags, handles and guides over it. None of those are rendered. */
export function Stage(props: Props) {
  const { surface, transparent } = props;
  const { reel } = useReelEditor();
  return (
    <PictureFrame surface={surface} frame={reel.frame} transparent={transparent} label="Preview of the reel">
      {(width) => (
        <>
          {props.safeAreas && <SafeAreas />}
          {(props.over === 'tags' || props.over === 'handles') && <Overlay {...props} width={width} />}
          {props.over === 'place' && <PlaceHandles surface={surface} width={width} />}
          <MissingMarks surface={surface} width={width} />
        </>
      )}
    </PictureFrame>
  );
}

/** Title-safe and action-safe edges (EBU R 95). */
export function SafeAreas() {
  const edge = (part: number) =>
    ({
      left: `${part * 100}%`,
      right: `${part * 100}%`,
      top: `${part * 100}%`,
      bottom: `${part * 100}%`,
    }) as const;
  return (
    <View style={StyleSheet.absoluteFill} pointerEvents="none" testID="safe-areas-shown">
      <View style={[styles.safe, edge(ACTION_SAFE)]} />
      <View style={[styles.safe, styles.titleSafe, edge(TITLE_SAFE)]} />
    </View>
  );
}

function Overlay({
  surface,
  selected,
  onSelect,
  over,
  width,
  onDragPicture,
  onDragEnd,
}: Props & { width: number }) {
  const { graphic, scene, mayEdit } = useGraphicEditor();
  const { path, text, typing, ways } = useDesk();
  const drawn = usePath(path);
  const [tags, handles] = [over === 'tags', over === 'handles'];
  const playing = usePreviewState(surface, (s) => s.playing);
  // While it plays nothing stands over it, so nothing is rendered with every frame.
  const frame = usePreviewState(surface, (s) => (s.playing && !typing ? undefined : s.frame));
  const last = useRef<{ x: number; y: number } | undefined>(undefined);
  const area = useRef<View>(null);
  const k = frame ? width / frame.layout.width : 0;
  const regions = frame?.regions.filter((r) => r.item === graphic.id) ?? [];

  /** The slot under a page point: the topmost, small ones before large ones that hold them. */
  const slotAt = (x: number, y: number): Region | undefined => {
    const box = elementOf(area)!.getBoundingClientRect();
    const [fx, fy] = [(x - box.left) / k, (y - box.top) / k];
    const hit = regions.filter((r) => insideQuad(grown(r.quad, 10), fx, fy));
    return hit.findLast((r) => r.kind === 'text') ?? hit.at(-1);
  };
  const slot = graphic.template.slots.find((s) => s.id === selected);
  const drag = useDrag({
    onStart: (at) => {
      last.current = at;
    },
    onMove: (at) => {
      if (slot?.kind !== 'picture' || !slot.crops || !last.current) return;
      const region = regions.find((r) => r.slot === slot.id);
      if (!region) return;
      const [[x0], [x1], , [, y3]] = region.quad as [
        [number, number],
        [number, number],
        [number, number],
        [number, number],
      ];
      onDragPicture(
        region,
        (at.x - last.current.x) / k / Math.abs(x1 - x0),
        (at.y - last.current.y) / k / Math.abs(y3 - region.quad[0]![1]),
      );
      last.current = at;
    },
    onEnd: (moved, at) => {
      if (moved) onDragEnd();
      else if (!playing) {
        const hit = slotAt(at.x, at.y);
        onSelect(hit?.slot, hit?.kind === 'text' ? hit.layer : undefined);
      }
    },
  });

  const chosen = tags && !path ? regions.find((r) => r.layer === text && r.kind === 'text') : undefined;
  const worked = text === undefined ? undefined : scene.textLayer(text);
  // A list shows a part of its words here: it is typed in its row.
  const typed = worked && canType(worked) ? slotOf(worked) : undefined;
  const placed = frame && tags ? placeTags(regions, k, width, frame.layout.height * k) : [];
  return (
    <View ref={area} style={[StyleSheet.absoluteFill, styles.touch]} {...webProps(drag)}>
      {frame && !playing && tags && (
        <>
          <MakersGuides guidelines={graphic.template.guidelines} slot={selected} />
          {regions
            .filter((r) => r.slot === selected && r.layer !== text)
            .map((r) => (
              <Outline key={r.layer} quad={r.quad} k={k} />
            ))}
          <Tags placed={placed} selected={selected} onSelect={onSelect} />
        </>
      )}
      {frame && !playing && handles && <PointHandles width={width} height={frame.layout.height * k} />}
      {frame && !playing && !typing && chosen && mayEdit && (
        <TextHandles region={chosen} regions={regions} k={k} frame={frame.layout} />
      )}
      {frame && ways && text && !playing && !typing && (
        <LetterWays surface={surface} layer={text} width={width} height={frame.layout.height * k} k={k} />
      )}
      {frame && typing && text && typed !== undefined && mayEdit && (
        <TypeOnPicture key={text} surface={surface} layer={text} slot={typed} k={k} />
      )}
      {frame && drawn && !playing && (
        <PathHandles drawn={drawn} width={width} height={frame.layout.height * k} />
      )}
    </View>
  );
}

/** Marks where a picture or clip is missing. A working aid: it is never rendered. */
function MissingMarks({ surface, width }: { surface: PreviewSurface; width: number }) {
  const frame = usePreviewState(surface, (s) => (s.playing ? undefined : s.frame));
  if (!frame) return null;
  const k = width / frame.layout.width;
  const missing = frame.notices.filter((n) => n.kind === 'missing-picture');
  const marked = frame.regions.filter((r) => missing.some((n) => n.item === r.item && n.slot === r.slot));
  return marked.map(({ item, layer, quad }) => {
    const box = boundsOf(quad.map(([x, y]) => [x * k, y * k] as const));
    return (
      <View
        key={`${item}/${layer}`}
        pointerEvents="none"
        testID={`missing-${layer}`}
        style={[styles.missing, { left: box.x, top: box.y, width: box.width, height: box.height }]}
      >
        <Txt kind="label" tone="white">
          Missing
        </Txt>
      </View>
    );
  });
}

function canType({ words }: TextLayer): boolean {
  return (
    'slot' in words && words.first === undefined && words.count === undefined && words.column === undefined
  );
}

/** A quad grown about its middle, so that thin words are easy to touch. */
function grown(quad: Region['quad'], by: number): Region['quad'] {
  const [cx, cy] = [quad.reduce((s, [x]) => s + x, 0) / 4, quad.reduce((s, [, y]) => s + y, 0) / 4];
  return quad.map(([x, y]) => [x + Math.sign(x - cx) * by, y + Math.sign(y - cy) * by] as const);
}

/** The outline of the chosen slot, as a box around its quad. */
function Outline({ quad, k }: { quad: Region['quad']; k: number }) {
  const xs = quad.map(([x]) => x * k);
  const ys = quad.map(([, y]) => y * k);
  const [left, top] = [Math.min(...xs) - 4, Math.min(...ys) - 4];
  return (
    <View
      style={[
        styles.outline,
        { left, top, width: Math.max(...xs) - left + 4, height: Math.max(...ys) - top + 4 },
      ]}
    />
  );
}

const styles = StyleSheet.create({
  touch: webStyle({ touchAction: 'none', cursor: 'pointer', userSelect: 'none' }),
  safe: {
    position: 'absolute',
    borderWidth: 1,
    borderColor: 'rgba(255,255,255,0.55)',
    borderStyle: 'dashed',
  },
  titleSafe: { borderColor: 'rgba(255,255,255,0.9)', borderStyle: 'solid' },
  outline: {
    position: 'absolute',
    borderWidth: 2,
    borderColor: colour.accent,
    borderRadius: 4,
    boxShadow: '0 0 0 1px rgba(255,255,255,0.85)',
  },
  missing: {
    position: 'absolute',
    alignItems: 'center',
    justifyContent: 'center',
    overflow: 'hidden',
    borderWidth: 2,
    borderStyle: 'dashed',
    borderColor: colour.card,
    backgroundColor: colour.veil,
  },
});
