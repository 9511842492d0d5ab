import { type EffectDocument, effectKey, resolveEffect } from '../effects/registry';
import {
  depthOf,
  type Homography,
  largestScale,
  type Matrix4,
  multiply4,
  planeOf,
  project,
  scale4,
  skew4,
  translation4,
  turn4,
} from '../geometry/matrix';
import { boundsOf, corners, type Rect } from '../geometry/rect';
import { EACH } from '../layers/common';
import type { FoundPicture, LayerContext, LetterMap, Node, PaintTools, Size } from '../layers/kind';
import { layerEffects } from '../layers/layerEffects';
import { outlinePath } from '../layers/outline';
import { coverOps } from '../layers/picture';
import { type Layer, slotsOf, withKind } from '../layers/registry';
import { randomAt } from '../motion/random';
import { faded, grouped, loneDrawing, needsBackdrop, withEffects, within } from '../paint/compose';
import type { BlendMode, Op } from '../paint/ops';
import { markTime } from '../time/clock';
import { shiftedBy } from './repeats';
import { treatmentEffects } from './treatments';

/** Where a slot shows in a frame: the four corners of its layer's box, in frame units, from its top left clockwise. */
export interface Region {
  readonly slot: string;
  readonly layer: string;
  readonly kind: Layer['kind'];
  readonly quad: readonly (readonly [number, number])[];
  /** Size of the layer's box before it is turned or scaled. */
  readonly box: Size;
  /**
   * How a frame unit of the layer's parent shows at the layer's middle: x to the right by (a, b), y downwards by
   * (c, d). Drags on the picture are turned into places with it.
   */
  readonly unit: readonly [a: number, b: number, c: number, d: number];
  /** How much of it shows: its opacity and that of all it stands in, 0..1. */
  readonly opacity: number;
  /** Own size of the picture in it, where there is one. */
  readonly picture?: Size;
}

/** Where a layer lies in a frame, whatever it shows. */
export interface LaidPart {
  readonly layer: string;
  /** Corners of its box, in frame units, from its top left clockwise. */
  readonly quad: Region['quad'];
  readonly unit: Region['unit'];
  /** Size of its box before it is turned or scaled. */
  readonly box: Size;
}

/** How a layer shows at a moment: what its slot holds, its own box, the plane that lies in, and how much larger it is. */
interface Shown {
  readonly found: FoundPicture | undefined;
  readonly box: Rect;
  readonly plane: Homography;
  readonly scale: number;
}

const NOTHING = 0.002;

/** Operations of one frame at most: more take seconds to paint. What comes after them is left out, and told. */
const MOST_OPERATIONS = 40_000;
/**
 * Layers of one frame at most, each as often as it is repeated, mirrored and left behind, whether it shows or not: going
 * through them takes half a second. The collection's own go through a hundred.
 */
export const MOST_LAYERS = 4000;

/** Kinds of layers that tell where slots lie in them while they are painted, or hold others. */
const TELLS: Partial<Readonly<Record<Layer['kind'], true>>> = { group: true, text: true, points: true };

const byId = (nodes: readonly Node[]) => new Map(nodes.map((n) => [n.layer.id, n]));

/** Nodes that are painted for themselves: one that serves as a sibling's matte is not. */
function shownThemselves(nodes: readonly Node[]): readonly Node[] {
  const mattes = new Set(nodes.flatMap((n) => n.layer.matte?.layer ?? []));
  return mattes.size === 0 ? nodes : nodes.filter((n) => !mattes.has(n.layer.id));
}

/** The slopes of a plane's projection at the middle of a box. */
function unitAt(plane: Homography, box: Rect): Region['unit'] {
  const [x, y] = [box.x + box.width / 2, box.y + box.height / 2];
  const [mx, my] = project(plane, x, y);
  const [rx, ry] = project(plane, x + 1, y);
  const [dx, dy] = project(plane, x, y + 1);
  return [rx - mx, ry - my, dx - mx, dy - my];
}

