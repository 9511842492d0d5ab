import { layStrokes, strokesInPixels } from '../canvas/strokes';
import {
  type Context2D,
  type PaintHost,
  type PathSink,
  type Place,
  type Surface,
  wholly,
} from '../canvas/surface';
import type { EffectTools } from '../effects/kind';
import { applyEffect, detailUnder, growthOf } from '../effects/registry';
import { planeInView } from '../geometry/matrix';
import { type Path, pathBounds } from '../geometry/path';
import { planeBounds } from '../geometry/plane';
import type { Size } from '../geometry/rect';
import { holds, intersection, isEmpty, type Rect, scaledBy } from '../geometry/rect';
import { EMOJI_FAMILY } from '../text/fonts';
import { drawingBounds, pixelBox, roomy, sourceOf } from './bounds';
import { RoughGradients } from './gradients';
import { Grain } from './grain';
import { KeptGradients, KeptPictures, movesAsOne, standsAlone } from './kept';
import { Patterns } from './materials/patterns';
import { Mipmaps } from './mipmap';
import { paintSamples } from './motionBlur';
import { type Composite, type Drawing, isPlain, type Op } from './ops';
import { seenPart, shownScale } from './pictures';
import {
  type Brush,
  clipTo,
  type PathFor,
  paintCopies,
  paintFaces,
  paintImage,
  paintPath,
  paintSign,
  type View,
} from './planar';
import { MOST_KEPT_PIXELS, Shades } from './shades';
import { Sprites } from './sprites';
import { StandingGrounds } from './standing';

/** Canvas names of the composites; blend modes are the canvas's own (W3C Compositing names). */
const OPERATION: Partial<Record<Composite, string>> = {
  normal: 'source-over',
  atop: 'source-atop',
  'keep-inside': 'destination-in',
  'keep-outside': 'destination-out',
};

const operationOf = (composite: Composite): string => OPERATION[composite] ?? composite;

/** Surfaces that are kept to be used again, at most. */
const MOST_FREE = 24;

type Open = Extract<Op, { op: 'open' }>;
type PathOp = Extract<Op, { op: 'path' }>;
type StrokesOp = Extract<Op, { op: 'strokes' }>;

/** A group that is being painted, on a surface of its own. */
interface OpenGroup {
  readonly view: View;
  /** The part of the frame whose content can be seen in the end, by itself or by what effects make of it. */
  readonly needed: Rect;
  readonly op: Open;
  /** Takes its picture, where that is kept. */
  readonly keep?: (picture: Surface) => void;
}

/**
 * Paints operation lists on 2D canvases. Holds only caches: what it paints depends on the list and the pictures alone.
 */
export class Painter {
  /** Whether what costs much and can be done without for a moment is left out. */
  draft = false;
  private readonly paths = new WeakMap<Path, PathSink>();
  private readonly free: Surface[] = [];
  private readonly grain: Grain;
  private readonly mipmaps: Mipmaps;
  private readonly sprites: Sprites;
  private readonly kept: KeptPictures;
  private readonly shades: Shades;
  private readonly gradients = new KeptGradients((surface) => this.giveBack(surface));
  private readonly grounds: StandingGrounds;
  private readonly patterns: Patterns;
  private readonly rough: RoughGradients;

  constructor(private readonly host: PaintHost) {
    this.mipmaps = new Mipmaps(host);
    this.sprites = new Sprites((width, height) => host.createSurface(width, height));
    this.grain = new Grain(host);
    this.patterns = new Patterns(host);
    this.rough = new RoughGradients(host);
    this.kept = new KeptPictures(
      (id, at) => host.picture(id, at),
      (surface) => this.giveBack(surface),
    );
    this.shades = new Shades(this, this.kept);
    this.grounds = new StandingGrounds(
      (id, at) => host.picture(id, at),
      (surface) => this.giveBack(surface),
    );
  }

