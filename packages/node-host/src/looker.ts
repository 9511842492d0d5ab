import { type Looker, lookerOf, ReelScene } from '@fresh-reel/core';
import type { NodeStudio } from './studio';
import { createNodeSurface } from './surface';

/** Pixels of the longest side below which decoding costs no less. */
const LEAST_SIDE = 320;

/** Paints frames to be looked at. */
export const nodeLooker = (studio: NodeStudio): Looker =>
  lookerOf(
    (reel) => new ReelScene(reel, studio),
    async (moments, { width, height }, frame) => {
      // What is looked at small is decoded small: a clip may show larger than the frame.
      studio.keepClipsTo(Math.max(LEAST_SIDE, 2 * Math.max(width, height)));
      await studio.framesReady(moments);
      const surface = createNodeSurface(width, height);
      studio.painter.paintMoments(moments, surface, frame);
      return surface.context.getImageData(0, 0, width, height).data;
    },
  );
