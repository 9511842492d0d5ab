import type { EffectTools } from '../effects/kind';
import { applyEffect } from '../effects/registry';
import { type Affine, affineOf, type Homography, isAffine, meanScale, project } from '../geometry/matrix';
import type { Path } from '../geometry/path';
import { type Corner, corners, intersection, isEmpty, type Rect } from '../geometry/rect';
import { randomAt } from '../motion/random';
import { EMOJI_FAMILY } from '../text/fonts';
import { paintPlane } from './mesh';
import { Mipmaps } from './mipmap';
import { paintSamples } from './motionBlur';
import type { Composite, Op, Paint } from './ops';
import type { Context2D, PaintHost, PathSink, Surface } from './surface';

/** Canvas names of the composites; blend modes are the canvas's own (W3C Compositing names). */
const OPERATION: Partial<Record<Composite, string>> = {
  normal: 'source-over',
  'keep-inside': 'destination-in',
  'keep-outside': 'destination-out',
};

const operationOf = (composite: Composite): string => OPERATION[composite] ?? composite;

const NO_SHIFT = { x: 0, y: 0 };
const GRAIN_TILE = 256;
const SIZE_STEP = 64;

interface OpenGroup {
  readonly surface: Surface;
  /** Pixel offset of the group's surface in the frame. */
  readonly left: number;
  readonly top: number;
  readonly op: Extract<Op, { op: 'open' }>;
}

/**
 * Paints operation lists on 2D canvases. Holds only caches: what it paints depends on the list and the pictures alone.
 */
export class Painter {
  private readonly paths = new WeakMap<Path, PathSink>();
  private readonly free: Surface[] = [];
  private grain: { readonly key: string; readonly sheet: Surface } | undefined;
  private readonly mipmaps: Mipmaps;

  constructor(private readonly host: PaintHost) {
    this.mipmaps = new Mipmaps(host);
  }

  /**
   * Paints a frame, or the mean of several moments of it: motion blur. The surface is cleared.
   * @param moments operation lists, as `ReelScene.subFrames` gives them
   */
  paintMoments(
    moments: readonly (readonly Op[])[],
    target: Surface,
    frame: { width: number; height: number },
  ): void {
    const [only] = moments;
    if (moments.length === 1 && only) this.paint(only, target, frame);
    else paintSamples(this, this.host, moments, target, frame);
  }

  /** Paints a frame onto a surface of any size; `frame` is the frame's size in frame units. The surface is cleared. */
  paint(ops: readonly Op[], target: Surface, frame: { width: number; height: number }): void {
    const scale = target.canvas.width / frame.width;
    const base = target.context;
    base.setTransform(1, 0, 0, 1, 0, 0);
    base.clearRect(0, 0, target.canvas.width, target.canvas.height);
    this.paintOver(ops, target, scale);
  }

