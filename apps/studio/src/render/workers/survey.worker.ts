import '../../workers/alive';
import {
  hearReel,
  type Looker,
  lookAtWords,
  lookerOf,
  lookForFlashes,
  messageOf,
  type Op,
} from '@fresh-reel/core';
import { openSounds } from '../../decode/soundReader';
import { surfaceOf } from '../../engine/browserStudio';
import { askForPicture, pictureGiven, SuppliedStudio } from './suppliedStudio';
import type { FromSurvey, ToSurvey } from './surveyMessages';

const tell = (message: FromSurvey) => postMessage(message);

/** Frames between one word of how far it is and the next. */
const TOLD_EACH = 15;

/** Looks at a reel and listens to it, as it will be rendered: what takes little time first. */
async function survey({ supplies }: Extract<ToSurvey, { type: 'start' }>): Promise<void> {
  const { reel } = supplies;
  const studio = await SuppliedStudio.start(supplies, LONGEST_SIDE, askForPicture);
  const scene = studio.sceneOf(reel);
  const sounds = await openSounds([...scene.sounds(), ...scene.media()]);
  const heard = await hearReel(scene, (media) => sounds.get(media));
  for (const sound of sounds.values()) sound.close();
  tell({ type: 'heard', heard });
  const looker = workerLooker(studio);
  tell({ type: 'words', checks: await lookAtWords(scene, looker) });
  const count = scene.frameCount(reel.rate);
  const flashes = await lookForFlashes(scene, looker, (looked) => {
    if (looked % TOLD_EACH === 0) tell({ type: 'looked', part: looked / count });
  });
  tell({ type: 'done', checks: flashes });
}

/** Of the pictures that words are looked at in. */
const LONGEST_SIDE = 1440;

/** Paints frames to be looked at. */
const workerLooker = (studio: SuppliedStudio): Looker =>
  lookerOf((reel, { width, height }) => {
    const scene = studio.sceneOf(reel);
    const surface = surfaceOf(new OffscreenCanvas(width, height));
    const paint = async (moments: readonly (readonly Op[])[]) => {
      await studio.paint(moments, surface, scene.frame);
      return surface.context.getImageData(0, 0, width, height).data;
    };
    return { scene, paint };
  });

/** Paints some frames, each told as soon as it is there. */
async function stills({ supplies, size, frames }: Extract<ToSurvey, { type: 'stills' }>): Promise<void> {
  const studio = await SuppliedStudio.start(supplies, Math.max(size.width, size.height), askForPicture);
  for await (const rgba of workerLooker(studio).frames(supplies.reel, size, frames)) {
    const picture = await createImageBitmap(
      new ImageData(new Uint8ClampedArray(rgba), size.width, size.height),
    );
    postMessage({ type: 'still', picture } satisfies FromSurvey, { transfer: [picture] });
  }
}

self.onmessage = ({ data }: MessageEvent<ToSurvey>) => {
  if (data.type === 'picture') return pictureGiven(data.id, data.picture);
  const work = data.type === 'stills' ? stills(data) : survey(data);
  work.catch((error: unknown) => tell({ type: 'fault', message: messageOf(error) }));
};
