import { parseColour } from '../colour/colour';
import { type Effect, keepsAlpha, readsBackdrop } from '../effects/registry';
import { isEmpty, type Rect } from '../geometry/rect';
import { drawingBounds, grownBy, opsBounds } from './bounds';
import { type Composite, type Drawing, isDrawing, isPlain, type Op, type Paint } from './ops';

/** Operations as one: they fade, blend and take effects together. */
export function grouped(
  ops: readonly Op[],
  { opacity = 1, composite = 'normal', effects = [], draft }: GroupStyle = {},
): Op[] {
  const bounds = grownBy(opsBounds(ops), effects);
  return [
    { op: 'open', bounds, opacity, composite, effects, ...(draft ? { draft } : {}) },
    ...ops,
    { op: 'close' },
  ];
}

/** More operations than this are painted once, with their shadow, and not twice. */
const MOST_TWICE = 12;

/**
 * Operations with effects. Shadows that a few throw, and that fall on them, are painted apart: they need no more pixels
 * than their softness shows, and stay what they are while the others move (see `rest.ts`).
 */
export function withEffects(ops: readonly Op[], effects: readonly Effect[], style: GroupStyle = {}): Op[] {
  const { own, shades, cast } = apart(effects);
  if ((!cast && shades.length === 0) || ops.length > MOST_TWICE || needsBackdrop(ops))
    return grouped(ops, { ...style, effects });
  const outline = ops.map(unshaded);
  const parts = cast ? grouped(outline, { effects: [{ ...cast, alone: true }] }) : [];
  const plain = own.length > 0 ? grouped(ops, { effects: own }) : ops;
  const [shade, ...more] = shades;
  if (!shade) parts.push(...plain);
  else {
    const over = grouped(outline, { composite: 'atop', effects: [{ ...shade, alone: more }] });
    parts.push(...grouped([...plain, ...over]));
  }
  const { opacity = 1, composite = 'normal' } = style;
  return opacity === 1 && composite === 'normal' ? parts : grouped(parts, style);
}

/**
 * The shadow that some effects end with, and those that fall on the content before it, where the others leave its alpha
 * as it is.
 */
function apart(effects: readonly Effect[]) {
  const last = effects.at(-1);
  const cast = last?.effect === 'shadow' ? last : undefined;
  const own = cast ? effects.slice(0, -1) : [...effects];
  if (!own.every(keepsAlpha)) return { own: effects, shades: [], cast: undefined };
  const from = own.findLastIndex(({ effect }) => effect !== 'inner-shadow') + 1;
  const shades = own.splice(from).filter((effect) => effect.effect === 'inner-shadow');
  return { own, shades, cast };
}

/** What has the alpha of an operation: what it is made of changes none. */
function unshaded(op: Op): Op {
  if (op.op !== 'path') return op;
  const bare = ({ material: _, ...paint }: Paint): Paint => paint;
  const { fill, stroke } = op;
  return {
    ...op,
    ...(fill ? { fill: bare(fill) } : {}),
    ...(stroke ? { stroke: { ...stroke, paint: bare(stroke.paint) } } : {}),
  };
}

interface GroupStyle {
  readonly opacity?: number;
  readonly composite?: Composite;
  readonly effects?: readonly Effect[];
  readonly draft?: 'without' | 'plain' | 'only';
}

/** The only drawing of a list that holds nothing else but clips. */
export function loneDrawing(ops: readonly Op[]): Drawing | undefined {
  let lone: Drawing | undefined;
  for (const op of ops) {
    if (op.op === 'clip' || op.op === 'unclip') continue;
    if (lone || !isDrawing(op)) return undefined;
    lone = op;
  }
  return lone;
}

/** Whether what lies below shows in how these operations look: one of them blends with it, or has an effect on it. */
export function needsBackdrop(ops: readonly Op[]): boolean {
  let depth = 0;
  return ops.some((op) => {
    if (op.op === 'close') depth--;
    else if (op.op === 'open')
      return depth++ === 0 && (op.composite !== 'normal' || op.effects.some(readsBackdrop));
    return depth === 0 && isDrawing(op) && op.blend !== undefined && op.blend !== 'normal';
  });
}

/** More drawings than this are not compared with each other. */
const MOST_COMPARED = 400;

