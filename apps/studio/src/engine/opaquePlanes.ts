import type { Surface } from '@fresh-reel/core';
import type { PlaneMaker } from '@fresh-reel/pixels';

/**
 * Planes of a canvas that is opaque all over. Its pixels are copied as they lie in memory, where the browser says how
 * they do: reading them as image data takes them through alpha and costs ten times as much.
 * @returns planes in memory that the next call writes anew
 */
export async function opaquePlanes(
  planes: PlaneMaker,
  canvas: OffscreenCanvas,
  { context }: Surface,
): Promise<Uint8Array> {
  const { width, height } = canvas;
  const frame = new VideoFrame(canvas, { timestamp: 0 });
  try {
    const { format } = frame;
    const bgra = format === 'BGRA' || format === 'BGRX';
    if (bgra || format === 'RGBA' || format === 'RGBX') {
      const room = planes.pixels(width, height);
      if (frame.allocationSize() === room.length) {
        await frame.copyTo(room);
        return planes.planesOfPixels(width, height, { bgra });
      }
    }
  } finally {
    frame.close();
  }
  return planes.planes(context.getImageData(0, 0, width, height).data, width, height, false);
}
