import { aligned, baseOf, growTo, type Kernel, loadKernel } from './kernel';

/** Colours of the planes that are made here: what editing programs take video for when nothing else is said. */
export const VIDEO_COLOURS = {
  primaries: 'bt709',
  transfer: 'bt709',
  matrix: 'bt709',
  fullRange: false,
} as const;

/** Bytes of one frame in the layout of WebCodecs' `I420` (Y, U, V) or `I420A` (Y, U, V, A). */
export function planesSize(width: number, height: number, alpha: boolean): number {
  return width * height * 1.5 + (alpha ? width * height : 0);
}

/** Black of BT.709 in limited range, in 8 bits: luma and chroma. */
const BLACK = { luma: 16, chroma: 128 };

interface Area extends Sides {
  readonly x: number;
  readonly y: number;
}

interface Sides {
  readonly width: number;
  readonly height: number;
}

/** Planes `I420` of a frame that is black but for a part of it. */
export class BlackFrame {
  private readonly planes: Uint8Array;
  /** Where it is not black. */
  private last: Area | undefined;

  /** @param size even */
  constructor(private readonly size: Sides) {
    this.planes = new Uint8Array(planesSize(size.width, size.height, false));
  }

  /**
   * @param part planes `I420` of the area
   * @param area whole pixels within the frame, of even place and sides
   * @returns planes of the frame, in memory that the next call writes anew
   */
  with(part: Uint8Array, area: Area): Uint8Array {
    const { planes, size, last } = this;
    const sides = ['x', 'y', 'width', 'height'] as const;
    if (!last || sides.some((side) => last[side] !== area[side])) {
      planes.fill(BLACK.luma, 0, size.width * size.height);
      planes.fill(BLACK.chroma, size.width * size.height);
      this.last = area;
    }
    let [from, to] = [0, 0];
    // Luma, and twice a plane of a quarter as many samples.
    for (const by of [1, 2, 2]) {
      const [wide, high, whole] = [area.width / by, area.height / by, size.width / by];
      for (let row = 0; row < high; row++) {
        const at = to + (area.y / by + row) * whole + area.x / by;
        planes.set(part.subarray(from + row * wide, from + (row + 1) * wide), at);
      }
      from += wide * high;
      to += whole * (size.height / by);
    }
    return planes;
  }
}

const SQUARE = 16;

/**
 * Pixels into the planes that video encoders take: BT.709, limited range, 4:2:0, with straight alpha where it is kept.
 * One for each worker: its memory is used again for each frame.
 */
export class PlaneMaker {
  private readonly base: number;

  private constructor(private readonly kernel: Kernel) {
    this.base = baseOf(kernel);
  }

  /** @param wasm the bytes of `@fresh-reel/pixels/kernel.wasm` */
  static async load(wasm: ArrayBuffer | Uint8Array): Promise<PlaneMaker> {
    return new PlaneMaker(await loadKernel(wasm));
  }

  /**
   * @param rgba straight pixels, as `getImageData` gives them; alpha is left out of account unless it is kept
   * @param width even
   * @param height even
   * @returns planes in memory that the next call writes anew: copy or use them before
   * @throws {RangeError} when a side is odd, or the pixels are not that many
   */
  planes(rgba: Uint8ClampedArray | Uint8Array, width: number, height: number, alpha: boolean): Uint8Array {
    const room = this.pixels(width, height);
    if (rgba.length !== room.length) {
      throw new RangeError(
        `A frame of ${width}x${height} has ${room.length} bytes of pixels, not ${rgba.length}.`,
      );
    }
    room.set(rgba);
    return this.planesOfPixels(width, height, { alpha });
  }

  /**
   * Memory for the pixels of a frame, to be filled for {@link planesOfPixels}.
   * @throws {RangeError} when a side is odd
   */
  pixels(width: number, height: number): Uint8Array<ArrayBuffer> {
    if (width % 2 !== 0 || height % 2 !== 0 || width <= 0 || height <= 0) {
      throw new RangeError(`Video frames have even sides, not ${width}x${height}.`);
    }
    const { means, squares } = this.places(width, height);
    growTo(this.kernel, means + squares * 4);
    return new Uint8Array(this.kernel.memory.buffer, this.base, width * height * 4);
  }

  /** Planes of what {@link pixels} was filled with, in memory that the next call writes anew. */
  planesOfPixels(
    width: number,
    height: number,
    { alpha = false, bgra = false }: { readonly alpha?: boolean; readonly bgra?: boolean } = {},
  ): Uint8Array {
    const { to, means } = this.places(width, height);
    if (alpha) {
      this.kernel.takeAlpha(this.base, width * height, to + width * height * 1.5);
      this.kernel.spreadColours(this.base, width, height, means);
    }
    this.kernel.toI420(this.base, width, height, to, bgra);
    return new Uint8Array(this.kernel.memory.buffer, to, planesSize(width, height, alpha));
  }

  /** Where planes and the colours of squares lie, behind the pixels. */
  private places(width: number, height: number): { to: number; means: number; squares: number } {
    const to = this.base + width * height * 4;
    return {
      to,
      means: aligned(to + planesSize(width, height, true)),
      squares: Math.ceil(width / SQUARE) * Math.ceil(height / SQUARE),
    };
  }
}
