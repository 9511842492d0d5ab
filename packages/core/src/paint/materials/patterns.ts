import { LRUCache } from 'lru-cache';
import type { Affine } from '../../geometry/matrix';
import type { Material } from '../ops';
import type { Context2D, PaintHost, Surface } from '../surface';
import { TILE } from './grid';
import { SHADES } from './kinds';

/** Tiles kept at most: those of all materials, of a megabyte each, and what is halved of them. */
const MOST = 24;
/** All tiles are of one chance; what lies elsewhere shows another part of them. */
const SEED = 1;

/** Tiles of materials as a host's patterns, each made once, and again at half the size for where it shows small. */
export class Patterns {
  private readonly tiles = new LRUCache<string, Surface>({ max: MOST });

  constructor(private readonly host: Pick<PaintHost, 'createSurface'>) {}

  /**
   * The pattern of a material's shade: black and white, clear where the colour below is to stay.
   * @param shown pixels that a texel covers, where it is seen largest
   */
  styleOf({ of, map }: Material, shown: number, context: Context2D): unknown {
    const level = Math.max(0, Math.min(3, Math.floor(Math.log2(1 / shown) + 0.25)));
    const pattern = context.createPattern(this.tileAt(of, level).canvas, 'repeat');
    const times = 2 ** level;
    const [a, b, c, d, e, f]: Affine = map;
    pattern?.setTransform({ a: a * times, b: b * times, c: c * times, d: d * times, e, f });
    return pattern;
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
