import { LRUCache } from 'lru-cache';
import type { Surface } from '../canvas/surface';
import { affineOf, isAffine, planeInView } from '../geometry/matrix';
import { pathBounds } from '../geometry/path';
import { isPlain, type Op, type Paint } from './ops';
import type { PathFor, View } from './planar';

type PathOp = Extract<Op, { op: 'path' }>;

/** Pictures kept, and pixels of one at most: what is larger is painted as it is. */
const MOST = 900;
const MOST_PIXELS = 40_000;
/** Sizes at which a path is painted, to a doubling: it is shown at most a fifth smaller than that. */
const STEPS = 4;

/** A picture of a path, and where its top left lies in the path's own units, at so many pixels a unit. */
interface Sprite {
  readonly surface: Surface;
  readonly left: number;
  readonly top: number;
  readonly scale: number;
}

/**
 * Pictures of small words that come by the hundred, frame after frame, at other places and sizes: laid from a picture a
 * word costs a tenth of what its letters do. Which picture is laid depends on the size it shows at and on nothing before.
 */
export class Sprites {
  private readonly kept = new LRUCache<string, Sprite>({ max: MOST });
  private readonly numbers = new WeakMap<object, number>();
  private numbered = 0;

  constructor(private readonly createSurface: (width: number, height: number) => Surface) {}

  /** Lays a path's picture over a view. @returns whether it does: turned, sheared and large ones are left to be painted */
  lay({ path, plane, fill }: PathOp, view: View, pathFor: PathFor): boolean {
    if (!fill || !isPlain(fill)) return false;
    const own = planeInView(plane, view.scale, -view.left, -view.top);
    if (!isAffine(own)) return false;
    const [a, b, c, d, x, y] = affineOf(own);
    if (Math.abs(b) > 1e-6 || Math.abs(c) > 1e-6 || Math.abs(a - d) > 1e-6 * a || !(a > 0)) return false;
    const scale = 2 ** (Math.ceil(Math.log2(a) * STEPS) / STEPS);
    const sprite = this.spriteOf(path, fill, scale, pathFor);
    if (!sprite) return false;
    const { context } = view.surface;
    const { canvas } = sprite.surface;
    const k = a / scale;
    context.setTransform(1, 0, 0, 1, 0, 0);
    context.imageSmoothingEnabled = true;
    context.imageSmoothingQuality = 'low';
    context.drawImage(canvas, x + sprite.left * a, y + sprite.top * a, canvas.width * k, canvas.height * k);
    return true;
  }

  private spriteOf(
    path: PathOp['path'],
    fill: Extract<Paint, { kind: 'solid' }>,
    scale: number,
    pathFor: PathFor,
  ): Sprite | undefined {
    const key = `${this.numberOf(path)}/${scale}/${fill.colour}`;
    const found = this.kept.get(key);
    if (found) return found;
    const box = pathBounds(path);
    const [width, height] = [Math.ceil(box.width * scale) + 4, Math.ceil(box.height * scale) + 4];
    if (width * height > MOST_PIXELS || !(width > 4 && height > 4)) return undefined;
    const surface = this.createSurface(width, height);
    const [left, top] = [box.x - 2 / scale, box.y - 2 / scale];
    surface.context.setTransform(scale, 0, 0, scale, -left * scale, -top * scale);
    surface.context.fillStyle = fill.colour;
    surface.context.fill(pathFor(path));
    const made = { surface, left, top, scale };
    this.kept.set(key, made);
    return made;
  }

  private numberOf(path: object): number {
    let number = this.numbers.get(path);
    if (number === undefined) {
      number = ++this.numbered;
      this.numbers.set(path, number);
    }
    return number;
  }
}
