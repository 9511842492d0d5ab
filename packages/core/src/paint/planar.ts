import type { Context2D, PathSink, Surface } from '../canvas/surface';
import {
  type Affine,
  affineOf,
  type Homography,
  invertAffine,
  isAffine,
  largestScale,
  multiplyAffine,
  planeInView,
  planeTimes,
  project,
} from '../geometry/matrix';
import { type Path, pathBounds } from '../geometry/path';
import { boundsThrough, flatMap, projectPath } from '../geometry/plane';
import { intersection, type Rect } from '../geometry/rect';
import { inkedBounds, signBounds } from './bounds';
import { type RoughGradients, styleOf } from './gradients';
import type { Patterns } from './materials/patterns';
import { isPlain, type Material, type Op, type StrokeStyle } from './ops';
import { drawThrough, TOLERANCE } from './tiles';

/** A surface, and where it lies: pixels per frame unit, and the pixel of the frame at its top left. */
export interface View {
  readonly surface: Surface;
  readonly scale: number;
  readonly left: number;
  readonly top: number;
}

/** A path as the host fills it. */
export type PathFor = (path: Path) => PathSink;

/** What paths are painted with. */
export interface Brush {
  readonly pathFor: PathFor;
  readonly patterns: Patterns;
  /** What lays large gradients in a draft. */
  readonly gradients: RoughGradients;
  /** Whether what costs much may be a little off. */
  readonly draft: boolean;
}

/** Farthest a line may lie from the curve it stands for, in pixels. */
const FLATNESS = 0.1;

const inPixels = (plane: Homography, { scale, left, top }: View) => planeInView(plane, scale, -left, -top);

/**
 * Draws in the coordinates of a plane, all within a box of it. Opacity and blend are the context's.
 * @param draw is told which part of the box can be seen, at most, and how it lies in the view's pixels; nothing where
 * the plane is drawn piece by piece
 */
function inPlane(
  own: Homography,
  box: Rect,
  view: View,
  draft: boolean,
  draw: (context: Context2D, seen?: { readonly map: Affine; readonly box: Rect }) => void,
): void {
  const { context, canvas } = view.surface;
  const plane = inPixels(own, view);
  const flat = flatMap(plane, box, TOLERANCE);
  if (flat) {
    context.setTransform(...flat);
    const back = invertAffine(flat);
    const whole = { x: 0, y: 0, width: canvas.width, height: canvas.height };
    draw(context, { map: flat, box: back ? intersection(box, boundsThrough(back, whole)) : box });
  } else drawThrough(context, plane, box, canvas, draft, () => draw(context));
}

const UNMOVED = [1, 0, 0, 1, 0, 0] as const;

/** Sets the context's transform for an outline within a box of its plane, and gives the outline to draw under it. */
function outlineIn({ path, plane: own }: { path: Path; plane: Homography }, box: Rect, view: View): Path {
  const plane = inPixels(own, view);
  const flat = flatMap(plane, box, TOLERANCE);
  view.surface.context.setTransform(...(flat ?? UNMOVED));
  return flat ? path : projectPath(path, plane, FLATNESS);
}

/** Fills and strokes a path through its plane. */
export function paintPath(op: Extract<Op, { op: 'path' }>, view: View, brush: Brush): void {
  const { fill, stroke } = op;
  const box = inkedBounds(op);
  if (fill && isPlain(fill) && !stroke) {
    const { context } = view.surface;
    const outline = outlineIn(op, box, view);
    context.fillStyle = fill.colour;
    context.fill(brush.pathFor(outline));
    return;
  }
  const path = brush.pathFor(op.path);
  const ofTexel = largestScale(op.plane, box.x + box.width / 2, box.y + box.height / 2) * view.scale;
  // Made once, whatever pieces the plane is drawn in: hosts copy the tile for each.
  let pattern: unknown;
  let edge: unknown;
  inPlane(op.plane, box, view, brush.draft, (context, seen) => {
    if (fill) {
      if (!(brush.draft && seen && brush.gradients.lay(fill, path, seen, context))) {
        context.fillStyle = styleOf(fill, context);
        context.fill(path);
      }
      shaded(fill.material, ofTexel, context, brush.draft, (material, shown) => {
        if (seen) brush.patterns.lay(material, shown, path, seen, context, brush.draft);
        else {
          // A piece is small: what is cut out of a picture for it costs more than a pattern. All have the same one.
          pattern ??= brush.patterns.styleOf(material, shown, context);
          context.fillStyle = pattern;
          context.fill(path);
        }
      });
    }
    if (stroke) {
      strokeWith(context, stroke);
      context.stroke(path);
      shaded(stroke.paint.material, ofTexel, context, brush.draft, (material, shown) => {
        edge ??= brush.patterns.styleOf(material, shown, context);
        context.strokeStyle = edge;
        context.stroke(path);
      });
    }
  });
}

/**
 * Lays a material's shade over what was just painted, whose alpha stays. A draft takes the nearest texels, in a third of
 * the time, and lays them on a hair of the edges' ground, too, which halves that.
 * @param scale pixels of a unit of the plane
 * @param lay is told how many pixels a texel covers
 */
