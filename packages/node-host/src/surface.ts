import type { PathSink, Surface } from '@fresh-reel/core';
import { createCanvas, Path2D } from '@napi-rs/canvas';
import sharp from 'sharp';

/** A canvas in Node. Its context is a standard 2D context, of which the core asks for a part. */
export function createNodeSurface(width: number, height: number): Surface {
  const canvas = createCanvas(width, height);
  return { canvas, context: canvas.getContext('2d') as unknown as Surface['context'] };
}

export function createNodePath(): PathSink {
  return new Path2D();
}

/**
 * How much is spent on making PNGs smaller, 0 to 9: past this they take twice the time for a tenth of their size
 * (measured on the built-in templates).
 */
const COMPRESSION = 4;

/** The surface as PNG bytes, with alpha. Compressed on another thread: what is painted after this does not show. */
export function pngOf({ context, canvas: { width, height } }: Surface): Promise<Buffer> {
  const { data } = context.getImageData(0, 0, width, height);
  return sharp(Buffer.from(data.buffer, data.byteOffset, data.length), {
    raw: { width, height, channels: 4 },
  })
    .png({ compressionLevel: COMPRESSION })
    .toBuffer();
}
