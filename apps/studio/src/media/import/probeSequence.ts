import { secondsAt } from '@fresh-reel/core';
import type { Frames } from '../../decode/sequence';
import { type MediaFactsFound, SEQUENCE_TYPE } from '../../storage/media';
import { hasAlpha } from './alpha';
import { MediaError } from './mediaError';

/**
 * Looks at every picture of a sequence: that it can be read, and is as large as the first.
 * @param show gets the picture that stands for all, for the shelf
 * @throws {MediaError} naming the picture that is at fault
 */
export async function probeSequence(
  name: string,
  frames: Frames,
  show: (bitmap: ImageBitmap) => Promise<void>,
  onLooked?: (part: number) => void,
): Promise<MediaFactsFound> {
  const count = frames.names.length;
  let facts: MediaFactsFound | undefined;
  for (let i = 0; i < count; i++) {
    const bitmap = await frames
      .read(i)
      .then((blob) => createImageBitmap(blob))
      .catch(() => {
        throw new MediaError(
          `"${frames.names[i]}" of "${name}" is damaged or no picture. Export that one again, and add them all once more.`,
        );
      });
    const { width, height } = bitmap;
    facts ??= {
      kind: 'clip',
      name,
      type: SEQUENCE_TYPE,
      width,
      height,
      alpha: hasAlpha(bitmap),
      duration: secondsAt(count, frames.rate),
      rate: frames.rate.num / frames.rate.den,
      codec: 'numbered pictures',
      sound: false,
    };
    if (width !== facts.width || height !== facts.height) {
      bitmap.close();
      throw new MediaError(
        `"${frames.names[i]}" is ${width} × ${height} pixels and "${frames.names[0]}" ${facts.width} × ${facts.height}. The pictures of one clip have one size: export them alike, and add them all once more.`,
      );
    }
    if (i === Math.floor(count * 0.2)) await show(bitmap);
    bitmap.close();
    onLooked?.((i + 1) / count);
  }
  return facts!;
}