  /**
   * Paints a frame, or the mean of several moments of it: motion blur. The surface is cleared.
   * @param moments operation lists, as `ReelScene.subFrames` gives them
   * @param frame in frame units
   * @param place where the surface lies, when it is not as large as the frame's picture
   */
  paintMoments(
    moments: readonly (readonly Op[])[],
    target: Surface,
    frame: Size,
    place = wholly(target, frame),
  ): void {
    const [only] = moments;
    if (moments.length === 1 && only) this.paint(only, target, frame, place);
    else paintSamples(this, this.host, moments, target, frame, place);
  }

  /** Paints a frame onto a surface of any size; `frame` is the frame's size in frame units. The surface is cleared. */
  paint(ops: readonly Op[], target: Surface, frame: Size, place = wholly(target, frame)): void {
    this.patterns.begin();
    const base = target.context;
    base.setTransform(1, 0, 0, 1, 0, 0);
    base.clearRect(0, 0, target.canvas.width, target.canvas.height);
    const ground = this.grounds.under(ops, target, place, this.draft, (below) => {
      const picture = this.borrow(target.canvas.width, target.canvas.height);
      this.paintOver(below, picture, place);
      return picture;
    });
    if (ground) {
      begin(base, 1);
      base.drawImage(ground.picture.canvas, 0, 0);
    }
    this.paintOver(ground ? ops.slice(ground.count) : ops, target, place);
  }

  /** Paints on top of what is there. */
  paintOver(ops: readonly Op[], target: Surface, { scale, x, y }: Place): void {
    const stack: OpenGroup[] = [];
    const { width, height } = target.canvas;
    const root: View = { surface: target, scale, left: x, top: y };
    const whole = scaledBy({ x, y, width, height }, 1 / scale);
    let view = root;
    /** What the clips that are open leave, in frame units; a group within one is clipped once it is laid. */
    const clips: (Rect | undefined)[] = [];
    for (let i = 0; i < ops.length; i++) {
      const op = ops[i]!;
      const { context } = view.surface;
      switch (op.op) {
        case 'clip':
          context.save();
          clipTo(op, view, this.pathFor);
          clips.push(clippedTo(planeBounds(op.plane, pathBounds(op.path)), clips.at(-1)));
          break;
        case 'unclip':
          clips.pop();
          context.restore();
          break;
        case 'open': {
          const end = closeOf(ops, i);
          if (op.draft === (this.draft ? 'without' : 'only')) {
            i = end;
            break;
          }
          const content = ops.slice(i + 1, end);
          const seen = stack.at(-1)?.needed ?? whole;
          const meet = () => begin(context, op.opacity, op.composite);
          if (this.shades.lay(op, content, view, seen, meet)) {
            i = end;
            break;
          }
          const plain = this.draft && op.draft === 'plain';
          const group = this.opened(plain ? { ...op, effects: [] } : op, content, view, seen);
          if (group === undefined || !('view' in group)) {
            // A group that shows nothing is skipped whole, and one whose picture is there is not painted again.
            if (group) this.lay(group, op, view);
            else if (op.composite === 'keep-inside') clear(view.surface);
            i = end;
            break;
          }
          view = group.view;
          stack.push(group);
          clips.push(undefined);
          break;
        }
        case 'close': {
          const group = stack.pop()!;
          clips.pop();
          const below = stack.at(-1)?.view ?? root;
          let picture = group.view.surface;
          for (const effect of group.op.effects)
            picture = applyEffect(effect, picture, this.tools(group.view, below));
          if (group.op.luminance) luminanceToAlpha(picture);
          view = below;
          this.lay({ ...group.view, surface: picture }, group.op, view);
          if (group.keep) group.keep(picture);
          else this.giveBack(picture);
          break;
        }
        default:
          this.draw(op, view, clips.at(-1));
      }
    }
    const { context } = target;
    begin(context, 1);
    context.setTransform(1, 0, 0, 1, 0, 0);
  }

