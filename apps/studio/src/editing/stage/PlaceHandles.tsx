import {
  boundsOf,
  framedIn,
  framingHeld,
  isKeyed,
  itemOf,
  layoutFrame,
  putFraming,
  type Region,
  turnAbout,
} from '@fresh-reel/core';
import { useRef } from 'react';
import { StyleSheet, View } from 'react-native';
import type { PaintedFrame } from '../../preview/messages';
import type { PreviewSurface } from '../../preview/previewClient';
import { usePreviewState } from '../../preview/usePreview';
import { useDrag } from '../../ui/useDrag';
import { elementOf, webProps, webStyle } from '../../ui/web';
import { PatchOverlay } from '../follow/PatchOverlay';
import { useFollowing } from '../follow/useFollowing';
import { useDesk } from '../session/desk';
import { insideQuad } from '../session/placing';
import { useReelEditor } from '../session/useReelEditor';
import { BoxHandles, middleOf } from './BoxHandles';

type Quad = Region['quad'];

/** Where each item shows in a frame, what lies above last: a file's corners, or the box around all of a title. */
function itemQuads(frame: PaintedFrame): Map<string, Quad> {
  const quads = new Map<string, Quad[]>();
  for (const { item, quad, opacity } of frame.regions)
    if (opacity > 0) quads.set(item, [...(quads.get(item) ?? []), quad]);
  return new Map(
    [...quads].map(([item, all]) => {
      if (all.length === 1) return [item, all[0]!] as const;
      const { x, y, width, height } = boundsOf(all.flat());
      return [
        item,
        [
          [x, y],
          [x + width, y],
          [x + width, y + height],
          [x, y + height],
        ],
      ] as const;
    }),
  );
}

/** Items where they lie on the picture: a touch chooses the topmost, and what is chosen is moved, scaled and turned. */
export function PlaceHandles({ surface, width }: { surface: PreviewSurface; width: number }) {
  const frame = usePreviewState(surface, (s) => (s.playing ? undefined : s.frame));
  const area = useRef<View>(null);
  const { item: chosen, chooseItem } = useDesk();
  const { patch } = useFollowing();
  const k = frame ? width / frame.layout.width : 1;
  const quads = frame ? itemQuads(frame) : new Map<string, Quad>();
  const choose = (x: number, y: number) =>
    chooseItem([...quads].findLast(([, quad]) => insideQuad(quad, x, y))?.[0]);
  const touch = useDrag({
    onMove: () => undefined,
    onEnd: (moved, at) => {
      if (moved) return;
      const box = elementOf(area)!.getBoundingClientRect();
      choose((at.x - box.left) / k, (at.y - box.top) / k);
    },
  });
  const quad = chosen === undefined ? undefined : quads.get(chosen);
  return (
    <View
      ref={area}
      style={[StyleSheet.absoluteFill, styles.touch]}
      {...webProps(touch)}
      testID="place-picture"
    >
      {frame && chosen !== undefined && quad && !patch && (
        <ItemHandles
          id={chosen}
          quad={quad}
          others={[...quads].flatMap(([id, other]) => (id === chosen ? [] : [other]))}
          k={k}
          frame={frame}
          onTap={choose}
        />
      )}
      {frame && <PatchOverlay k={k} />}
    </View>
  );
}

interface ItemProps {
  readonly id: string;
  readonly quad: Quad;
  readonly others: readonly Quad[];
  readonly k: number;
  readonly frame: PaintedFrame;
  readonly onTap: (x: number, y: number) => void;
}

function ItemHandles({ id, quad, others, k, frame, onTap }: ItemProps) {
  const { reel, edit, settle, mayEdit } = useReelEditor();
  const { chooseKeyed } = useDesk();
  const standing = itemOf(reel, id);
  if (!standing || standing.track.locked || !mayEdit) return null;
  const { item } = standing;
  const { number } = frame;
  const size = layoutFrame(reel.frame);
  const gesture = `placed-${id}`;
  const about = middleOf(quad);
  /** The line of what has keyframes shows what is changed. */
  const tell = (key: 'move' | 'scale' | 'turn') =>
    isKeyed(framingHeld(item, key)) && chooseKeyed({ kind: 'item', item: id, key });
  return (
    <BoxHandles
      quad={quad}
      others={others}
      k={k}
      frame={frame.layout}
      lying={() => framedIn(reel, item, number, size)}
      onMove={([x, y], { move }) => {
        tell('move');
        const to = [Math.round(move[0] + x), Math.round(move[1] + y)];
        edit((r) => putFraming(r, id, 'move', to, number), gesture);
      }}
      onScale={(scale) => {
        tell('scale');
        edit((r) => turnAbout(r, id, about, { scale }, number, size), gesture);
      }}
      onTurn={(turn) => {
        tell('turn');
        edit((r) => turnAbout(r, id, about, { turn }, number, size), gesture);
      }}
      onSettle={settle}
      onTap={(at) => at && onTap(...at)}
      what="Chosen item"
      hint="drag or use the arrow keys to move"
      kind="place"
      name={id}
    />
  );
}

const styles = StyleSheet.create({
  touch: webStyle({ touchAction: 'none', cursor: 'pointer', userSelect: 'none' }),
});
