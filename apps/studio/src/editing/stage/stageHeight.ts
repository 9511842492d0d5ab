import type { FrameSize } from '@fresh-reel/core';

/** Pixels that the picture is high where what is edited stands below it, in a window of some height. */
export const stageHeight = ({ width, height }: FrameSize, window: number): number =>
  width / height > 1.1 ? Math.min(240, window * 0.32) : window * 0.36;
