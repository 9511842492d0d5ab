import type { PaintHost, Surface } from '../canvas/surface';
import { intersection, isEmpty, type Rect } from '../geometry/rect';
import { randomAt } from '../motion/random';
import type { Op } from './ops';
import type { View } from './planar';

/** Pixels after which a pattern of grain repeats. */
const TILE = 256;

/** Film grain: grey noise around the middle, in whole pixels; the same on every machine. */
export class Grain {
  private kept: { readonly key: string; readonly sheet: Surface } | undefined;

  constructor(private readonly host: Pick<PaintHost, 'createSurface'>) {}

  /** Lays grain over its area; opacity and blend are the context's. */
  paint(op: Extract<Op, { op: 'grain' }>, { surface, scale, left, top }: View): void {
    const { canvas, context } = surface;
    const area = scaled(op.area, scale, left, top);
    const box = intersection(area, { x: 0, y: 0, width: canvas.width, height: canvas.height });
    if (isEmpty(box)) return;
    const sheet = this.sheet(Math.max(1, Math.round(op.size * scale)), canvas);
    // The grain is laid, not resampled, at a place that differs from pattern to pattern.
    const start = (n: number, from: number) => {
      const at = Math.floor(randomAt(op.seed, n) * TILE) + from;
      return ((at % TILE) + TILE) % TILE;
    };
    context.setTransform(1, 0, 0, 1, 0, 0);
    context.drawImage(
      sheet.canvas,
      start(1, left) + box.x,
      start(2, top) + box.y,
      box.width,
      box.height,
      box.x,
      box.y,
      box.width,
      box.height,
    );
  }

  /** A tile of noise repeated over a whole surface and a tile more. */
  private sheet(grain: number, size: { width: number; height: number }): Surface {
    const key = `${grain}/${size.width}/${size.height}`;
    if (this.kept?.key === key) return this.kept.sheet;
    const tile = this.host.createSurface(TILE, TILE);
    const data = tile.context.createImageData(TILE, TILE);
    for (let y = 0; y < TILE; y++) {
      for (let x = 0; x < TILE; x++) {
        // The mean of three draws is near enough to the bell curve of film grain.
        const n = Math.floor(y / grain) * TILE + Math.floor(x / grain);
        const v = (randomAt(n, 11) + randomAt(n, 23) + randomAt(n, 37)) / 3;
        const i = (y * TILE + x) * 4;
        data.data.fill(Math.round(v * 255), i, i + 3);
        data.data[i + 3] = 255;
      }
    }
    tile.context.putImageData(data, 0, 0);
    const sheet = this.host.createSurface(size.width + TILE, size.height + TILE);
    for (let y = 0; y < sheet.canvas.height; y += TILE) {
      for (let x = 0; x < sheet.canvas.width; x += TILE) sheet.context.drawImage(tile.canvas, x, y);
    }
    this.kept = { key, sheet };
    return sheet;
  }
}

/** A box in whole pixels of a surface. */
function scaled(box: Rect, scale: number, left: number, top: number): Rect {
  const [x, y] = [Math.round(box.x * scale) - left, Math.round(box.y * scale) - top];
  const right = Math.round((box.x + box.width) * scale) - left;
  const bottom = Math.round((box.y + box.height) * scale) - top;
  return { x, y, width: right - x, height: bottom - y };
}
