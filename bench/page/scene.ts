import { EMPTY_FILL, newReel, ReelScene, type Template } from '@fresh-reel/core';
import type { DecodedPicture } from '../../apps/studio/src/decode/picture';
import type { BrowserStudio } from '../../apps/studio/src/engine/browserStudio';

/** A sample of a template as the page of the app decodes it; vector pictures come drawn. */
export async function samplePicture(id: string): Promise<DecodedPicture> {
  const response = await fetch(`/bench-pictures/${id}`);
  const bitmap = await createImageBitmap(await response.blob());
  return { bitmap, width: bitmap.width, height: bitmap.height };
}

/** A template as a wide reel, with its samples and fonts at hand. */
export async function sceneOf(studio: BrowserStudio, template: Template): Promise<ReelScene> {
  const reel = newReel(template, { id: 'bench', name: 'Bench', now: '', shape: 'wide', fill: EMPTY_FILL });
  const scene = new ReelScene(reel, studio);
  await studio.loadFonts(scene);
  for (const id of scene.media()) {
    if (await studio.openClip(id)) continue;
    studio.addPicture(id, await samplePicture(id));
  }
  return scene;
}
