import type { Context2D } from '../canvas/surface';
import { type Affine, type Homography, inverse, invertAffine } from '../geometry/matrix';
import { planeBounds } from '../geometry/plane';
import { boundsOf, intersection, isEmpty, type Rect } from '../geometry/rect';

/** Farthest, in pixels, that something may be drawn from its place where that spares work. */
export const TOLERANCE = 0.4;

/** The same within a tile, whose neighbour may err the other way; and in a draft. */
const WITHIN_TILE = 0.2;
const WITHIN_DRAFT = 0.5;
/** Pixels of the shorter side of a tile at least. */
const SMALLEST = 6;

/**
 * Draws what lies in a plane in perspective. A 2D canvas knows affine maps only, so the picture is cut into tiles of
 * whole pixels, so small that nobody sees the difference, and all is drawn in each of them through the affine map that
 * fits there best. No pixel is in two tiles: whatever is drawn, with whichever opacity and blend, meets what lies below
 * just once, and there are no seams.
 * @param plane from the plane to pixels of the surface
 * @param box of the plane, in which all that is drawn lies
 * @param size of the surface, in pixels
 * @param draft whether fewer tiles will do
 * @param draw draws in the plane's own coordinates, through the transform that the context has then
 */
export function drawThrough(
  context: Context2D,
  plane: Homography,
  box: Rect,
  size: { readonly width: number; readonly height: number },
  draft: boolean,
  draw: () => void,
): void {
  const back = inverse(plane);
  if (!back) return;
  const whole = { x: 0, y: 0, width: size.width, height: size.height };
  const seen = intersection(roundOut(planeBounds(plane, box)), whole);
  if (isEmpty(seen)) return;
  const within = draft ? WITHIN_DRAFT : WITHIN_TILE;
  const open = [seen];
  for (let tile = open.pop(); tile; tile = open.pop()) {
    const fit = fitOf(tile, back);
    if (fit === 'behind' || (fit.map && isEmpty(intersection(fit.holds, box)))) continue;
    const parts = fit.map && fit.error <= within ? undefined : split(tile, fit.across);
    if (parts) {
      open.push(...parts);
      continue;
    }
    if (!fit.map) continue;
    context.save();
    context.setTransform(1, 0, 0, 1, 0, 0);
    context.beginPath();
    context.rect(tile.x, tile.y, tile.width, tile.height);
    context.clip();
    context.setTransform(...fit.map);
    draw();
    context.restore();
  }
}

function roundOut({ x, y, width, height }: Rect): Rect {
  const [left, top] = [Math.floor(x) - 1, Math.floor(y) - 1];
  return { x: left, y: top, width: Math.ceil(x + width) + 1 - left, height: Math.ceil(y + height) + 1 - top };
}

interface Fit {
  /** From the plane to the picture; nothing when a part of the tile shows what is behind the camera. */
  readonly map: Affine | undefined;
  /** Pixels. */
  readonly error: number;
  /** Whether halving the tile's width helps more than halving its height. */
  readonly across: boolean;
  /** A box of the plane that holds all the tile shows. */
  readonly holds: Rect;
}

/** How well one affine map does for a tile: the least squares through its corners. */
function fitOf({ x, y, width, height }: Rect, back: Homography): Fit | 'behind' {
  let before = 0;
  const at = (u: number, v: number): readonly [number, number] => {
    const [sx, sy] = [x + u * width, y + v * height];
    const w = back[6] * sx + back[7] * sy + back[8];
    if (w > 1e-9) before++;
    return [(back[0] * sx + back[1] * sy + back[2]) / w, (back[3] * sx + back[4] * sy + back[5]) / w];
  };
  const [a, b, c, d] = [at(0, 0), at(1, 0), at(1, 1), at(0, 1)];
  if (before === 0) return 'behind';
  const across = width > height;
  if (before < 4) return { map: undefined, error: 0, across, holds: { x: 0, y: 0, width: 0, height: 0 } };
  const mean = (i: 0 | 1) => (a[i] + b[i] + c[i] + d[i]) / 4;
  const slope = (p: number, q: number, r: number, s: number, length: number) =>
    (p + q - r - s) / (2 * length);
  const [ax, ay] = [slope(b[0], c[0], a[0], d[0], width), slope(b[1], c[1], a[1], d[1], width)];
  const [bx, by] = [slope(c[0], d[0], a[0], b[0], height), slope(c[1], d[1], a[1], b[1], height)];
  const [mx, my] = [x + width / 2, y + height / 2];
  const map = invertAffine([ax, ay, bx, by, mean(0) - ax * mx - bx * my, mean(1) - ay * mx - by * my]);
  if (!map) return 'behind';
  const error = (u: number, v: number) => {
    const [px, py] = at(u, v);
    const [sx, sy] = [map[0] * px + map[2] * py + map[4], map[1] * px + map[3] * py + map[5]];
    return Math.hypot(sx - x - u * width, sy - y - v * height);
  };
  const corner = error(0, 0);
  const [middles, sides] = [Math.max(error(0.5, 0), error(0.5, 1)), Math.max(error(0, 0.5), error(1, 0.5))];
  return {
    map,
    error: Math.max(corner, middles, sides, error(0.5, 0.5)),
    across: Math.abs(middles - sides) < 0.01 ? across : middles > sides,
    holds: boundsOf([a, b, c, d]),
  };
}

/** A tile in two, at a whole pixel; nothing when it is too small for that. */
function split(tile: Rect, across: boolean): readonly Rect[] | undefined {
  const { x, y, width, height } = tile;
  if (width < 2 * SMALLEST && height < 2 * SMALLEST) return undefined;
  if (height < 2 * SMALLEST || (across && width >= 2 * SMALLEST)) {
    const half = Math.floor(width / 2);
    return [
      { ...tile, width: half },
      { ...tile, x: x + half, width: width - half },
    ];
  }
  const half = Math.floor(height / 2);
  return [
    { ...tile, height: half },
    { ...tile, y: y + half, height: height - half },
  ];
}
