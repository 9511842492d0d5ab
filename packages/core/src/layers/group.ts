import { z } from 'zod';
import { type Matrix4, planeOf } from '../geometry/matrix';
import { rectanglePath } from '../geometry/path';
import { grouped, within } from '../paint/compose';
import type { Op } from '../paint/ops';
import { property, repeatedSchema } from '../values/property';
import { layerBase, numberProperty, pointProperty, positiveProperty, switchProperty } from './common';
import type { KnownLayers, LayerKind, Node, PaintTools } from './kind';

/** Children are declared in the registry, where all kinds are known. */
export const groupBase = {
  ...layerBase,
  kind: z.literal('group'),
  /** Frame units; the parent's box when absent (a row or column takes its size from its children). */
  size: pointProperty.optional(),
  /** Sets the children side by side or one below the other; empty ones take no room. */
  row: z
    .strictObject({
      direction: z.enum(['row', 'column']),
      gap: numberProperty.default(0),
      /** Across the direction: 0 start, 0.5 middle, 1 end. */
      align: numberProperty.default(0),
      /** A slot of words: where they read from right to left, order and side are turned round. */
      reads: z.string().optional(),
      /** Whether the order is turned round, as when a strap changes sides. */
      reverse: switchProperty.default(false),
    })
    .optional(),
  /**
   * The group comes once for each filled slot, or each line: within it the slot is called `each`. It lies in its parent
   * once for each, in a row one after the other.
   */
  repeat: z
    .strictObject({
      over: repeatedSchema,
      /** Frames by which each is later than the one before it. */
      after: numberProperty.default(0),
      /** Frames that each is there, from its own beginning on, the last to the end; always, when absent. */
      stays: positiveProperty.optional(),
    })
    .optional(),
  /** A mirrored floor that its layers stand on. */
  floor: z
    .strictObject({
      /** How far down the group's box it lies, 0..1. */
      at: numberProperty.default(1),
      /** How much it mirrors. */
      strength: property(z.number().min(0).max(1)).default(0.5),
      /** Frame units upwards from the floor that are mirrored, fainter and fainter. */
      reach: positiveProperty.default(300),
      /** How unclear the mirror is, as a standard deviation in frame units. */
      blur: positiveProperty.default(4),
    })
    .optional(),
  /** A lens: its layers are the less sharp, the farther they are from where it is focused. */
  focus: z
    .strictObject({
      /** Depth that is sharp: frame units away from the plane of the frame. */
      at: numberProperty.default(0),
      /** Frame units of depth to either side that are sharp too. */
      sharp: positiveProperty.default(60),
      /** Blur, as a standard deviation, for each thousand frame units beyond, and at most. */
      blur: positiveProperty.default(12),
      most: positiveProperty.default(24),
    })
    .optional(),
  /** `listed`: the last child is on top. `depth`: the nearest to the camera is. */
  order: z.enum(['listed', 'depth']).default('listed'),
} as const;

export interface GroupLayer extends z.infer<z.ZodObject<typeof groupBase>> {
  layers: KnownLayers['any'][];
}

/** Layers that share a place, a motion and an opacity. */
export const group: LayerKind<GroupLayer> = {
  measure(layer, parent, { value }) {
    const [width, height] = layer.size ? value(layer.size) : [parent.width, parent.height];
    return { size: { width, height } };
  },

  paint(node, tools) {
    const { layer } = node;
    const children =
      layer.order === 'depth'
        ? [...node.children].sort((a, b) => tools.depth(b) - tools.depth(a))
        : node.children;
    const blurs = children.map((child) => blurOf(layer, child, tools));
    const shown = children.flatMap((child, i) => outOfFocus(tools.paintChild(child), blurs[i]!));
    return [...(layer.floor ? mirrorOf(node, children, blurs, tools) : []), ...shown];
  },

  slots: () => [],
};

/** How far out of focus a layer is, as a standard deviation in frame units. */
function blurOf({ focus }: GroupLayer, child: Node, { value, depth }: PaintTools): number {
  if (!focus) return 0;
  const beyond = Math.abs(depth(child) - value(focus.at)) - value(focus.sharp);
  return Math.min(value(focus.most), (Math.max(0, beyond) / 1000) * value(focus.blur));
}

function outOfFocus(ops: Op[], radius: number): Op[] {
  if (ops.length === 0 || radius < 0.3) return ops;
  return grouped(ops, { effects: [{ effect: 'blur', radius }], draft: 'plain' });
}

/** Beyond its box a layer is mirrored as far: shadows and edges. Frame units. */
const AROUND = 200;

/** What the floor mirrors: each layer upside down, fading from the floor upwards. */
function mirrorOf(
  { layer, box }: Node<GroupLayer>,
  children: readonly Node[],
  blurs: readonly number[],
  { value, scale, paintChild, matrixOf }: PaintTools,
): Op[] {
  const { floor } = layer;
  const [strength, reach] = [value(floor!.strength), value(floor!.reach)];
  if (strength <= 0.004 || reach <= 0) return [];
  const level = value(floor!.at) * box.height;
  const through: Matrix4 = [1, 0, 0, 0, 0, -1, 0, 0, 0, 0, 1, 0, 0, 2 * level, 0, 1];
  const ops = children.flatMap((child, i): Op[] => {
    const painted = outOfFocus(paintChild(child, through), blurs[i]!);
    if (painted.length === 0) return [];
    const { width } = child.box;
    // Where the floor is in the layer's own box, as it lies before it moves.
    const foot = level - child.box.y;
    const fading: Op = {
      op: 'path',
      path: rectanglePath({
        x: -AROUND,
        y: foot - reach,
        width: width + 2 * AROUND,
        height: reach + AROUND,
      }),
      plane: planeOf(matrixOf(child, through)),
      fill: {
        kind: 'linear',
        from: [0, foot],
        to: [0, foot - reach],
        stops: [
          [
            0,
            `#ffffff${Math.round(strength * 255)
              .toString(16)
              .padStart(2, '0')}`,
          ],
          [1, '#ffffff00'],
        ],
      },
      opacity: 1,
    };
    return within(painted, [fading]);
  });
  if (ops.length === 0) return [];
  const radius = value(floor!.blur) * scale;
  return grouped(ops, { effects: radius > 0.3 ? [{ effect: 'blur', radius }] : [], draft: 'without' });
}
