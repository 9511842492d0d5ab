import {
  type ControlFill,
  type ControlValue,
  type Fill,
  isPicture,
  isSound,
  isWords,
  type PictureFill,
  type SoundFill,
} from '../documents/fill';
import { freshPicture } from '../documents/pictureFill';
import { type Moment, type Property, type Value, valueAt } from '../documents/property';
import type { Template } from '../documents/template';
import { type EffectDocument, resolveEffect } from '../effects/registry';
import {
  depthOf,
  type Homography,
  largestScale,
  type Matrix4,
  multiply4,
  perspective4,
  planeOf,
  project,
  scale4,
  skew4,
  translation4,
  turn4,
} from '../geometry/matrix';
import { boundsOf, corners, type Rect } from '../geometry/rect';
import type {
  ClipWindow,
  FoundPicture,
  LayerContext,
  LetterMap,
  MediaFacts,
  Node,
  Notice,
  PaintTools,
  Size,
  Words,
} from '../layers/kind';
import { layerEffects } from '../layers/layerEffects';
import { outlinePath } from '../layers/outline';
import { everyLayer, kindOf, type Layer } from '../layers/registry';
import type { TextLayer } from '../layers/text';
import { clipTime } from '../media/clipTime';
import { withinFrame } from '../paint/bounds';
import { faded, grouped, loneDrawing, needsBackdrop, within } from '../paint/compose';
import type { BlendMode, Op } from '../paint/ops';
import type { LayoutCache } from '../text/cache';
import { actualTime, type Clock, localTime, type Mark, markTime, stretches } from '../time/clock';
import { convertFrames, type Rate, secondsAt } from '../time/rate';
import { arrange } from './arrange';
import { changedLayers } from './changes';
import { controlFills, isKeyed, takesPictures, takesWords } from './controls';

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
  /** Own size of the picture in it, where there is one. */
  readonly picture?: Size;
}

/** One frame, ready to paint. */
export interface EvaluatedFrame {
  readonly ops: readonly Op[];
  readonly regions: readonly Region[];
  readonly notices: readonly Notice[];
  /** Where the letters of one text stand, when that was asked for. */
  readonly letters?: LetterMap;
}

const NO_WORDS: Words = { text: '', runs: [] };

/** What evaluation needs besides the document. */
export interface Resources {
  readonly layouts: LayoutCache;
  /** Size of a picture or clip and a clip's length, or nothing while it is missing. */
  mediaFacts(media: string): MediaFacts | undefined;
}

/**
 * One graphic at one frame shape: template, fill and time make a list of paint operations. Holds only what follows
 * from its inputs, so any frame can be asked for in any order.
 */
export class GraphicScene {
  /** What every control holds: a value, or keys. */
  readonly controls: Readonly<Record<string, ControlFill>>;
  /** The template's layers with the user's changes of its texts. */
  readonly layers: readonly Layer[];
  readonly clock: Clock;

  constructor(
    readonly template: Template,
    readonly fill: Fill,
    /** Frame units; see `layoutFrame`. */
    readonly frame: Size,
    private readonly resources: Resources,
  ) {
    this.controls = controlFills(template, fill, frame);
    this.layers = changedLayers(template.layers, fill.texts);
    const { timing } = template;
    const still: Moment = {
      clock: { in: timing.in, hold: 0, out: timing.out, pace: 1 },
      time: 0,
      controls: this.controls as Moment['controls'],
      frame,
    };
    this.clock = {
      in: timing.in,
      hold: Math.max(0, valueAt(timing.hold, still)),
      out: timing.out,
      pace: Math.min(8, Math.max(0.1, valueAt(timing.pace, still))),
    };
  }

  /** Length in frames of the template's rate, as seen. */
  get length(): number {
    return stretches(this.clock).end;
  }

  /** Whether the picture has transparent parts by design. */
  get transparent(): boolean {
    const t = this.template.transparent;
    if (typeof t === 'boolean') return t;
    const held = this.controls[t.control];
    // A control that changes over time may open the picture at any of its keys.
    return isKeyed(held) ? held.keys.some((k) => k.value === t.is) : held === t.is;
  }

  private hides(slotId: string): boolean {
    return this.fill.hidden?.includes(slotId) ?? false;
  }

  /** The picture or clip that a slot shows: the user's, the sample, or nothing; nothing of a hidden slot. */
  pictureFill(slotId: string): PictureFill | undefined {
    return this.hides(slotId) ? undefined : this.slotPicture(slotId);
  }