  /**
   * A group to be painted, its picture where that is kept, or nothing when nothing of it can be seen. What its effects
   * blur is painted at as many pixels as show.
   */
  private opened(op: Open, content: readonly Op[], below: View, seen: Rect): OpenGroup | View | undefined {
    const scale = Math.min(below.scale, detailUnder(op.effects, this.draft));
    const needed = sourceOf(seen, op.effects.map(growthOf));
    const box = pixelBox(op.bounds, scale, scaledBy(needed, scale));
    if (isEmpty(box) || op.opacity <= 0) return undefined;
    const whole = scaledBy(op.bounds, scale);
    const moves =
      scale !== below.scale && whole.width * whole.height <= MOST_KEPT_PIXELS && movesAsOne(op, content);
    // One that may move: all of it, in the same phase wherever it is: its bounds begin on a pixel.
    const area = moves
      ? {
          ...{ x: whole.x - 1, y: whole.y - 1 },
          ...{ width: roomy(whole.width + 2), height: roomy(whole.height + 2) },
        }
      : box;
    const stands = !moves && area.width * area.height <= MOST_KEPT_PIXELS && standsAlone(op, content);
    const place = { scale, left: area.x, top: area.y };
    const way = { scale, draft: this.draft, at: moves ? undefined : box };
    const found = moves || stands ? this.kept.find(op, content, way) : undefined;
    if (found?.surface) return { surface: found.surface, ...place };
    const view = { surface: this.borrow(area.width, area.height), ...place };
    const group = { view, needed: moves ? op.bounds : needed, op };
    if (found) return { ...group, keep: (picture) => this.kept.keep(found, picture) };
    if (moves || stands) this.kept.note(op, content, way);
    return group;
  }

  /** Lays a group's picture over what is below it. */
  private lay({ surface, scale, left, top }: View, { opacity, composite }: Open, below: View): void {
    const { context } = below.surface;
    const { canvas } = surface;
    begin(context, opacity, composite);
    context.setTransform(1, 0, 0, 1, 0, 0);
    const by = below.scale / scale;
    const [x, y] = [left * by - below.left, top * by - below.top];
    if (by === 1 && Number.isInteger(x) && Number.isInteger(y)) context.drawImage(canvas, x, y);
    else {
      // What is painted small is soft: the quick filter is enough.
      context.imageSmoothingQuality = 'low';
      context.drawImage(canvas, x, y, canvas.width * by, canvas.height * by);
    }
  }

  /** One drawing. What has several parts that lie over each other is put together first, and fades and blends as one. */
  private draw(op: Drawing, view: View, clip?: Rect): void {
    const { opacity, blend } = op;
    begin(view.surface.context, opacity, blend);
    switch (op.op) {
      case 'path': {
        if (op.small && this.sprites.lay(op, view, this.pathFor)) break;
        if (this.paintKept(op, view)) break;
        const parts = (op.fill !== undefined && op.stroke !== undefined) || isShaded(op);
        if (parts) this.paintAsOne(op, view, (on) => paintPath(op, on, this.brush));
        else paintPath(op, view, this.brush);
        break;
      }
      case 'copies':
        this.paintAsOne(op, view, (on) => paintCopies(op, on, this.brush));
        break;
      case 'faces':
        this.paintAsOne(op, view, (on) => paintFaces(op, on));
        break;
      case 'strokes':
        this.layStrokes(op, view);
        break;
      case 'picture': {
        const picture = this.host.picture(op.picture, op.at);
        if (!picture) break;
        const [kx, ky] = imageRatio(picture);
        const shown = shownScale(op, view.scale) / kx;
        const { image, ratio } = this.mipmaps.levelFor(picture, shown);
        const [rx, ry] = [kx * ratio, ky * ratio];
        const part = clip ? seenPart(op, clip, 2 / view.scale) : op;
        if (!part) break;
        const { x, y, width, height } = part.source;
        const source = { x: x * rx, y: y * ry, width: width * rx, height: height * ry };
        paintImage(image, source, part.target, op.plane, view, this.draft);
        break;
      }
      case 'glyph':
        paintSign(op, EMOJI_FAMILY, view);
        break;
      case 'grain':
        // It goes through every pixel of the frame, and nobody misses it while a slow machine plays.
        if (!this.draft) this.grain.paint(op, view);
        break;
    }
  }

