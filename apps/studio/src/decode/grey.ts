import type { Grey } from '@fresh-reel/core';
import type { ClipSample } from './clip';

/** Draws frames at one size and reads them in shades of grey. */
export class GreyReader {
  private readonly context: OffscreenCanvasRenderingContext2D;

  constructor(width: number, height: number) {
    this.context = new OffscreenCanvas(width, height).getContext('2d', { willReadFrequently: true })!;
  }

  /** A frame in grey; it is closed then. */
  read(sample: ClipSample): Grey {
    const { width, height } = this.context.canvas;
    sample.draw(this.context, 0, 0, width, height);
    sample.close();
    const { data } = this.context.getImageData(0, 0, width, height);
    const grey = new Float32Array(width * height);
    // Luma of BT.709; which of them hardly matters, as it is the same in every frame.
    for (let i = 0, at = 0; i < grey.length; i++, at += 4)
      grey[i] = 0.2126 * data[at]! + 0.7152 * data[at + 1]! + 0.0722 * data[at + 2]!;
    return { width, height, data: grey };
  }
}
