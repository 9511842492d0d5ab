import { EMPTY, type Rect, union } from '../geometry/rect';
import { resolveMargin } from '../layers/common';
import type { GroupLayer } from '../layers/group';
import type { LayerContext, Measured, Node, Size } from '../layers/kind';
import { type Layer, withKind } from '../layers/registry';
import { readsRightToLeft } from '../text/scripts';
import { MOST_LAYERS } from './paintPass';
import { instances } from './repeats';

/** Counts the layers of one frame: more than it may hold are left out, and told. */
class Room {
  private taken = 0;

  /** Whether there is room for one more. */
  take({ notice }: LayerContext): boolean {
    if (this.taken > MOST_LAYERS) return false;
    if (++this.taken > MOST_LAYERS) notice({ kind: 'too-much', slot: '' });
    return true;
  }
}

interface Sized {
  readonly layer: Layer;
  readonly measured: Measured;
  readonly children: readonly Node[];
  readonly context?: LayerContext;
}

/**
 * Gives every layer its box: sizes from the inside out (words, pictures, rows), places from the outside in. A layer
 * with nothing to show takes no room. Motion plays no part, so a plate does not tremble while its words arrive.
 */
export function arrange(layers: readonly Layer[], parent: Size, context: LayerContext): Node[] {
  return arrangeIn(new Room(), layers, parent, context);
}

function arrangeIn(room: Room, layers: readonly Layer[], parent: Size, context: LayerContext): Node[] {
  const placed = sizes(room, layers, parent, context).map((sized) =>
    place(sized, parent, sized.context ?? context),
  );
  return withHugging(layers, placed, context);
}

const hugs = (layer: Layer) => layer.kind === 'shape' && layer.hug !== undefined;
const inFlow = (layers: readonly Layer[]) => layers.filter((l) => !hugs(l));

/** Whether a layer takes part at all at this moment. */
const isThere = (layer: Layer, { value, isFilled }: LayerContext) =>
  value(layer.visible) && (layer.needs?.every(isFilled) ?? true);

/** The layers that take part, each as often as it is repeated. */
function sizes(room: Room, layers: readonly Layer[], parent: Size, context: LayerContext): Sized[] {
  return inFlow(layers).flatMap((layer) =>
    instances(layer, context).flatMap((own) => {
      const sized = room.take(context) ? size(room, layer, parent, own ?? context) : undefined;
      return sized ? [{ ...sized, ...(own ? { context: own } : {}) }] : [];
    }),
  );
}

function size(room: Room, layer: Layer, parent: Size, context: LayerContext): Sized | undefined {
  if (!isThere(layer, context)) return undefined;
  const measured = withKind(layer, (kind, own) => kind.measure(own, parent, context));
  if (!measured) return undefined;
  if (layer.kind !== 'group') return { layer, measured, children: [] };
  if (!layer.row) return { layer, measured, children: arrangeIn(room, layer.layers, measured.size, context) };
  return row(room, layer, parent, context);
}

/** Whether a slot's words read from right to left, so that what depends on it is turned round. */
function isTurned(slot: string | undefined, { words }: LayerContext): boolean {
  return slot !== undefined && readsRightToLeft(words(slot).text);
}

/** Puts a measured layer by its anchor, offset and origin. */
function place(
  { layer, measured, children, context: own }: Sized,
  parent: Size,
  context: LayerContext,
): Node {
  const { value } = context;
  const round = isTurned(layer.reads, context);
  const [atX, ay] = value(layer.at);
  const [offX, dy] = value(layer.offset);
  const [fromX, oy] = value(layer.origin);
  const [ax, dx, ox] = round ? [1 - atX, -offX, 1 - fromX] : [atX, offX, fromX];
  const { width, height } = measured.size;
  return {
    layer,
    measured,
    children,
    box: { x: ax * parent.width + dx - ox * width, y: ay * parent.height + dy - oy * height, width, height },
    ...(own ? { context: own } : {}),
  };
}

/** Children side by side or one below the other; the group's size is theirs together. */
function row(room: Room, layer: GroupLayer, parent: Size, context: LayerContext): Sized | undefined {
  const { value } = context;
  const { direction } = layer.row!;
  const gap = value(layer.row!.gap);
  const round = isTurned(layer.row!.reads, context);
  const side = value(layer.row!.align);
  const align = round && direction === 'column' ? 1 - side : side;
  const sized = sizes(room, layer.layers, parent, context);
  if (sized.length === 0) return undefined;
  if (value(layer.row!.reverse) !== (round && direction === 'row')) sized.reverse();
  const along = (s: Size) => (direction === 'row' ? s.width : s.height);
  const across = (s: Size) => (direction === 'row' ? s.height : s.width);
  const length = sized.reduce((sum, s) => sum + along(s.measured.size), 0) + gap * (sized.length - 1);
  const breadth = Math.max(...sized.map((s) => across(s.measured.size)));
  let pen = 0;
  const placed = sized.map((s): Node => {
    const [offset, dy] = (s.context ?? context).value(s.layer.offset);
    const dx = round ? -offset : offset;
    const aside = (breadth - across(s.measured.size)) * align;
    const [x, y] = direction === 'row' ? [pen, aside] : [aside, pen];
    pen += along(s.measured.size) + gap;
    return {
      layer: s.layer,
      measured: s.measured,
      children: s.children,
      box: { x: x + dx, y: y + dy, ...s.measured.size },
      ...(s.context ? { context: s.context } : {}),
    };
  });
  const own = direction === 'row' ? { width: length, height: breadth } : { width: breadth, height: length };
  return { layer, measured: { size: own }, children: withHugging(layer.layers, placed, context) };
}

/** Adds the shapes that hug siblings, which may hug others in turn, and puts all in the order they are listed. */
function withHugging(layers: readonly Layer[], placed: readonly Node[], context: LayerContext): Node[] {
  const nodes = new Map<string, Node | undefined>(placed.map((n) => [n.layer.id, n]));
  const listed = new Map(layers.map((l) => [l.id, l]));
  const find = (id: string): Node | undefined => {
    if (nodes.has(id)) return nodes.get(id);
    // Set first, so that a shape that hugs itself by way of others finds nothing there.
    nodes.set(id, undefined);
    const layer = listed.get(id);
    if (layer && hugs(layer)) nodes.set(id, hugging(layer));
    return nodes.get(id);
  };
  const hugging = (layer: Layer): Node | undefined => {
    if (layer.kind !== 'shape' || !layer.hug || !isThere(layer, context)) return undefined;
    const held = layer.hug.layers.reduce<Rect>((box, id) => union(box, find(id)?.box ?? EMPTY), EMPTY);
    if (held === EMPTY) return undefined;
    const round = isTurned(layer.reads, context);
    const [top, after, bottom, before] = resolveMargin(layer.hug.margin, context.value);
    const [left, right] = round ? [after, before] : [before, after];
    const [offset, dy] = context.value(layer.offset);
    const dx = round ? -offset : offset;
    const box = {
      x: held.x - left + dx,
      y: held.y - top + dy,
      width: held.width + left + right,
      height: held.height + top + bottom,
    };
    return { layer, measured: { size: box }, children: [], box };
  };
  return layers.flatMap((layer) => {
    // A repeated part is there as often as it was placed.
    if (layer.kind === 'group' && layer.repeat) return placed.filter((n) => n.layer === layer);
    return find(layer.id) ?? [];
  });
}