  /** The picture or clip that a slot holds, shown or hidden. */
  slotPicture(slotId: string): PictureFill | undefined {
    const held = this.fill.slots[slotId];
    if (held === null) return undefined;
    if (isPicture(held)) return held;
    const slot = this.template.slots.find((s) => s.id === slotId);
    if (!slot || !takesPictures(slot) || slot.sample === null) return undefined;
    const focus: PictureFill['focus'] = slot.kind === 'picture' ? slot.sampleFocus : [0.5, 0.5];
    return { ...freshPicture(`asset:${this.template.id}/${slot.sample}`), focus };
  }

  /** The sound that is heard of a slot: the user's, the sample, or nothing; nothing of a hidden slot. */
  soundFill(slotId: string): SoundFill | undefined {
    return this.hides(slotId) ? undefined : this.slotSound(slotId);
  }

  /** The sound that a slot holds, heard or hidden. */
  slotSound(slotId: string): SoundFill | undefined {
    const held = this.fill.slots[slotId];
    if (held === null) return undefined;
    if (isSound(held)) return held;
    const slot = this.template.slots.find((s) => s.id === slotId);
    if (slot?.kind !== 'sound' || slot.sample === null) return undefined;
    return { sound: `asset:${this.template.id}/${slot.sample}` };
  }

  /** Every sound of the graphic's slots, by its media id. */
  sounds(): string[] {
    return [...new Set(this.template.slots.flatMap((s) => this.soundFill(s.id)?.sound ?? []))];
  }

  /** Every picture and clip the graphic shows, by its media id. */
  media(): string[] {
    const slots = this.template.slots.filter(takesPictures);
    const ofSlots = slots.flatMap((s) => this.pictureFill(s.id)?.media ?? []);
    const ofTexts = Object.values(this.fill.texts ?? {}).flatMap(({ fill }) =>
      typeof fill === 'object' && 'media' in fill ? [fill.media.media] : [],
    );
    return [...new Set([...ofSlots, ...ofTexts])];
  }

  /** The words a text or list slot shows, with their runs; none of a hidden slot. */
  words(slotId: string): Words {
    return this.hides(slotId) ? NO_WORDS : this.slotWords(slotId);
  }

  /** The words a text or list slot holds, shown or hidden. */
  slotWords(slotId: string): Words {
    const held = this.fill.slots[slotId];
    if (held === null) return NO_WORDS;
    const slot = this.template.slots.find((s) => s.id === slotId);
    const shown = isWords(held) ? held : slot && takesWords(slot) ? slot.sample : '';
    return typeof shown === 'string' ? { text: shown, runs: [] } : shown;
  }

  /** A control's value at a time. */
  controlAt(id: string, time: number): ControlValue {
    const held = this.controls[id];
    if (held === undefined) throw new Error(`The template "${this.template.id}" has no control "${id}".`);
    return valueAt(held as Property<ControlValue>, this.momentAt(time));
  }

  /** A control's value at a local time, as keyframes count it. */
  localControl(id: string, local: number): ControlValue {
    return this.controlAt(id, actualTime(this.clock, local));
  }

  /** Local time of a frame of a reel that begins with this graphic. */
  localOf(frame: number, rate: Rate): number {
    return localTime(this.clock, convertFrames(frame, rate, this.template.rate));
  }

  /** Actual time of a local one. */
  actualOf(local: number): number {
    return actualTime(this.clock, local);
  }

  /** A text layer as the user has it, by its id. */
  textLayer(id: string): TextLayer | undefined {
    const found = [...everyLayer(this.layers)].find((l) => l.id === id);
    return found?.kind === 'text' ? found : undefined;
  }

  private momentAt(time: number): Moment {
    const { clock, controls, frame } = this;
    return { clock, time: localTime(clock, time), controls: controls as Moment['controls'], frame };
  }

  /** Any property's value at a time, as the user sees it. */
  valueAt<T extends Value>(p: Property<T>, time: number): T {
    return valueAt(p, this.momentAt(time));
  }

  /** When a slot shows: from the start of its first scene to the end of its last, in actual frames. */
  slotSpan(slotId: string): readonly [from: number, to: number] {
    const slot = this.template.slots.find((s) => s.id === slotId);
    const scenes = this.template.scenes.filter((s) => slot?.scenes.includes(s.id));
    if (scenes.length === 0) return [0, this.length];
    return [
      Math.max(0, Math.min(...scenes.map((s) => this.timeOf(s.from)))),
      Math.max(...scenes.map((s) => this.timeOf(s.to))),
    ];
  }

