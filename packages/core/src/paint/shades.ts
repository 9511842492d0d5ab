import type { Place, Surface } from '../canvas/surface';
import type { EffectTools } from '../effects/kind';
import { applyEffect, detailUnder } from '../effects/registry';
import { type Affine, invertAffine, multiplyAffine } from '../geometry/matrix';
import { boundsThrough } from '../geometry/plane';
import { corners, intersection, isEmpty, type Rect, scaledBy, wholePixels } from '../geometry/rect';
import { roomy } from './bounds';
import { around, largestRect } from './hole';
import type { KeptPictures } from './kept';
import type { Op } from './ops';
import type { View } from './planar';
import { type AtRest, atRest } from './rest';

type Open = Extract<Op, { op: 'open' }>;

/** What shades are painted with. */
interface Easel {
  readonly draft: boolean;
  borrow(width: number, height: number): Surface;
  giveBack(surface: Surface): void;
  paintOver(ops: readonly Op[], target: Surface, place: Place): void;
  tools(view: View, below: View): EffectTools;
}

/** Pixels of a picture that is kept, at most: as many as a small preview has. */
export const MOST_KEPT_PIXELS = 520_000;

/** Pixels of standard deviation from which a picture that is moved by parts of a pixel is as soft as it was. */
const SOFT = 1.25;

/** Shades laid from what they are at rest. */
export class Shades {
  constructor(
    private readonly easel: Easel,
    private readonly kept: KeptPictures,
  ) {}

  /**
   * Lays a shade, with the opacity and the composite that the context of the view has.
   * @param seen the part of the frame that can be seen, in frame units
   * @returns whether the group is one that has a rest, and is small and soft enough
   */
  lay(open: Open, content: readonly Op[], below: View, seen: Rect, begin: () => void): boolean {
    const rest = atRest(open, content);
    if (!rest) return false;
    const { draft } = this.easel;
    const scale = Math.min(below.scale, detailUnder(rest.open.effects, draft));
    const box = scaledBy(rest.open.bounds, scale);
    if (box.width * box.height > MOST_KEPT_PIXELS || (!draft && rest.softness * scale < SOFT)) return false;
    if (isEmpty(intersection(open.bounds, seen)) || open.opacity <= 0) return true;
    const way = { scale, draft };
    const found = this.kept.find(rest.open, rest.content, way);
    // As it was when it came first: by a hair, its picture may begin at another pixel.
    const kept = found ? { ...rest, open: found.open, content: found.content } : rest;
    if (found && !found.surface) {
      const { picture, hole } = this.painted(kept, scale, true);
      this.kept.keep(found, picture.surface, hole);
    }
    begin();
    if (found?.surface) {
      layThrough(rest, { surface: found.surface, ...cornerOf(kept, scale) }, found.hole, below);
      return true;
    }
    const { picture } = this.painted(rest, scale, false);
    layThrough(rest, picture, undefined, below);
    this.kept.note(rest.open, rest.content, way);
    this.easel.giveBack(picture.surface);
    return true;
  }

  /** Its picture, and, where that is looked for, what can be left out of it. */
  private painted(rest: AtRest, scale: number, looked: boolean) {
    const { easel } = this;
    const { open, content, cast } = rest;
    const box = scaledBy(open.bounds, scale);
    const corner = cornerOf(rest, scale);
    const view = { surface: easel.borrow(roomy(box.width + 4), roomy(box.height + 4)), ...corner };
    easel.paintOver(content, view.surface, { scale, x: corner.left, y: corner.top });
    // Behind what is full, nothing of a shadow is seen; within, nothing is where no shade falls.
    const hidden = looked && cast ? rectOf(view.surface, 255) : undefined;
    let { surface } = view;
    for (const effect of open.effects) surface = applyEffect(effect, surface, easel.tools(view, view));
    const hole = looked && !cast ? rectOf(surface, 0) : hidden;
    return { picture: { ...view, surface }, hole };
  }
}

/** Where its picture begins. */
function cornerOf({ open }: AtRest, scale: number) {
  const { x, y } = scaledBy(open.bounds, scale);
  return { scale, left: Math.floor(x) - 1, top: Math.floor(y) - 1 };
}

/** The largest rectangle of pixels with an alpha. */
function rectOf({ canvas: { width, height }, context }: Surface, alpha: number): Rect | undefined {
  const { data } = context.getImageData(0, 0, width, height);
  return largestRect(width, height, (pixel) => data[pixel * 4 + 3] === alpha);
}

/** Pixels around a hole that are painted all the same: edges are soft. */
const EDGE = 2;

/** Lays a picture through the map of its group. Parts between which nothing is seen lie apart by whole pixels. */
function layThrough(
  { map, offset: [x, y] }: AtRest,
  picture: View,
  hole: Rect | undefined,
  below: View,
): void {
  const { context, canvas } = below.surface;
  const inView = multiplyAffine([below.scale, 0, 0, below.scale, -below.left, -below.top], map);
  const { left, top, scale, surface } = picture;
  const { width, height } = surface.canvas;
  const source = { x: left / scale, y: top / scale, width: width / scale, height: height / scale };
  const [a, b, c, d, e, f] = inView;
  const laid: Affine = [a, b, c, d, e + x * below.scale, f + y * below.scale];
  const draw = () => {
    context.setTransform(...laid);
    context.imageSmoothingQuality = 'low';
    context.drawImage(surface.canvas, source.x, source.y, source.width, source.height);
  };
  const gap = hole && gapOf(scaledBy({ ...hole, x: hole.x + left, y: hole.y + top }, 1 / scale), inView);
  if (!gap) {
    draw();
    return;
  }
  const whole = intersection(wholePixels(boundsThrough(laid, source)), {
    ...{ x: 0, y: 0, width: canvas.width, height: canvas.height },
  });
  for (const part of around(whole, gap)) {
    context.save();
    context.setTransform(1, 0, 0, 1, 0, 0);
    context.beginPath();
    context.rect(part.x, part.y, part.width, part.height);
    context.clip();
    draw();
    context.restore();
  }
}

const through = ([a, b, c, d, e, f]: Affine, x: number, y: number): [number, number] => [
  a * x + c * y + e,
  b * x + d * y + f,
];

/** Whole pixels of a view that lie in a rectangle seen through a map, where it leans so little that they are many. */
function gapOf(hole: Rect, map: Affine): Rect | undefined {
  const points = corners(hole).map(([x, y]) => through(map, x, y));
  // Between the two middle ones each way: most of it, if it lies nearly upright.
  const between = (i: 0 | 1) => {
    const [, low = 0, high = 0] = points.map((point) => point[i]).sort((p, q) => p - q);
    return [Math.ceil(low) + EDGE, Math.floor(high) - EDGE] as const;
  };
  const [[left, right], [top, bottom]] = [between(0), between(1)];
  const gap = { x: left, y: top, width: right - left, height: bottom - top };
  const back = invertAffine(map);
  if (isEmpty(gap) || !back) return undefined;
  const inside = corners(gap).every(([x, y]) => {
    const [u, v] = through(back, x, y);
    return u >= hole.x && v >= hole.y && u <= hole.x + hole.width && v <= hole.y + hole.height;
  });
  return inside ? gap : undefined;
}