/** Walks the nodes of one moment and collects operations and regions. */
export class PaintPass {
  readonly regions: Region[] = [];
  /** Where every layer that shows lies, from the lowest to the topmost, what is in a group before the group. */
  readonly parts: LaidPart[] = [];
  letters: LetterMap | undefined;
  /** Operations made so far, and layers gone through. */
  private made = 0;
  private layers = 0;
  /** Opacity of the groups that are being painted. */
  private around = 1;

  /**
   * @param lettersOf the text layer whose letters' places are wanted too
   * @param only `places`: where slots lie, and no operations
   */
  constructor(
    private context: LayerContext,
    private readonly lettersOf: string | undefined,
    private readonly only?: 'places',
  ) {}

  paintAll(nodes: readonly Node[], parent: Matrix4): Op[] {
    const siblings = byId(nodes);
    return shownThemselves(nodes).flatMap((n) => this.paintNode(n, parent, siblings));
  }

  /** Whether as much has been painted as one frame may hold. */
  private get full(): boolean {
    return this.made > MOST_OPERATIONS || this.layers > MOST_LAYERS;
  }

  private count(operations: number, layers: number): void {
    this.made += operations;
    this.layers += layers;
    if (this.full) this.context.notice({ kind: 'too-much', slot: '' });
  }

  private matrixOf({ layer, box, context }: Node, parent: Matrix4): Matrix4 {
    const { value } = context ?? this.context;
    const [mx, my, mz] = value(layer.move);
    const turn = value(layer.turn);
    const [sx, sy] = value(layer.scale);
    const skew = value(layer.skew);
    let m = layer.placing ? multiply4(parent, this.placed(layer.placing, box)) : parent;
    m = multiply4(m, translation4(box.x + mx, box.y + my, mz));
    if (!turn[0] && !turn[1] && !turn[2] && sx === 1 && sy === 1 && !skew) return m;
    const [fx, fy, pz] = value(layer.pivot);
    const [px, py] = [fx * box.width, fy * box.height];
    m = multiply4(m, translation4(px, py, pz));
    m = multiply4(m, turn4(...(turn as [number, number, number])));
    if (skew) m = multiply4(m, skew4(skew));
    m = multiply4(m, scale4(sx, sy));
    return multiply4(m, translation4(-px, -py, -pz));
  }

  /** Where the user put a layer: moved, scaled and turned about the middle of its box. */
  private placed(placing: NonNullable<Layer['placing']>, box: Rect): Matrix4 {
    const { value } = this.context;
    const [dx, dy] = value(placing.move);
    const scale = value(placing.scale);
    const [cx, cy] = [box.x + box.width / 2, box.y + box.height / 2];
    const [tipped, opened] = value(placing.tilt);
    const about = multiply4(turn4(tipped, opened, value(placing.turn)), scale4(scale, scale));
    return multiply4(translation4(cx + dx, cy + dy, 0), multiply4(about, translation4(-cx, -cy, 0)));
  }

  /** A sibling as it lies at rest, seen from where another does. */
  private besides(sibling: Node | undefined, { box }: Node): ReturnType<PaintTools['besides']> {
    if (!sibling) return undefined;
    const { layer, box: own } = sibling as Node<Layer>;
    const placed = translation4(own.x, own.y, 0);
    const matrix = layer.placing ? multiply4(this.placed(layer.placing, own), placed) : placed;
    return { node: sibling as Node<Layer>, matrix: multiply4(translation4(-box.x, -box.y, 0), matrix) };
  }

  private shown(layer: Layer): boolean {
    if (!layer.span) return true;
    const { clock, time } = this.context.moment;
    return time >= markTime(clock, layer.span.from) && time < markTime(clock, layer.span.to);
  }