  /** Paints what has several parts: where it fades or blends, on a clear surface, which is then laid over the view. */
  private paintAsOne(op: Drawing, view: View, paint: (on: View) => void): void {
    if (op.opacity >= 1 && (op.blend ?? 'normal') === 'normal') {
      paint(view);
      return;
    }
    const box = boxIn(view, op);
    if (isEmpty(box)) return;
    const surface = this.borrow(box.width, box.height);
    paint({ surface, scale: view.scale, left: box.x, top: box.y });
    layWhole(surface, box, view);
    this.giveBack(surface);
  }

  /** Strokes are laid over each other in pixels of their own, and those over the view as one. */
  private layStrokes(op: StrokesOp, view: View): void {
    const { rows, colours, plane } = op;
    const box = boxIn(view, op);
    if (isEmpty(box)) return;
    const inBox = strokesInPixels(rows, colours, planeInView(plane, view.scale, -box.x, -box.y));
    const pixels = (this.host.layStrokes ?? layStrokes)(inBox, box.width, box.height);
    const surface = this.borrow(box.width, box.height);
    const image = surface.context.createImageData(box.width, box.height);
    image.data.set(pixels);
    surface.context.putImageData(image, 0, 0);
    layWhole(surface, box, view);
    this.giveBack(surface);
  }

  /** Paints a gradient or a material that stands still and fills the view from its picture. @returns whether it does */
  private paintKept(op: PathOp, view: View): boolean {
    const { fill, stroke, opacity, blend = 'normal' } = op;
    if (fill === undefined || isPlain(fill) || stroke || opacity < 1 || blend !== 'normal') return false;
    const { canvas } = view.surface;
    const seen = { x: view.left, y: view.top, width: canvas.width, height: canvas.height };
    if (!holds(boxIn(view, op), seen)) return false;
    const picture = this.gradients.pictureOf(op, view.scale, seen, () =>
      this.pictureOf(op, seen, view.scale),
    );
    if (picture) layWhole(picture, seen, view);
    return picture !== undefined;
  }

  /** A path alone, at the pixels of a box of the frame. */
  private pictureOf(op: PathOp, box: Rect, scale: number): Surface {
    const surface = this.borrow(box.width, box.height);
    paintPath(op, { surface, scale, left: box.x, top: box.y }, this.brush);
    return surface;
  }

  private get brush(): Brush {
    const { pathFor, patterns, rough: gradients, draft } = this;
    return { pathFor, patterns, gradients, draft };
  }

  /** What effects on a group work with. */
  tools({ scale, left, top, surface }: View, below: View): EffectTools {
    const { width, height } = surface.canvas;
    return {
      scale,
      draft: this.draft,
      left,
      top,
      backdrop: () => this.backdrop({ x: left, y: top, width, height }, below),
      layGrain: (on, size, seed) => {
        const area = scaledBy({ x: left, y: top, width, height }, 1 / scale);
        this.grain.paint({ op: 'grain', seed, size, area, opacity: 1 }, { surface: on, scale, left, top });
      },
      layStrokes: this.host.layStrokes ?? layStrokes,
      borrow: (w, h) => this.borrow(w, h),
      giveBack: (s) => this.giveBack(s),
    };
  }

  /** What a view shows in a box of the frame's pixels. Beyond its edges its outermost pixels go on. */
  private backdrop(box: Rect, { surface, left, top }: View): Surface {
    const { canvas } = surface;
    const [x, y] = [left - box.x, top - box.y];
    const wide = this.borrow(box.width, box.height);
    wide.context.drawImage(canvas, x, y);
    const [right, bottom] = [box.width - x - canvas.width, box.height - y - canvas.height];
    if (x > 0) wide.context.drawImage(canvas, 0, 0, 1, canvas.height, 0, y, x, canvas.height);
    if (right > 0)
      wide.context.drawImage(
        canvas,
        canvas.width - 1,
        0,
        1,
        canvas.height,
        x + canvas.width,
        y,
        right,
        canvas.height,
      );
    if (y <= 0 && bottom <= 0) return wide;
    const tall = this.borrow(box.width, box.height);
    tall.context.drawImage(wide.canvas, 0, 0);
    if (y > 0) tall.context.drawImage(wide.canvas, 0, y, box.width, 1, 0, 0, box.width, y);
    if (bottom > 0)
      tall.context.drawImage(
        wide.canvas,
        0,
        y + canvas.height - 1,
        box.width,
        1,
        0,
        y + canvas.height,
        box.width,
        bottom,
      );
    this.giveBack(wide);
    return tall;
  }

