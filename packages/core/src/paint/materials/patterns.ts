import { LRUCache } from 'lru-cache';
import { type Affine, invertAffine } from '../../geometry/matrix';
import { boundsThrough } from '../../geometry/plane';
import type { Rect } from '../../geometry/rect';
import type { Material } from '../ops';
import type { Context2D, PaintHost, PathSink, Surface } from '../surface';
import { TILE } from './grid';
import { SHADES } from './kinds';

/** Tiles kept at most: those of all materials, of a megabyte each, and what is halved of them. */
const MOST = 24;
/** Pixels of sheets kept at most, and of the largest: what needs more is filled with the pattern. */
const MOST_PIXELS = 16_000_000;
const LARGEST = 8_000_000;
/** All tiles are of one chance; what lies elsewhere shows another part of them. */
const SEED = 1;

/** Tiles of materials as a host's patterns, each made once, and again at half the size for where it shows small. */
export class Patterns {
  private readonly tiles = new LRUCache<string, Surface>({ max: MOST });
  private readonly sheets = new LRUCache<string, Surface>({
    maxSize: MOST_PIXELS,
    sizeCalculation: ({ canvas }) => canvas.width * canvas.height,
  });

  constructor(private readonly host: Pick<PaintHost, 'createSurface'>) {}

  /**
   * The pattern of a material's shade: black and white, clear where the colour below is to stay.
   * @param shown pixels that a texel covers, where it is seen largest
   */
  styleOf({ of, map }: Material, shown: number, context: Context2D): unknown {
    const level = levelOf(shown);
    const pattern = context.createPattern(this.tileAt(of, level).canvas, 'repeat');
    const [a, b, c, d, e, f] = atLevel(map, level);
    pattern?.setTransform({ a, b, c, d, e, f });
    return pattern;
  }

  /**
   * Fills a path with a material's shade, as one picture of several tiles: hosts draw it in half the time of a pattern
   * that is turned or scaled (measured in Chromium and in Node at 960x540).
   * @param box all of the path that can be seen
   */
  lay(material: Material, shown: number, path: PathSink, box: Rect, context: Context2D): void {
    const level = levelOf(shown);
    const map = atLevel(material.map, level);
    const back = invertAffine(map);
    if (!back) return;
    const size = TILE / 2 ** level;
    const { x, y, width, height } = boundsThrough(back, box);
    const [left, top] = [Math.floor(x / size), Math.floor(y / size)];
    const sheet = this.sheetOf(material.of, level, tilesAcross(width, size), tilesAcross(height, size));
    if (!sheet) {
      context.fillStyle = this.styleOf(material, shown, context);
      context.fill(path);
      return;
    }
    context.save();
    context.clip(path);
    context.transform(...map);
    context.drawImage(sheet.canvas, left * size, top * size);
    context.restore();
  }

  /** So many tiles, or more, side by side. */
  private sheetOf(of: Material['of'], level: number, across: number, down: number): Surface | undefined {
    const key = `${of}/${level}`;
    const size = TILE / 2 ** level;
    const found = this.sheets.get(key)?.canvas;
    if (found && found.width >= across * size && found.height >= down * size) return this.sheets.get(key);
    const width = Math.max(across * size, found?.width ?? 0);
    const height = Math.max(down * size, found?.height ?? 0);
    if (width * height > LARGEST) return undefined;
    const tile = this.tileAt(of, level).canvas;
    const sheet = this.host.createSurface(width, height);
    for (let x = 0; x < width; x += size)
      for (let y = 0; y < height; y += size) sheet.context.drawImage(tile, x, y);
    this.sheets.set(key, sheet);
    return sheet;
  }

  private tileAt(of: Material['of'], level: number): Surface {
    const key = `${of}/${level}`;
    const found = this.tiles.get(key);
    if (found) return found;
    const made = level === 0 ? this.drawn(of) : this.halved(this.tileAt(of, level - 1));
    this.tiles.set(key, made);
    return made;
  }

  private drawn(of: Material['of']): Surface {
    const shade = SHADES[of](SEED);
    const surface = this.host.createSurface(TILE, TILE);
    const image = surface.context.createImageData(TILE, TILE);
    for (let i = 0; i < shade.length; i++) {
      const s = shade[i]!;
      if (s > 0) image.data.fill(255, i * 4, i * 4 + 3);
      image.data[i * 4 + 3] = Math.min(255, Math.round(Math.abs(s) * 255));
    }
    surface.context.putImageData(image, 0, 0);
    return surface;
  }

  /** The mean of every four texels. */
  private halved({ canvas }: Surface): Surface {
    const surface = this.host.createSurface(canvas.width / 2, canvas.height / 2);
    const { context } = surface;
    context.imageSmoothingEnabled = true;
    context.imageSmoothingQuality = 'medium';
    context.drawImage(canvas, 0, 0, canvas.width / 2, canvas.height / 2);
    return surface;
  }
}

/** How often a tile is halved where a texel covers so many pixels. */
const levelOf = (shown: number): number => Math.max(0, Math.min(3, Math.floor(Math.log2(1 / shown) + 0.25)));

/** The map of a tile that was halved so often. */
function atLevel([a, b, c, d, e, f]: Affine, level: number): Affine {
  const times = 2 ** level;
  return [a * times, b * times, c * times, d * times, e, f];
}

/** Tiles that cover a length wherever it begins. */
const tilesAcross = (length: number, size: number) => Math.ceil(length / size) + 1;