  /** A node with what it finds in the slots: one of a repeated part's has its own. */
  private paintNode(node: Node, parent: Matrix4, siblings: ReadonlyMap<string, Node>): Op[] {
    const around = this.context;
    this.context = node.context ?? around;
    const late = node.layer.stutter ? droppedFrames(node.layer.stutter, this.context) : 0;
    if (late > 0) this.context = shiftedBy(this.context, late);
    const left =
      node.layer.afterimage && !this.only ? this.untold(() => this.afterimages(node, parent, siblings)) : [];
    const ops = this.paintOwn(node, parent, siblings);
    this.context = around;
    return left.length > 0 ? [...left, ...ops] : ops;
  }

  /** A node as it was at moments before, the oldest lowest. */
  private afterimages(node: Node, parent: Matrix4, siblings: ReadonlyMap<string, Node>): Op[] {
    const now = this.context;
    const { length, copies, opacity, fade, taper, colour, blend } = node.layer.afterimage!;
    const [back, shown, lost, smaller] = [length, opacity, fade, taper].map((p) => now.value<number>(p)) as [
      number,
      number,
      number,
      number,
    ];
    if (back <= 0 || shown <= NOTHING) return [];
    const ink = colour === undefined ? undefined : now.value(colour);
    const ops: Op[] = [];
    for (let k = copies; k >= 1 && !this.full; k--) {
      const part = k / copies;
      const fades = shown * (1 - lost * part);
      if (fades <= NOTHING) continue;
      this.context = shiftedBy(now, back * part);
      const scale = 1 - smaller * part;
      const { box } = node;
      const middle = [box.x + box.width / 2, box.y + box.height / 2] as const;
      const made = this.paintOwn(node, parent, siblings, (matrix) => {
        if (scale === 1) return matrix;
        const [x, y] = [middle[0] - box.x, middle[1] - box.y];
        return multiply4(
          matrix,
          multiply4(translation4(x, y, 0), multiply4(scale4(scale, scale), translation4(-x, -y, 0))),
        );
      });
      if (made.length === 0) continue;
      const tinted = ink ? [{ effect: 'tint', colour: ink, amount: 1 } as const] : [];
      if (tinted.length === 0 && blend === 'normal') ops.push(...faded(made, fades));
      else ops.push(...grouped(made, { opacity: fades, composite: blend, effects: tinted }));
    }
    this.context = now;
    return ops;
  }

  /** A node seen in a mirror: none of it is a region. */
  private mirrored(node: Node, parent: Matrix4, siblings: ReadonlyMap<string, Node>): Op[] {
    return this.only ? [] : this.untold(() => this.paintNode(node, parent, siblings));
  }

  /** Paints what is no place of a slot and no letter that is asked for. */
  private untold(paint: () => Op[]): Op[] {
    const [known, laid, letters] = [this.regions.length, this.parts.length, this.letters];
    const ops = paint();
    this.regions.length = known;
    this.parts.length = laid;
    this.letters = letters;
    return ops;
  }