  private readonly pathFor: PathFor = (path) => {
    let made = this.paths.get(path);
    if (!made) {
      made = this.host.createPath();
      for (const c of path.commands) {
        if (c[0] === 'M') made.moveTo(c[1], c[2]);
        else if (c[0] === 'L') made.lineTo(c[1], c[2]);
        else if (c[0] === 'C') made.bezierCurveTo(c[1], c[2], c[3], c[4], c[5], c[6]);
        else made.closePath();
      }
      this.paths.set(path, made);
    }
    return made;
  };

  /** A clear surface of exactly this size, reused where one of the size is free. */
  borrow(width: number, height: number): Surface {
    const found = this.free.findIndex((s) => s.canvas.width === width && s.canvas.height === height);
    const surface = found >= 0 ? this.free.splice(found, 1)[0]! : this.host.createSurface(width, height);
    const { context } = surface;
    context.setTransform(1, 0, 0, 1, 0, 0);
    context.globalAlpha = 1;
    context.globalCompositeOperation = 'source-over';
    context.filter = 'none';
    context.clearRect(0, 0, width, height);
    return surface;
  }

  giveBack(surface: Surface): void {
    this.free.push(surface);
    if (this.free.length > MOST_FREE) this.free.shift();
  }
}

function begin(context: Context2D, opacity: number, blend: Composite = 'normal'): void {
  context.globalAlpha = Math.min(1, Math.max(0, opacity));
  context.globalCompositeOperation = operationOf(blend);
}

/** Whether a path has a material, which is laid over its colour. */
const isShaded = ({ fill, stroke }: PathOp) =>
  fill?.material !== undefined || stroke?.paint.material !== undefined;

const clippedTo = (box: Rect, clip: Rect | undefined) => (clip ? intersection(box, clip) : box);

/** The pixels of the frame that a drawing covers in a view. */
function boxIn({ surface: { canvas }, scale, left, top }: View, op: Drawing): Rect {
  const seen = { x: left, y: top, width: canvas.width, height: canvas.height };
  return pixelBox(drawingBounds(op), scale, seen);
}

/** Lays a picture of whole pixels where it belongs. */
function layWhole({ canvas }: Surface, box: Rect, { surface: { context }, left, top }: View): void {
  context.setTransform(1, 0, 0, 1, 0, 0);
  context.drawImage(canvas, box.x - left, box.y - top);
}

/** The index of the operation that closes the group which another opens. */
function closeOf(ops: readonly Op[], open: number): number {
  let depth = 0;
  for (let i = open; i < ops.length; i++) {
    if (ops[i]!.op === 'open') depth++;
    else if (ops[i]!.op === 'close' && --depth === 0) return i;
  }
  return ops.length - 1;
}

function clear({ canvas, context }: Surface): void {
  context.setTransform(1, 0, 0, 1, 0, 0);
  context.clearRect(0, 0, canvas.width, canvas.height);
}

/** Decoded pixels per unit of the picture's own size. */
function imageRatio(picture: { image: unknown; width: number; height: number }): [number, number] {
  const { width, height } = picture.image as { width: number; height: number };
  return [width / picture.width, height / picture.height];
}

/** Luminance of each pixel, weighted as in W3C Masking (`mask-type: luminance`, linear coefficients), into alpha. */
function luminanceToAlpha(surface: Surface): void {
  const { context, canvas } = surface;
  const pixels = context.getImageData(0, 0, canvas.width, canvas.height);
  const d = pixels.data;
  for (let i = 0; i < d.length; i += 4) {
    d[i + 3] = Math.round(((0.2125 * d[i]! + 0.7154 * d[i + 1]! + 0.0721 * d[i + 2]!) * d[i + 3]!) / 255);
  }
  context.putImageData(pixels, 0, 0);
}