  /** Seconds a clip has played at a time, and seconds it has room for. */
  private playedIn(
    span: readonly [number, number],
    time: number,
    { from, freeze }: ClipWindow = {},
  ): { played: number; room: number } {
    const start = from ? this.timeOf(from) : span[0];
    const stop = freeze ? Math.min(time, this.timeOf(freeze)) : time;
    const seconds = (frames: number) => secondsAt(frames, this.template.rate);
    return { played: seconds(stop - start), room: seconds(span[1] - start) };
  }

  private found(
    held: PictureFill,
    { width, height, duration }: MediaFacts,
    { played, room }: { played: number; room: number },
  ): FoundPicture {
    const found = { ...held, width, height, id: held.media };
    return duration === undefined
      ? found
      : { ...found, at: clipTime(played, held.clip ?? {}, duration, room) };
  }

  private context(moment: Moment, time: number, notices: Map<string, Notice>): LayerContext {
    return {
      moment,
      value: <T extends Value>(p: Property<T>) => valueAt(p, moment),
      words: (slot) => this.words(slot),
      picture: (slot, window) => {
        const held = this.pictureFill(slot);
        if (!held) return undefined;
        const facts = this.resources.mediaFacts(held.media);
        if (!facts) {
          notices.set(`missing-picture/${slot}`, { kind: 'missing-picture', slot });
          return undefined;
        }
        return this.found(held, facts, this.playedIn(this.slotSpan(slot), time, window));
      },
      media: (held) => {
        const facts = this.resources.mediaFacts(held.media);
        return facts && this.found(held, facts, this.playedIn([0, this.length], time));
      },
      layouts: this.resources.layouts,
      notice: (n) => notices.set(`${n.kind}/${n.slot}`, n),
    };
  }

  /**
   * The frame at a time.
   * @param time actual frames of the template's rate from its beginning, fractional between them
   * @param lettersOf the text layer whose letters' places are wanted too
   */
  evaluate(time: number, lettersOf?: string): EvaluatedFrame {
    const moment = this.momentAt(time);
    const notices = new Map<string, Notice>();
    const context = this.context(moment, time, notices);
    const nodes = arrange(this.layers, this.frame, context);
    const pass = new PaintPass(context, lettersOf);
    const ops = withinFrame(pass.paintAll(nodes, this.view(context)), this.frame);
    return {
      ops,
      regions: pass.regions,
      notices: [...notices.values()],
      ...(pass.letters ? { letters: pass.letters } : {}),
    };
  }

  /** The camera: perspective about the middle of the frame, after the inverse of the camera's own place and turn. */
  private view({ value }: LayerContext): Matrix4 {
    const { camera } = this.template;
    const [cx, cy] = [this.frame.width / 2, this.frame.height / 2];
    const [x, y, z] = value(camera.position);
    const [tx, ty, tz] = value(camera.turn);
    const lens = perspective4(Math.max(1, value(camera.distance)), cx, cy);
    if (!x && !y && !z && !tx && !ty && !tz) return lens;
    const about = multiply4(
      translation4(cx, cy, 0),
      multiply4(turn4(-tx, -ty, -tz), translation4(-cx, -cy, 0)),
    );
    return multiply4(lens, multiply4(about, translation4(-x, -y, -z)));
  }

  /** Actual time of a mark. */
  timeOf(mark: Mark): number {
    return actualTime(this.clock, markTime(this.clock, mark));
  }
}

const NOTHING = 0.002;

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
class PaintPass {
  readonly regions: Region[] = [];
  letters: LetterMap | undefined;

  constructor(
    private readonly context: LayerContext,
    private readonly lettersOf: string | undefined,
  ) {}

  paintAll(nodes: readonly Node[], parent: Matrix4): Op[] {
    const siblings = byId(nodes);
    return shownThemselves(nodes).flatMap((n) => this.paintNode(n, parent, siblings));
  }