  private paintOwn(
    node: Node,
    parent: Matrix4,
    siblings: ReadonlyMap<string, Node>,
    changed: (matrix: Matrix4) => Matrix4 = (matrix) => matrix,
  ): Op[] {
    const { layer } = node as Node<Layer>;
    const { value } = this.context;
    if (!this.full) this.count(0, 1);
    if (this.full || !this.shown(layer)) return [];
    const opacity = value(layer.opacity);
    if (opacity <= NOTHING) return [];
    const matrix = changed(this.matrixOf(node, parent));
    // What lies beyond all measure is not seen.
    if (!matrix.every(Number.isFinite)) return [];
    const plane = planeOf(matrix);
    const scale = largestScale(plane, node.box.width / 2, node.box.height / 2);
    const named = byId(node.children);
    const bent = node.measured.bend !== undefined;
    let letters: LetterMap['letters'] | undefined;
    const parts = new Map<string, Pick<Region, 'quad' | 'box' | 'unit' | 'picture'>>();
    const tools: PaintTools = {
      ...this.context,
      matrix,
      plane,
      scale,
      ...(bent || layer.id === this.lettersOf ? { reportLetters: (l) => (letters = l) } : {}),
      reportSlot: (slot, at, { width, height }, picture) => {
        const own = planeOf(at);
        const box = { x: 0, y: 0, width, height };
        parts.set(slot, {
          quad: corners(box).map(([x, y]) => project(own, x, y)),
          box: { width, height },
          unit: unitAt(own, box),
          picture: { width: picture.width, height: picture.height },
        });
      },
      besides: (id) => this.besides(siblings.get(id), node),
      paintChild: (child, through) =>
        through
          ? this.mirrored(child, multiply4(matrix, through), named)
          : this.paintNode(child, matrix, named),
      matrixOf: (child, through) => this.matrixOf(child, through ? multiply4(matrix, through) : matrix),
      depth: (child) => {
        const m = this.matrixOf(child, matrix);
        return depthOf(m, child.box.width / 2, child.box.height / 2);
      },
    };
    const children = shownThemselves(node.children);
    this.around *= opacity;
    const own =
      this.only && !TELLS[layer.kind]
        ? []
        : withKind(layer, (kind, own) => kind.paint({ ...node, layer: own, children }, tools));
    const painted = layer.standIn === undefined ? own : this.withStandIn(own, node as Node<Layer>, matrix);
    const shown = this.around;
    this.around /= opacity;
    if (letters && layer.id === this.lettersOf) this.letters = { layer: layer.id, letters };
    const straight = { x: 0, y: 0, width: node.box.width, height: node.box.height };
    // Bent words are touched where they stand, not all over the box their path lies in.
    const quad =
      bent && letters
        ? corners(boundsOf(letters.flatMap((l) => l.quad)))
        : corners(straight).map(([x, y]) => project(plane, x, y));
    const unit = unitAt(planeOf(parent), node.box);
    this.parts.push({ layer: layer.id, quad, unit, box: { width: node.box.width, height: node.box.height } });
    const found = layer.kind === 'picture' ? this.context.picture(layer.slot) : undefined;
    for (const slot of slotsOf(layer)) {
      this.regions.push({
        slot: slot === EACH ? (this.context.each ?? slot) : slot,
        layer: layer.id,
        kind: layer.kind,
        quad,
        box: { width: node.box.width, height: node.box.height },
        unit,
        opacity: shown,
        ...(found ? { picture: { width: found.width, height: found.height } } : {}),
        ...parts.get(slot),
      });
    }
    if (this.only) {
      const source = layer.matte && siblings.get(layer.matte.layer);
      if (source) this.paintNode(source, parent, siblings);
      return [];
    }
    if (painted.length === 0) return [];
    if (layer.kind !== 'group') this.count(painted.length, 0);
    const { ops: plain, blend } = liftBlend(painted, layer);
    let ops = plain;
    if (layer.mask) ops = this.masked(ops, node as Node<Layer>, tools);
    if (layer.matte) {
      const source = siblings.get(layer.matte.layer);
      const cut = source ? this.paintNode(source, parent, siblings) : [];
      ops = within(ops, cut, layer.matte.invert, layer.matte.by === 'luminance');
    }
    return this.composited(ops, layer, opacity, blend, { found, box: straight, plane, scale });
  }

  /** What stands for a layer, laid over its box: in a draft, or always where its kind is not known. */
  private withStandIn(ops: Op[], { layer, box: { width, height } }: Node<Layer>, matrix: Matrix4): Op[] {
    const found = this.context.standIn(layer.standIn!);
    if (!found || width <= 0 || height <= 0) return ops;
    const cover = coverOps(found, { x: 0, y: 0, width, height }, matrix);
    if (layer.kind === 'newer') return cover;
    return [...grouped(ops, { draft: 'without' }), ...grouped(cover, { draft: 'only' })];
  }

