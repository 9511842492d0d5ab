import { project } from '../geometry/matrix';
import type { Op } from './ops';
import type { Context2D } from './surface';

/** Largest error, in pixels, of a cell drawn without perspective. */
const TOLERANCE = 0.4;
const MOST_CELLS = 24;

/**
 * Paints a picture through a plane in perspective. A 2D canvas knows affine maps only, so the picture is cut into a
 * grid of triangles small enough that nobody sees the difference; each is widened by half a pixel to close the seams.
 */
export function paintPlane(
  context: Context2D,
  image: unknown,
  ratio: readonly [number, number],
  op: Extract<Op, { op: 'picture' }>,
  view: { scale: number; left: number; top: number },
): void {
  const { source: s, target: t } = op;
  const at = (u: number, v: number): [number, number] => {
    const [x, y] = project(op.plane, t.x + u * t.width, t.y + v * t.height);
    return [x * view.scale - view.left, y * view.scale - view.top];
  };
  const cells = cellsFor(at);
  for (let row = 0; row < cells; row++) {
    for (let column = 0; column < cells; column++) {
      const [u0, v0, u1, v1] = [column / cells, row / cells, (column + 1) / cells, (row + 1) / cells];
      const quad = [at(u0, v0), at(u1, v0), at(u1, v1), at(u0, v1)] as const;
      const texel = (u: number, v: number): [number, number] => [
        (s.x + u * s.width) * ratio[0],
        (s.y + v * s.height) * ratio[1],
      ];
      const texels = [texel(u0, v0), texel(u1, v0), texel(u1, v1), texel(u0, v1)] as const;
      triangle(context, image, [quad[0], quad[1], quad[2]], [texels[0], texels[1], texels[2]]);
      triangle(context, image, [quad[0], quad[2], quad[3]], [texels[0], texels[2], texels[3]]);
    }
  }
}

/** Cells per side: the middle of the plane must lie where a grid of that many would put it. */
function cellsFor(at: (u: number, v: number) => [number, number]): number {
  const [a, b, c, d, m] = [at(0, 0), at(1, 0), at(1, 1), at(0, 1), at(0.5, 0.5)];
  const error = Math.hypot((a[0] + b[0] + c[0] + d[0]) / 4 - m[0], (a[1] + b[1] + c[1] + d[1]) / 4 - m[1]);
  // The error of a cell falls with the square of the number of cells.
  return Math.min(MOST_CELLS, Math.max(2, Math.ceil(Math.sqrt(error / TOLERANCE))));
}

type Point = readonly [number, number];
type Triangle = readonly [Point, Point, Point];

function triangle(context: Context2D, image: unknown, to: Triangle, from: Triangle): void {
  const [[x0, y0], [x1, y1], [x2, y2]] = from;
  const det = (x1 - x0) * (y2 - y0) - (x2 - x0) * (y1 - y0);
  if (Math.abs(det) < 1e-9) return;
  const solve = (p0: number, p1: number, p2: number) => {
    const k = ((p1 - p0) * (y2 - y0) - (p2 - p0) * (y1 - y0)) / det;
    const l = ((p2 - p0) * (x1 - x0) - (p1 - p0) * (x2 - x0)) / det;
    return [k, l, p0 - k * x0 - l * y0] as const;
  };
  const [a, c, e] = solve(to[0][0], to[1][0], to[2][0]);
  const [b, d, f] = solve(to[0][1], to[1][1], to[2][1]);
  const [cx, cy] = [(to[0][0] + to[1][0] + to[2][0]) / 3, (to[0][1] + to[1][1] + to[2][1]) / 3];
  const wide = to.map(([x, y]): Point => {
    const length = Math.hypot(x - cx, y - cy) || 1;
    return [x + ((x - cx) / length) * 0.75, y + ((y - cy) / length) * 0.75];
  });
  context.save();
  context.setTransform(1, 0, 0, 1, 0, 0);
  context.beginPath();
  for (const [x, y] of wide) context.lineTo(x, y);
  context.closePath();
  context.clip();
  context.setTransform(a, b, c, d, e, f);
  context.drawImage(image, 0, 0);
  context.restore();
}
