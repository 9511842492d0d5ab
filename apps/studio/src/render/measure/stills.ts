import { type Reel, type Size, withoutBlur } from '@fresh-reel/core';
import { startWorker } from '../../workers/startWorker';
import { givePicture, suppliesOf } from '../workers/supplies';
import type { FromSurvey, ToSurvey } from '../workers/surveyMessages';

/**
 * Paints some frames of a reel in a worker.
 * @param frames numbers at the reel's own rate
 * @returns a picture of each, which the caller closes
 * @throws {Error} when one cannot be painted
 */
export async function stillsOf(reel: Reel, size: Size, frames: readonly number[]): Promise<ImageBitmap[]> {
  if (frames.length === 0) return [];
  const supplies = await suppliesOf(withoutBlur(reel));
  const worker = startWorker('survey');
  const pictures: ImageBitmap[] = [];
  try {
    return await new Promise((resolve, reject) => {
      worker.onerror = (event) => reject(new Error(event.message || 'Painting it stopped.'));
      worker.onmessage = ({ data }: MessageEvent<FromSurvey>) => {
        if ('needs' in data) void givePicture(worker, data.needs);
        else if (data.type === 'fault') reject(new Error(data.message));
        else if (data.type === 'still' && pictures.push(data.picture) === frames.length) resolve(pictures);
      };
      worker.postMessage({ type: 'stills', supplies, size, frames } satisfies ToSurvey);
    });
  } finally {
    worker.terminate();
  }
}
