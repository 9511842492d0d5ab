import { type Looker, lookerOf, type Op, ReelScene } from '@fresh-reel/core';
import type { NodeStudio } from './studio';
import { createNodeSurface } from './surface';

/** Pixels of the longest side below which decoding costs no less. */
const LEAST_SIDE = 320;

/** Paints frames to be looked at. */
export const nodeLooker = (studio: NodeStudio): Looker =>
  lookerOf((reel, { width, height }) => {
    const scene = new ReelScene(reel, studio);
    const surface = createNodeSurface(width, height);
    // What is looked at small is decoded small: a clip may show larger than the frame.
    studio.keepClipsTo(Math.max(LEAST_SIDE, 2 * Math.max(width, height)));
    const paint = async (moments: readonly (readonly Op[])[]) => {
      await studio.framesReady(moments);
      studio.painter.paintMoments(moments, surface, scene.frame);
      return surface.context.getImageData(0, 0, width, height).data;
    };
    return { scene, paint };
  });