/**
 * Operations faded as one. Where none of them lies over another, each is faded alone, which looks the same and needs
 * no surface; whether they do is a matter of their places, not of the opacity.
 */
export function faded(ops: readonly Op[], opacity: number): Op[] {
  if (opacity >= 1 || ops.length === 0) return [...ops];
  if (!loneDrawing(ops) && !liesApart(ops)) return grouped(ops, { opacity });
  return ops.map((op) => (isDrawing(op) ? { ...op, opacity: op.opacity * opacity } : op));
}

/**
 * Operations faded together, of which those that blend with what lies below them still do: each by itself, and what is
 * between them as one. Nothing jumps where a fade begins: a whole that blends inside alone looks otherwise than its parts.
 */
export function fadedOver(ops: readonly Op[], opacity: number): Op[] {
  if (opacity >= 1) return [...ops];
  const parts: Op[] = [];
  let whole: Op[] = [];
  const endWhole = () => {
    parts.push(...faded(whole, opacity));
    whole = [];
  };
  for (const part of partsOf(ops)) {
    const [first, ...rest] = part as [Op, ...Op[]];
    if (!needsBackdrop(part)) {
      whole.push(...part);
      continue;
    }
    endWhole();
    if (first.op === 'clip') parts.push(first, ...fadedOver(rest.slice(0, -1), opacity), { op: 'unclip' });
    else if (first.op === 'open' || isDrawing(first))
      parts.push({ ...first, opacity: first.opacity * opacity }, ...rest);
  }
  endWhole();
  return parts;
}

/** Operations in parts that each stand alone: a drawing, a group with all in it, a clip with all that it cuts. */
function partsOf(ops: readonly Op[]): Op[][] {
  const parts: Op[][] = [];
  let depth = 0;
  for (const op of ops) {
    if (depth === 0) parts.push([]);
    parts.at(-1)!.push(op);
    if (op.op === 'open' || op.op === 'clip') depth++;
    if (op.op === 'close' || op.op === 'unclip') depth--;
  }
  return parts;
}

/** Whether all drawings blend normally and no two of them touch. */
function liesApart(ops: readonly Op[]): boolean {
  const boxes: Rect[] = [];
  for (const op of ops) {
    if (op.op === 'clip' || op.op === 'unclip') continue;
    if (!isDrawing(op) || (op.blend ?? 'normal') !== 'normal' || boxes.length >= MOST_COMPARED) return false;
    const box = drawingBounds(op);
    if (!isEmpty(box)) boxes.push(box);
  }
  boxes.sort((a, b) => a.x - b.x);
  return boxes.every((a, i) => {
    for (let j = i + 1; j < boxes.length && boxes[j]!.x < a.x + a.width; j++) {
      if (boxes[j]!.y < a.y + a.height && a.y < boxes[j]!.y + boxes[j]!.height) return false;
    }
    return true;
  });
}

/** The one path that operations are, full inside and clear outside; nothing where they are more than that. */
function cutting(ops: readonly Op[]): Extract<Op, { op: 'path' }> | undefined {
  const [op, ...more] = ops;
  if (op?.op !== 'path' || more.length > 0 || op.stroke || op.opacity < 1) return undefined;
  const isFull = op.fill !== undefined && isPlain(op.fill) && parseColour(op.fill.colour)[3] >= 1;
  return isFull && (op.blend ?? 'normal') === 'normal' ? op : undefined;
}

/**
 * Keeps what lies inside (or outside) the alpha of other operations. Where a plain outline cuts, that is a clip, which
 * needs no surface.
 * @param effects applied to the cutting shape first, to soften its edge
 */
export function within(
  ops: readonly Op[],
  cut: readonly Op[],
  invert = false,
  luminance = false,
  effects: readonly { effect: 'blur'; radius: number }[] = [],
): Op[] {
  const outline = invert || luminance || effects.length > 0 || needsBackdrop(ops) ? undefined : cutting(cut);
  if (outline) return [{ op: 'clip', path: outline.path, plane: outline.plane }, ...ops, { op: 'unclip' }];
  return grouped([
    ...ops,
    {
      op: 'open',
      bounds: grownBy(opsBounds(cut), effects),
      opacity: 1,
      composite: invert ? 'keep-outside' : 'keep-inside',
      effects,
      ...(luminance ? { luminance } : {}),
    },
    ...cut,
    { op: 'close' },
  ]);
}