  private masked(
    ops: Op[],
    { layer, box }: Node<Layer>,
    { value, memo, moment, plane, scale }: PaintTools,
  ): Op[] {
    const mask = layer.mask!;
    const [left, top, width, height] = value(mask.box);
    const area = {
      x: left * box.width,
      y: top * box.height,
      width: width * box.width,
      height: height * box.height,
    };
    const feather = value(mask.feather) * scale;
    if (area.width <= 0 || area.height <= 0) return mask.invert ? ops : [];
    const path = outlinePath(mask.outline, area, { value, memo, moment, plane });
    if (feather <= 0 && !mask.invert) return [{ op: 'clip', path, plane }, ...ops, { op: 'unclip' }];
    const shape: Op = { op: 'path', path, plane, fill: { kind: 'solid', colour: '#ffffff' }, opacity: 1 };
    const effects = feather > 0 ? [{ effect: 'blur', radius: feather } as const] : [];
    return within(ops, [shape], mask.invert, false, effects);
  }

  /**
   * Applies opacity, blend and effects. Whether a layer is a whole of its own, within which its parts blend, is said by
   * the document and never by a value of the moment; a group is made only where it shows.
   */
  private composited(
    ops: Op[],
    layer: Layer,
    opacity: number,
    blend: BlendMode,
    { found, box, plane, scale }: Shown,
  ): Op[] {
    const { value, moment } = this.context;
    const effects = [
      ...treatmentEffects(found?.treatments, moment, box, plane, scale),
      ...wholeEffects(layer, found?.plain).flatMap(
        (e) => resolveEffect(e, { value, time: moment.time, box, plane }, scale) ?? [],
      ),
    ];
    if (effects.length > 0) return withEffects(ops, effects, { opacity, composite: blend });
    if (blend === 'normal') {
      if (needsBackdrop(ops)) return isWhole(layer) ? grouped(ops, { opacity }) : ops;
      return faded(ops, opacity);
    }
    const lone = loneDrawing(ops);
    if (!lone) return grouped(ops, { opacity, composite: blend });
    return ops.map((op) => (op === lone ? { ...lone, opacity: lone.opacity * opacity, blend } : op));
  }
}

/** How long ago the frame was made that stands while those after it are dropped. */
function droppedFrames(
  { amount, every, seed }: NonNullable<Layer['stutter']>,
  { value, moment: { time } }: LayerContext,
): number {
  const step = Math.floor(time / every);
  return randomAt(seed, step) < value(amount) ? time - step * every : 0;
}

/** Effects of the whole layer: a text paints those itself that are limited to some of its words. */
function wholeEffects(layer: Layer, off: readonly string[] = []): readonly EffectDocument[] {
  return layerEffects(layer).filter(
    (e) => (layer.kind !== 'text' || e.only === undefined) && !off.includes(effectKey(layer.id, e)),
  );
}

/** Whether the document makes a layer a whole: it may fade, blends, has effects, or soft edges. */
function isWhole(layer: Layer): boolean {
  const { mask } = layer;
  return (
    layer.opacity !== 1 ||
    layer.blend !== 'normal' ||
    wholeEffects(layer).length > 0 ||
    layer.matte !== undefined ||
    (mask !== undefined && (mask.invert || mask.feather !== 0))
  );
}

/**
 * A picture may blend by its fill. That is the layer's blend, then: a crop, a mask or a fade on the way changes
 * nothing about it.
 */
function liftBlend(ops: Op[], layer: Layer): { ops: Op[]; blend: BlendMode } {
  const lone = layer.kind === 'group' ? undefined : loneDrawing(ops);
  if (layer.blend !== 'normal' || !lone?.blend) return { ops, blend: layer.blend };
  const { blend, ...plain } = lone;
  return { ops: ops.map((op) => (op === lone ? (plain as Op) : op)), blend };
}
