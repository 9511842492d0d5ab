import { type Reel, ReelScene, type Size } from '@fresh-reel/core';
import { decodePicture, pictureSize } from '../../decode/picture';
import { DOCUMENT_ONLY } from '../../engine/documentOnly';
import { ownFontFiles } from '../../fonts/useFamilies';
import type { Supplies, ToPainter } from './paintMessages';

/** What a worker needs to paint a reel. */
export async function suppliesOf(reel: Reel): Promise<Supplies> {
  const scene = new ReelScene(reel, DOCUMENT_ONLY);
  const sizes: [string, Size][] = [];
  for (const media of scene.media()) {
    // A picture that is missing or damaged is left out; the checks have said so before the start.
    const size = await pictureSize(media).catch(() => null);
    if (size) sizes.push([media, size]);
  }
  const families = new Set(scene.fonts().faces.map((f) => f.family));
  const fonts = await ownFontFiles(families).catch(() => []);
  return { reel, sizes, fonts };
}

/** Decodes a picture for a worker that paints, when a frame shows it. */
export async function givePicture(worker: Worker, id: string): Promise<void> {
  const picture = await decodePicture(id).catch(() => null);
  worker.postMessage({ type: 'picture', id, picture } satisfies ToPainter, picture ? [picture.bitmap] : []);
}
