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