  /**
   * Paints on top of what is there, at `scale` pixels per frame unit.
   * @param corner pixel of the frame that lies at the surface's top left
   */
  paintOver(
    ops: readonly Op[],
    target: Surface,
    scale: number,
    corner: { readonly x: number; readonly y: number } = NO_SHIFT,
  ): void {
    const stack: OpenGroup[] = [];
    const { width, height } = target.canvas;
    const whole: Rect = { x: corner.x, y: corner.y, width, height };
    let { context } = target;
    let [left, top] = [corner.x, corner.y];
    // A group that shows nothing is skipped whole.
    let skipping = 0;
    const place = (m: Affine) =>
      context.setTransform(
        m[0] * scale,
        m[1] * scale,
        m[2] * scale,
        m[3] * scale,
        m[4] * scale - left,
        m[5] * scale - top,
      );

    for (const op of ops) {
      if (skipping > 0) {
        if (op.op === 'open') skipping++;
        else if (op.op === 'close') skipping--;
        continue;
      }
      switch (op.op) {
        case 'path': {
          place(op.matrix);
          begin(context, op.opacity, op.blend);
          const path = this.pathFor(op.path);
          if (op.fill) {
            context.fillStyle = styleOf(op.fill, context);
            context.fill(path);
          }
          if (op.stroke) {
            context.strokeStyle = styleOf(op.stroke.paint, context);
            context.lineWidth = op.stroke.width;
            context.lineJoin = op.stroke.join;
            context.lineCap = op.stroke.cap;
            context.setLineDash([...(op.stroke.dash ?? [])]);
            context.stroke(path);
          }
          break;
        }
        case 'picture': {
          const picture = this.host.picture(op.picture, op.at);
          if (!picture) break;
          begin(context, op.opacity, op.blend);
          const [kx, ky] = imageRatio(picture);
          const shown = shownScale(op, scale) / kx;
          const { image, ratio } = this.mipmaps.levelFor(picture.image as object, shown);
          if (isAffine(op.plane)) {
            place(affineOf(op.plane));
            const { source: s, target: t } = op;
            const [rx, ry] = [kx * ratio, ky * ratio];
            context.drawImage(
              image,
              s.x * rx,
              s.y * ry,
              s.width * rx,
              s.height * ry,
              t.x,
              t.y,
              t.width,
              t.height,
            );
          } else {
            paintPlane(context, image, [kx * ratio, ky * ratio], op, { scale, left, top });
          }
          break;
        }
        case 'glyph':
          place(op.matrix);
          begin(context, op.opacity, op.blend);
          context.font = `${op.size}px "${EMOJI_FAMILY}"`;
          context.textBaseline = 'alphabetic';
          context.fillText(op.text, 0, 0);
          break;
        case 'grain': {
          begin(context, op.opacity, op.blend);
          const sheet = this.grainSheet(Math.max(1, Math.round(op.size * scale)), target.canvas);
          // Whole pixels: the grain is laid, not resampled, at a place that differs from pattern to pattern.
          const shift = (n: number) => Math.floor(randomAt(op.seed, n) * GRAIN_TILE);
          context.setTransform(1, 0, 0, 1, 0, 0);
          context.drawImage(sheet.canvas, -shift(1) - left, -shift(2) - top);
          break;
        }
        case 'clip':
          context.save();
          place(op.matrix);
          context.clip(this.pathFor(op.path));
          break;
        case 'unclip':
          context.restore();
          break;
        case 'open': {
          const box = pixelBox(op.bounds, scale, whole);
          if (isEmpty(box) || op.opacity <= 0) {
            if (op.composite === 'keep-inside') {
              context.setTransform(1, 0, 0, 1, 0, 0);
              const parent = stack.at(-1)?.surface ?? target;
              context.clearRect(0, 0, parent.canvas.width, parent.canvas.height);
            }
            skipping = 1;
            break;
          }
          const surface = this.borrow(box.width, box.height);
          stack.push({ surface, left: box.x, top: box.y, op });
          ({ context } = surface);
          [left, top] = [box.x, box.y];
          break;
        }
        case 'close': {
          const group = stack.pop()!;
          let painted = group.surface;
          for (const effect of group.op.effects) painted = applyEffect(effect, painted, this.tools(scale));
          if (group.op.luminance) luminanceToAlpha(painted);
          const parent = stack.at(-1);
          ({ context } = parent?.surface ?? target);
          [left, top] = [parent?.left ?? corner.x, parent?.top ?? corner.y];
          context.setTransform(1, 0, 0, 1, 0, 0);
          context.globalAlpha = group.op.opacity;
          context.globalCompositeOperation = operationOf(group.op.composite);
          context.drawImage(painted.canvas, group.left - left, group.top - top);
          context.globalAlpha = 1;
          context.globalCompositeOperation = 'source-over';
          this.giveBack(painted);
          break;
        }
      }
    }
    context.globalAlpha = 1;
    context.globalCompositeOperation = 'source-over';
    context.setTransform(1, 0, 0, 1, 0, 0);
  }

  private tools(scale: number): EffectTools {
    return { scale, borrow: (w, h) => this.borrow(w, h), giveBack: (s) => this.giveBack(s) };
  }

  private pathFor(path: Path): PathSink {
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
  }

