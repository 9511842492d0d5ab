import { LRUCache } from 'lru-cache';
import type { Context2D, PaintHost, PathSink, Surface } from '../../canvas/surface';
import { type Affine, invertAffine, multiplyAffine } from '../../geometry/matrix';
import { boundsThrough } from '../../geometry/plane';
import { type Rect, wholePixels } from '../../geometry/rect';
import type { Material } from '../ops';
import { TILE } from './grid';
import { SHADES } from './kinds';

/** Tiles kept at most: those of all materials, of a megabyte each, and what is halved of them. */
const MOST = 24;
/** Pixels of sheets kept at most, and of the largest: what needs more is filled with the pattern. */
const MOST_PIXELS = 16_000_000;
const LARGEST = 8_000_000;
/** A picture of a shade in a surface's pixels pays from so many pixels on; it grows in steps, in pixels. */
const LEAST_PIXELS = 30_000;
const SIDE_STEP = 320;
/** Pictures in which a shade has kept its size and turn before one is made of it: drawings stay for up to five. */
const SETTLED = 6;
/** All tiles are of one chance; what lies elsewhere shows another part of them. */
const SEED = 1;

/** A material's tiles at a level, and the map from their texels to a surface's pixels. */
interface Shade {
  readonly of: Material['of'];
  readonly level: number;
  readonly map: Affine;
}

/** A picture of a shade, and the pixel at which its top left is laid. */
interface Laid {
  readonly surface: Surface;
  readonly x: number;
  readonly y: number;
}

/** A shade in a surface's pixels. */
interface Still {
  /** How many pictures it has been in, and the last of them. */
  pictures: number;
  last: number;
  picture: Surface | undefined;
}

/** Tiles of materials as a host's patterns, each made once, and again at half the size for where it shows small. */
export class Patterns {
  private readonly tiles = new LRUCache<string, Surface>({ max: MOST });
  private readonly sheets = new LRUCache<string, Surface>({
    maxSize: MOST_PIXELS,
    sizeCalculation: ({ canvas }) => canvas.width * canvas.height,
  });

  private readonly stills = new LRUCache<string, Still>({
    maxSize: MOST_PIXELS,
    sizeCalculation: ({ picture }) => (picture ? picture.canvas.width * picture.canvas.height : 1),
  });
  /** Pictures begun so far. */
  private pictures = 0;

  constructor(private readonly host: Pick<PaintHost, 'createSurface'>) {}

  /** Says that another picture is begun. */
  begin(): void {
    this.pictures++;
  }

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
   * that is turned or scaled (measured in Chromium and in Node at 960x540). In a draft, a shade that keeps its size and
   * turn is a picture in the surface's own pixels, laid on the nearest whole one, in a seventh of that time.
   * @param seen all of the path that can be seen, and the map from its coordinates to the surface's pixels
   */
  lay(
    material: Material,
    shown: number,
    path: PathSink,
    seen: { readonly map: Affine; readonly box: Rect },
    context: Context2D,
    draft = false,
  ): void {
    const level = levelOf(shown);
    const shade = { of: material.of, level, map: multiplyAffine(seen.map, atLevel(material.map, level)) };
    const box = wholePixels(boundsThrough(seen.map, seen.box));
    const still = draft ? this.stillOf(shade, box) : undefined;
    context.save();
    context.clip(path);
    const laid = still ? layStill(still, context) : this.cover(shade, box, context);
    context.restore();
    if (laid) return;
    context.fillStyle = this.styleOf(material, shown, context);
    context.fill(path);
  }

  /** Lays tiles over a box of a surface's pixels, as one picture. @returns whether there is one so large */
  private cover({ of, level, map }: Shade, box: Rect, context: Context2D): boolean {
    const back = invertAffine(map);
    if (!back) return true;
    const size = TILE / 2 ** level;
    const { x, y, width, height } = boundsThrough(back, box);
    const [left, top] = [Math.floor(x / size), Math.floor(y / size)];
    const sheet = this.sheetOf(of, level, tilesAcross(width, size), tilesAcross(height, size));
    if (!sheet) return false;
    context.setTransform(...map);
    context.drawImage(sheet.canvas, left * size, top * size);
    return true;
  }

  /**
   * A picture of a shade in a surface's pixels that covers a box wherever the shade begins, and where it has to lie. It
   * is made once a shade of the same size and turn has come in several pictures: what grows or turns does not.
   */
  private stillOf(shade: Shade, box: Rect): Laid | undefined {
    const { of, level, map } = shade;
    const back = invertAffine(map);
    if (!back || box.width * box.height < LEAST_PIXELS) return undefined;
    const [a, b, c, d] = map;
    const size = TILE / 2 ** level;
    // All places where a tile may begin, before the box's first pixel.
    const begins = boundsThrough([a, b, c, d, 0, 0], { x: 0, y: 0, width: size, height: size });
    const side = (length: number, more: number) =>
      Math.ceil(length / SIDE_STEP) * SIDE_STEP + Math.ceil(more) + 2;
    const [width, height] = [side(box.width, begins.width), side(box.height, begins.height)];
    if (width * height > LARGEST) return undefined;
    const key = [of, level, ...[a, b, c, d].map((v) => v.toFixed(7))].join('/');
    const still = this.stills.get(key) ?? { pictures: 0, last: -1, picture: undefined };
    if (still.last !== this.pictures) still.pictures++;
    still.last = this.pictures;
    this.stills.set(key, still);
    if (still.pictures < SETTLED) return undefined;
    let { picture } = still;
    if (!picture || picture.canvas.width < width || picture.canvas.height < height) {
      const [wide, high] = [
        Math.max(width, picture?.canvas.width ?? 0),
        Math.max(height, picture?.canvas.height ?? 0),
      ];
      picture = this.host.createSurface(wide, high);
      const from = [a, b, c, d, -begins.x, -begins.y] as const;
      if (!this.cover({ of, level, map: from }, { x: 0, y: 0, width: wide, height: high }, picture.context))
        return undefined;
      still.picture = picture;
      // Counted anew, with what it takes up now.
      this.stills.set(key, { ...still });
    }
    // Where in a tile the box begins, in texels and in pixels.
    const tx = modulo(back[0] * box.x + back[2] * box.y + back[4], size);
    const ty = modulo(back[1] * box.x + back[3] * box.y + back[5], size);
    const [rx, ry] = [a * tx + c * ty, b * tx + d * ty];
    return {
      surface: picture,
      x: Math.round(box.x - rx + begins.x),
      y: Math.round(box.y - ry + begins.y),
    };
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

function layStill({ surface, x, y }: Laid, context: Context2D): true {
  context.setTransform(1, 0, 0, 1, 0, 0);
  context.drawImage(surface.canvas, x, y);
  return true;
}

const modulo = (value: number, size: number) => value - Math.floor(value / size) * size;

/** Tiles that cover a length wherever it begins. */
const tilesAcross = (length: number, size: number) => Math.ceil(length / size) + 1;
