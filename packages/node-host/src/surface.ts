import type { PathSink, Surface } from '@fresh-reel/core';
import { type Canvas, createCanvas, Path2D } from '@napi-rs/canvas';

/** A canvas in Node. Its context is a standard 2D context, of which the core asks for a part. */
export function createNodeSurface(width: number, height: number): Surface {
  const canvas = createCanvas(width, height);
  return { canvas, context: canvas.getContext('2d') as unknown as Surface['context'] };
}

export function createNodePath(): PathSink {
  return new Path2D();
}

/** The surface as PNG bytes, with alpha. */
export async function pngOf(surface: Surface): Promise<Buffer> {
  return (surface.canvas as unknown as Canvas).encode('png');
}
