import { swapSlots } from '@fresh-reel/core';
import { useState } from 'react';
import { StyleSheet, View } from 'react-native';
import { slotTag } from '../../templates/slots';
import { Txt } from '../../ui/Txt';
import { colour } from '../../ui/theme';
import { type DragPoint, useDrag } from '../../ui/useDrag';
import { webProps, webStyle } from '../../ui/web';
import { TAG } from '../session/placing';
import { useGraphicEditor } from '../session/useReelEditor';

interface Placed {
  readonly slot: string;
  readonly x: number;
  readonly y: number;
}

interface Props {
  readonly placed: readonly Placed[];
  readonly selected: string | undefined;
  readonly onSelect: (slot: string, layer: undefined) => void;
}

/** How far from the middle of a tag a dragged one may be let go to swap with it, in pixels. */
const REACH = 26;

/**
 * The numbers of the slots, on the picture. A touch chooses the slot; the tag of a picture dragged onto another's swaps
 * what the two hold.
 */
export function Tags({ placed, selected, onSelect }: Props) {
  const { graphic, scene, edit, settle, mayEdit } = useGraphicEditor();
  const [target, setTarget] = useState<string>();
  const pictures = new Set(graphic.template.slots.filter((s) => s.kind === 'picture').map((s) => s.id));
  const nearest = (from: Placed, by: DragPoint): string | undefined =>
    placed.find(
      (p) =>
        p.slot !== from.slot &&
        pictures.has(p.slot) &&
        Math.hypot(from.x + by.x - p.x, from.y + by.y - p.y) < REACH,
    )?.slot;
  return placed.map((tag) => (
    <Tag
      key={tag.slot}
      tag={tag}
      on={tag.slot === selected}
      lit={tag.slot === target}
      drags={mayEdit && pictures.has(tag.slot)}
      onTouch={() => onSelect(tag.slot, undefined)}
      onDrag={(by) => setTarget(nearest(tag, by))}
      onDrop={(by) => {
        const other = by && nearest(tag, by);
        setTarget(undefined);
        if (!other) return;
        const held = (slot: string) => scene.slots.slotPicture(slot);
        edit((r) => swapSlots(r, graphic.id, [tag.slot, held(tag.slot)], [other, held(other)]));
        settle();
      }}
    />
  ));
}

interface TagProps {
  readonly tag: Placed;
  readonly on: boolean;
  readonly lit: boolean;
  readonly drags: boolean;
  readonly onTouch: () => void;
  readonly onDrag: (by: DragPoint) => void;
  /** Nothing when the pointer was taken away. */
  readonly onDrop: (by: DragPoint | undefined) => void;
}

function Tag({ tag: { slot, x, y }, on, lit, drags, onTouch, onDrag, onDrop }: TagProps) {
  const { graphic } = useGraphicEditor();
  const [by, setBy] = useState<DragPoint>();
  const drag = useDrag({
    onMove: (at, from) => {
      if (!drags) return;
      const moved = { x: at.x - from.x, y: at.y - from.y };
      setBy(moved);
      onDrag(moved);
    },
    onEnd: (moved, _, cancelled) => {
      setBy(undefined);
      if (!moved) onTouch();
      else if (drags) onDrop(cancelled ? undefined : by);
    },
  });
  return (
    <View
      {...webProps(drag)}
      testID={`tag-${slot}`}
      aria-hidden
      style={[
        styles.tag,
        on && styles.on,
        lit && styles.lit,
        { left: x + (by?.x ?? 0), top: y + (by?.y ?? 0) },
        by && styles.carried,
      ]}
    >
      <Txt kind="label" tone={on || lit ? 'white' : 'ink'}>
        {slotTag(graphic.template, slot)}
      </Txt>
    </View>
  );
}

const styles = StyleSheet.create({
  tag: webStyle({
    position: 'absolute',
    minWidth: TAG,
    height: TAG,
    paddingHorizontal: 3,
    borderRadius: TAG / 2,
    backgroundColor: colour.card,
    borderWidth: 1.5,
    borderColor: colour.ink,
    alignItems: 'center',
    justifyContent: 'center',
    touchAction: 'none',
    userSelect: 'none',
  }),
  on: { backgroundColor: colour.accent, borderColor: colour.card },
  lit: { backgroundColor: colour.blue, borderColor: colour.card, transform: [{ scale: 1.35 }] },
  carried: { opacity: 0.85, zIndex: 2 },
});
