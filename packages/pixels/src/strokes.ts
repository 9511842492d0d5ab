import { aligned, baseOf, growTo, type Kernel, loadKernel } from './kernel';

/** Numbers a stroke takes; see assembly/strokes.ts. */
const NUMBERS = 10;
/** Bytes of floats at once: larger pictures are made in bands. */
const BAND = 1_048_576;
/** Pixels at the end of each row of floats that the kernel takes for itself. */
const SPARE = 3;

/** Lays strokes by the thousand: straight pixels of them. One for each worker: its memory is used again. */
export class StrokeLayer {
  private constructor(private readonly kernel: Kernel) {}

  /** @param wasm the bytes of `@fresh-reel/pixels/kernel.wasm` */
  static async load(wasm: ArrayBuffer | Uint8Array): Promise<StrokeLayer> {
    return new StrokeLayer(await loadKernel(wasm));
  }

  /**
   * @param rows ten numbers a stroke: x, y and half the width at either end, in pixels; red, green, blue and alpha,
   * premultiplied, 0..255
   * @returns straight pixels in memory that the next call writes anew: copy or use them before
   */
  lay(rows: Float32Array, width: number, height: number): Uint8ClampedArray<ArrayBuffer> {
    const { kernel } = this;
    const from = baseOf(kernel);
    const sum = aligned(from + rows.byteLength);
    const band = Math.max(1, Math.min(height, Math.floor(BAND / (width * 16))));
    const to = aligned(sum + band * (width + SPARE) * 16);
    growTo(kernel, to + width * height * 4);
    new Float32Array(kernel.memory.buffer, from, rows.length).set(rows);
    const count = Math.floor(rows.length / NUMBERS);
    for (let top = 0; top < height; top += band)
      kernel.layStrokes(from, count, width, top, Math.min(band, height - top), sum, to + top * width * 4);
    return new Uint8ClampedArray(kernel.memory.buffer, to, width * height * 4);
  }
}
