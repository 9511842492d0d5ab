import { type Looker, type Op, ReelScene, sameMoments } from '@fresh-reel/core';
import type { NodeStudio } from './studio';
import { createNodeSurface } from './surface';

/** Pixels of the longest side below which decoding costs no less. */
const LEAST_SIDE = 320;

/** Paints frames to be looked at; one that shows the same as the one before is not painted anew. */
export const nodeLooker = (studio: NodeStudio): Looker => ({
  async *frames(reel, { width, height }, numbers) {
    const scene = new ReelScene(reel, studio);
    // What is looked at small is decoded small: a clip may show larger than the frame.
    studio.keepClipsTo(Math.max(LEAST_SIDE, 2 * Math.max(width, height)));
    let last: { moments: readonly (readonly Op[])[]; rgba: Uint8ClampedArray } | undefined;
    for (const number of numbers) {
      const moments = scene.subFrames(number, reel.rate).map((f) => f.ops);
      if (!last || !sameMoments(last.moments, moments)) {
        await studio.framesReady(moments);
        const surface = createNodeSurface(width, height);
        studio.painter.paintMoments(moments, surface, scene.frame);
        last = { moments, rgba: surface.context.getImageData(0, 0, width, height).data };
      }
      yield last.rgba;
    }
  },
});