  private matrixOf({ layer, box }: Node, parent: Matrix4): Matrix4 {
    const { value } = this.context;
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

  private shown(layer: Layer): boolean {
    if (!layer.span) return true;
    const { clock, time } = this.context.moment;
    return time >= markTime(clock, layer.span.from) && time < markTime(clock, layer.span.to);
  }

  private paintNode(node: Node, parent: Matrix4, siblings: ReadonlyMap<string, Node>): Op[] {
    const { layer } = node as Node<Layer>;
    const { value } = this.context;
    if (!this.shown(layer)) return [];
    const opacity = value(layer.opacity);
    if (opacity <= NOTHING) return [];
    const matrix = this.matrixOf(node, parent);
    const plane = planeOf(matrix);
    const scale = largestScale(plane, node.box.width / 2, node.box.height / 2);
    const children = byId(node.children);
    const bent = node.measured.bend !== undefined;
    let letters: LetterMap['letters'] | undefined;
    const tools: PaintTools = {
      ...this.context,
      matrix,
      plane,
      scale,
      ...(bent || layer.id === this.lettersOf ? { reportLetters: (l) => (letters = l) } : {}),
      paintChild: (child) => this.paintNode(child, matrix, children),
      depth: (child) => {
        const m = this.matrixOf(child, matrix);
        return depthOf(m, child.box.width / 2, child.box.height / 2);
      },
    };
    const kind = kindOf(layer);
    const own = { ...(node as Node<Layer>), children: shownThemselves(node.children) };
    const painted = kind.paint(own, tools);
    if (letters && layer.id === this.lettersOf) this.letters = { layer: layer.id, letters };
    const straight = { x: 0, y: 0, width: node.box.width, height: node.box.height };
    // Bent words are touched where they stand, not all over the box their path lies in.
    const quad =
      bent && letters
        ? corners(boundsOf(letters.flatMap((l) => l.quad)))
        : corners(straight).map(([x, y]) => project(plane, x, y));
    const unit = unitAt(planeOf(parent), node.box);
    for (const slot of kind.slots(layer)) {
      const found = layer.kind === 'picture' ? this.context.picture(slot) : undefined;
      this.regions.push({
        slot,
        layer: layer.id,
        kind: layer.kind,
        quad,
        box: { width: node.box.width, height: node.box.height },
        unit,
        ...(found ? { picture: { width: found.width, height: found.height } } : {}),
      });
    }
    if (painted.length === 0) return [];
    const { ops: plain, blend } = liftBlend(painted, layer);
    let ops = plain;
    if (layer.mask) ops = this.masked(ops, node as Node<Layer>, tools);
    if (layer.matte) {
      const source = siblings.get(layer.matte.layer);
      const cut = source ? this.paintNode(source, parent, siblings) : [];
      ops = within(ops, cut, layer.matte.invert, layer.matte.by === 'luminance');
    }
    return this.composited(ops, layer, opacity, blend, scale);
  }

  private masked(ops: Op[], { layer, box }: Node<Layer>, { value, plane, scale }: PaintTools): Op[] {
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
    const path = outlinePath(mask.outline, area, value);
    if (feather <= 0 && !mask.invert) return [{ op: 'clip', path, plane }, ...ops, { op: 'unclip' }];
    const shape: Op = { op: 'path', path, plane, fill: { kind: 'solid', colour: '#ffffff' }, opacity: 1 };
    const effects = feather > 0 ? [{ effect: 'blur', radius: feather } as const] : [];
    return within(ops, [shape], mask.invert, false, effects);
  }

  /**
   * Applies opacity, blend and effects. Whether a layer is a whole of its own, within which its parts blend, is said by
   * the document and never by a value of the moment; a group is made only where it shows.
   */
  private composited(ops: Op[], layer: Layer, opacity: number, blend: BlendMode, scale: number): Op[] {
    const documents = wholeEffects(layer);
    const effects = documents.flatMap((e) => resolveEffect(e, this.context.value, scale) ?? []);
    if (effects.length > 0) return grouped(ops, { opacity, composite: blend, effects });
    if (blend === 'normal') {
      if (needsBackdrop(ops)) return isWhole(layer) ? grouped(ops, { opacity }) : ops;
      return faded(ops, opacity);
    }
    const lone = loneDrawing(ops);
    if (!lone) return grouped(ops, { opacity, composite: blend });
    return ops.map((op) => (op === lone ? { ...lone, opacity: lone.opacity * opacity, blend } : op));
  }
}

/** Effects of the whole layer: a text paints those itself that are limited to some of its words. */
function wholeEffects(layer: Layer): readonly EffectDocument[] {
  return layerEffects(layer).filter((e) => layer.kind !== 'text' || e.only === undefined);
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