  /** A clear surface of exactly this size, reused where one of the size is free. */
  private borrow(width: number, height: number): Surface {
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

  private giveBack(surface: Surface): void {
    this.free.push(surface);
    if (this.free.length > 12) this.free.shift();
  }

  /** Grey noise around the middle, a tile repeated over the whole canvas and a tile more; the same on every machine. */
  private grainSheet(grain: number, size: { width: number; height: number }): Surface {
    const key = `${grain}/${size.width}/${size.height}`;
    if (this.grain?.key === key) return this.grain.sheet;
    const tile = this.host.createSurface(GRAIN_TILE, GRAIN_TILE);
    const data = tile.context.createImageData(GRAIN_TILE, GRAIN_TILE);
    for (let y = 0; y < GRAIN_TILE; y++) {
      for (let x = 0; x < GRAIN_TILE; x++) {
        // The mean of three draws is near enough to the bell curve of film grain.
        const n = Math.floor(y / grain) * GRAIN_TILE + Math.floor(x / grain);
        const v = (randomAt(n, 11) + randomAt(n, 23) + randomAt(n, 37)) / 3;
        const i = (y * GRAIN_TILE + x) * 4;
        data.data.fill(Math.round(v * 255), i, i + 3);
        data.data[i + 3] = 255;
      }
    }
    tile.context.putImageData(data, 0, 0);
    const sheet = this.host.createSurface(size.width + GRAIN_TILE, size.height + GRAIN_TILE);
    for (let y = 0; y < sheet.canvas.height; y += GRAIN_TILE) {
      for (let x = 0; x < sheet.canvas.width; x += GRAIN_TILE) sheet.context.drawImage(tile.canvas, x, y);
    }
    this.grain = { key, sheet };
    return sheet;
  }
}

function begin(context: Context2D, opacity: number, blend: Composite = 'normal'): void {
  context.globalAlpha = Math.min(1, Math.max(0, opacity));
  context.globalCompositeOperation = operationOf(blend);
}

/** Pixels a unit of a picture's own size is painted at, where it is painted largest. */
function shownScale({ plane, source, target }: Extract<Op, { op: 'picture' }>, scale: number): number {
  const perTarget = isAffine(plane) ? meanScale(affineOf(plane)) : planeScale(plane, target);
  return perTarget * scale * Math.max(target.width / source.width, target.height / source.height);
}

/** The larger of how much a plane in perspective enlarges the two diagonals of a box. */
function planeScale(plane: Homography, r: Rect): number {
  const [a, b, c, d] = corners(r);
  const across = (p: Corner, q: Corner) => {
    const [from, to] = [project(plane, ...p), project(plane, ...q)];
    return Math.hypot(to[0] - from[0], to[1] - from[1]);
  };
  const diagonal = Math.hypot(r.width, r.height);
  return Math.max(across(a, c), across(b, d)) / diagonal;
}

/** Decoded pixels per unit of the picture's own size. */
function imageRatio(picture: { image: unknown; width: number; height: number }): [number, number] {
  const { width, height } = picture.image as { width: number; height: number };
  return [width / picture.width, height / picture.height];
}

/** The whole pixels a box covers, within the frame. */
export function pixelBox(bounds: Rect, scale: number, whole: Rect): Rect {
  const x = Math.floor(bounds.x * scale) - 1;
  const y = Math.floor(bounds.y * scale) - 1;
  const right = Math.ceil((bounds.x + bounds.width) * scale) + 1;
  const bottom = Math.ceil((bounds.y + bounds.height) * scale) + 1;
  const box = intersection({ x, y, width: right - x, height: bottom - y }, whole);
  if (isEmpty(box)) return box;
  // Sizes go in steps, so that a group that grows from frame to frame finds a surface that is free already.
  const stepped = (n: number) => Math.ceil(n / SIZE_STEP) * SIZE_STEP;
  return { ...box, width: stepped(box.width), height: stepped(box.height) };
}

function styleOf(paint: Paint, context: Context2D): unknown {
  if (paint.kind === 'solid') return paint.colour;
  const gradient =
    paint.kind === 'linear'
      ? context.createLinearGradient(...paint.from, ...paint.to)
      : context.createRadialGradient(...paint.centre, 0, ...paint.centre, paint.radius);
  for (const [at, colour] of paint.stops) gradient.addColorStop(Math.min(1, Math.max(0, at)), colour);
  return gradient;
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