function shaded(
  material: Material | undefined,
  scale: number,
  context: Context2D,
  draft: boolean,
  lay: (material: Material, shown: number) => void,
): void {
  if (!material || material.strength <= 0.004) return;
  const [a, b] = material.map;
  const opacity = context.globalAlpha;
  context.globalAlpha = opacity * material.strength;
  context.globalCompositeOperation = draft ? 'source-over' : 'source-atop';
  context.imageSmoothingEnabled = !draft;
  lay(material, Math.hypot(a, b) * scale);
  context.imageSmoothingEnabled = true;
  context.globalCompositeOperation = 'source-over';
  context.globalAlpha = opacity;
}

/** Paints every copy of an outline, one after the other. The context's opacity is that of each copy. */
export function paintCopies(op: Extract<Op, { op: 'copies' }>, view: View, brush: Brush): void {
  const { path, plane, fill, places, opacities } = op;
  const { context } = view.surface;
  const shown = brush.pathFor(path);
  const inView = inPixels(plane, view);
  const flat = isPlain(fill) && isAffine(inView) ? affineOf(inView) : undefined;
  const box = pathBounds(path);
  const { canvas } = view.surface;
  if (fill.kind === 'solid') context.fillStyle = fill.colour;
  for (let i = 0; i + 5 < places.length; i += 6) {
    const opacity = opacities?.[i / 6] ?? 1;
    if (opacity <= 0) continue;
    context.globalAlpha = Math.min(1, opacity);
    const place = [
      places[i]!,
      places[i + 1]!,
      places[i + 2]!,
      places[i + 3]!,
      places[i + 4]!,
      places[i + 5]!,
    ] as const;
    if (flat) {
      const map = multiplyAffine(flat, place);
      if (!shows(boundsThrough(map, box), canvas)) continue;
      context.setTransform(...map);
      context.fill(shown);
    } else paintPath({ op: 'path', path, plane: planeTimes(plane, place), fill, opacity: 1 }, view, brush);
  }
}

/** Whether something of a box of pixels lies on a surface, or but a pixel beside it. */
const shows = ({ x, y, width, height }: Rect, canvas: Surface['canvas']) =>
  x <= canvas.width + 1 && y <= canvas.height + 1 && x + width >= -1 && y + height >= -1;

/** Pixels by which a face is larger than it is, so that no ground shows between it and its neighbours. */
const OVERLAP = 0.5;

/** Paints faces one after the other; neighbours in the row that are of one colour as one. */
export function paintFaces({ points, colours, plane }: Extract<Op, { op: 'faces' }>, view: View): void {
  const { context } = view.surface;
  const inView = inPixels(plane, view);
  context.setTransform(...UNMOVED);
  let colour: string | undefined;
  for (let i = 0; i < colours.length; i++) {
    if (colours[i] !== colour) {
      if (colour !== undefined) context.fill();
      colour = colours[i]!;
      context.fillStyle = colour;
      context.beginPath();
    }
    const corner = (k: number) => project(inView, points[i * 8 + 2 * k]!, points[i * 8 + 2 * k + 1]!);
    const face = [corner(0), corner(1), corner(2), corner(3)] as const;
    const x = (face[0][0] + face[1][0] + face[2][0] + face[3][0]) / 4;
    const y = (face[0][1] + face[1][1] + face[2][1] + face[3][1]) / 4;
    face.forEach(([px, py], k) => {
      const far = Math.hypot(px - x, py - y) || 1;
      const grown = 1 + OVERLAP / far;
      if (k === 0) context.moveTo(x + (px - x) * grown, y + (py - y) * grown);
      else context.lineTo(x + (px - x) * grown, y + (py - y) * grown);
    });
    context.closePath();
  }
  if (colour !== undefined) context.fill();
}

/** Clips the view's context to a path through its plane. */
export function clipTo(op: Extract<Op, { op: 'clip' }>, view: View, pathFor: PathFor): void {
  const outline = outlineIn(op, pathBounds(op.path), view);
  view.surface.context.clip(pathFor(outline));
}

/** Draws a part of an image over a box of a plane. */
export function paintImage(
  image: unknown,
  source: Rect,
  target: Rect,
  plane: Homography,
  view: View,
  draft: boolean,
): void {
  inPlane(plane, target, view, draft, (context) =>
    context.drawImage(
      image,
      source.x,
      source.y,
      source.width,
      source.height,
      target.x,
      target.y,
      target.width,
      target.height,
    ),
  );
}

/** Draws a colour sign, its baseline beginning at the plane's origin. */
export function paintSign(
  { text, size, plane }: Extract<Op, { op: 'glyph' }>,
  family: string,
  view: View,
): void {
  inPlane(plane, signBounds(size), view, false, (context) => {
    context.font = `${size}px "${family}"`;
    context.textBaseline = 'alphabetic';
    context.fillText(text, 0, 0);
  });
}

function strokeWith(context: Context2D, stroke: StrokeStyle): void {
  context.strokeStyle = styleOf(stroke.paint, context);
  context.lineWidth = stroke.width;
  context.lineJoin = stroke.join;
  context.lineCap = stroke.cap;
  context.setLineDash([...(stroke.dash ?? [])]);
}
